import { signedArea, type Rings } from '../geometry/rings.ts';
import { boundsOf, type Curves } from './curves.ts';
import { flatten } from './flatten.ts';

/** Beyond the frame of the picture an outline may reach by this: the tip of a corner lies outside of the points that it was found by, px. */
const OUTSIDE_PX = 10;

/**
 * The cheap part of the checks, made on every result: that all coordinates are numbers and none lies outside of the picture that was outlined.
 * @throws RangeError with what is wrong: no picture makes such an outline, so the fault is in the program.
 */
export function assertWithinFrame(curves: Curves, width: number, height: number): void {
  const { coords } = curves;
  for (let k = 0; k < coords.length; k++) if (!Number.isFinite(coords[k])) throw new RangeError(`an outline has the coordinate ${coords[k]}`);
  const box = boundsOf(curves);
  if (box === undefined) return;
  if (Math.min(box.left, box.top) >= -OUTSIDE_PX && box.right <= width + OUTSIDE_PX && box.bottom <= height + OUTSIDE_PX) return;
  throw new RangeError(
    `an outline of a picture of ${width} x ${height} px reaches from ${box.left.toFixed(1)}, ${box.top.toFixed(1)} to ${box.right.toFixed(1)}, ${box.bottom.toFixed(1)}`,
  );
}

/** Whether a point lies inside a ring of points, by crossings. */
export function insideRing({ points, starts }: Rings, ring: number, x: number, y: number): boolean {
  let inside = false;
  const from = starts[ring];
  const to = starts[ring + 1];
  for (let i = from, j = to - 1; i < to; j = i++) {
    const yi = points[2 * i + 1];
    const yj = points[2 * j + 1];
    if (yi > y !== yj > y && x < ((points[2 * j] - points[2 * i]) * (y - yi)) / (yj - yi) + points[2 * i]) inside = !inside;
  }
  return inside;
}

/** Whether no two chords of one ring cross. Quadratic in its points: for tests and development, not for every run. */
export function isSimpleRing({ points, starts }: Rings, ring: number): boolean {
  const from = starts[ring];
  const n = starts[ring + 1] - from;
  const side = (a: number, b: number, c: number): number => {
    const i = 2 * (from + (a % n));
    const j = 2 * (from + (b % n));
    const k = 2 * (from + (c % n));
    return (points[j] - points[i]) * (points[k + 1] - points[i + 1]) - (points[j + 1] - points[i + 1]) * (points[k] - points[i]);
  };
  for (let a = 0; a < n; a++) {
    for (let b = a + 2; b < n; b++) {
      if (a === 0 && b === n - 1) continue;
      if (side(a, a + 1, b) * side(a, a + 1, b + 1) < 0 && side(b, b + 1, a) * side(b, b + 1, a + 1) < 0) return false;
    }
  }
  return true;
}

/**
 * Whether every ring runs in the direction of its depth (outer rings clockwise on screen, holes the other way) and lies inside its parent.
 * @param tolerance of the flattening, in units of the coordinates.
 */
export function isProperlyNested(curves: Curves, tolerance: number): boolean {
  const rings = flatten(curves, tolerance);
  for (let ring = 0; ring < curves.parent.length; ring++) {
    let depth = 0;
    for (let k = curves.parent[ring]; k >= 0; k = curves.parent[k]) depth++;
    const area = signedArea(rings.points, rings.starts[ring], rings.starts[ring + 1]);
    if (area > 0 !== (depth % 2 === 0)) return false;
    const at = 2 * rings.starts[ring];
    if (curves.parent[ring] >= 0 && !insideRing(rings, curves.parent[ring], rings.points[at], rings.points[at + 1])) return false;
  }
  return true;
}
