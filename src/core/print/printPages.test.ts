import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { placed, turnsOver } from '../geometry/affine.ts';
import { fillPages } from './fillPages.ts';
import { printFacts, printWarnings, trimmedMotif } from './motif.ts';
import { motifsOf, printPages } from './printPages.ts';

const A4 = { widthMm: 200, heightMm: 287 };
const side = fc.double({ min: 8, max: 120, noNaN: true });

describe('pages', () => {
  it('hold every copy once, inside, apart by the gap', () => {
    fc.assert(
      fc.property(fc.array(fc.record({ widthMm: side, heightMm: side }), { minLength: 1, maxLength: 4 }), fc.integer({ min: 1, max: 9 }), fc.double({ min: 0, max: 8, noNaN: true }), (items, copies, gapMm) => {
        const pages = fillPages(items, A4, { gapMm, copies, mayTurn: true });
        for (let item = 0; item < items.length; item++) expect(pages.flat().filter((place) => place.item === item)).toHaveLength(copies);
        for (const page of pages) {
          const boxes = page.map(({ item, xMm, yMm, isTurned }) => ({ x: xMm, y: yMm, w: isTurned ? items[item].heightMm : items[item].widthMm, h: isTurned ? items[item].widthMm : items[item].heightMm }));
          for (const { x, y, w, h } of boxes) expect([x >= 0, y >= 0, x + w <= A4.widthMm + 0.01, y + h <= A4.heightMm + 0.01]).toEqual([true, true, true, true]);
          for (const [k, a] of boxes.entries()) for (const b of boxes.slice(k + 1)) expect(a.x + a.w + gapMm <= b.x + 0.01 || b.x + b.w + gapMm <= a.x + 0.01 || a.y + a.h + gapMm <= b.y + 0.01 || b.y + b.h + gapMm <= a.y + 0.01).toBe(true);
        }
      }),
      { seed: 3, numRuns: 60 },
    );
  });

  it('are filled as full as rows are, with all motifs in turn', () => {
    const pages = fillPages([{ widthMm: 60, heightMm: 58 }], A4, { gapMm: 6, copies: 'fill', mayTurn: true });
    expect([pages.length, pages[0].length, pages[0].some(({ isTurned }) => isTurned)]).toEqual([1, 12, false]);
    // 90 × 60: two across upright, three turned.
    expect(fillPages([{ widthMm: 90, heightMm: 60 }], A4, { gapMm: 4, copies: 'fill', mayTurn: true })[0].length).toBeGreaterThanOrEqual(9);
    const [mixed] = fillPages([{ widthMm: 40, heightMm: 40 }, { widthMm: 60, heightMm: 30 }], A4, { gapMm: 5, copies: 'fill', mayTurn: true });
    const count = (item: number): number => mixed.filter((place) => place.item === item).length;
    expect(count(0)).toBeGreaterThan(6);
    expect(count(1)).toBeGreaterThan(6);
    expect(codeOf(() => fillPages([{ widthMm: 300, heightMm: 300 }], A4, { gapMm: 5, copies: 1, mayTurn: true }))).toBe('doesNotFit');
  });

  it('lay motifs where their boxes are, mirrored about the page for the inside of glass', () => {
    const motifs = motifsOf([{ id: 'a', box: { left: 10, top: 5, right: 60, bottom: 35 } }, { id: 'b', box: { left: 70, top: 0, right: 90, bottom: 20 } }], { widthMm: 90, heightMm: 35 }, true);
    expect(motifs.map(({ parts }) => parts)).toEqual([['a'], ['b']]);
    for (const mirrored of [false, true]) {
      const { pages } = printPages(motifs, { area: { xMm: 5, yMm: 5, ...A4 }, gapMm: 4, copies: 3, mirrored, pageWidthMm: 210 });
      for (const { motif, at, box } of pages.flat()) {
        const { left, top, right, bottom } = motifs[motif].box;
        const corners = [placed(at, left, top), placed(at, right, bottom)];
        expect(Math.min(...corners.map(({ x }) => x))).toBeCloseTo(box.xMm, 9);
        expect(Math.max(...corners.map(({ y }) => y))).toBeCloseTo(box.yMm + box.heightMm, 9);
        expect(turnsOver(at)).toBe(mirrored);
      }
    }
    expect(motifsOf([{ id: 'a', box: motifs[0].box }], { widthMm: 50, heightMm: 30 }, true)).toHaveLength(1);
  });
});

describe('a motif', () => {
  const picture = (paint: (x: number, y: number) => readonly [number, number, number, number]) => makeRgba8(20, 10, Uint8Array.from(Array.from({ length: 200 }, (_, k) => paint(k % 20, Math.floor(k / 20))).flat()));
  it('loses its clear border and nothing else', () => {
    const trimmed = trimmedMotif(picture((x, y) => [x, y, 9, x >= 4 && x < 15 && y >= 2 && y < 8 ? 255 : 0]));
    expect([trimmed.width, trimmed.height, ...trimmed.data.subarray(0, 4)]).toEqual([11, 6, 4, 2, 9, 255]);
    expect(codeOf(() => trimmedMotif(picture(() => [0, 0, 0, 0])))).toBe('nothingToCut');
  });

  it('says what becomes of it on its paper and blank: white is not printed, dark shines through, light hardly shows', () => {
    const half = picture((x) => (x < 10 ? [255, 255, 255, 255] : [122, 88, 140, 255]));
    expect(printFacts(half).whiteShare).toBe(0.5);
    expect(printWarnings(printFacts(half), 120, 'clear', '#101010')).toHaveLength(3);
    expect(printWarnings(printFacts(half), 300, 'white', '#101010')).toEqual([]);
    expect(printWarnings(printFacts(picture(() => [250, 245, 225, 255])), 300, 'clear', '#ffffff').join()).toContain('light art');
  });
});
