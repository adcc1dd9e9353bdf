import { beforeAll, describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { boundsOf, CurvesBuilder, type Bounds, type Curves } from '../outline/curves.ts';
import { translation } from '../geometry/affine.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { mm } from '../units/length.ts';
import type { LayoutSettings, Sheet } from './laySheet.ts';
import { finish } from '../task/task.ts';
import { nestRings } from '../outline/nestRings.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { nestedSheets, nestFilm } from './nestSheets.ts';
import { stockOutline } from './remnants.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const star = figureCurves({ form: 'star', widthMm: 40, heightMm: 40, corners: 5, depth: 0.5, cornerMm: 0 });
const { right, bottom } = boundsOf(star) as Bounds;
const design = { layers: [{ filmId: 'navy', curves: star }], widthMm: mm(right), heightMm: mm(bottom) };
const settings: LayoutSettings = { sheet: { widthMm: 300, heightMm: 600, marginMm: { left: 0, top: 0, right: 0, bottom: 0 }, origin: 'topLeft' }, mirrored: false, box: { on: false, marginMm: 0 }, copies: 20, gapMm: 2, arrange: 'nested' };
const remnant = (widthMm: number, heightMm: number, outline?: number[]) => ({ name: `${widthMm} × ${heightMm}`, film: 'navy', widthMm, heightMm, ...(outline === undefined ? {} : { outline }) });
const outlinesOn = ({ parts, placements }: Sheet): Curves[] => placements.map(({ partId, at }) => transformCurves(parts.find(({ id }) => id === partId)?.curves ?? star, at));
const sheetsWith = (remnants: LayoutSettings['remnants']): Sheet[] => nestedSheets(library, design, 'navy', { ...settings, remnants });

describe('the outline of a design', () => {
  it('becomes a piece of stock that parts are laid on, without what is in it and beside it', () => {
    const cloth = transformCurves(figureCurves({ form: 'heart', widthMm: 180, heightMm: 160 }), translation(30, 20));
    const hole = transformCurves(figureCurves({ form: 'round', widthMm: 20, heightMm: 20 }), translation(100, 60));
    const crumb = figureCurves({ form: 'round', widthMm: 6, heightMm: 6 });
    const found = stockOutline(library, [combineCurves(library, 'cutOut', cloth, hole), crumb]);
    expect([found?.widthMm, found?.heightMm]).toEqual([expect.closeTo(180, 0), expect.closeTo(160, 0)]);
    const sheets = sheetsWith([{ ...remnant(found?.widthMm ?? 0, found?.heightMm ?? 0, [...(found?.outline ?? [])]) }]);
    expect(sheets[0].outline).toEqual(found?.outline);
    expect(sheets[0].placements.length).toBeGreaterThanOrEqual(4);
    const home = transformCurves(cloth, translation(-30, -20));
    // On the cloth, within what its corners are off the curve.
    for (const curves of outlinesOn(sheets[0])) expect(areaOf(combineCurves(library, 'cutOut', curves, home))).toBeLessThan(0.5);
  });

  it('has no more corners than a remnant can have, and is none where there is nothing', () => {
    const jagged = Array.from({ length: 5000 }, (_, k) => `${k === 0 ? 'M' : 'L'}${100 + (90 + (k % 2)) * Math.cos(k / 795.8)} ${100 + (90 + (k % 2)) * Math.sin(k / 795.8)}`).join('');
    expect(stockOutline(library, [nestRings(curvesFromPathData(`${jagged}Z`))])?.outline?.length).toBeLessThanOrEqual(2000);
    expect(stockOutline(library, [])).toBeUndefined();
    expect(stockOutline(library, [figureCurves({ form: 'round', widthMm: 3, heightMm: 3 })])).toBeUndefined();
  });
});

describe('what is left of a film', () => {
  it('is used first, each as full as it gets, and only the rest takes a new sheet', () => {
    const sheets = sheetsWith([remnant(100, 100), remnant(20, 20), remnant(130, 60)]);
    expect(sheets.map((sheet) => [sheet.remnant, sheet.number, sheet.widthMm])).toEqual([['100 × 100', 1, 100], ['130 × 60', 2, 130], [undefined, 3, 300]]);
    expect(sheets[0].placements.length).toBeGreaterThanOrEqual(4);
    expect(sheets.reduce((sum, { placements }) => sum + placements.length, 0)).toBe(20);
    for (const sheet of sheets) {
      const lying = outlinesOn(sheet);
      for (const [k, a] of lying.entries()) for (const b of lying.slice(k + 1)) expect(areaOf(combineCurves(library, 'common', a, b))).toBeLessThan(1e-6);
      for (const curves of lying) {
        const box = boundsOf(curves) as Bounds;
        expect(Math.min(box.left, box.top, sheet.widthMm - box.right, sheet.heightMm - box.bottom)).toBeGreaterThan(-1e-3);
      }
    }
  });

  it('of any outline holds nothing where it is not', () => {
    // An angle: its inner corner is gone.
    const corners = [0, 0, 160, 0, 160, 60, 60, 60, 60, 160, 0, 160];
    const [first] = sheetsWith([remnant(160, 160, corners)]);
    expect(first.remnant).toBe('160 × 160');
    expect(first.placements.length).toBeGreaterThanOrEqual(4);
    const builder = new CurvesBuilder();
    builder.start(60, 60, -1);
    for (const [x, y] of [[160, 60], [160, 160], [60, 160], [60, 60]]) builder.line(x, y);
    builder.close();
    for (const curves of outlinesOn(first)) expect(areaOf(combineCurves(library, 'common', curves, builder.build()))).toBeLessThan(1e-6);
  });

  it('of another film, or too small for any part, changes nothing', () => {
    const plain = sheetsWith(undefined);
    expect(sheetsWith([{ ...remnant(200, 200), film: 'rust' }, remnant(30, 8)])).toEqual(plain);
    expect(plain).toHaveLength(1);
  });

  it('makes another arrangement of what is left: one of all pieces, found before, is not taken up', () => {
    const two = joinCurves([star, transformCurves(figureCurves({ form: 'round', widthMm: 15, heightMm: 15 }), translation(60, 0))]);
    const both = { layers: [{ filmId: 'navy', curves: two }], widthMm: mm(75), heightMm: mm(40) };
    const apart: LayoutSettings = { ...settings, copies: 1, apart: true };
    const record = finish(nestFilm(library, both, 'navy', apart, () => 1));
    // The round goes on the remnant, the star does not.
    const sheets = nestedSheets(library, both, 'navy', { ...apart, nests: [record], remnants: [remnant(20, 20)] });
    expect(sheets.map(({ remnant: name, placements }) => [name, placements.length])).toEqual([['20 × 20', 1], [undefined, 1]]);
  });

  it('is all that is needed where everything lies on it', () => {
    const sheets = nestedSheets(library, design, 'navy', { ...settings, copies: 2, remnants: [remnant(120, 120)] });
    expect(sheets.map(({ remnant: name, number, placements }) => [name, number, placements.length])).toEqual([['120 × 120', undefined, 2]]);
  });
});
