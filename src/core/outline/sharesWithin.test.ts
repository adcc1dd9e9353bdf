import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { disc, polygon } from '../../../tests/fixtures/shapes.ts';
import { SharesWithin } from './sharesWithin.ts';

type Point = readonly [number, number];
const BOX = { left: 0, top: 0, right: 30, bottom: 24 };
/** Chords around a polygon whose inside lies to the right of travel: going down, the picture's left of them. */
const around = (points: readonly Point[]): number[] => points.flatMap((p, k) => [...p, ...points[(k + 1) % points.length]]);
const shares = (points: readonly Point[], box = BOX): SharesWithin => {
  const out = new SharesWithin(box);
  out.addAll(around(points), -1);
  return out;
};
const places = fc.tuple(fc.double({ min: 2, max: 28, noNaN: true }), fc.double({ min: 2, max: 22, noNaN: true }));
const clockwise = (points: readonly Point[]): Point[] => {
  const [mx, my] = [0, 1].map((c) => points.reduce((sum, p) => sum + p[c], 0) / points.length);
  return [...points].sort((a, b) => Math.atan2(a[1] - my, a[0] - mx) - Math.atan2(b[1] - my, b[0] - mx));
};

describe('shares within a box', () => {
  it('are what each pixel has of a polygon, wherever its corners lie', () => {
    fc.assert(
      fc.property(fc.array(places, { minLength: 3, maxLength: 7 }), (points) => {
        const ring = clockwise(points);
        const pixels = shares(ring).pixels(0);
        const sampled = polygon(30, 24, ring);
        for (let i = 0; i < pixels.length; i++) expect(Math.abs(pixels[i] - sampled.data[i] / 255)).toBeLessThan(0.13);
        const all = pixels.reduce((sum, value) => sum + value, 0);
        const area = Math.abs(ring.reduce((sum, [x, y], k) => sum + x * ring[(k + 1) % ring.length][1] - ring[(k + 1) % ring.length][0] * y, 0)) / 2;
        expect(all).toBeCloseTo(area, 6);
      }),
      { numRuns: 60 },
    );
  });

  it('are the same in a part of the picture, whatever lies beside it', () => {
    fc.assert(
      fc.property(fc.array(places, { minLength: 3, maxLength: 7 }), fc.integer({ min: 0, max: 20 }), fc.integer({ min: 0, max: 16 }), (points, left, top) => {
        const ring = clockwise(points);
        const whole = shares(ring).pixels(0);
        const part = shares(ring, { left, top, right: left + 8, bottom: top + 6 }).pixels(0);
        for (let y = 0, i = 0; y < 6; y++) for (let x = 0; x < 8; x++, i++) expect(part[i]).toBeCloseTo(whole[(top + y) * 30 + left + x], 9);
      }),
    );
  });

  it('take chords off again, and leave what they were made from alone', () => {
    const square: Point[] = [[4, 4], [20, 4], [20, 18], [4, 18]];
    const drawn = shares(square);
    const before = drawn.pixels(0);
    const without = drawn.with(around(square), 1);
    expect(Math.max(...without.pixels(0).map(Math.abs))).toBeLessThan(1e-9);
    expect(drawn.pixels(0)).toEqual(before);
  });

  it('are blurred as a soft edge is, without loss', () => {
    const { data } = disc(30, 24, 15, 12, 7);
    const points = Array.from({ length: 90 }, (_, k): Point => [15 + 7 * Math.cos((k * Math.PI) / 45), 12 + 7 * Math.sin((k * Math.PI) / 45)]);
    const [sharp, soft] = [shares(points).pixels(0), shares(points).pixels(0.2)];
    expect(Math.max(...sharp.map((value, i) => Math.abs(value - data[i] / 255)))).toBeLessThan(0.05);
    const sum = (values: Float64Array): number => values.reduce((all, value) => all + value, 0);
    expect(sum(soft)).toBeCloseTo(sum(sharp), 6);
    const mixed = (values: Float64Array): number => values.reduce((all, value) => all + value * (1 - value), 0);
    expect(mixed(soft)).toBeGreaterThan(1.4 * mixed(sharp));
  });
});
