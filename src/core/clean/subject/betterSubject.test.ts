import { describe, expect, it } from 'vitest';
import type { Planes } from '../planes.ts';
import { betterSubject } from './betterSubject.ts';

const SIDE = 60;
const N = SIDE * SIDE;
const grid = (value: (x: number, y: number) => number): Float32Array => Float32Array.from({ length: N }, (_, i) => value(i % SIDE, Math.floor(i / SIDE)));
const mask = (inside: (x: number, y: number) => boolean): Uint8Array => Uint8Array.from(grid((x, y) => (inside(x, y) ? 1 : 0)));
const grey = (value: (x: number, y: number) => number): Planes => ({ width: SIDE, height: SIDE, planes: [grid(value), grid(value), grid(value)] });

const disc = (x: number, y: number): boolean => Math.hypot(x - 30, y - 30) < 18;
const ring = (x: number, y: number): boolean => disc(x, y) && Math.hypot(x - 30, y - 30) > 14;
/** Stripes of the ground all over and hardly anything of the disc: what is left when its own areas are taken for ground. */
const bits = (x: number, y: number): boolean => y % 6 === 1 && x > 2 && x < 58 && !disc(x, y);
const rim = grid((x, y) => (Math.abs(Math.hypot(x - 30, y - 30) - 18) < 1.5 ? 9 : 0));
const nowhere = new Float32Array(N);

/** The verdict on a disc of a grey on a ground of 200 that stands out. */
const verdict = (byAreas: Uint8Array, tone: number, sharp: Float32Array, standing = mask(disc)): string =>
  betterSubject({ byAreas, standing, ground: grey(() => 200), colours: grey((x, y) => (disc(x, y) ? tone : 200)), edges: { sharp, noise: 0.5 } });

describe('betterSubject', () => {
  it('takes what stands out where areas are bits of the ground, or all of the picture', () => {
    expect(verdict(mask(bits), 90, rim)).toBe('standing');
    expect(
      verdict(
        mask(() => true),
        90,
        rim,
      ),
    ).toBe('standing');
  });

  it('takes areas where both are alike, where what they leave out is just the ground, and where no sharp edge bears out the other', () => {
    expect(verdict(mask(disc), 90, rim)).toBe('areas');
    expect([verdict(mask(ring), 200, rim), verdict(mask(ring), 90, rim)]).toEqual(['areas', 'standing']);
    expect(verdict(mask(bits), 90, nowhere)).toBe('areas');
  });

  it('takes a plain shape for a guess where areas tell nothing and no edge is sharp, if it is of quite another colour', () => {
    expect([
      verdict(
        mask(() => false),
        90,
        nowhere,
      ),
      verdict(
        mask(() => false),
        190,
        nowhere,
      ),
    ]).toEqual(['none', 'areas']);
    // Thin bits inside of what stands out, as brows and a mouth are of a face.
    expect(
      verdict(
        mask((x, y) => x > 20 && x < 40 && x % 4 === 2 && y > 23 && y < 37),
        90,
        nowhere,
      ),
    ).toBe('none');
  });

  it('does not take what is next to nothing, or nearly all, for a thing that stands out', () => {
    expect(
      verdict(
        mask(disc),
        90,
        rim,
        mask((x, y) => x === 30 && y < 4),
      ),
    ).toBe('areas');
    expect(
      verdict(
        mask(disc),
        90,
        rim,
        mask(() => true),
      ),
    ).toBe('areas');
  });
});
