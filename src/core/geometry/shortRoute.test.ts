import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomFrom } from '../task/randomFrom.ts';
import { routeLength, shortRoute } from './shortRoute.ts';

describe('a short way through places', () => {
  it('goes to each place once, wherever they lie', () => {
    const place = fc.double({ min: -500, max: 500, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(place, fc.oneof(place, fc.constant(7))), { maxLength: 60 }), (places) => {
        const [x, y] = [0, 1].map((axis) => places.map((each) => each[axis]));
        const order = shortRoute(x, y, 0, 0);
        expect([...order].sort((a, b) => a - b)).toEqual(places.map((_, k) => k));
      }),
      { seed: 5, numRuns: 150 },
    );
  });

  it('is as short as can be along a line and within a tenth on a lattice', () => {
    const line = Array.from({ length: 40 }, (_, k) => (k * 17) % 40);
    expect(routeLength(shortRoute(line, line.map(() => 0), 0, 0), line, line.map(() => 0), 0, 0)).toBe(39);
    const x = Array.from({ length: 400 }, (_, k) => (((k * 137) % 400) % 20) * 10);
    const y = Array.from({ length: 400 }, (_, k) => Math.floor(((k * 137) % 400) / 20) * 10);
    expect(routeLength(shortRoute(x, y, 0, 0), x, y, 0, 0)).toBeLessThan(3990 * 1.1);
  });

  it('comes near to what the shortest way through many places of chance is known to be', () => {
    // Through n places on an area A the shortest way is about 0.7124 √(n A) (D. S. Johnson & L. A. McGeoch, 1997).
    const random = randomFrom(8);
    const [x, y] = [0, 1].map(() => Array.from({ length: 2000 }, () => random() * 1000));
    const length = routeLength(shortRoute(x, y, 0, 0), x, y, 0, 0);
    expect(length / (0.7124 * Math.sqrt(2000 * 1e6))).toBeLessThan(1.12);
  });
});
