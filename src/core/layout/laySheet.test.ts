import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { disc as discShare, polygon, sampled } from '../../../tests/fixtures/shapes.ts';
import { makeDesign, type Design } from '../assemble/design.ts';
import { overBlankMm, placeOnBlank } from '../assemble/placeOnBlank.ts';
import { cutCheck } from '../check/cutCheck.ts';
import { judge } from '../check/judge.ts';
import { lookAt } from '../check/lookAt.ts';
import { isAppError } from '../errors/appError.ts';
import { boundsOf } from '../outline/curves.ts';
import { outlineOf } from '../outline/traceOutline.ts';
import { translation } from '../geometry/affine.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { mm } from '../units/length.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { curvesOfRole, cutPlanOf } from './cutPlan.ts';
import { assertFits, fits, laySheet, type LayoutSettings } from './laySheet.ts';

const FILM = { id: 'film', name: 'Harbour navy', colour: '#22375f' };
/** An L, so that a mirror shows. */
const letter = outlineOf(
  polygon(60, 80, [
    [10, 10],
    [22, 10],
    [22, 58],
    [48, 58],
    [48, 70],
    [10, 70],
  ]),
);
const design = (sizeMm = 40): Design => makeDesign([{ filmId: 'film', curves: letter }], { by: 'width', sizeMm, turnDeg: 0 });
const settings = (change: Partial<LayoutSettings> = {}): LayoutSettings => ({
  sheet: { widthMm: 300, heightMm: 400, marginMm: { left: 5, top: 6, right: 7, bottom: 8 }, origin: 'topLeft' },
  mirrored: false,
  box: { on: true, marginMm: 4 },
  copies: 1,
  gapMm: 3,
  ...change,
});

describe('design', () => {
  it('has exactly the size that was asked for, by width or by height', () => {
    const byWidth = design(123.4);
    const box = boundsOf(byWidth.layers[0].curves)!;
    expect(box.right - box.left).toBeCloseTo(123.4, 6);
    expect([box.left, box.top].map((v) => Math.abs(v))).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
    const byHeight = makeDesign([{ filmId: 'film', curves: letter }], { by: 'height', sizeMm: 90, turnDeg: 0 });
    expect(byHeight.heightMm).toBeCloseTo(90, 6);
    expect(byHeight.resolution).toBeCloseTo(60 / 90, 2);
  });

  it('measures the turned design', () => {
    const turned = makeDesign([{ filmId: 'film', curves: letter }], { by: 'width', sizeMm: 60, turnDeg: 90 });
    expect(turned.widthMm).toBeCloseTo(60, 6);
    expect(turned.heightMm).toBeCloseTo(60 * (38 / 60), 0);
  });

  it('lies centred near the top of its blank unless it was placed', () => {
    const blank = { widthMm: 300, heightMm: 380 };
    expect(placeOnBlank(undefined, blank, { widthMm: 100, heightMm: 80 })).toEqual({ xMm: 100, yMm: 50 });
    expect(placeOnBlank({ xMm: 3, yMm: 4 }, blank, { widthMm: 100, heightMm: 80 })).toEqual({ xMm: 3, yMm: 4 });
    expect(overBlankMm({ xMm: 210, yMm: 0 }, blank, { widthMm: mm(100), heightMm: mm(80), layers: [] })).toBe(10);
    expect(overBlankMm({ xMm: 0, yMm: 0 }, blank, { widthMm: mm(300), heightMm: mm(380), layers: [] })).toBe(0);
    // A disc lies on a round blank of its size although its box does not; moved by 5 mm it reaches over by as much.
    const round = { widthMm: 80, heightMm: 80, round: true };
    const disc = {
      widthMm: mm(80),
      heightMm: mm(80),
      layers: [{ filmId: 'a', curves: transformCurves(outlineOf(discShare(90, 90, 45, 45, 40)), translation(-5, -5)) }],
    };
    expect(overBlankMm({ xMm: 0, yMm: 0 }, round, disc)).toBe(0);
    expect(overBlankMm({ xMm: 5, yMm: 0 }, round, disc)).toBeCloseTo(5, 0);
  });
});

describe('laySheet', () => {
  it('puts the box at the margin around the design, in the origin’s corner', () => {
    for (const origin of ['topLeft', 'topRight', 'bottomLeft', 'bottomRight'] as const) {
      const sheet = laySheet(design(), 'film', settings({ sheet: { ...settings().sheet, origin } }));
      const [box] = sheet.boxes;
      const art = boundsOf(curvesOfRole(cutPlanOf(sheet, FILM), 'cut'))!;
      expect(art.left - box.xMm).toBeCloseTo(4, 6);
      expect(art.top - box.yMm).toBeCloseTo(4, 6);
      expect(box.xMm + box.widthMm - art.right).toBeCloseTo(4, 6);
      expect(box.yMm + box.heightMm - art.bottom).toBeCloseTo(4, 6);
      expect(origin.endsWith('Right') ? 293 - box.xMm - box.widthMm : box.xMm - 5).toBeCloseTo(0, 6);
      expect(origin.startsWith('bottom') ? 392 - box.yMm - box.heightMm : box.yMm - 6).toBeCloseTo(0, 6);
    }
  });

  it('mirrors each copy in its own place', () => {
    const plain = laySheet(design(), 'film', settings({ copies: 3 }));
    const mirrored = laySheet(design(), 'film', settings({ copies: 3, mirrored: true }));
    expect(mirrored.boxes).toEqual(plain.boxes);
    for (const [k, { at: t }] of mirrored.placements.entries()) {
      const p = plain.placements[k].at;
      expect(t.a * 0 + t.e).toBeCloseTo(p.e + design().widthMm, 6);
      expect(t.f).toBeCloseTo(p.f, 6);
    }
  });

  it('fits as many as it says and no more', () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 150 }), fc.integer({ min: 0, max: 20 }), fc.integer({ min: 0, max: 12 }), (sizeMm, gapMm, marginMm) => {
        const base = settings({ gapMm, box: { on: true, marginMm } });
        const { room } = laySheet(design(sizeMm), 'film', base);
        if (room > 0) {
          const full = laySheet(design(sizeMm), 'film', { ...base, copies: room });
          expect(fits(full)).toBe(true);
          for (const box of full.boxes) {
            expect(box.xMm).toBeGreaterThanOrEqual(full.cutArea.xMm - 1e-6);
            expect(box.yMm + box.heightMm).toBeLessThanOrEqual(full.cutArea.yMm + full.cutArea.heightMm + 0.01);
          }
        }
        expect(fits(laySheet(design(sizeMm), 'film', { ...base, copies: room + 1 }))).toBe(false);
      }),
      { seed: 91, numRuns: 60 },
    );
  });

  it('says by how much it does not fit', () => {
    const sheet = laySheet(design(290), 'film', settings());
    expect(sheet.over.widthMm).toBeCloseTo(290 + 8 - 288, 6);
    expect(sheet.room).toBe(0);
    try {
      assertFits(sheet);
      expect.unreachable();
    } catch (error) {
      expect(isAppError(error) && error.details).toEqual({ overWidthMm: 10, overHeightMm: expect.closeTo(79.9, 0) });
    }
    expect(() => laySheet(design(), 'other', settings())).toThrow(RangeError);
  });
});

describe('checks', () => {
  it('finds what is too small at the finished size, smallest first, and a coarse picture', () => {
    const dots = outlineOf(discShare(80, 80, 30, 40, 20));
    const limits = { leastPieceMm2: 2, leastStripMm: 0, artIsOpening: false };
    const large = makeDesign([{ filmId: 'film', curves: dots }], { by: 'width', sizeMm: 40, turnDeg: 0 });
    expect(cutCheck(large, limits, large.resolution).map(({ kind }) => kind)).toEqual(['coarsePicture']);
    const small = makeDesign([{ filmId: 'film', curves: dots }], { by: 'width', sizeMm: 1, turnDeg: 0 });
    const [finding] = cutCheck(small, limits);
    expect(finding.kind).toBe('smallPiece');
    expect(finding.size).toBeCloseTo(Math.PI / 4, 1);
    expect(finding.xMm).toBeCloseTo(0.5, 1);
  });

  it('warns of islands where the art is cut out, of any size, and calls the same place a hole elsewhere', () => {
    const ringShape = sampled(80, 80, (x, y) => Math.abs(Math.hypot(x - 40, y - 40) - 22.5) <= 7.5);
    const ring = makeDesign([{ filmId: 'film', curves: outlineOf(ringShape) }], { by: 'width', sizeMm: 60, turnDeg: 0 });
    expect(cutCheck(ring, { leastPieceMm2: 2, leastStripMm: 0.8, artIsOpening: false }, ring.resolution).map(({ kind }) => kind)).toEqual([
      'coarsePicture',
    ]);
    const [island] = cutCheck(ring, { leastPieceMm2: 2, leastStripMm: 1, artIsOpening: true });
    expect(island.kind).toBe('island');
    expect(island.size).toBeCloseTo(Math.PI * 15 ** 2, -1);
  });

  it('counts real colours and not the mixtures between them', () => {
    const data = new Uint8Array(100 * 100 * 4);
    for (let i = 0; i < 10_000; i++)
      data.set(i % 100 < 50 ? [200, 30, 40, 255] : i % 100 === 50 ? [228, 143, 148, 255] : [255 - (i % 3), 255, 255 - (i % 2), 255], i * 4);
    const look = lookAt(makeRgba8(100, 100, data));
    expect(look.realColours).toBeLessThanOrEqual(3);
    expect(look.realColours).toBeGreaterThanOrEqual(2);
    expect(look.hasClear).toBe(false);
  });

  it('judges in plain words', () => {
    const look = { colours: 9000, realColours: 3, hasClear: false };
    expect(judge({ look, dpi: 200, tooSmall: 0, leastPieceMm2: 2 }).verdict).toBe('good');
    expect(judge({ look, dpi: 80, tooSmall: undefined, leastPieceMm2: 2 }).verdict).toBe('fair');
    expect(judge({ look, dpi: 30, tooSmall: 4, leastPieceMm2: 2 }).words).toContain('4 places');
    expect(judge({ look: { ...look, realColours: 40 }, dpi: 200, tooSmall: 0, leastPieceMm2: 2 }).words).toContain('shaded');
  });
});
