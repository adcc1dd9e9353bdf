import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { translation } from '../geometry/affine.ts';
import { piecesOf } from '../outline/pieces.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { withBleed } from './bleed.ts';
import { motifContour, whiteBack } from './printShapes.ts';
import { printWarnings } from './motif.ts';
import { sealMinutes, sealPlan } from './sealPlan.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const ring = { curves: figureCurves({ form: 'ring', widthMm: 40, heightMm: 40, bandMm: 8 }) };
const dot = { curves: transformCurves(figureCurves({ form: 'round', widthMm: 10, heightMm: 10 }), translation(41, 15)) };

describe('what lies below and around a print', () => {
  it('is white so much smaller than the ink that none of it shows, openings included', () => {
    const white = whiteBack(library, [ring], 0.5);
    expect(areaOf(white)).toBeCloseTo(Math.PI * (19.5 ** 2 - 12.5 ** 2), 0);
    expect(areaOf(combineCurves(library, 'cutOut', white, ring.curves))).toBeLessThan(1e-3);
    expect(areaOf(whiteBack(library, [ring, dot], 0))).toBeCloseTo(areaOf(ring.curves) + areaOf(dot.curves), 0);
  });

  it('is one line around pieces that lie near to each other, without openings', () => {
    const contour = motifContour(library, [ring, dot], 2);
    expect(piecesOf(contour).map(({ holes }) => holes.length)).toEqual([0]);
    expect(areaOf(combineCurves(library, 'cutOut', ring.curves, contour))).toBeLessThan(1e-3);
    expect(piecesOf(motifContour(library, [ring, dot], 0))).toHaveLength(2);
    expect(areaOf(motifContour(library, [ring], 3))).toBeCloseTo(Math.PI * 23 ** 2, 0);
  });

  it('warns of white and dark only where the blank shows through', () => {
    const facts = { whiteShare: 0.2, softShare: 0, lightness: 0.9, beyondInkShare: 0 };
    expect(printWarnings(facts, 300, 'clear', '#202020')).toHaveLength(2);
    expect(printWarnings(facts, 300, 'clear', '#202020', true)).toEqual([]);
  });
});

describe('bleed', () => {
  it('runs out as far as asked and no further, in the colour that is nearest', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 2, max: 12 }), (byPx, size) => {
        const data = new Uint8Array(4 * 30 * 30);
        const isInk = (x: number, y: number): boolean => x >= 12 && x < 12 + size && y >= 10 && y < 10 + size;
        for (let y = 0; y < 30; y++) for (let x = 0; x < 30; x++) if (isInk(x, y)) data.set(x < 12 + size / 2 ? [200, 30, 40, 255] : [20, 60, 180, 255], 4 * (y * 30 + x));
        const { picture, padPx } = withBleed(makeRgba8(30, 30, data), byPx);
        expect([picture.width, padPx]).toEqual([30 + 2 * byPx, byPx]);
        for (let y = 0; y < picture.height; y++) {
          for (let x = 0; x < picture.width; x++) {
            const [px, py] = [x - padPx, y - padPx];
            const dx = Math.max(12 - px, 0, px - (11 + size));
            const dy = Math.max(10 - py, 0, py - (9 + size));
            const at = 4 * (y * picture.width + x);
            expect(picture.data[at + 3]).toBe(Math.hypot(dx, dy) <= byPx ? 255 : 0);
            // Left of the ink it is red, right of it blue.
            if (dx > 0 && dy === 0 && dx <= byPx) expect(picture.data[at] > picture.data[at + 2]).toBe(px < 12);
          }
        }
      }),
      { seed: 8, numRuns: 30 },
    );
  });

  it('changes nothing without a distance, nor where nothing is inked', () => {
    const clear = makeRgba8(4, 4, new Uint8Array(64));
    expect(withBleed(clear, 0)).toMatchObject({ padPx: 0 });
    expect(withBleed(clear, 2).picture.data.every((value) => value === 0)).toBe(true);
  });
});

describe('sealing and drying', () => {
  it('is a wait for each coat between a first and a last, none for what a laser printed', () => {
    const steps = sealPlan({ ink: 'inkJet', dryMin: 30, coats: 3, coatMin: 20, finalH: 12 });
    expect(steps.map(({ what }) => what)).toEqual(['dry', 'coat', 'coat', 'coat', 'final']);
    expect(sealMinutes(steps)).toBe(30 + 60 + 720);
    expect(sealPlan({ ink: 'laser', dryMin: 0, coats: 0, coatMin: 0, finalH: 0 })).toEqual([]);
  });
});
