import { pxPerMm, type PxPerMm } from '../units/length.ts';
import type { Art } from '../raster/art.ts';

/** The size at which the design will be cut. */
export interface FinishedSize {
  readonly by: 'width' | 'height';
  /** Millimetres, above 0. */
  readonly sizeMm: number;
}

/** The smallest whole-pixel rectangle around what is there (at least half covered), in art pixels; undefined when all is clear. */
export function artBounds(art: Pick<Art, 'alpha' | 'width' | 'height'>): { left: number; top: number; right: number; bottom: number } | undefined {
  const { alpha, width, height } = art;
  let left = width;
  let right = -1;
  let top = -1;
  let bottom = -1;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let first = 0;
    while (first < width && alpha[row + first] < 128) first++;
    if (first === width) continue;
    let last = width - 1;
    while (alpha[row + last] < 128) last--;
    if (top < 0) top = y;
    bottom = y;
    if (first < left) left = first;
    if (last > right) right = last;
  }
  return bottom < 0 ? undefined : { left, top, right: right + 1, bottom: bottom + 1 };
}

/** Resolution of the art once it is brought to its finished size, in art pixels per mm. An art that is all clear is measured by its frame. */
export function artResolution(art: Art, finished: FinishedSize): PxPerMm {
  const bounds = artBounds(art) ?? { left: 0, top: 0, right: art.width, bottom: art.height };
  const extent = finished.by === 'width' ? bounds.right - bounds.left : bounds.bottom - bounds.top;
  return pxPerMm(extent / finished.sizeMm);
}
