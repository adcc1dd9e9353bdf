import type { Rgb } from './oklab.ts';

/** Of a difference in lightness (Rec. 601 luma) so much counts beside what counts of the whole difference: compression holds tint at half the resolution. */
const TINT = 0.2;
const [LUMA_R, LUMA_G, LUMA_B] = [0.299, 0.587, 0.114];
const LUMA = 3 * (1 - TINT);
const LUMA_2 = LUMA_R ** 2 + LUMA_G ** 2 + LUMA_B ** 2;
const PLAIN = Math.sqrt(TINT);
const EXTRA = (Math.sqrt(TINT + LUMA * LUMA_2) - PLAIN) / LUMA_2;

/**
 * Writes a colour (0 to 255 a channel) in the space in which mixtures along an edge are weighed: distances in it count lightness more than tint. It is linear,
 * so that mixtures stay mixtures.
 */
export function writeForEdges(r: number, g: number, b: number, out: Float64Array, at: number): void {
  const luma = EXTRA * (LUMA_R * r + LUMA_G * g + LUMA_B * b);
  out[at] = PLAIN * r + luma * LUMA_R;
  out[at + 1] = PLAIN * g + luma * LUMA_G;
  out[at + 2] = PLAIN * b + luma * LUMA_B;
}

/** Writes what a difference of colours is multiplied by, channel by channel, to give its product with another one in that space. */
export function writeWeights(dr: number, dg: number, db: number, out: Float64Array): void {
  const luma = LUMA * (LUMA_R * dr + LUMA_G * dg + LUMA_B * db);
  out[0] = TINT * dr + LUMA_R * luma;
  out[1] = TINT * dg + LUMA_G * luma;
  out[2] = TINT * db + LUMA_B * luma;
}

/** The colours in that space, three values each. */
export function forEdges(tones: readonly Rgb[]): Float64Array {
  const out = new Float64Array(tones.length * 3);
  for (const [k, { r, g, b }] of tones.entries()) writeForEdges(r, g, b, out, 3 * k);
  return out;
}
