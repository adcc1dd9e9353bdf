/**
 * Closed rings of points. Flat coordinates x0, y0, x1, y1, …; ring k has the points starts[k] to starts[k+1] (exclusive), the last is not
 * a copy of the first. Rings do not cross. With y down, an outer ring runs clockwise on screen (ink on the right of its direction), a hole
 * runs the other way; so `signedArea` is above 0 for outer rings and below 0 for holes.
 */
export interface Rings {
  readonly kind: 'rings';
  readonly points: Float64Array;
  /** One entry more than there are rings; in points, not in coordinates. */
  readonly starts: Int32Array;
}

/** Signed area of one ring by the shoelace formula, in square units of its coordinates. */
export function signedArea(points: ArrayLike<number>, from: number, to: number): number {
  let sum = 0;
  let px = points[2 * (to - 1)];
  let py = points[2 * (to - 1) + 1];
  for (let i = from; i < to; i++) {
    const x = points[2 * i];
    const y = points[2 * i + 1];
    sum += px * y - x * py;
    px = x;
    py = y;
  }
  return sum / 2;
}
