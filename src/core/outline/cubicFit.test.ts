import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../../tests/fixtures/shapes.ts';
import { bulges } from './bulges.ts';
import { CubicFit, type End, type FittedCubic } from './cubicFit.ts';
import type { Section } from './section.ts';

const corner = (x: number, y: number): End => ({ x, y, dx: 0, dy: 0, free: true });

/** Points of a wavy stretch with noise, and their ends. */
function stretch(seed: number): { x: Float64Array; y: Float64Array; along: Float64Array; a: End; b: End } {
  const random = randomFrom(seed);
  const n = 8 + Math.floor(30 * random());
  const [bend, wave] = [6 * random(), 4 * random()];
  const x = Float64Array.from({ length: n }, (_, k) => k + 0.6 * random());
  const y = Float64Array.from({ length: n }, (_, k) => bend * Math.sin((k / n) * Math.PI) + wave * Math.sin((k / n) * 7) + 0.8 * random());
  const along = new Float64Array(n);
  for (let k = 1; k < n; k++) along[k] = along[k - 1] + Math.hypot(x[k] - x[k - 1], y[k] - y[k - 1]);
  return { x, y, along, a: corner(x[0], y[0]), b: corner(x[n - 1], y[n - 1]) };
}

describe('a cubic fit', () => {
  it('gives no worse curve after more rounds than after fewer', () => {
    const fit = new CubicFit();
    for (let seed = 1; seed <= 200; seed++) {
      const { x, y, along, a, b } = stretch(seed);
      const run = (trial: boolean): FittedCubic => {
        const out: FittedCubic = { x1: 0, y1: 0, x2: 0, y2: 0, worst2: 0, sum2: 0 };
        fit.fit(x, y, along, 0, x.length - 1, a, b, 0, 1e9, trial, out);
        return out;
      };
      // On so few points a trial reads them all and stops after two of the four rounds.
      if (x.length < 28) expect(run(false).worst2, `seed ${seed}`).toBeLessThanOrEqual(run(true).worst2 + 1e-12);
    }
  });
});

describe('a cubic that bulges', () => {
  const sectionOf = (points: readonly (readonly [number, number])[]): Section => {
    const ends = points.map(([x, y]) => corner(x, y));
    const along = Float64Array.from(points, (_, k) => k);
    return {
      n: points.length,
      x: Float64Array.from(points, ([x]) => x),
      y: Float64Array.from(points, ([, y]) => y),
      along,
      joint: (k) => ends[k],
      closed: false,
    };
  };
  const line = sectionOf(Array.from({ length: 12 }, (_, k) => [k, 0] as const));
  const cubic = (x1: number, y1: number, x2: number, y2: number): FittedCubic => ({ x1, y1, x2, y2, worst2: 0, sum2: 0 });

  it('is told by what it does between and beyond its points', () => {
    expect(bulges(line, 0, 11, cubic(3, 0, 8, 0), 0.3)).toBe(false);
    expect(bulges(line, 0, 11, cubic(3, 0.4, 8, 0.4), 0.3)).toBe(false);
    expect(bulges(line, 0, 11, cubic(3, 4, 8, 4), 0.3)).toBe(true);
    // Out beyond its end and back: every point is on it.
    expect(bulges(line, 0, 11, cubic(4, 0, 30, 0), 0.3)).toBe(true);
  });

  it('may round the corner that two far points leave open, by no more than a pixel', () => {
    const quarter = sectionOf([
      [0, 0],
      [2, 2],
    ]);
    expect(bulges(quarter, 0, 1, cubic(1.1, 0, 2, 0.9), 0.3)).toBe(false);
    const wide = sectionOf([
      [0, 0],
      [60, 0],
    ]);
    expect(bulges(wide, 0, 1, cubic(20, 8, 40, 8), 0.3)).toBe(true);
  });
});
