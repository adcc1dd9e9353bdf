import { isOpaque, type Art } from '../raster/art.ts';
import type { Rgba8 } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import { noiseLevel } from './noiseLevel.ts';
import { plainPixels } from './plainPixels.ts';
import { sigmaFilter } from './sigmaFilter.ts';
import { markThinLines } from './thinLines.ts';

/** An art made ready for finding its tones. */
export interface CalmedArt {
  /** Standard deviation of its noise, levels of 255. */
  readonly noise: number;
  /** Its colours without noise. */
  readonly smooth: Rgba8;
  /** Marks of pixels in plain places, and of lines too thin to have any. Not to be changed. */
  readonly plain: Uint8Array;
}

/** What the last art was calmed to is kept up to this size, px: a proposal, a sweep that finds nothing and the separation after it all read the same art. */
const KEPT_PX = 4_500_000;
let last: { readonly colour: WeakRef<Uint8Array>; readonly alpha: WeakRef<Uint8Array> | 'whole'; readonly calmed: CalmedArt } | undefined;

/** Calms an art. A pure function of it: that the last one is kept saves time alone. */
export function* calmedArt(art: Art): Task<CalmedArt> {
  const { colour, alpha, width, height } = art;
  // Where nothing is clear all alphas are the same.
  const isWhole = isOpaque(alpha);
  if (last?.colour.deref() === colour.data && (isWhole ? last.alpha === 'whole' : last.alpha !== 'whole' && last.alpha.deref() === alpha)) return last.calmed;
  const noise = noiseLevel(colour);
  const smooth = yield* within(sigmaFilter(colour, Math.max(12, Math.min(40, 10 + 3 * noise)), false), 0, 0.8);
  const plain = yield* within(plainPixels(smooth, alpha, 6 + noise), 0.8, 0.9);
  yield* within(markThinLines(smooth, alpha, plain), 0.9, 1);
  const calmed = { noise, smooth, plain };
  last = width * height > KEPT_PX ? undefined : { colour: new WeakRef(colour.data), alpha: isWhole ? 'whole' : new WeakRef(alpha), calmed };
  return calmed;
}
