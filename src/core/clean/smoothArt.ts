import type { Art } from '../raster/art.ts';
import type { Rgba8 } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import { keepMixtures } from './keepMixtures.ts';
import { smoothNoise } from './sigmaFilter.ts';

/** Smooths differences up to `reach` levels of 255 away; edges stay where they are, inside their pixels too. @returns the colours. */
export function* smoothArt({ colour, alpha }: Art, reach: number): Task<Rgba8> {
  const smooth = yield* within(smoothNoise(colour, reach), 0, 0.9);
  return yield* within(keepMixtures(colour, smooth, alpha, reach), 0.9, 1);
}
