import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { sharpTips } from '../combine/sharpTips.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { rotation, translation } from '../geometry/affine.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { nestRings } from '../outline/nestRings.ts';
import { piecesOf } from '../outline/pieces.ts';
import { thinPlaces } from '../outline/thinPlaces.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { mendCurves } from './mendCurves.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

/** Two blocks of 10 mm with a neck between them. */
const dumbbell = (neckMm: number, lengthMm = 12) => nestRings(curvesFromPathData(`M0 0L10 0L10 ${5 - neckMm / 2}L${10 + lengthMm} ${5 - neckMm / 2}L${10 + lengthMm} 0L${20 + lengthMm} 0L${20 + lengthMm} 10L${10 + lengthMm} 10L${10 + lengthMm} ${5 + neckMm / 2}L10 ${5 + neckMm / 2}L10 10L0 10Z`));
/** Two blocks beside each other. */
const pair = (gapMm: number) => nestRings(curvesFromPathData(`M0 0L10 0L10 10L0 10ZM${10 + gapMm} 0L${20 + gapMm} 0L${20 + gapMm} 10L${10 + gapMm} 10Z`));

describe('mending', () => {
  it('broadens what is too thin to the limit, at any turn, and leaves everything else where it was', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.15, max: 0.75, noNaN: true }), fc.double({ min: 0, max: 6.2, noNaN: true }), (neckMm, turn) => {
        const curves = transformCurves(dumbbell(neckMm), rotation(turn, 10, 5));
        const mended = mendCurves(library, curves, { stripMm: 0.8 });
        expect(thinPlaces(curves, 0.8).length).toBeGreaterThan(0);
        expect(thinPlaces(mended, 0.8)).toEqual([]);
        // Nothing is lost, and no more is added than the neck takes.
        expect(areaOf(combineCurves(library, 'cutOut', curves, mended))).toBeLessThan(0.02);
        expect(areaOf(mended) - areaOf(curves)).toBeLessThan((0.8 - neckMm + 0.05) * 14);
      }),
      { seed: 7, numRuns: 30 },
    );
  });

  it('mends one of two places when only that is meant', () => {
    const two = joinCurves([dumbbell(0.4), transformCurves(dumbbell(0.4), translation(0, 30))]);
    const mended = mendCurves(library, two, { stripMm: 0.8, at: [{ x: 16, y: 35 }] });
    expect(thinPlaces(mended, 0.8).map(({ yMm }) => Math.round(yMm))).toEqual([5]);
  });

  it('opens a gap to the limit or closes it', () => {
    const narrow = pair(0.2);
    const open = mendCurves(library, narrow, { gapMm: 0.5 });
    expect(thinPlaces(open, 0.5, 'outside')).toEqual([]);
    expect(areaOf(narrow) - areaOf(open)).toBeLessThan(0.34 * 10.8);
    const shut = mendCurves(library, narrow, { gapMm: 0.5, gapsAre: 'closed' });
    expect(piecesOf(shut)).toHaveLength(1);
    expect(areaOf(shut)).toBeCloseTo(202, 0);
    expect(piecesOf(mendCurves(library, pair(0.8), { gapMm: 0.5, gapsAre: 'closed' }))).toHaveLength(2);
  });

  it('drops small pieces and fills small holes, and no others', () => {
    const ring = figureCurves({ form: 'ring', widthMm: 20, heightMm: 20, bandMm: 9.5 });
    const all = joinCurves([ring, transformCurves(figureCurves({ form: 'round', widthMm: 1, heightMm: 1 }), translation(30, 0)), transformCurves(figureCurves({ form: 'round', widthMm: 3, heightMm: 3 }), translation(40, 0))]);
    const mended = mendCurves(library, all, { pieceMm2: 1.5 });
    expect(piecesOf(mended).map(({ holes, area }) => [holes.length, Math.round(area)])).toEqual([[0, 314], [0, 7]]);
    expect(piecesOf(mendCurves(library, all, { pieceMm2: 1.5, at: [{ x: 30.5, y: 0.5 }] })).map(({ holes }) => holes.length)).toEqual([1, 0]);
  });

  it('takes the point off a tip and no more', () => {
    const needle = nestRings(curvesFromPathData('M0 0L30 2L0 4Z'));
    expect(sharpTips(needle, 12)).toHaveLength(1);
    const mended = mendCurves(library, needle, { tipDeg: 12, tipRadiusMm: 0.3 });
    expect(sharpTips(mended, 12)).toEqual([]);
    expect(areaOf(needle) - areaOf(mended)).toBeLessThan(2);
    expect(areaOf(needle) - areaOf(mended)).toBeGreaterThan(0.1);
  });

  it('leaves outlines without weak places as they are, to the same value', () => {
    const heart = figureCurves({ form: 'heart', widthMm: 30, heightMm: 30 });
    expect(mendCurves(library, heart, { stripMm: 0.8, gapMm: 0.4, tipDeg: 12, tipRadiusMm: 0.3 })).toBe(heart);
  });
});
