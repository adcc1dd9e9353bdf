import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import type { Design } from '../assemble/design.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { placed, translation, turnsOver } from '../geometry/affine.ts';
import type { RectMm } from '../geometry/rectMm.ts';
import { boundsOf, ringCount, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { mm } from '../units/length.ts';
import { mergedRects, rectAround, touch } from './boxes.ts';
import { boxCurves } from './cutPlan.ts';
import { laySheet, REGISTER_PART, type LayoutSettings } from './laySheet.ts';
import { nestedSheets } from './nestSheets.ts';
import { registerMarks } from './registerMarks.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const heart = figureCurves({ form: 'heart', widthMm: 20, heightMm: 18 });
const dot = transformCurves(figureCurves({ form: 'round', widthMm: 10, heightMm: 10 }), translation(50, 4));
const design: Design = { layers: [{ filmId: 'red', curves: joinCurves([heart, dot]) }], widthMm: mm(60), heightMm: mm(18) };
const settings = (change: Partial<LayoutSettings> = {}): LayoutSettings => ({
  sheet: { widthMm: 300, heightMm: 200, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' },
  mirrored: false,
  box: { on: true, marginMm: 4 },
  copies: 2,
  gapMm: 3,
  ...change,
});
const isIn = (inner: RectMm, outer: RectMm): boolean =>
  inner.xMm >= outer.xMm - 1e-6 && inner.yMm >= outer.yMm - 1e-6 && inner.xMm + inner.widthMm <= outer.xMm + outer.widthMm + 1e-6 && inner.yMm + inner.heightMm <= outer.yMm + outer.heightMm + 1e-6;

describe('weeding boxes', () => {
  it('are drawn around each copy, all of them, each piece, or the blank', () => {
    const around = (value: LayoutSettings['box']['around'], change: Partial<LayoutSettings> = {}) => laySheet(design, 'red', settings({ box: { on: true, marginMm: 4, around: value }, ...change }));
    expect(around('copy').boxes).toMatchObject([{ widthMm: 68, heightMm: 26 }, { widthMm: 68, heightMm: 26 }]);
    expect(around('all').boxes).toEqual([{ xMm: 5, yMm: 5, widthMm: 60 * 2 + 3 + 8, heightMm: 26 }]);
    // The dot's box, and that of the heart, of each of two copies.
    const pieces = around('piece');
    expect(pieces.boxes.map(({ widthMm }) => Math.round(widthMm)).sort()).toEqual([18, 18, 28, 28]);
    expect(pieces.boxes.every((box) => isIn(box, pieces.cutArea))).toBe(true);
    const blank = { widthMm: 90, heightMm: 60, xMm: 20, yMm: 10 };
    const whole = around('blank', { blank });
    expect(whole.boxes).toMatchObject([{ xMm: 5, yMm: 5, widthMm: 90, heightMm: 60 }, { xMm: 98, yMm: 5, widthMm: 90, heightMm: 60 }]);
    expect(whole.placements[0].at).toMatchObject({ e: 25, f: 15 });
    // Turned over, the design is as far from the other side of the blank.
    const over = around('blank', { blank, mirrored: true }).placements[0].at;
    expect(placed(over, 0, 0)).toMatchObject({ x: expect.closeTo(5 + 90 - 20, 9) as number, y: 15 });
  });

  it('hold a copy that lies turned by a quarter, mirrored as it is', () => {
    for (const mirrored of [false, true]) {
      const plain = laySheet(design, 'red', settings({ mirrored, copies: 1 }));
      const sheet = laySheet(design, 'red', settings({ mirrored, copies: 1, turned: true }));
      const [box, before] = [sheet.boxes[0], plain.boxes[0]];
      expect([box.widthMm, box.heightMm]).toEqual([before.heightMm, before.widthMm]);
      const lying = rectAround(transformCurves(design.layers[0].curves, sheet.placements[0].at)) as RectMm;
      expect([lying.xMm - box.xMm, lying.yMm - box.yMm]).toEqual([expect.closeTo(4, 6), expect.closeTo(4, 6)]);
      expect(turnsOver(sheet.placements[0].at)).toBe(mirrored);
    }
  });

  it('become one where they touch, and none is lost', () => {
    const rect = fc.record({ xMm: fc.double({ min: 0, max: 90, noNaN: true }), yMm: fc.double({ min: 0, max: 90, noNaN: true }), widthMm: fc.double({ min: 1, max: 20, noNaN: true }), heightMm: fc.double({ min: 1, max: 20, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(rect, { maxLength: 40 }), (rects) => {
        const merged = mergedRects(rects);
        for (const [k, a] of merged.entries()) for (const b of merged.slice(k + 1)) expect(touch(a, b)).toBe(false);
        for (const each of rects) expect(merged.some((box) => isIn(each, box))).toBe(true);
      }),
      { seed: 5, numRuns: 200 },
    );
  });

  it('have round corners that take off what a round does', () => {
    const box = { xMm: 1, yMm: 2, widthMm: 40, heightMm: 30 };
    expect(areaOf(boxCurves([box], 5))).toBeCloseTo(1200 - (4 - Math.PI) * 25, 1);
    expect(areaOf(boxCurves([box]))).toBeCloseTo(1200, 9);
    expect(rectAround(boxCurves([box], 99))).toMatchObject({ xMm: 1, yMm: 2, widthMm: 40, heightMm: 30 });
  });
});

describe('register marks', () => {
  it('lie above the design at the same place on every film, inside the box, clear of the art', () => {
    for (const areHoles of [false, true]) {
      const marks = registerMarks(60, 6, areHoles);
      expect(ringCount(marks)).toBe(2);
      expect(boundsOf(marks)).toMatchObject({ left: expect.closeTo(0, 6) as number, right: 60, top: -9, bottom: -3 });
    }
    // The second is not the first again: a film that lies the other way round shows it.
    const { coordStart } = registerMarks(60, 6, false);
    expect(coordStart[2] - coordStart[1]).not.toBe(coordStart[1] - coordStart[0]);
    const sheet = laySheet(design, 'red', settings({ register: { on: true, sizeMm: 6 }, mirrored: true }));
    expect(sheet.placements.map(({ partId }) => partId)).toEqual(['design', 'design', REGISTER_PART, REGISTER_PART]);
    expect(sheet.placements[2].at).toEqual(sheet.placements[0].at);
    const lying = sheet.placements.map(({ partId, at }) => rectAround(transformCurves(sheet.parts.find(({ id }) => id === partId)?.curves as Curves, at)) as RectMm);
    for (const [k, rect] of lying.entries()) expect(isIn(rect, sheet.boxes[k % 2])).toBe(true);
    expect(touch(lying[0], lying[2])).toBe(false);
  });
});

describe('flaws of a sheet', () => {
  it('are kept clear of by everything that is nested, at their true place', () => {
    const flaw = fc.record({ xMm: fc.double({ min: 0, max: 280, noNaN: true }), yMm: fc.double({ min: 0, max: 180, noNaN: true }), widthMm: fc.double({ min: 2, max: 40, noNaN: true }), heightMm: fc.double({ min: 2, max: 40, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(flaw, { minLength: 1, maxLength: 4 }), fc.boolean(), (flaws, isHigh) => {
        const sheet = isHigh ? { ...settings().sheet, widthMm: 200, heightMm: 300 } : settings().sheet;
        const sheets = nestedSheets(library, design, 'red', settings({ sheet, arrange: 'nested', copies: 12, flaws, box: { on: false, marginMm: 0 } }));
        expect(sheets.flatMap(({ placements }) => placements)).toHaveLength(12);
        for (const { placements, parts, cutArea } of sheets) {
          for (const { at } of placements) {
            const lying = transformCurves(parts[0].curves, at);
            expect(isIn(rectAround(lying) as RectMm, cutArea)).toBe(true);
            for (const each of flaws) expect(areaOf(combineCurves(library, 'common', lying, boxCurves([each])))).toBeLessThan(1e-3);
          }
        }
      }),
      { seed: 12, numRuns: 12 },
    );
  });
});
