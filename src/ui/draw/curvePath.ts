import type { Affine } from '../../core/geometry/affine.ts';
import { isOpenRing, LINE, type Curves } from '../../core/outline/curves.ts';

/** Copies of paths as one path. @param copies each a path and where it lies. */
export function pathOfCopies(copies: readonly { readonly path: Path2D; readonly at: Affine }[]): Path2D {
  const whole = new Path2D();
  for (const { path, at } of copies) whole.addPath(path, at);
  return whole;
}

/** Rings that are one path before they are put to the whole: to close one, a browser looks at all that its path has by then. */
const RINGS_A_PATH = 32;

/** Curves are never changed in place: what was made of some holds as long as they do. */
const drawable = new WeakMap<Curves, Path2D>();

/** The curves as a drawable path, in their own coordinates. Openings run against what they lie in. It is made once, and is not to be added to. */
export function pathFromCurves(curves: Curves): Path2D {
  const path = drawable.get(curves) ?? pathOf(curves);
  drawable.set(curves, path);
  return path;
}

function pathOf(curves: Curves): Path2D {
  const count = curves.parent.length;
  if (count <= RINGS_A_PATH) return pathOfRings(curves, 0, count);
  const whole = new Path2D();
  for (let ring = 0; ring < count; ring += RINGS_A_PATH) whole.addPath(pathOfRings(curves, ring, Math.min(count, ring + RINGS_A_PATH)));
  return whole;
}

function pathOfRings(curves: Curves, from: number, to: number): Path2D {
  const path = new Path2D();
  const { verbs, coords, verbStart, coordStart } = curves;
  for (let ring = from; ring < to; ring++) {
    let at = coordStart[ring];
    path.moveTo(coords[at], coords[at + 1]);
    at += 2;
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      if (verbs[v] === LINE) {
        path.lineTo(coords[at], coords[at + 1]);
        at += 2;
      } else {
        path.bezierCurveTo(coords[at], coords[at + 1], coords[at + 2], coords[at + 3], coords[at + 4], coords[at + 5]);
        at += 6;
      }
    }
    if (!isOpenRing(curves, ring)) path.closePath();
  }
  return path;
}
