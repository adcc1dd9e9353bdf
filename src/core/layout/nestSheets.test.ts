import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { beforeAll, describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import type { Design } from '../assemble/design.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { mirrorAbout, translation, turnsOver } from '../geometry/affine.ts';
import { boundsOf, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { finish } from '../task/task.ts';
import { mm } from '../units/length.ts';
import { nestFilm, nestedSheets } from './nestSheets.ts';
import type { LayoutSettings } from './laySheet.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const heart = figureCurves({ form: 'heart', widthMm: 30, heightMm: 28 });
const flag = transformCurves(figureCurves({ form: 'speech', widthMm: 34, heightMm: 20, at: 0.2, tailMm: 8 }), translation(50, 5));
const design: Design = { layers: [{ filmId: 'red', curves: joinCurves([heart, flag]) }], widthMm: mm(84), heightMm: mm(33) };
const settings: LayoutSettings = { sheet: { widthMm: 120, heightMm: 200, marginMm: { left: 4, top: 3, right: 4, bottom: 3 }, origin: 'bottomLeft' }, box: { on: true, marginMm: 4 }, copies: 5, gapMm: 2, mirrored: true, arrange: 'nested', turns: 'none' };

describe('nested sheets', () => {
  it('hold every copy as the mirrored design, in the cut area with their box, from the origin corner', () => {
    const sheets = nestedSheets(library, design, 'red', settings);
    expect(sheets.flatMap(({ placements }) => placements)).toHaveLength(5);
    const mirrored = transformCurves(design.layers[0].curves, mirrorAbout(42));
    for (const { parts, placements, boxes: [box], cutArea, used } of sheets) {
      expect(parts).toHaveLength(1);
      for (const { at } of placements) {
        expect(turnsOver(at)).toBe(false);
        // Not turned, and the other way round than the design: laid back on the mirrored design nothing differs.
        const back = transformCurves(transformCurves(parts[0].curves, at), translation(-at.e, -at.f));
        expect([at.a, at.b]).toEqual([1, 0]);
        expect(areaOf(combineCurves(library, 'cutOut', mirrored, back))).toBeLessThan(0.01);
      }
      expect(box.xMm).toBeGreaterThanOrEqual(cutArea.xMm - 1e-6);
      expect(box.yMm + box.heightMm).toBeCloseTo(cutArea.yMm + cutArea.heightMm, 6);
      expect(box.widthMm).toBeLessThanOrEqual(cutArea.widthMm + 1e-6);
      expect(used.xMm - box.xMm).toBeCloseTo(4, 6);
    }
  });

  it('take pieces by themselves, of which none overlaps another', () => {
    const [sheet, ...more] = nestedSheets(library, design, 'red', { ...settings, apart: true, turns: 'free', copies: 3 });
    expect(more).toHaveLength(0);
    expect(sheet.parts.map(({ id }) => id)).toEqual(['piece-1', 'piece-2']);
    const lying = sheet.placements.map(({ partId, at }) => transformCurves(sheet.parts.find(({ id }) => id === partId)?.curves as Curves, at));
    expect(lying).toHaveLength(6);
    for (const [k, curves] of lying.entries()) for (const other of lying.slice(k + 1)) expect(areaOf(combineCurves(library, 'common', curves, other))).toBeLessThan(1e-3);
  });

  it('lie as was found last, until an outline or the sheet changes', () => {
    const start = { ...settings, apart: true, turns: 'free' as const };
    let asked = 0;
    const record = finish(nestFilm(library, design, 'red', start, () => Math.min(1, asked++ / 1500)));
    const used = (change: Partial<LayoutSettings>, from = design): number => nestedSheets(library, from, 'red', { ...start, ...change })[0].used.heightMm;
    const [found, first] = [used({ nests: [record] }), used({})];
    expect(found).toBeLessThan(first);
    expect(used({ nests: [record], gapMm: 3 })).toBe(used({ gapMm: 3 }));
    const grown: Design = { ...design, layers: [{ filmId: 'red', curves: transformCurves(design.layers[0].curves, { a: 1.01, b: 0, c: 0, d: 1.01, e: 0, f: 0 }) }] };
    expect(used({ nests: [record] }, grown)).toBe(used({}, grown));
  });

  it('say by rows that do not fit when a part is larger than the sheet', () => {
    const [sheet] = nestedSheets(library, design, 'red', { ...settings, sheet: { ...settings.sheet, widthMm: 60, heightMm: 60 } });
    expect(sheet.over.widthMm).toBeGreaterThan(0);
    expect(boundsOf(sheet.parts[0].curves)).toBeDefined();
  });
});
