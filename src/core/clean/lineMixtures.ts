import type { Rgb } from '../colour/oklab.ts';
import type { Rgba8 } from '../raster/raster.ts';

/** How far along a line its stronger stretches are looked for, px: between them a hairline passes from one row of pixels to the next. */
const ALONG_PX = 5;
/** Share of a mixture's pixels that have the stronger colour that near. */
const MOSTLY = 0.6;
/** The same where the stronger one is only found in thin lines itself: straight lines may lie between two rows all along. */
const SOME = 0.12;
/** Pixels of a colour that are looked at. */
const LOOKED_AT = 300;
/** A pixel is of a colour up to this distance, levels. */
const OF_IT = 40;

/**
 * Whether a colour that is only found in thin lines is what a hairline of a stronger colour becomes where it lies between two rows of pixels: then the stronger
 * one is found beside nearly every pixel of it. A line that is that colour all along is not.
 * @param plain not 0 where a pixel is read. @param strongIsSolid whether areas have the stronger colour.
 */
export function isLineMixture({ data, width, height }: Rgba8, plain: Uint8Array, weak: Rgb, strong: Rgb, strongIsSolid: boolean): boolean {
  let [seen, beside] = [0, 0];
  const step = Math.max(1, Math.floor(plain.length / 200_000)) | 1;
  for (let i = 0; i < plain.length && seen < LOOKED_AT; i += step) {
    if (plain[i] === 0 || distance2(data, i, weak) > OF_IT * OF_IT) continue;
    seen++;
    if (hasNear(data, width, height, i, strong, weak)) beside++;
  }
  return seen > 0 && beside >= (strongIsSolid ? MOSTLY : SOME) * seen;
}

function hasNear(data: Rgba8['data'], width: number, height: number, i: number, strong: Rgb, weak: Rgb): boolean {
  const [x, y] = [i % width, Math.floor(i / width)];
  for (let yy = Math.max(0, y - ALONG_PX); yy <= Math.min(height - 1, y + ALONG_PX); yy++) {
    for (let xx = Math.max(0, x - ALONG_PX), j = yy * width + xx; xx <= Math.min(width - 1, x + ALONG_PX); xx++, j++) {
      const d = distance2(data, j, strong);
      if (d <= OF_IT * OF_IT && d < distance2(data, j, weak)) return true;
    }
  }
  return false;
}

/** Squared distance of a pixel from a colour, levels of 255. */
export const distance2 = (data: Rgba8['data'], i: number, { r, g, b }: Rgb): number =>
  (data[4 * i] - r) ** 2 + (data[4 * i + 1] - g) ** 2 + (data[4 * i + 2] - b) ** 2;
