import type { RectPx } from '../../core/raster/crop.ts';

/** Part of a crop frame that is dragged: an edge, a corner, the whole, or a new frame. */
export type CropHold = 'n' | 's' | 'w' | 'e' | 'nw' | 'ne' | 'sw' | 'se' | 'move' | 'new';

/**
 * What lies under a point: a handle within `reach` of it, the inside, or nothing of the frame. A frame around the whole picture of the given size
 * has nowhere to move to, so a drag inside it draws a new one.
 */
export function cropHoldAt(rect: RectPx, x: number, y: number, reach: number, widthPx: number, heightPx: number): CropHold {
  const right = rect.xPx + rect.widthPx;
  const bottom = rect.yPx + rect.heightPx;
  const near = (a: number, b: number): boolean => Math.abs(a - b) <= reach;
  const within = x >= rect.xPx - reach && x <= right + reach && y >= rect.yPx - reach && y <= bottom + reach;
  if (!within) return 'new';
  const vertical = near(y, rect.yPx) ? 'n' : near(y, bottom) ? 's' : '';
  const horizontal = near(x, rect.xPx) ? 'w' : near(x, right) ? 'e' : '';
  const hold = `${vertical}${horizontal}`;
  if (hold !== '') return hold as CropHold;
  return rect.widthPx === widthPx && rect.heightPx === heightPx ? 'new' : 'move';
}

/**
 * The frame after dragging one of its parts from `from` to `to`, whole pixels, kept inside a picture of the given size and at least one pixel in
 * each direction.
 */
export function cropDragged(rect: RectPx, hold: CropHold, from: { x: number; y: number }, to: { x: number; y: number }, widthPx: number, heightPx: number): RectPx {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  if (hold === 'move') {
    const xPx = clamp(Math.round(rect.xPx + dx), 0, widthPx - rect.widthPx);
    const yPx = clamp(Math.round(rect.yPx + dy), 0, heightPx - rect.heightPx);
    return { ...rect, xPx, yPx };
  }
  let [left, right, top, bottom] = [rect.xPx, rect.xPx + rect.widthPx, rect.yPx, rect.yPx + rect.heightPx];
  if (hold === 'new') [left, right, top, bottom] = [from.x, to.x, from.y, to.y];
  else {
    if (hold.includes('w')) left += dx;
    if (hold.includes('e')) right += dx;
    if (hold.includes('n')) top += dy;
    if (hold.includes('s')) bottom += dy;
  }
  const x0 = clamp(Math.round(Math.min(left, right)), 0, widthPx - 1);
  const y0 = clamp(Math.round(Math.min(top, bottom)), 0, heightPx - 1);
  const x1 = clamp(Math.round(Math.max(left, right)), x0 + 1, widthPx);
  const y1 = clamp(Math.round(Math.max(top, bottom)), y0 + 1, heightPx);
  return { xPx: x0, yPx: y0, widthPx: x1 - x0, heightPx: y1 - y0 };
}

const clamp = (value: number, least: number, most: number): number => Math.max(least, Math.min(most, value));
