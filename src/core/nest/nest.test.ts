import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import { offsetCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { turnsOver } from '../geometry/affine.ts';
import { boundsOf, type Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { finish } from '../task/task.ts';
import { isBetter, nest, type NestedSheet } from './nest.ts';
import { nestPart, type NestPart } from './nestOutline.ts';
import { onSheet, partToStrip, sheetFrame } from './sheetFrame.ts';
import type { Turns } from './turns.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

/** Ends after so many questions, so that the same is done on every machine. */
const after = (questions: number): (() => number) => {
  let asked = 0;
  return () => Math.min(1, asked++ / questions);
};

interface Laid {
  readonly sheets: readonly NestedSheet[];
  /** For each sheet, the outlines as they lie on it. */
  readonly outlines: readonly (readonly Curves[])[];
}

/** Nests copies of figures on sheets and lays their true outlines there. */
function laid(figures: readonly Curves[], widthMm: number, heightMm: number, { gapMm = 2, turns = 'free' as Turns, questions = 1 } = {}): Laid {
  const frame = sheetFrame(widthMm, heightMm);
  const parts = new Map<Curves, NestPart>();
  for (const curves of figures) if (!parts.has(curves)) parts.set(curves, nestPart(library, transformCurves(curves, partToStrip(frame)), gapMm, 20));
  const part = (k: number): NestPart => parts.get(figures[k]) as NestPart;
  const shapes = figures.map((_, k) => part(k).shape);
  const sheets = finish(nest({ shapes, widthMm: frame.widthMm + gapMm, lengthMm: frame.lengthMm + gapMm, turns, share: after(questions) }));
  const outlines = sheets.map((sheet) =>
    sheet.laid.map(({ part: k, pose }) => {
      const at = onSheet(frame, part(k).shape, pose, gapMm / 2);
      expect(turnsOver(at)).toBe(false);
      return transformCurves(figures[k], at);
    }),
  );
  return { sheets, outlines };
}

/** What is wrong with outlines on a sheet: those nearer than the gap, those beyond the edge. */
function faults(outlines: readonly Curves[], widthMm: number, heightMm: number, gapMm: number): string[] {
  const found: string[] = [];
  for (const [k, curves] of outlines.entries()) {
    const box = boundsOf(curves);
    if (box === undefined || box.left < -0.01 || box.top < -0.01 || box.right > widthMm + 0.01 || box.bottom > heightMm + 0.01) found.push(`${k} lies beyond the sheet: ${JSON.stringify(box)}`);
    const grown = gapMm === 0 ? curves : offsetCurves(library, curves, gapMm - 0.02);
    for (let other = 0; other < k; other++) if (areaOf(combineCurves(library, 'common', grown, outlines[other])) > 0.05) found.push(`${k} and ${other} are too near`);
  }
  return found;
}

const heart = figureCurves({ form: 'heart', widthMm: 40, heightMm: 36 });
const star = figureCurves({ form: 'star', widthMm: 44, heightMm: 44, corners: 5, depth: 0.6 });
const ring = figureCurves({ form: 'ring', widthMm: 60, heightMm: 60, bandMm: 6 });
const disc = figureCurves({ form: 'round', widthMm: 16, heightMm: 16 });
const bar = figureCurves({ form: 'bar', widthMm: 70, heightMm: 8, ends: 'pointed' });

describe('nesting', () => {
  it('loses nothing, overlaps nothing, keeps the gap and the sheet', () => {
    const figure = fc.constantFrom(heart, star, ring, disc, bar);
    fc.assert(
      fc.property(fc.array(figure, { minLength: 3, maxLength: 14 }), fc.constantFrom<Turns>('free', 'quarter', 'none'), fc.constantFrom(0, 1.5, 3), (figures, turns, gapMm) => {
        const { outlines } = laid(figures, 120, 400, { turns, gapMm, questions: 400 });
        expect(outlines.flat()).toHaveLength(figures.length);
        for (const sheet of outlines) expect(faults(sheet, 120, 400, gapMm)).toEqual([]);
      }),
      { seed: 14, numRuns: 12 },
    );
  }, 120_000);

  it('uses less of the sheet the longer it looks, and less than the boxes around the parts take', () => {
    const figures = [...Array<Curves>(8).fill(heart), ...Array<Curves>(6).fill(star), ...Array<Curves>(4).fill(ring), ...Array<Curves>(6).fill(bar)];
    const [first, better] = [laid(figures, 150, 2000), laid(figures, 150, 2000, { questions: 4000 })];
    expect(isBetter(better.sheets, first.sheets)).toBe(true);
    const boxes = figures.map(boundsOf).reduce((sum, box) => sum + (box === undefined ? 0 : (box.right - box.left + 2) * (box.bottom - box.top + 2)), 0);
    expect(better.sheets[0].usedMm * 150).toBeLessThan(0.95 * boxes);
  }, 60_000);

  it('lays small parts into the openings of large ones', () => {
    const { outlines } = laid([ring, disc], 62, 200, { gapMm: 1 });
    expect(Math.max(...outlines[0].map((curves) => boundsOf(curves)?.bottom ?? 0))).toBeLessThan(62);
  });

  it('turns nothing where grain says so, and by right angles alone where quarters are', () => {
    const angles = (turns: Turns): number[] => laid([bar, bar, heart, star], 90, 400, { turns, questions: 300 }).sheets.flatMap((sheet) => sheet.laid.map(({ pose }) => pose.angle));
    expect(angles('none').every((angle) => angle === 0)).toBe(true);
    for (const angle of angles('quarter')) expect(Math.abs(angle / (Math.PI / 2) - Math.round(angle / (Math.PI / 2)))).toBeLessThan(1e-9);
  });

  it('takes another sheet when one is full, and says what is larger than a sheet', () => {
    const { outlines } = laid(Array<Curves>(20).fill(star), 100, 100);
    expect(outlines.length).toBeGreaterThan(3);
    for (const sheet of outlines) expect(faults(sheet, 100, 100, 2)).toEqual([]);
    expect(codeOf(() => laid([bar], 40, 40))).toBe('doesNotFit');
    // As long as the sheet to the last tenth of a millimetre, beside others.
    expect(laid([figureCurves({ form: 'rectangle', widthMm: 20, heightMm: 305.1 }), disc, disc], 300, 305.1, { gapMm: 0 }).outlines.flat()).toHaveLength(3);
    // Askew it fits where it does not along the sides.
    expect(laid([bar], 56, 58).outlines.flat()).toHaveLength(1);
  });

  it('lays thousands at once', () => {
    const { outlines } = laid(Array<Curves>(1500).fill(disc), 600, 5000, { turns: 'none' });
    expect(outlines.flat()).toHaveLength(1500);
    expect(outlines).toHaveLength(1);
  }, 30_000);
});
