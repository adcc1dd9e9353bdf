interface PointPx {
  readonly xPx: number;
  readonly yPx: number;
}

/** Share of the photo that the corners stand inside its edges at first. */
const INSET = 0.15;

/** Four corners a little inside a photo, clockwise from the upper left one. */
export function startingCorners(widthPx: number, heightPx: number): PointPx[] {
  const [left, right, top, bottom] = [widthPx * INSET, widthPx * (1 - INSET), heightPx * INSET, heightPx * (1 - INSET)];
  return [{ xPx: left, yPx: top }, { xPx: right, yPx: top }, { xPx: right, yPx: bottom }, { xPx: left, yPx: bottom }];
}

/** The nearest corner within reach of a point. */
export function cornerAt(corners: readonly PointPx[], x: number, y: number, reachPx: number): number | undefined {
  let found: number | undefined;
  let least = reachPx;
  for (const [k, corner] of corners.entries()) {
    const distance = Math.hypot(corner.xPx - x, corner.yPx - y);
    if (distance > least) continue;
    least = distance;
    found = k;
  }
  return found;
}

/** The corners with one moved to a point, kept on the photo, to a tenth of a pixel. */
export function cornerMoved(corners: readonly PointPx[], index: number, to: { x: number; y: number }, photo: { widthPx: number; heightPx: number }): PointPx[] {
  const tenth = (value: number, most: number): number => Math.round(Math.max(0, Math.min(most, value)) * 10) / 10;
  return corners.map((corner, k) => (k === index ? { xPx: tenth(to.x, photo.widthPx), yPx: tenth(to.y, photo.heightPx) } : corner));
}
