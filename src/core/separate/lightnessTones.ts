import { blurred } from '../clean/planes.ts';
import type { Tone } from '../clean/palette.ts';
import { AppError } from '../errors/appError.ts';
import { withAlpha, type Art } from '../raster/art.ts';
import { CLEAR, makeLabelMap } from '../raster/labelMap.ts';
import { boxBlurred } from '../raster/boxBlur.ts';
import { lumaAt } from '../raster/luma.ts';
import { makeRgba8, wordsOf } from '../raster/raster.ts';
import type { Task } from '../task/task.ts';
import type { FlatTones } from './flatTones.ts';
import { sweepLabels } from '../clean/settling/sweepLabels.ts';

export interface LightnessOptions {
  /** Tones, the lightest among them, 2 to 6. */
  readonly count: number;
  /** Lightness 0 to 255 at which one tone passes into the next lighter one, ascending, count − 1 of them; found when absent. */
  readonly steps?: readonly number[];
  /** Connected bits smaller than this go to what surrounds them, px². */
  readonly leastAreaPx2: number;
}

/** Grain and texture finer than this are no tones, px on a picture of `BLUR_SIDE_PX`, more on larger ones: what counts is the finished size. */
const BLUR_PX = 1.4;
const BLUR_SIDE_PX = 800;
/** Narrower than this the exact Gaussian is cheap, and nearer. */
const EXACT_BELOW_PX = 3.5;

export interface LightnessTones extends FlatTones {
  /** The art in grey and smoothed, by which the edges between the tones are placed. */
  readonly grey: Art;
  readonly steps: readonly number[];
  /** How much of the art is how light: 256 counts. */
  readonly histogram: Float64Array;
}

/**
 * Brings a photo to a few tones of lightness, darkest first. The steps between them are the ones with the least squared error (Otsu, IEEE Trans. SMC 9(1),
 * 1979, for several classes, solved exactly by dynamic programming); there each lies half way between its two tones. The lightest tone is the blank.
 * @throws AppError `nothingToCut` when all is clear, `oneColour` when there are fewer lightnesses than tones.
 */
export function* lightnessTones(art: Art, { count, steps, leastAreaPx2 }: LightnessOptions): Task<LightnessTones> {
  const { width, height, alpha } = art;
  const words = wordsOf(art.colour);
  const plane = new Float32Array(width * height);
  for (let i = 0; i < plane.length; i++) plane[i] = lumaAt(words, alpha, i);
  yield 0.2;
  const sigmaPx = BLUR_PX * Math.max(1, Math.max(width, height) / BLUR_SIDE_PX);
  const smooth = (sigmaPx < EXACT_BELOW_PX ? blurred : boxBlurred)(plane, width, height, sigmaPx);
  yield 0.6;
  const histogram = new Float64Array(256);
  for (let i = 0; i < smooth.length; i++) if (alpha[i] >= 128) histogram[Math.round(smooth[i])]++;
  if (histogram.every((value) => value === 0)) throw new AppError('nothingToCut');
  const found = steps ?? lightnessSteps(histogram, count);
  if (found.length < 1) throw new AppError('oneColour');
  const labels = new Uint8Array(smooth.length);
  const grey = new Uint8Array(smooth.length * 4);
  for (let i = 0; i < smooth.length; i++) {
    const value = smooth[i];
    let label = 0;
    while (label < found.length && value >= found[label]) label++;
    labels[i] = alpha[i] < 128 ? CLEAR : label;
    grey[4 * i] = grey[4 * i + 1] = grey[4 * i + 2] = Math.round(value);
    grey[4 * i + 3] = 255;
  }
  const swept = sweepLabels(makeLabelMap(width, height, labels), leastAreaPx2);
  yield 0.95;
  const counts = new Float64Array(found.length + 1);
  for (const label of swept.data) if (label !== CLEAR) counts[label]++;
  const tones = greysFor(found).map((value, k): Tone => ({ r: value, g: value, b: value, count: counts[k] }));
  return { labels: swept, tones, ground: tones.length - 1, grey: withAlpha(art, alpha, makeRgba8(width, height, grey)), steps: found, histogram };
}

/** Greys whose middles are the steps, as even as the steps allow. */
function greysFor(steps: readonly number[]): number[] {
  const first = Math.max(0, steps[0] - (steps.length > 1 ? (steps[1] - steps[0]) / 2 : Math.min(steps[0], 255 - steps[0])));
  const greys = [first];
  for (const step of steps) greys.push(Math.max(greys[greys.length - 1] + 2, Math.min(255, 2 * step - greys[greys.length - 1])));
  return greys;
}

/** The steps that part a histogram of 256 lightnesses into classes with the least squared error. Fewer come back when there are not as many lightnesses. */
export function lightnessSteps(histogram: Float64Array, count: number): number[] {
  const used = histogram.reduce((sum, value) => sum + (value > 0 ? 1 : 0), 0);
  const classes = Math.min(count, used);
  const weight = new Float64Array(257);
  const sum = new Float64Array(257);
  for (let v = 0; v < 256; v++) {
    weight[v + 1] = weight[v] + histogram[v];
    sum[v + 1] = sum[v] + histogram[v] * v;
  }
  // The squared error of a class is its sum of squares, the same for all divisions, less sum² / weight.
  const gain = (from: number, to: number): number => {
    const w = weight[to] - weight[from];
    return w === 0 ? 0 : (sum[to] - sum[from]) ** 2 / w;
  };
  let best = Float64Array.from({ length: 257 }, (_, to) => gain(0, to));
  const cuts: Int32Array[] = [];
  for (let k = 1; k < classes; k++) {
    const next = new Float64Array(257).fill(-1);
    const cut = new Int32Array(257);
    for (let to = k + 1; to <= 256; to++) {
      for (let from = k; from < to; from++) {
        const value = best[from] + gain(from, to);
        if (value <= next[to]) continue;
        next[to] = value;
        cut[to] = from;
      }
    }
    best = next;
    cuts.push(cut);
  }
  const steps: number[] = [];
  for (let k = cuts.length - 1, to = 256; k >= 0; k--) {
    to = cuts[k][to];
    steps.push(middleOf(weight, to));
  }
  return steps.reverse();
}

/** Half way between the last lightness below a cut and the first above it that occur. */
function middleOf(weight: Float64Array, cut: number): number {
  let below = cut;
  while (below > 0 && weight[below] === weight[below - 1]) below--;
  let above = cut;
  while (above < 256 && weight[above + 1] === weight[above]) above++;
  return (below - 1 + above) / 2;
}
