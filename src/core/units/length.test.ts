import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { dpiFromPxPerMm, inchFromMm, mm, mmFromInch, mmFromPx, px, pxPerMm, pxPerMmFromDpi, type Mm, type Px } from './length.ts';

describe('length', () => {
  it('turns pixels into millimetres', () => {
    expect(mmFromPx(px(300), pxPerMm(10))).toBe(30);
    expect(() => mmFromPx(px(1), pxPerMm(0))).toThrow(RangeError);
  });

  it('keeps the brands apart', () => {
    const takesMm = (length: Mm): number => length;
    const length: Px = px(3);
    // @ts-expect-error a pixel length is not a millimetre length
    expect(takesMm(length)).toBe(3);
    // @ts-expect-error a bare number has no unit
    expect(takesMm(4)).toBe(4);
  });

  it('goes to inches and dots per inch and back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 5000, noNaN: true }), (value) => {
        expect(mmFromInch(inchFromMm(mm(value)))).toBeCloseTo(value, 9);
        expect(dpiFromPxPerMm(pxPerMmFromDpi(value))).toBeCloseTo(value, 9);
      }),
      { seed: 7 },
    );
  });
});
