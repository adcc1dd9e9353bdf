import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bent, fanOf, unbent, type Fan } from './fan.ts';

const HIGH = 95;
const fanFor = (upper: number, lower: number, xMm = 0, yMm = 0): Fan => fanOf(upper, lower, { widthMm: 100, heightMm: HIGH }, { xMm, yMm }) as Fan;

/** Where a place of the printable area lies in space: the cone stands upright, wider above where its upper radius is larger. */
function inSpace(upper: number, lower: number, x: number, y: number): [number, number, number] {
  const radius = upper + ((lower - upper) * y) / HIGH;
  const down = y * Math.sqrt(1 - ((upper - lower) / HIGH) ** 2);
  const angle = (x - 50) / ((upper + lower) / 2);
  return [radius * Math.sin(angle), down, radius * Math.cos(angle)];
}

const radii = fc.tuple(fc.double({ min: 20, max: 60, noNaN: true }), fc.double({ min: 20, max: 60, noNaN: true })).filter(([a, b]) => Math.abs(a - b) > 0.5 && Math.abs(a - b) < 60);
const place = fc.tuple(fc.double({ min: 0, max: 100, noNaN: true }), fc.double({ min: 0, max: HIGH, noNaN: true }));

describe('a fan', () => {
  it('lies on the cone without being stretched: near places are as far apart on film as in space', () => {
    fc.assert(
      fc.property(radii, place, fc.double({ min: 0, max: 6.28, noNaN: true }), ([upper, lower], [x, y], way) => {
        const fan = fanFor(upper, lower);
        const [x2, y2] = [x + 0.01 * Math.cos(way), y + 0.01 * Math.sin(way)];
        const [p, q] = [bent(fan, x, y), bent(fan, x2, y2)];
        const [a, b] = [inSpace(upper, lower, x, y), inSpace(upper, lower, x2, y2)];
        expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeCloseTo(Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]), 5);
      }),
      { numRuns: 60 },
    );
  });

  it('is found back from each place on film', () => {
    fc.assert(
      fc.property(radii, place, ([upper, lower], [x, y]) => {
        const fan = { ...fanFor(upper, lower, 12, 7), xMm: 3, yMm: -2 };
        const there = bent(fan, x, y);
        const back = unbent(fan, there.x, there.y);
        expect([back.x, back.y]).toEqual([expect.closeTo(x, 6), expect.closeTo(y, 6)]);
      }),
      { numRuns: 60 },
    );
  });

  it('lets the ends of level lines sink where the blank is wider above, rise where it is wider below, and keeps lengths half-way down', () => {
    const above = fanFor(43.3, 35.3);
    expect(bent(above, 0, 0).y).toBeGreaterThan(1);
    expect(bent(fanFor(35.3, 43.3), 0, 0).y).toBeLessThan(-1);
    const middle = HIGH / 2;
    expect(Math.abs(Math.atan2(bent(above, 80, middle).x - 50, above.radiusMm - bent(above, 80, middle).y) * (above.radiusMm - middle))).toBeCloseTo(30, 6);
  });

  it('is none where nothing tapers', () => expect(fanOf(40, 40, { widthMm: 100, heightMm: HIGH }, { xMm: 0, yMm: 0 })).toBeUndefined());
});
