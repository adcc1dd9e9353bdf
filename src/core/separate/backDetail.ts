import { liftAt } from '../clean/liftAt.ts';
import type { Tone } from '../clean/palette.ts';
import { blurred } from '../clean/planes.ts';
import { AppError } from '../errors/appError.ts';
import { isOpaque, withAlpha, type Art } from '../raster/art.ts';
import { eachBorderPixel } from '../raster/eachBorderPixel.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../raster/labelMap.ts';
import { boxBlurred } from '../raster/boxBlur.ts';
import { lumaOfWord } from '../raster/luma.ts';
import { makeRgba8, wordsOf } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import type { FlatTones } from './flatTones.ts';
import { lightnessSteps } from './lightnessTones.ts';
import { sweepLabels } from '../clean/settling/sweepLabels.ts';

export interface BackDetailOptions {
  /** How much of the detail is kept, 0 (its broad shapes) to 100 (all of it). */
  readonly fineness: number;
  /** Lightness 0 to 255 below which is detail, or found. */
  readonly threshold: 'auto' | number;
  /** Connected bits smaller than this go to what surrounds them, px². */
  readonly leastAreaPx2: number;
}

export interface BackDetail extends FlatTones {
  /** The art in smoothed grey around the step, its ground clear, by which edges are placed. */
  readonly grey: Art;
  readonly threshold: number;
  /** Over what width the detail was calmed, px. */
  readonly calmedPx: number;
  /** How much of the art, but for its ground, is how light: 256 counts. */
  readonly histogram: Float64Array;
}

/** Grey of the step. */
const MIDDLE = 127.5;

/** Labels of what comes out. */
export const DETAIL = 0;
export const BACK = 1;

/** Width over which detail is calmed at fineness 100 and at 0, px on a picture of `SIDE_PX`, more on larger ones. Between them it grows by equal factors. */
const FINE_PX = 1;
const COARSE_PX = 9;
const SIDE_PX = 800;
/** Narrower than this the exact Gaussian is cheap. */
const EXACT_BELOW_PX = 2.5;
/** Bits of detail smaller than the square of so many times that width are none: they are what the calming left of a stroke. */
const LEAST_WIDTHS = 2;
/** A border of which so much is one colour, give or take so many levels a channel, is ground. */
const GROUND_SHARE = 0.6;
const GROUND_LEVELS = 28;
/** Art of which lifting the ground leaves less than this has none. */
const LEAST_LEFT = 0.02;

/**
 * Takes art as a back, all of it that is not ground, and one layer of detail on it: what is darker than a step of lightness once the art has been calmed over a
 * width that the fineness sets. The step is the one with the least squared error (Otsu, IEEE Trans. SMC 9(1), 1979) and the same for every fineness. Clear
 * pixels take no part in the calming (normalised convolution: Knutsson & Westin, CVPR 1993, doi:10.1109/CVPR.1993.341081), so that the rim neither darkens nor
 * pales. A plain ground around opaque art is lifted first.
 * @throws AppError `nothingToCut` when all is clear, `oneColour` when there is no detail.
 */
export function* backDetail(whole: Art, { fineness, threshold, leastAreaPx2 }: BackDetailOptions): Task<BackDetail> {
  const art = yield* within(withoutGround(whole), 0, 0.4);
  const { width, height, alpha } = art;
  const scale = Math.max(1, Math.max(width, height) / SIDE_PX);
  const words = wordsOf(art.colour);
  const there = new Float32Array(width * height);
  const plane = new Float32Array(width * height);
  for (let i = 0; i < plane.length; i++) {
    if (alpha[i] < 128) continue;
    there[i] = 1;
    plane[i] = lumaOfWord(words[i]);
  }
  const calm = (sigmaPx: number): Task<Float32Array> => calmed(plane, there, width, height, sigmaPx);
  const fine = yield* within(calm(FINE_PX * scale), 0.4, 0.6);
  yield 0.6;
  const histogram = histogramOf(fine, there);
  const step = threshold === 'auto' ? stepOf(histogram) : threshold;
  const sigmaPx = FINE_PX * (COARSE_PX / FINE_PX) ** (1 - Math.max(0, Math.min(100, fineness)) / 100) * scale;
  const smooth = sigmaPx === FINE_PX * scale ? fine : yield* within(calm(sigmaPx), 0.65, 0.85);
  yield 0.85;
  // What lies around the step is spread over all eight bits: a wide, calm edge changes by less than one of them from pixel to pixel.
  const gain = Math.max(1, sigmaPx);
  const labels = new Uint8Array(plane.length);
  const grey = new Uint8Array(plane.length * 4);
  for (let i = 0; i < labels.length; i++) {
    labels[i] = there[i] === 0 ? CLEAR : smooth[i] < step ? DETAIL : BACK;
    grey[4 * i] = grey[4 * i + 1] = grey[4 * i + 2] = Math.max(0, Math.min(255, Math.round(MIDDLE + (smooth[i] - step) * gain)));
    grey[4 * i + 3] = 255;
  }
  const swept = sweptDetail(makeLabelMap(width, height, labels), leastAreaPx2, (LEAST_WIDTHS * sigmaPx) ** 2);
  const counts = [0, 0];
  for (const label of swept.data) if (label !== CLEAR) counts[label]++;
  const tones = [0, 2 * MIDDLE].map((value, k): Tone => ({ r: value, g: value, b: value, count: counts[k] }));
  return { labels: swept, tones, ground: CLEAR, grey: withAlpha(art, alpha, makeRgba8(width, height, grey)), threshold: step, calmedPx: sigmaPx, histogram };
}

/** Mean over a width of what is there; elsewhere white. */
function* calmed(plane: Float32Array, there: Float32Array, width: number, height: number, sigmaPx: number): Task<Float32Array> {
  const blur = sigmaPx < EXACT_BELOW_PX ? blurred : boxBlurred;
  const sum = blur(plane, width, height, sigmaPx);
  yield 0.5;
  // Where all is there, as in most photos, the weight is 1.
  const weight = there.includes(0) ? blur(there, width, height, sigmaPx) : there;
  for (let i = 0; i < sum.length; i++) sum[i] = weight[i] > 1e-3 ? Math.min(255, sum[i] / weight[i]) : 255;
  return sum;
}

/** Small bits go, of the detail those that the calming left too; the back keeps its islands and openings however coarse the detail is. */
function sweptDetail(map: LabelMap, leastAreaPx2: number, leastDetailPx2: number): LabelMap {
  const plain = sweepLabels(map, leastAreaPx2);
  if (leastDetailPx2 <= leastAreaPx2) return plain;
  const coarse = sweepLabels(plain, leastDetailPx2);
  const data = coarse.data.map((label, i) => (plain.data[i] === CLEAR ? CLEAR : label === CLEAR ? BACK : label));
  return makeLabelMap(map.width, map.height, data);
}

function histogramOf(plane: Float32Array, there: Float32Array): Float64Array {
  const histogram = new Float64Array(256);
  for (let i = 0; i < plane.length; i++) if (there[i] === 1) histogram[Math.round(plane[i])]++;
  return histogram;
}

function stepOf(histogram: Float64Array): number {
  if (histogram.every((value) => value === 0)) throw new AppError('nothingToCut');
  const [step] = lightnessSteps(histogram, 2);
  if (step === undefined) throw new AppError('oneColour');
  return step;
}

/** Opaque art without the plain ground around it; art that is clear somewhere, or fills its frame, as it is. */
function* withoutGround(art: Art): Task<Art> {
  if (!isOpaque(art.alpha)) return art;
  const {
    width,
    height,
    colour: { data },
  } = art;
  const values: [number[], number[], number[]] = [[], [], []];
  eachBorderPixel(width, height, (i) => values.forEach((channel, c) => channel.push(data[4 * i + c])));
  const median = values.map((channel) => [...channel].sort((a, b) => a - b)[channel.length >> 1]);
  let like = 0;
  let nearest = 0;
  let least = Infinity;
  eachBorderPixel(width, height, (i) => {
    const off = Math.max(...median.map((value, c) => Math.abs(data[4 * i + c] - value)));
    if (off <= GROUND_LEVELS) like++;
    if (off >= least) return;
    least = off;
    nearest = i;
  });
  if (like < GROUND_SHARE * values[0].length) return art;
  const lifted = yield* liftAt(art, nearest % width, Math.floor(nearest / width), {
    tolerance: 'auto',
    everywhere: false,
    enclosed: false,
    soft: true,
    guardPx: 0,
  });
  return lifted.areaPx2 > (1 - LEAST_LEFT) * width * height ? art : lifted.art;
}
