import { directionAt, sidesOf } from './sides.ts';
import { isOpenRing, ringCount, type Curves } from '../outline/curves.ts';

export interface SharpTip {
  readonly xMm: number;
  readonly yMm: number;
  /** Of film between its two edges. */
  readonly angleDeg: number;
}

/** Both edges of a tip are at least so long, mm: shorter ones are a node out of place. */
const LEAST_EDGE_MM = 1;

/** Corners of film that are more pointed than an angle. @param curves in mm, outer rings clockwise on screen. */
export function sharpTips(curves: Curves, leastDeg: number): SharpTip[] {
  const found: SharpTip[] = [];
  if (!(leastDeg > 0)) return found;
  for (let ring = 0; ring < ringCount(curves); ring++) {
    if (isOpenRing(curves, ring)) continue;
    const sides = sidesOf(curves, ring);
    for (const [k, side] of sides.entries()) {
      const before = sides[(k + sides.length - 1) % sides.length];
      const [from, to] = [directionAt(before.cubic, 1), directionAt(side.cubic, 0)];
      if (from === undefined || to === undefined || lengthOf(before.cubic) < LEAST_EDGE_MM || lengthOf(side.cubic) < LEAST_EDGE_MM) continue;
      const turn = Math.atan2(from.x * to.y - from.y * to.x, from.x * to.x + from.y * to.y);
      const angleDeg = 180 - (turn * 180) / Math.PI;
      // Film lies to the right: where the edge turns left the corner is one of the waste.
      if (turn > 0 && angleDeg < leastDeg) found.push({ xMm: side.cubic[0].x, yMm: side.cubic[0].y, angleDeg });
    }
  }
  return found;
}

const lengthOf = ([a, , , d]: ReturnType<typeof sidesOf>[number]['cubic']): number => Math.hypot(d.x - a.x, d.y - a.y);
