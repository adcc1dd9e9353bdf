import fc from 'fast-check';
import { expect, it } from 'vitest';
import { insideRing } from './checkCurves.ts';
import { RingRows } from './ringRows.ts';

it('says of every place the same as going through all sides', () => {
  fc.assert(
    fc.property(fc.integer({ min: 3, max: 900 }), fc.integer({ min: 1, max: 40 }), fc.array(fc.tuple(fc.double({ min: -30, max: 30, noNaN: true }), fc.double({ min: -30, max: 30, noNaN: true })), { minLength: 20, maxLength: 40 }), (count, wiggle, places) => {
      const points = Float64Array.from({ length: 2 * count }, (_, i) => {
        const angle = (Math.PI * (i - (i % 2))) / count;
        const radius = 18 + 8 * Math.sin(wiggle * angle);
        return i % 2 === 0 ? radius * Math.cos(angle) : radius * Math.sin(angle);
      });
      const rings = { kind: 'rings', points, starts: Int32Array.of(0, count) } as const;
      const rows = new RingRows(rings, 0);
      for (const [x, y] of places) expect(rows.holds(x, y)).toBe(insideRing(rings, 0, x, y));
    }),
    { seed: 5, numRuns: 60 },
  );
});
