import { rgbFromHex } from '../../core/colour/hex.ts';
import { scaling } from '../../core/geometry/affine.ts';
import { coverageOf } from '../../core/outline/coverage.ts';
import type { Curves } from '../../core/outline/curves.ts';
import { transformCurves } from '../../core/outline/transformCurves.ts';
import { makeRgba8, type Rgba8 } from '../../core/raster/raster.ts';

/** A film's picture is never larger than this on its long side, px. */
const MOST_SIDE_PX = 8000;

/**
 * One film as a picture: its colour where it is, clear elsewhere, edges by how much of a pixel it covers.
 * @param curves in mm within the frame. @param pxPerMm of the picture; less when it would be too large. @returns the picture and its true px per mm.
 */
export function filmPicture(curves: Curves, colour: string, widthMm: number, heightMm: number, pxPerMm: number): { picture: Rgba8; pxPerMm: number } {
  const scale = Math.min(pxPerMm, MOST_SIDE_PX / Math.max(widthMm, heightMm));
  const width = Math.max(1, Math.round(widthMm * scale));
  const height = Math.max(1, Math.round(heightMm * scale));
  const coverage = coverageOf(transformCurves(curves, scaling(scale)), width, height);
  const { r, g, b } = rgbFromHex(colour) ?? { r: 0, g: 0, b: 0 };
  const data = new Uint8Array(width * height * 4);
  for (let i = 0, j = 0; i < coverage.length; i++, j += 4) {
    if (coverage[i] === 0) continue;
    data[j] = r;
    data[j + 1] = g;
    data[j + 2] = b;
    data[j + 3] = coverage[i];
  }
  return { picture: makeRgba8(width, height, data), pxPerMm: scale };
}
