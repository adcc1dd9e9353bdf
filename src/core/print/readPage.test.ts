import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { markInk, seenAt, type SeenHow } from '../../../tests/fixtures/bedPhoto.ts';
import { followedBy, placed, rotation, translation, type Affine } from '../geometry/affine.ts';
import { cameraPlaces, readPage, type PageSeen } from './readPage.ts';

const area = { xMm: 8, yMm: 8, widthMm: 194, heightMm: 281 };
const asTold = translation(40, 60);
const ink = markInk(area);

/** A page that lies otherwise than it is told: shifted, turned, larger or smaller, slanted. */
function lying({ x = 0, y = 0, deg = 0, scale = 1, shear = 0 }: { x?: number; y?: number; deg?: number; scale?: number; shear?: number }): Affine {
  const bent: Affine = { a: scale, b: 0, c: shear, d: scale, e: 0, f: 0 };
  return followedBy(followedBy(followedBy(bent, rotation((deg * Math.PI) / 180, 105, 148)), translation(x, y)), asTold);
}
const look = (lies: Affine, how: (corner: number) => SeenHow = () => ({}), isInk = ink): PageSeen => readPage(area, cameraPlaces(area, asTold).map(({ xMm, yMm }, k) => seenAt(isInk, lies, xMm, yMm, how(k))));

/** How far the cut would lie off at worst, anywhere on the page, mm. */
function worstOff({ toBed }: PageSeen, lies: Affine): number {
  if (toBed === undefined) return Infinity;
  return Math.max(...[[0, 0], [210, 0], [0, 297], [210, 297], [105, 148]].map(([x, y]) => {
    const [is, should] = [placed(toBed, x, y), placed(lies, x, y)];
    return Math.hypot(is.x - should.x, is.y - should.y);
  }));
}

describe('a printed page is found by its marks', () => {
  it('wherever it lies: shift, turn, scale and shear, with noise, within 0.1 mm', () => {
    let seed = 7;
    const random = (): number => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648;
    fc.assert(
      fc.property(fc.record({ x: fc.double({ min: -4, max: 4, noNaN: true }), y: fc.double({ min: -4, max: 4, noNaN: true }), deg: fc.double({ min: -1.2, max: 1.2, noNaN: true }), scale: fc.double({ min: 0.99, max: 1.01, noNaN: true }), shear: fc.double({ min: -0.01, max: 0.01, noNaN: true }) }), (how) => {
        const lies = lying(how);
        const seen = look(lies, () => ({ noise: 24, random }));
        expect(seen.fault).toBeUndefined();
        expect(worstOff(seen, lies)).toBeLessThan(0.1);
      }),
      { seed: 31, numRuns: 4 },
    );
  });

  it('by three of them when one is hidden, and it says which and why', () => {
    const lies = lying({ x: 2, deg: 0.5 });
    const seen = look(lies, (k) => (k === 2 ? { paper: 250, ink: 250 } : {}));
    expect(seen.marks[2]).toEqual({ corner: 'lower left', why: 'nothingDark' });
    expect(worstOff(seen, lies)).toBeLessThan(0.15);
  });

  it('not by two: a pale one and one with something over an arm are told apart', () => {
    const lies = lying({});
    const places = cameraPlaces(area, asTold);
    // Tape over the half of the upper right mark that runs down.
    const seen = look(lies, (k) => (k === 1 ? { isHidden: (_x, y) => y > places[1].yMm - 2.5 } : k === 3 ? { ink: 215 } : {}));
    expect(seen).toMatchObject({ fault: 'tooFew', marks: [{ corner: 'upper left', xMm: expect.any(Number) as number }, { why: 'hidden' }, { corner: 'lower left' }, { corner: 'lower right', why: 'nothingDark' }] });
    expect(seen.toBed).toBeUndefined();
  });

  it('not where only a part of a mark is in the picture', () => {
    const seen = look(lying({ x: -11, y: -11 }));
    expect(seen.fault).toBe('tooFew');
    expect(seen.marks.map((mark) => 'why' in mark)).toContain(true);
  });

  it('not when it lies turned by half, is of another size, or is not flat', () => {
    const half = followedBy(rotation(Math.PI, 105, 148.5), asTold);
    expect(look(half).fault).toBe('turned');
    expect(look(asTold, undefined, markInk({ ...area, widthMm: area.widthMm - 7, heightMm: area.heightMm + 4 })).fault).toBe('other');
    expect(look(asTold, undefined, (x, y) => ink(x, y + (x > 100 && y > 150 ? 1.5 : 0))).fault).toBe('bent');
  });
});
