import { SHORT_MM } from './sides.ts';
import { coordsOfVerb, isOpenRing, ringCount, type Curves } from '../outline/curves.ts';

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
    if (!isOpenRing(curves, ring)) tipsOf(curves, ring, leastDeg, found);
  }
  return found;
}

/** The tips of a ring. Sides without length are passed over. */
function tipsOf({ verbs, coords, verbStart, coordStart }: Curves, ring: number, leastDeg: number, found: SharpTip[]): void {
  // Where the sides that have a length begin and end in the coordinates; the first comes once more, after the last.
  const sides: number[] = [];
  let at = coordStart[ring];
  for (let verb = verbStart[ring]; verb < verbStart[ring + 1]; verb++) {
    const end = at + coordsOfVerb(verbs[verb]);
    if (otherPlace(coords, at, end) !== at) sides.push(at, end);
    at = end;
  }
  if (sides.length < 4) return;
  sides.push(sides[0], sides[1]);
  for (let k = 2; k < sides.length; k += 2) {
    const [before, into, from, to] = [sides[k - 2], sides[k - 1], sides[k], sides[k + 1]];
    const [last, next] = [otherPlace(coords, into, before), otherPlace(coords, from, to)];
    const [ix, iy, ox, oy] = [coords[into] - coords[last], coords[into + 1] - coords[last + 1], coords[next] - coords[from], coords[next + 1] - coords[from + 1]];
    // Most corners are far from pointed, or the waste's.
    if (ix * oy - iy * ox <= 0 || (leastDeg <= 90 && ix * ox + iy * oy >= 0)) continue;
    const turn = Math.atan2(ix * oy - iy * ox, ix * ox + iy * oy);
    const angleDeg = 180 - (turn * 180) / Math.PI;
    // Film lies to the right: where the edge turns left the corner is one of the waste.
    if (turn > 0 && angleDeg < leastDeg && chord(coords, before, into) >= LEAST_EDGE_MM && chord(coords, from, to) >= LEAST_EDGE_MM) found.push({ xMm: coords[from], yMm: coords[from + 1], angleDeg });
  }
}

/** The first place of a side, seen from one of its ends, that does not lie on that end; the end itself where all do. */
function otherPlace(coords: Float64Array, end: number, other: number): number {
  const step = other > end ? 2 : -2;
  for (let k = end + step; k !== other + step; k += step) if (Math.abs(coords[k] - coords[end]) + Math.abs(coords[k + 1] - coords[end + 1]) > SHORT_MM) return k;
  return end;
}

const chord = (coords: Float64Array, a: number, b: number): number => Math.hypot(coords[b] - coords[a], coords[b + 1] - coords[a + 1]);
