import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filmDifference } from './filmDifference.ts';
import type { Rgb } from './oklab.ts';

const rgb = (r: number, g: number, b: number): Rgb => ({ r, g, b });
const any = fc.record({ r: fc.nat(255), g: fc.nat(255), b: fc.nat(255) });

describe('difference of films', () => {
  it('is 0 for one colour and 100 from black to white', () => {
    expect(filmDifference(rgb(12, 80, 200), rgb(12, 80, 200))).toBe(0);
    expect(filmDifference(rgb(0, 0, 0), rgb(255, 255, 255))).toBeCloseTo(100, 1);
  });

  it('is the same both ways and never below 0', () => {
    fc.assert(
      fc.property(any, any, (a, b) => {
        expect(filmDifference(a, b)).toBeGreaterThanOrEqual(0);
        expect(filmDifference(a, b)).toBeCloseTo(filmDifference(b, a), 9);
      }),
      { seed: 5, numRuns: 200 },
    );
  });

  it('orders as the eye does: a shade off is near, another hue is far', () => {
    const navy = rgb(34, 55, 95);
    expect(filmDifference(navy, rgb(36, 58, 99))).toBeLessThan(2);
    expect(filmDifference(navy, rgb(47, 93, 138))).toBeGreaterThan(10);
    expect(filmDifference(navy, rgb(158, 47, 75))).toBeGreaterThan(30);
  });
});
