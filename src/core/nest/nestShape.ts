import { signedArea, type Rings } from '../geometry/rings.ts';
import { polesOf } from './poles.ts';

/**
 * A part as nesting sees it: rings of points around its middle, with half the gap around it, and discs inside of it by which overlaps are weighed. Frozen and
 * shared by all copies.
 */
export interface NestShape {
  /** x0, y0, x1, y1, … in mm around the middle of its box; ring k has the points starts[k] to starts[k + 1]. */
  readonly points: Float64Array;
  readonly starts: Int32Array;
  /** x, y, radius of discs inside of it, the largest first. */
  readonly poles: Float64Array;
  /** Points of its convex hull, x and y. */
  readonly hull: Float64Array;
  readonly hullAreaMm2: number;
  /** Distance of its farthest point from the middle. */
  readonly radiusMm: number;
  /** From the part's own mm to its points: what was taken off. */
  readonly middle: { readonly x: number; readonly y: number };
}

/** Around a fourth root of areas: how much an overlap of a shape counts beside those of others. */
export const weightOf = ({ hullAreaMm2 }: NestShape): number => Math.sqrt(Math.sqrt(hullAreaMm2));

/** @param rings of the part in mm, even-odd, as they may not overlap those of others. */
export function nestShape(rings: Rings): NestShape {
  const { points, starts } = rings;
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i += 2) {
    left = Math.min(left, points[i]);
    right = Math.max(right, points[i]);
    top = Math.min(top, points[i + 1]);
    bottom = Math.max(bottom, points[i + 1]);
  }
  const middle = { x: (left + right) / 2, y: (top + bottom) / 2 };
  const around = points.map((value, i) => value - (i % 2 === 0 ? middle.x : middle.y));
  let radiusMm = 0;
  for (let i = 0; i < around.length; i += 2) radiusMm = Math.max(radiusMm, Math.hypot(around[i], around[i + 1]));
  const hull = hullOf(around);
  return { points: around, starts, poles: polesOf(around, starts), hull, hullAreaMm2: Math.abs(signedArea(hull, 0, hull.length / 2)), radiusMm, middle };
}

/** The convex hull by monotone chain (A. M. Andrew, "Another efficient algorithm for convex hulls in two dimensions", IPL 9, 1979, doi:10.1016/0020-0190(79)90072-3). */
export function hullOf(points: Float64Array): Float64Array {
  const order = Array.from({ length: points.length / 2 }, (_, k) => k).sort((a, b) => points[2 * a] - points[2 * b] || points[2 * a + 1] - points[2 * b + 1]);
  const chain = (indices: readonly number[]): number[] => {
    const out: number[] = [];
    const turn = (a: number, b: number, c: number): number =>
      (points[2 * b] - points[2 * a]) * (points[2 * c + 1] - points[2 * a + 1]) - (points[2 * b + 1] - points[2 * a + 1]) * (points[2 * c] - points[2 * a]);
    for (const k of indices) {
      while (out.length >= 2 && turn(out[out.length - 2], out[out.length - 1], k) <= 0) out.pop();
      out.push(k);
    }
    return out.slice(0, -1);
  };
  return Float64Array.from([...chain(order), ...chain(order.reverse())].flatMap((k) => [points[2 * k], points[2 * k + 1]]));
}
