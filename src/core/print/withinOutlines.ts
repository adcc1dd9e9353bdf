import { coverageOf } from '../outline/coverage.ts';
import type { Curves } from '../outline/curves.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';

/** A picture where outlines lie, clear elsewhere; what several of them share or meet in is there once. @param outlines in px of the picture. */
export function withinOutlines(picture: Rgba8, outlines: readonly Curves[]): Rgba8 {
  const { width, height, data } = picture;
  const covered = new Uint16Array(width * height);
  for (const curves of outlines) {
    const own = coverageOf(curves, width, height);
    for (let i = 0; i < own.length; i++) covered[i] += own[i];
  }
  const out = Uint8Array.from(data);
  for (let i = 0; i < covered.length; i++) if (covered[i] < 255) out[4 * i + 3] = Math.round((data[4 * i + 3] * covered[i]) / 255);
  return makeRgba8(width, height, out);
}
