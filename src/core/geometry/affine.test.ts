import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { followedBy, IDENTITY, mirrorAbout, rotation, scaling, translation, turnsOver, type Affine } from './affine.ts';
import { signedArea } from './rings.ts';

const at = (t: Affine, x: number, y: number): [number, number] => [t.a * x + t.c * y + t.e, t.b * x + t.d * y + t.f];
const number = fc.double({ min: -100, max: 100, noNaN: true });

describe('affine', () => {
  it('mirrors twice to what it was', () => {
    fc.assert(
      fc.property(number, number, number, (axis, x, y) => {
        const [mx, my] = at(followedBy(mirrorAbout(axis), mirrorAbout(axis)), x, y);
        expect(mx).toBeCloseTo(x, 9);
        expect(my).toBeCloseTo(y, 9);
      }),
      { seed: 81 },
    );
  });

  it('does one after the other', () => {
    fc.assert(
      fc.property(number, number, number, number, (x, y, dx, angle) => {
        const first = translation(dx, -dx);
        const then = rotation(angle, 3, 4);
        const [ax, ay] = at(followedBy(first, then), x, y);
        const [bx, by] = at(then, ...at(first, x, y));
        expect(ax).toBeCloseTo(bx, 6);
        expect(ay).toBeCloseTo(by, 6);
      }),
      { seed: 82 },
    );
  });

  it('turns clockwise on screen and keeps quarter turns exact', () => {
    const [x, y] = at(rotation(Math.PI / 2, 0, 0), 1, 0);
    expect([x, y]).toEqual([0, 1]);
    expect(at(rotation(Math.PI, 5, 5), 5, 0)).toEqual([5, 10]);
    expect(turnsOver(mirrorAbout(2))).toBe(true);
    expect(turnsOver(scaling(3))).toBe(false);
    expect(at(IDENTITY, 7, 8)).toEqual([7, 8]);
  });

  it('gives rings their signed area', () => {
    expect(signedArea([0, 0, 4, 0, 4, 3, 0, 3], 0, 4)).toBe(12);
    expect(signedArea([0, 3, 4, 3, 4, 0, 0, 0], 0, 4)).toBe(-12);
  });
});
