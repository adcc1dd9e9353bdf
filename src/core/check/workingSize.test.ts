import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { scaling, translation } from '../geometry/affine.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { mm } from '../units/length.ts';
import { cutCheck } from './cutCheck.ts';
import { workingSize } from './workingSize.ts';

const limits = { leastPieceMm2: 1.5, leastStripMm: 0.8, leastGapMm: 0.4, artIsOpening: false };
const frame = (bandMm: number) => figureCurves({ form: 'ring', widthMm: 60, heightMm: 60, bandMm });
const dot = (sizeMm: number, at: number) => transformCurves(figureCurves({ form: 'round', widthMm: sizeMm, heightMm: sizeMm }), translation(at, 15));

describe('the size down to which a design works', () => {
  it('is that of its thinnest strip or smallest piece, whichever needs more', () => {
    const design = { widthMm: mm(60), layers: [{ filmId: 'a', curves: joinCurves([frame(2), dot(6, 18), dot(2.2, 32)]) }] };
    const { leastWidthMm, blockers, downToMm } = workingSize(design, limits);
    // The dot of 3.8 mm² reaches 1.5 at 0.628 of the size, the band of 2 mm 0.8 at 0.4.
    expect(leastWidthMm).toBeCloseTo(60 * Math.sqrt(1.5 / (Math.PI * 1.1 ** 2)), 1);
    expect(blockers.map(({ finding }) => finding.kind)).toContain('thin');
    expect(blockers.find(({ finding }) => finding.kind === 'thin')?.fromWidthMm).toBeCloseTo(24, 0);
    expect(downToMm).toBe(15);
  });

  it('holds at that size and no longer a little below it', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.9, max: 2.8, noNaN: true }), fc.double({ min: 1.5, max: 4, noNaN: true }), (bandMm, sizeMm) => {
        const curves = joinCurves([frame(bandMm), dot(sizeMm, 20)]);
        const { leastWidthMm } = workingSize({ widthMm: mm(60), layers: [{ filmId: 'a', curves }] }, limits);
        const foundAt = (widthMm: number): number => cutCheck({ layers: [{ filmId: 'a', curves: transformCurves(curves, scaling(widthMm / 60)) }] }, limits).filter(({ kind }) => kind !== 'sharp' && kind !== 'jagged').length;
        expect(foundAt(leastWidthMm * 1.03)).toBe(0);
        expect(foundAt(leastWidthMm * 0.97)).toBeGreaterThan(0);
      }),
      { seed: 4, numRuns: 25 },
    );
  });

  it('is nothing where nothing would ever be too small', () => {
    expect(workingSize({ widthMm: mm(60), layers: [{ filmId: 'a', curves: figureCurves({ form: 'rectangle', widthMm: 60, heightMm: 40, cornerMm: 0 }) }] }, limits)).toMatchObject({ leastWidthMm: 0, blockers: [] });
  });
});
