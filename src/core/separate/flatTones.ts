import type { Tone } from '../clean/palette.ts';
import { settledTones } from '../clean/settling/settledTones.ts';
import type { Rgb } from '../colour/oklab.ts';
import { AppError } from '../errors/appError.ts';
import { isOpaque, type Art } from '../raster/art.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../raster/labelMap.ts';
import { eachBorderPixel } from '../raster/eachBorderPixel.ts';
import { lumaAt } from '../raster/luma.ts';
import { wordsOf } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';

/** Neighbours that differ by more lightness than this are a step, and art with more steps than this share of its pixels has no areas. */
const STEP = 40;
const RESTLESS = 0.35;
/** Of so many pixels one is looked at for that; prime, so that no pattern is missed. */
const EVERY = 7;

export interface FlatTonesOptions {
  /** Tones with the background, 2 to 32, or found; where the background is clear it is one of them. Or the tones that are there. */
  readonly count: number | 'auto' | readonly Rgb[];
  /** Tones that are among those found in any case. */
  readonly held?: readonly Rgb[];
  /** Connected bits smaller than this go to what surrounds them, px², and those that are noise. */
  readonly leastAreaPx2: number;
}

/** The art as areas of few tones. */
export interface FlatTones {
  readonly labels: LabelMap;
  /** Most frequent first; labels are indices into it. */
  readonly tones: readonly Tone[];
  /** The background: a tone, or `CLEAR` where what is clear is the background, or nothing is. */
  readonly ground: number;
}

/**
 * Brings the art to its few tones, or as many as are asked for, and tells which of them is the background: what is clear, or the tone that has most of the
 * picture's border. Art that fills its frame has none.
 * @throws AppError `nothingToCut` when all is clear, `oneColour` when there is only one tone and nothing is clear, `tooIntricate` for noise.
 */
export function* flatTones(art: Art, { count, held, leastAreaPx2 }: FlatTonesOptions): Task<FlatTones> {
  const { width, height, alpha } = art;
  const opaque = isOpaque(alpha);
  refuseRestless(art);
  const clearAround = !opaque && borderShare(alpha, width, height, (value) => value < 128) > 0.5;
  const wanted = typeof count !== 'number' || !clearAround ? count : Math.max(1, count - 1);
  const { tones, withClear } = yield* within(settledTones(art, { count: wanted, ...(held === undefined ? {} : { held }), leastAreaPx2, refuses: true }), 0, 1);
  if (!opaque && !withClear.some((label) => label !== CLEAR)) throw new AppError('nothingToCut');
  if (opaque && tones.length < 2) throw new AppError('oneColour', count === 1 ? { asked: 1 } : {});
  const labels = makeLabelMap(width, height, withClear);
  return { labels, tones, ground: groundOf(labels) };
}

/** Art without even places has no tones: a pattern of single pixels, or noise. Said at once, since looking for them would take a minute. */
function refuseRestless({ colour, alpha }: Art): void {
  const words = wordsOf(colour);
  let steps = 0;
  let seen = 0;
  for (let i = 1; i < words.length; i += EVERY) {
    seen++;
    if (Math.abs(lumaAt(words, alpha, i) - lumaAt(words, alpha, i - 1)) > STEP) steps++;
  }
  if (steps > seen * RESTLESS) throw new AppError('tooIntricate', { count: steps * EVERY, limit: Math.round(seen * EVERY * RESTLESS) });
}

/** So much of the border is clear where the ground was lifted. */
const LIFTED = 0.05;
/** What has less of the border than this is not around the art: then the art fills its frame and there is no ground. */
const AROUND = 0.4;

function groundOf({ data, width, height }: LabelMap): number {
  const votes = new Uint32Array(256);
  eachBorderPixel(width, height, (i) => void votes[data[i]]++);
  const all = 2 * (width + height);
  const most = Math.max(...votes);
  return votes[CLEAR] > LIFTED * all || most < AROUND * all ? CLEAR : votes.indexOf(most);
}

function borderShare(data: Uint8Array, width: number, height: number, is: (value: number) => boolean): number {
  let count = 0;
  eachBorderPixel(width, height, (i) => void (is(data[i]) && count++));
  return count / (2 * (width + height));
}
