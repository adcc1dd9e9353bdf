import { describe, expect, it } from 'vitest';
import { bent, fanOf, type Fan } from '../geometry/fan.ts';
import { LINE, ringArea, ringCount, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { nestRings } from '../outline/nestRings.ts';
import { bentCurves } from './bendCurves.ts';

const fan = fanOf(43.3, 35.3, { widthMm: 100, heightMm: 95 }, { xMm: 0, yMm: 0 }) as Fan;
const bend = (x: number, y: number): { x: number; y: number } => bent(fan, x, y);
const ring = nestRings(curvesFromPathData('M10 20C10 4 90 4 90 20L90 70L10 70ZM40 30L40 50L60 50L60 30Z'));

/** The farthest of the places on the one from the nearest chord of the other, mm. */
function apart(places: readonly { x: number; y: number }[], curves: Curves): number {
  const { points, starts } = flatten(curves, 0.0005);
  let most = 0;
  for (const { x, y } of places) {
    let nearest = Infinity;
    for (let r = 0; r + 1 < starts.length; r++) {
      for (let k = starts[r]; k < starts[r + 1]; k++) {
        const next = k + 1 < starts[r + 1] ? k + 1 : starts[r];
        const [ax, ay, bx, by] = [points[2 * k], points[2 * k + 1], points[2 * next], points[2 * next + 1]];
        const long = (bx - ax) ** 2 + (by - ay) ** 2;
        const t = long === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / long));
        nearest = Math.min(nearest, Math.hypot(ax + t * (bx - ax) - x, ay + t * (by - ay) - y));
      }
    }
    most = Math.max(most, nearest);
  }
  return most;
}

describe('bent curves', () => {
  const made = bentCurves(ring, bend);

  it('lie where the map takes them, within what a cutter resolves', () => {
    const { points } = flatten(ring, 0.01);
    const wanted = Array.from({ length: points.length / 2 }, (_, k) => bend(points[2 * k], points[2 * k + 1]));
    expect(apart(wanted, made)).toBeLessThan(0.004);
  });

  it('keep rings, what lies in what, and which way they run', () => {
    expect(Array.from(made.parent)).toEqual(Array.from(ring.parent));
    for (let k = 0; k < ringCount(ring); k++) expect(Math.sign(ringArea(made, k))).toBe(Math.sign(ringArea(ring, k)));
    for (let k = 0; k < ringCount(made); k++) expect([made.coords[made.coordStart[k]], made.coords[made.coordStart[k] + 1]]).toEqual([made.coords[made.coordStart[k + 1] - 2], made.coords[made.coordStart[k + 1] - 1]]);
  });

  it('leave straight what the map leaves straight, and get few nodes', () => {
    // Upright lines run to the tip of the cone.
    expect(Array.from(made.verbs).filter((verb) => verb === LINE)).toHaveLength(4);
    expect(made.verbs.length).toBeLessThan(3 * ring.verbs.length);
  });
});
