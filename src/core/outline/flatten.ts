import type { Rings } from '../geometry/rings.ts';
import { cubicAt, CUBIC, coordsOfVerb, type Curves } from './curves.ts';

/**
 * Rings of points no further than `tolerance` from the curves (same unit as the coordinates). The number of chords of a cubic follows from its
 * second difference (Wang's bound; Wang, 1984, as given in Goldman, "Pyramid algorithms", 2003, section 5.6.3).
 */
export function flatten(curves: Curves, tolerance: number): Rings {
  if (!(tolerance > 0)) throw new RangeError(`tolerance must be above 0, got ${tolerance}`);
  const { verbs, coords, verbStart, coordStart, parent } = curves;
  const points: number[] = [];
  const starts: number[] = [0];
  for (let ring = 0; ring < parent.length; ring++) {
    let at = coordStart[ring];
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      points.push(coords[at], coords[at + 1]);
      if (verbs[v] === CUBIC) {
        const chords = chordCount(coords, at, tolerance);
        for (let k = 1; k < chords; k++) points.push(cubicAt(coords, at, k / chords), cubicAt(coords, at + 1, k / chords));
      }
      at += coordsOfVerb(verbs[v]);
    }
    starts.push(points.length / 2);
  }
  return { kind: 'rings', points: Float64Array.from(points), starts: Int32Array.from(starts) };
}

/** Chords of the cubic at `at` that lie within a tolerance of it. */
export function chordCount(c: ArrayLike<number>, at: number, tolerance: number): number {
  const d1 = Math.hypot(c[at] - 2 * c[at + 2] + c[at + 4], c[at + 1] - 2 * c[at + 3] + c[at + 5]);
  const d2 = Math.hypot(c[at + 2] - 2 * c[at + 4] + c[at + 6], c[at + 3] - 2 * c[at + 5] + c[at + 7]);
  return Math.max(1, Math.min(500, Math.ceil(Math.sqrt((0.75 * Math.max(d1, d2)) / tolerance))));
}
