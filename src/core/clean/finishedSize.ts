import { eachBorderPixel } from '../raster/eachBorderPixel.ts';
import { isOpaque, type Art } from '../raster/art.ts';
import { labelRegions } from '../raster/labelRegions.ts';
import { wordsOf } from '../raster/raster.ts';
import type { FinishedSize } from '../units/finishedSize.ts';
import { pxPerMm, type PxPerMm } from '../units/length.ts';

/**
 * Colours that differ from the ground around the art by no more than this in any channel are ground, of 255: paper, its grain, and what compression leaves
 * beside edges.
 */
const GROUND_LEVELS = 32;
/** The border of a picture has a ground when this share of it is alike. */
const GROUND_SHARE = 0.6;
/** Where specks are left out, what is left tells the size, which tells what a speck is: this often, then it stands. */
const ROUNDS = 6;

/**
 * Resolution of the art once it is brought to its finished size, in art pixels per mm: by the box around its ink, which is what is there, or on a plain ground
 * what differs from it. An art that is all ground, or fills its frame, is measured by the frame. The same scale holds for steps of the recipe and for the
 * pieces that are cut.
 * @param finished of what is cut, without a border around it.
 * @param leastMm2 bits of ink smaller than this do not count: they are left out.
 */
export function artResolution(art: Art, finished: FinishedSize, leastMm2 = 0): PxPerMm {
  const { width, height } = art;
  const ink = inkOf(art);
  const regions = labelRegions(ink, width, height, 1, true);
  const direction = directionOf(finished);
  const spans = new Float64Array(regions.count * 2);
  for (let k = 0; k < regions.count; k++) spans.set([Infinity, -Infinity], 2 * k);
  for (let run = 0; run < regions.runStart.length; run++) {
    const k = 2 * regions.regionOfRun[run];
    const y = Math.floor(regions.runStart[run] / width);
    for (const x of [regions.runStart[run] - y * width, regions.runEnd[run] - y * width]) {
      for (const row of [y, y + 1]) {
        const at = x * direction.x + row * direction.y;
        if (at < spans[k]) spans[k] = at;
        if (at > spans[k + 1]) spans[k + 1] = at;
      }
    }
  }
  const extent = (leastPx2: number): number => {
    let low = Infinity;
    let high = -Infinity;
    for (let k = 0; k < regions.count; k++) {
      if (regions.area[k] < leastPx2) continue;
      low = Math.min(low, spans[2 * k]);
      high = Math.max(high, spans[2 * k + 1]);
    }
    return high > low ? high - low : Math.abs(width * direction.x) + Math.abs(height * direction.y);
  };
  let resolution = extent(0) / finished.sizeMm;
  for (let round = 0; leastMm2 > 0 && round < ROUNDS; round++) {
    const next = extent(leastMm2 * resolution ** 2) / finished.sizeMm;
    if (next === resolution) break;
    resolution = next;
  }
  return pxPerMm(resolution);
}

/** Along which direction of the art its chosen side is measured. */
function directionOf({ by, turnDeg }: FinishedSize): { x: number; y: number } {
  const turn = (turnDeg * Math.PI) / 180;
  const rounded = (value: number): number => (Math.abs(value) < 1e-12 ? 0 : value);
  return by === 'width' ? { x: rounded(Math.cos(turn)), y: rounded(-Math.sin(turn)) } : { x: rounded(Math.sin(turn)), y: rounded(Math.cos(turn)) };
}

/** 1 for each pixel of the art that is ink: at least half there, and where nothing is clear unlike the ground that lies around it. */
function inkOf(art: Art): Uint8Array {
  const { alpha, width, height, colour } = art;
  const ink = new Uint8Array(alpha.length);
  for (let i = 0; i < ink.length; i++) ink[i] = alpha[i] >= 128 ? 1 : 0;
  if (!isOpaque(alpha)) return ink;
  const ground = groundColour(art);
  if (ground === undefined) return ink;
  const words = wordsOf(colour);
  let any = false;
  for (let i = 0; i < width * height; i++) {
    const isInk = unlike(words[i], ground) > GROUND_LEVELS;
    ink[i] = isInk ? 1 : 0;
    any ||= isInk;
  }
  return any ? ink : ink.fill(1);
}

/** The colour of most of the border, as a word of red, green and blue; undefined when the border has none. */
function groundColour({ width, height, colour }: Art): number | undefined {
  const words = wordsOf(colour);
  const channels: [number[], number[], number[]] = [[], [], []];
  eachBorderPixel(width, height, (i) => channels.forEach((channel, c) => channel.push((words[i] >> (8 * c)) & 255)));
  const [r, g, b] = channels.map((channel) => channel.sort((p, q) => p - q)[channel.length >> 1]);
  const ground = r | (g << 8) | (b << 16);
  let like = 0;
  eachBorderPixel(width, height, (i) => {
    if (unlike(words[i], ground) <= GROUND_LEVELS) like++;
  });
  return like >= GROUND_SHARE * channels[0].length ? ground : undefined;
}

/** Largest difference of two colours in one channel. */
function unlike(a: number, b: number): number {
  return Math.max(Math.abs((a & 255) - (b & 255)), Math.abs(((a >> 8) & 255) - ((b >> 8) & 255)), Math.abs(((a >> 16) & 255) - ((b >> 16) & 255)));
}
