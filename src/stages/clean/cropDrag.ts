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
 * @param aspect width over height that the frame keeps; none for any.
 */
export function cropDragged(rect: RectPx, hold: CropHold, from: Place, to: Place, widthPx: number, heightPx: number, aspect?: number): RectPx {
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
  const free = { xPx: x0, yPx: y0, widthPx: x1 - x0, heightPx: y1 - y0 };
  return aspect === undefined ? free : withAspect(free, hold, from, aspect, widthPx, heightPx);
}

interface Place {
  readonly x: number;
  readonly y: number;
}

/**
 * The frame brought to an aspect (width over height) by growing or shrinking about what stays in place while it is dragged: the corner or the middle of the
 * edge across from the hold.
 */
export function withAspect(rect: RectPx, hold: CropHold, from: Place, aspect: number, widthPx: number, heightPx: number): RectPx {
  const right = rect.xPx + rect.widthPx;
  const bottom = rect.yPx + rect.heightPx;
  // Where the fixed point lies: −1 at the left or upper edge, 1 at the right or lower one, 0 in the middle.
  const [sideX, sideY] = hold === 'new' ? [from.x <= rect.xPx + rect.widthPx / 2 ? -1 : 1, from.y <= rect.yPx + rect.heightPx / 2 ? -1 : 1] : [hold.includes('w') ? 1 : hold.includes('e') ? -1 : 0, hold.includes('n') ? 1 : hold.includes('s') ? -1 : 0];
  const fixedX = sideX === 0 ? rect.xPx + rect.widthPx / 2 : sideX < 0 ? rect.xPx : right;
  const fixedY = sideY === 0 ? rect.yPx + rect.heightPx / 2 : sideY < 0 ? rect.yPx : bottom;
  const wanted = sideX === 0 ? rect.heightPx * aspect : sideY === 0 ? rect.widthPx : Math.max(rect.widthPx, rect.heightPx * aspect);
  const room = (side: number, fixed: number, size: number): number => (side === 0 ? 2 * Math.min(fixed, size - fixed) : side < 0 ? size - fixed : fixed);
  const width = Math.max(1, Math.min(wanted, room(sideX, fixedX, widthPx), room(sideY, fixedY, heightPx) * aspect));
  const height = Math.max(1, width / aspect);
  const left = sideX === 0 ? fixedX - width / 2 : sideX < 0 ? fixedX : fixedX - width;
  const top = sideY === 0 ? fixedY - height / 2 : sideY < 0 ? fixedY : fixedY - height;
  const wholeWidth = clamp(Math.round(width), 1, widthPx);
  const wholeHeight = clamp(Math.round(height), 1, heightPx);
  return { xPx: clamp(Math.round(left), 0, widthPx - wholeWidth), yPx: clamp(Math.round(top), 0, heightPx - wholeHeight), widthPx: wholeWidth, heightPx: wholeHeight };
}

const clamp = (value: number, least: number, most: number): number => Math.max(least, Math.min(most, value));
