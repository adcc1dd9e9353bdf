import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Rings } from '../geometry/rings.ts';
import { OpenEdges } from './openEdges.ts';

const place = fc.integer({ min: 0, max: 1000 }).map((tenths) => tenths / 10);
/** Places beside the lattice that rings lie on. */
const away = fc.integer({ min: -300, max: 1300 }).map((tenths) => tenths / 10 + 0.0371);
const ring = fc.array(fc.tuple(place, place), { minLength: 3, maxLength: 12 });
const ringsOf = (all: readonly (readonly (readonly [number, number])[])[]): Rings => ({
  kind: 'rings',
  points: Float64Array.from(all.flat(2)),
  starts: Int32Array.from(all.reduce((starts, each) => [...starts, starts[starts.length - 1] + each.length], [0])),
});

/** What every edge says, one after the other. */
function metByAll({ points, starts }: Rings, x: number, y: number, dx: number, dy: number): { distance: number; crossings: number } {
  let [distance, crossings] = [Infinity, 0];
  for (let r = 0; r + 1 < starts.length; r++) {
    for (let i = starts[r], j = starts[r + 1] - 1; i < starts[r + 1]; j = i++) {
      const [ax, ay, ex, ey] = [points[2 * j], points[2 * j + 1], points[2 * i] - points[2 * j], points[2 * i + 1] - points[2 * j + 1]];
      const cross = dx * ey - dy * ex;
      if (cross === 0) continue;
      const along = ((ax - x) * ey - (ay - y) * ex) / cross;
      const t = ((ax - x) * dy - (ay - y) * dx) / cross;
      if (along > 1e-6 && t >= 0 && t <= 1) {
        distance = Math.min(distance, along);
        crossings++;
      }
    }
  }
  return { distance, crossings };
}

describe('the edges of openings', () => {
  it('are met where looking at every one finds them, from anywhere in any direction', () => {
    fc.assert(
      fc.property(fc.array(ring, { minLength: 1, maxLength: 5 }), away, away, fc.double({ min: 0, max: 6.28, noNaN: true }), (all, x, y, angle) => {
        const rings = ringsOf(all);
        const edges = new OpenEdges(rings);
        const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
        const { distance, crossings } = metByAll(rings, x, y, dx, dy);
        const met = edges.meet(x, y, dx, dy, 400);
        if (distance === Infinity) expect(met).toBeUndefined();
        else expect(met?.distance).toBeCloseTo(distance, 6);
        // Even-odd: a line from a place meets the edges around it an odd number of times.
        if (Math.abs(dx) > 0.02 && Math.abs(dy) > 0.02) expect(edges.isInside(x, y)).toBe(crossings % 2 === 1);
      }),
      { seed: 11, numRuns: 400 },
    );
  });
});
