import { AppError } from '../errors/appError.ts';
import type { Art } from './art.ts';
import { makeRgba8 } from './raster.ts';

/** A rectangle in pixels, y down. */
export interface RectPx {
  readonly xPx: number;
  readonly yPx: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

/**
 * Keeps a rectangle given in picture pixels; it is cut to whole art pixels and to the art's bounds.
 * @throws AppError `cropEmpty` when nothing would be left.
 */
export function cropArt(art: Art, rect: RectPx): Art {
  const { leftPx, topPx, scale } = art.frame;
  const x0 = Math.max(0, Math.round((rect.xPx - leftPx) * scale));
  const y0 = Math.max(0, Math.round((rect.yPx - topPx) * scale));
  const x1 = Math.min(art.width, Math.round((rect.xPx + rect.widthPx - leftPx) * scale));
  const y1 = Math.min(art.height, Math.round((rect.yPx + rect.heightPx - topPx) * scale));
  if (x1 <= x0 || y1 <= y0) throw new AppError('cropEmpty');
  const width = x1 - x0;
  const height = y1 - y0;
  if (width === art.width && height === art.height) return art;
  const colour = new Uint8Array(width * height * 4);
  const alpha = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const from = (y0 + y) * art.width + x0;
    colour.set(art.colour.data.subarray(from * 4, (from + width) * 4), y * width * 4);
    alpha.set(art.alpha.subarray(from, from + width), y * width);
  }
  return {
    kind: 'art',
    width,
    height,
    colour: makeRgba8(width, height, colour),
    alpha,
    frame: { leftPx: leftPx + x0 / scale, topPx: topPx + y0 / scale, scale },
  };
}
