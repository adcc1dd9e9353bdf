import type { Rgb } from '../colour/oklab.ts';
import type { Rgba8 } from '../raster/raster.ts';
import type { Tone } from './palette.ts';

/** What differs from the ground by less than this, levels of 255, may be what compression leaves on it. */
const LEAST_APART = 60;
/** So many pixels, and such a share of the picture, are no specks. */
const LEAST_PX = 40;
const LEAST_SHARE = 0.0004;
/** The strongest pixels are full of ink: all that are as far from the ground as this share of the distance that only one in fifty is beyond. */
const STRONGEST = 0.02;
const FULL = 0.8;

/**
 * The ink of art that has one plain tone alone: strokes that are too thin for plain places, and too near each other for any beside them, as small lettering
 * after compression. Undefined when there is nothing but the one tone.
 */
export function inkOfStrokes({ data }: Rgba8, alpha: Uint8Array, ground: Rgb): Tone | undefined {
  const far = new Uint32Array(442);
  const distance = (i: number): number => Math.round(Math.hypot(data[4 * i] - ground.r, data[4 * i + 1] - ground.g, data[4 * i + 2] - ground.b));
  let count = 0;
  for (let i = 0; i < alpha.length; i++) {
    if (alpha[i] < 128) continue;
    const d = distance(i);
    if (d < LEAST_APART) continue;
    far[d]++;
    count++;
  }
  if (count < Math.max(LEAST_PX, LEAST_SHARE * alpha.length)) return undefined;
  let beyond = far.length;
  for (let seen = 0; seen <= STRONGEST * count; ) seen += far[--beyond];
  const sum = [0, 0, 0];
  let full = 0;
  for (let i = 0; i < alpha.length; i++) {
    if (alpha[i] < 128 || distance(i) < FULL * beyond) continue;
    full++;
    for (let c = 0; c < 3; c++) sum[c] += data[4 * i + c];
  }
  return { r: Math.round(sum[0] / full), g: Math.round(sum[1] / full), b: Math.round(sum[2] / full), count };
}
