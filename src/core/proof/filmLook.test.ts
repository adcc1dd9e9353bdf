import { describe, expect, it } from 'vitest';
import { LOOKS } from '../process/material.ts';
import { shineAt } from './filmLook.ts';

/** Of a square of 60 mm, every 0.2 mm. */
const shines = (look: (typeof LOOKS)[number], pxMm = 0.2): number[] => Array.from({ length: 90_000 }, (_, k) => shineAt(look, (k % 300) * 0.2, Math.floor(k / 300) * 0.2, pxMm));
const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
function spread(values: readonly number[]): number {
  const middle = mean(values);
  return Math.sqrt(mean(values.map((value) => (value - middle) ** 2)));
}

describe('how films look in the light', () => {
  it('is their own colour on the whole, never beyond white and black', () => {
    for (const look of LOOKS) {
      const all = shines(look);
      expect(Math.abs(mean(all)), look).toBeLessThan(0.12);
      expect(all.every((value) => value >= -1 && value <= 1), look).toBe(true);
    }
  });

  it('is even for matte film, grained for glitter and flock, in bands for gloss and metal', () => {
    expect(spread(shines('matte'))).toBe(0);
    expect(spread(shines('glitter'))).toBeGreaterThan(2 * spread(shines('flock')));
    // Grains differ from their neighbours, bands hardly do.
    const jump = (look: (typeof LOOKS)[number]): number => Math.abs(shineAt(look, 10.1, 10, 0.2) - shineAt(look, 11.1, 10, 0.2));
    const jumps = (look: (typeof LOOKS)[number]): number => mean(Array.from({ length: 200 }, (_, k) => Math.abs(shineAt(look, k, 7, 0.2) - shineAt(look, k + 1, 7, 0.2))));
    expect(jumps('glitter')).toBeGreaterThan(10 * jumps('gloss'));
    expect(jump('gloss')).toBeLessThan(0.02);
    expect(spread(shines('metal'))).toBeGreaterThan(spread(shines('gloss')));
  });

  it('is the same each time', () => {
    expect(shines('glitter').slice(0, 500)).toEqual(shines('glitter').slice(0, 500));
  });
});
