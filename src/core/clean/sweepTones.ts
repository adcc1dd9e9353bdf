import type { Rgb } from '../colour/oklab.ts';
import { isOpaque, withAlpha, type Art } from '../raster/art.ts';
import { labelRegions, type Regions } from '../raster/labelRegions.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import { fewerColours } from './fewerColours.ts';
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
  const { labels, tones } = yield* within(fewerColours(art, 'auto', false), 0, 0.8);
  const regions = labelRegions(labels, width, height, 'each', true);
  const chosen = Uint8Array.from(regions.area, (area) => (area < areaPx2 ? 1 : 0));
  const finds = spareRegions(regions, chosen, width, 'speck', spared);
  const small = smallRegions(regions, labels.length, chosen);
  yield 0.9;
  if (small.count === 0) return { art, specks: 0, finds };
  const tone = surroundingTones(regions, small, labels, width, height);
  const colour = new Uint8Array(art.colour.data);
  eachPixel(regions, small.number, width, (x, y, k) => {
    if (tone[k] >= 0) coverPixel(art, labels, small.is, colour, x, y, tone[k], tones[tone[k]]);
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

/** For each small region the tone that most of its neighbours outside small regions have; −1 when there are none. */
function surroundingTones(regions: Regions, small: SmallRegions, labels: Uint8Array, width: number, height: number): Int8Array {
  const votes = new Uint16Array(small.count * MOST_TONES);
  eachPixel(regions, small.number, width, (x, y, k) => {
    for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
      for (let xx = Math.max(0, x - 1), j = yy * width + xx; xx <= Math.min(width - 1, x + 1); xx++, j++) if (small.is[j] === 0) votes[k * MOST_TONES + labels[j]]++;
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

/** Gives a pixel of a speck, and the neighbours that are mixtures of it with the surrounding tone, the colour of that tone nearby. */
function coverPixel(art: Art, labels: Uint8Array, speck: Uint8Array, out: Uint8Array, x: number, y: number, tone: number, otherwise: Rgb): void {
  const { width, height } = art;
  const rgb = art.colour.data;
  const near: number[] = [];
  for (let yy = Math.max(0, y - AROUND); yy <= Math.min(height - 1, y + AROUND); yy++) {
    for (let xx = Math.max(0, x - AROUND), j = yy * width + xx; xx <= Math.min(width - 1, x + AROUND); xx++, j++) {
      if (labels[j] === tone && speck[j] === 0 && Math.max(Math.abs(xx - x), Math.abs(yy - y)) > 1) near.push(j);
    }
  }
  const middle = (c: number): number => near.map((j) => rgb[j * 4 + c]).sort((a, b) => a - b)[near.length >> 1];
  const cover = near.length < 3 ? [otherwise.r, otherwise.g, otherwise.b] : [middle(0), middle(1), middle(2)];
  for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
    for (let xx = Math.max(0, x - 1), j = yy * width + xx; xx <= Math.min(width - 1, x + 1); xx++, j++) {
      if (speck[j] !== 0 ? xx !== x || yy !== y : labels[j] !== tone) continue;
      for (let c = 0; c < 3; c++) out[j * 4 + c] = cover[c];
    }
  }
}

/** Sweeps art of either kind: by what is there and what is clear, or, where nothing is clear yet, by its tones, then both sizes are the larger one. */
export function* sweepArt(art: Art, speckPx2: number, pinholePx2: number, spared: Places = []): Task<SweepResult> {
  if (!isOpaque(art.alpha)) return sweepSpecks(art, speckPx2, pinholePx2, spared);
  return { ...(yield* sweepTones(art, Math.max(speckPx2, pinholePx2), spared)), pinholes: 0 };
}
