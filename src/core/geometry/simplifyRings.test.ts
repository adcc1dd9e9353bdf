import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { signedArea, type Rings } from './rings.ts';
import { simplifyRings } from './simplifyRings.ts';

/** A round whose radius waves, as many points as are asked for. */
const waving = (count: number, waves: number, depth: number): Rings => ({
  kind: 'rings',
  points: Float64Array.from({ length: 2 * count }, (_, i) => {
    const angle = (2 * Math.PI * (i >> 1)) / count;
    const radius = 20 + depth * Math.cos(waves * angle);
    return radius * (i % 2 === 0 ? Math.cos(angle) : Math.sin(angle));
  }),
  starts: Int32Array.from([0, count]),
});

describe('rings with fewer points', () => {
  it('keep to within the tolerance of all that was left out, and keep their points', () => {
    fc.assert(
      fc.property(fc.integer({ min: 12, max: 400 }), fc.integer({ min: 2, max: 9 }), fc.double({ min: 0, max: 5, noNaN: true }), fc.double({ min: 0.01, max: 2, noNaN: true }), (count, waves, depth, tolerance) => {
        const before = waving(count, waves, depth);
        const { points, starts } = simplifyRings(before, tolerance);
        if (starts.length < 2) return;
        const kept = new Set(Array.from({ length: points.length / 2 }, (_, k) => `${points[2 * k]} ${points[2 * k + 1]}`));
        for (const key of kept) expect(Array.from({ length: count }, (_, k) => `${before.points[2 * k]} ${before.points[2 * k + 1]}`)).toContain(key);
        for (let k = 0; k < count; k++) expect(toRing(points, before.points[2 * k], before.points[2 * k + 1])).toBeLessThanOrEqual(tolerance + 1e-9);
      }),
      { seed: 4, numRuns: 40 },
    );
  });

  it('lose straight runs whole, and rings without an area', () => {
    const square = [[0, 0], [5, 0], [10, 0], [10, 10], [5, 10], [0, 10], [0, 4]];
    const line = [[20, 20], [25, 20.001], [30, 20]];
    const { points, starts } = simplifyRings({ kind: 'rings', points: Float64Array.from([...square, ...line].flat()), starts: Int32Array.from([0, 7, 10]) }, 0.05);
    expect([starts.length, points.length, signedArea(points, 0, 4)]).toEqual([2, 8, 100]);
  });
});

function toRing(points: Float64Array, x: number, y: number): number {
  let least = Infinity;
  for (let i = 0, j = points.length / 2 - 1; i < points.length / 2; j = i++) {
    const [ax, ay, dx, dy] = [points[2 * j], points[2 * j + 1], points[2 * i] - points[2 * j], points[2 * i + 1] - points[2 * j + 1]];
    const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
    least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy));
  }
  return least;
}
