import type { Rgba8 } from '../raster/raster.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { noiseLevel } from './noiseLevel.ts';
import { byRows, within, type Task } from '../task/task.ts';
import { PLAIN, plainPixels } from './plainPixels.ts';

/** A pixel this near to a plain one beside it is that one with noise, levels; so much more a level of noise. */
const SAME = 1;
const SAME_NOISY = 2.5;

/**
 * A smoothed picture with its mixed pixels as they came: what lies along an edge and is like no plain pixel beside it is a mixture, and says where inside of it
 * the edge runs, which a mean with others along the edge would not.
 * @param reach what was smoothed, levels of 255.
 */
export function* keepMixtures(before: Rgba8, smooth: Rgba8, alpha: Uint8Array, reach: number): Task<Rgba8> {
  const { width, height } = before;
  const noise = noiseLevel(before);
  const plain = yield* within(plainPixels(smooth, alpha, Math.max(2, reach / 2)), 0, 0.5);
  const same = Math.min(reach, SAME + SAME_NOISY * noise);
  const out = new Uint8Array(smooth.data);
  const keepRow = (y: number): void => {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (plain[i] === PLAIN || isLikePlain(before.data, smooth.data, plain, width, height, x, y, same)) continue;
      for (let c = 4 * i; c < 4 * i + 3; c++) out[c] = before.data[c];
    }
  };
  yield* within(byRows(height, keepRow), 0.5, 1);
  return makeRgba8(width, height, out, smooth.opaque === true);
}

function isLikePlain(
  before: Rgba8['data'],
  smooth: Rgba8['data'],
  plain: Uint8Array,
  width: number,
  height: number,
  x: number,
  y: number,
  same: number,
): boolean {
  const i = 4 * (y * width + x);
  for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
    for (let xx = Math.max(0, x - 1), j = yy * width + xx; xx <= Math.min(width - 1, x + 1); xx++, j++) {
      if (
        plain[j] === PLAIN &&
        Math.abs(before[i] - smooth[4 * j]) <= same &&
        Math.abs(before[i + 1] - smooth[4 * j + 1]) <= same &&
        Math.abs(before[i + 2] - smooth[4 * j + 2]) <= same
      )
        return true;
    }
  }
  return false;
}
