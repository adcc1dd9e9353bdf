import type { Rgb } from '../colour/oklab.ts';
import { isOpaque, withAlpha, type Art } from '../raster/art.ts';
import { fillRegions, labelRegions, type Regions } from '../raster/labelRegions.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import { toneLabels } from './settling/toneLabels.ts';
import { spareRegions, type Find, type Places } from './finds.ts';
import { sweepSpecks, type SweepResult } from './sweepSpecks.ts';

/** How far around a speck the colour is read that takes its place, px. */
const AROUND = 3;
const MOST_TONES = 32;

/**
 * Sweeps art in which nothing is clear yet: connected bits of one tone smaller than `areaPx2` take the tone that surrounds them, in the colour it has
 * there, and the mixed pixels of their rim with them. All else keeps its own colours.
 */
export function* sweepTones(art: Art, areaPx2: number, spared: Places = []): Task<{ art: Art; specks: number; finds: readonly Find[] }> {
  const { width, height } = art;
  const { labels, tones } = yield* within(toneLabels(art, 'auto', 'all'), 0, 0.8);
  const regions = labelRegions(labels, width, height, 'each', true);
  const chosen = Uint8Array.from(regions.area, (area) => (area < areaPx2 ? 1 : 0));
  sparesEdges(regions, chosen, labels, width, height);
  sparesDots(regions, chosen, width, height, areaPx2);
  const finds = spareRegions(regions, chosen, width, 'speck', spared);
  const small = smallRegions(regions, labels.length, chosen);
  yield 0.9;
  if (small.count === 0) return { art, specks: 0, finds };
  const tone = surroundingTones(regions, small, labels, width, height);
  const colour = new Uint8Array(art.colour.data);
  const room = (2 * AROUND + 1) ** 2;
  const covering: Covering = { art, labels, speck: small.is, out: colour, near: new Int32Array(room), sorted: new Uint8Array(room) };
  eachPixel(regions, small.number, width, (x, y, k) => {
    if (tone[k] >= 0) coverPixel(covering, x, y, tone[k], tones[tone[k]]);
  });
  return { art: withAlpha(art, art.alpha, makeRgba8(width, height, colour, art.colour.opaque === true)), specks: small.count, finds };
}

interface SmallRegions {
  readonly count: number;
  /** Number of each region among the small ones, −1 for the others. */
  readonly number: Int32Array;
  /** 1 for each pixel of a small region. */
  readonly is: Uint8Array;
}

function smallRegions({ count, runStart, runEnd, regionOfRun }: Regions, pixels: number, chosen: Uint8Array): SmallRegions {
  const number = new Int32Array(count).fill(-1);
  let found = 0;
  for (let k = 0; k < count; k++) if (chosen[k] !== 0) number[k] = found++;
  const is = new Uint8Array(pixels);
  for (let run = 0; run < runStart.length; run++) if (number[regionOfRun[run]] >= 0) is.fill(1, runStart[run], runEnd[run]);
  return { count: found, number, is };
}

/** Visits every pixel of the small regions with its region's number. */
function eachPixel({ runStart, runEnd, regionOfRun }: Regions, number: Int32Array, width: number, visit: (x: number, y: number, k: number) => void): void {
  for (let run = 0; run < runStart.length; run++) {
    const k = number[regionOfRun[run]];
    if (k < 0) continue;
    const y = Math.floor(runStart[run] / width);
    for (let i = runStart[run]; i < runEnd[run]; i++) visit(i - y * width, y, k);
  }
}

/** Takes out of the chosen what lies between several tones that stay: a bit of an edge is no speck. */
function sparesEdges(regions: Regions, chosen: Uint8Array, labels: Uint8Array, width: number, height: number): void {
  const small = smallRegions(regions, labels.length, chosen);
  const around = new Int32Array(small.count);
  eachPixel(regions, small.number, width, (x, y, k) => {
    for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
      for (let xx = Math.max(0, x - 1), j = yy * width + xx; xx <= Math.min(width - 1, x + 1); xx++, j++) if (small.is[j] === 0) around[k] |= 1 << labels[j];
    }
  });
  for (let k = 0; k < regions.count; k++) if (small.number[k] >= 0 && (around[small.number[k]] & (around[small.number[k]] - 1)) !== 0) chosen[k] = 0;
}

/** Takes out of the chosen those that touch each other and are together as large as what stays: a dot that compression has given several tones is one dot. */
function sparesDots(regions: Regions, chosen: Uint8Array, width: number, height: number, areaPx2: number): void {
  const together = labelRegions(fillRegions(regions, chosen, new Uint8Array(width * height)), width, height, 1, true);
  const stays = fillRegions(
    together,
    Uint8Array.from(together.area, (area) => (area >= areaPx2 ? 1 : 0)),
    new Uint8Array(width * height),
  );
  for (let run = 0; run < regions.runStart.length; run++) if (stays[regions.runStart[run]] !== 0) chosen[regions.regionOfRun[run]] = 0;
}

/** For each small region the tone that most of its neighbours outside small regions have; −1 when there are none. */
function surroundingTones(regions: Regions, small: SmallRegions, labels: Uint8Array, width: number, height: number): Int8Array {
  const votes = new Uint16Array(small.count * MOST_TONES);
  eachPixel(regions, small.number, width, (x, y, k) => {
    for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
      for (let xx = Math.max(0, x - 1), j = yy * width + xx; xx <= Math.min(width - 1, x + 1); xx++, j++)
        if (small.is[j] === 0) votes[k * MOST_TONES + labels[j]]++;
    }
  });
  const tone = new Int8Array(small.count).fill(-1);
  for (let k = 0; k < small.count; k++) {
    let most = 0;
    for (let t = 0; t < MOST_TONES; t++) {
      if (votes[k * MOST_TONES + t] <= most) continue;
      most = votes[k * MOST_TONES + t];
      tone[k] = t;
    }
  }
  return tone;
}

interface Covering {
  readonly art: Art;
  readonly labels: Uint8Array;
  /** 1 for each pixel of a speck. */
  readonly speck: Uint8Array;
  readonly out: Uint8Array;
  /** Room for the pixels around one, and for their values in one channel. */
  readonly near: Int32Array;
  readonly sorted: Uint8Array;
}

/** Gives a pixel of a speck, and the neighbours that are mixtures of it with the surrounding tone, the colour of that tone nearby. */
function coverPixel({ art, labels, speck, out, near, sorted }: Covering, x: number, y: number, tone: number, otherwise: Rgb): void {
  const { width, height } = art;
  const count = collectNear(labels, speck, width, height, x, y, tone, near);
  const rgb = art.colour.data;
  const r = count < 3 ? otherwise.r : middle(rgb, near, count, 0, sorted);
  const g = count < 3 ? otherwise.g : middle(rgb, near, count, 1, sorted);
  const b = count < 3 ? otherwise.b : middle(rgb, near, count, 2, sorted);
  for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
    for (let xx = Math.max(0, x - 1), j = yy * width + xx; xx <= Math.min(width - 1, x + 1); xx++, j++) {
      if (speck[j] !== 0 ? xx !== x || yy !== y : labels[j] !== tone || isAtEdge(labels, speck, width, height, xx, yy)) continue;
      out[j * 4] = r;
      out[j * 4 + 1] = g;
      out[j * 4 + 2] = b;
    }
  }
}

/** Whether a pixel lies beside another tone that stays: then it is a mixture with that one. */
function isAtEdge(labels: Uint8Array, speck: Uint8Array, width: number, height: number, x: number, y: number): boolean {
  const own = labels[y * width + x];
  for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
    for (let xx = Math.max(0, x - 1), j = yy * width + xx; xx <= Math.min(width - 1, x + 1); xx++, j++) if (speck[j] === 0 && labels[j] !== own) return true;
  }
  return false;
}

/** Collects the pixels of a tone around a place, but for those next to it and those of specks; gives how many. */
function collectNear(labels: Uint8Array, speck: Uint8Array, width: number, height: number, x: number, y: number, tone: number, near: Int32Array): number {
  let count = 0;
  for (let yy = Math.max(0, y - AROUND); yy <= Math.min(height - 1, y + AROUND); yy++) {
    for (let xx = Math.max(0, x - AROUND), j = yy * width + xx; xx <= Math.min(width - 1, x + AROUND); xx++, j++) {
      if (labels[j] === tone && speck[j] === 0 && (Math.abs(xx - x) > 1 || Math.abs(yy - y) > 1)) near[count++] = j;
    }
  }
  return count;
}

/** The middle one of the values that some pixels have in a channel, by insertion: there are at most 49. */
function middle(rgb: Art['colour']['data'], near: Int32Array, count: number, channel: number, sorted: Uint8Array): number {
  for (let k = 0; k < count; k++) {
    const value = rgb[near[k] * 4 + channel];
    let at = k;
    for (; at > 0 && sorted[at - 1] > value; at--) sorted[at] = sorted[at - 1];
    sorted[at] = value;
  }
  return sorted[count >> 1];
}

/** Sweeps art of either kind: by what is there and what is clear, or, where nothing is clear yet, by its tones, then both sizes are the larger one. */
export function* sweepArt(art: Art, speckPx2: number, pinholePx2: number, spared: Places = []): Task<SweepResult> {
  if (!isOpaque(art.alpha)) return sweepSpecks(art, speckPx2, pinholePx2, spared);
  return { ...(yield* sweepTones(art, Math.max(speckPx2, pinholePx2), spared)), pinholes: 0 };
}
