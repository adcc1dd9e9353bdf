import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import type { Design } from '../assemble/design.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { translation } from '../geometry/affine.ts';
import { CurvesBuilder } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { mm } from '../units/length.ts';
import { onTile, tilesOf } from './tiles.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const star = figureCurves({ form: 'star', widthMm: 90, heightMm: 90, corners: 6, depth: 0.5 });
const sign = (count: number): Design => ({
  layers: [{ filmId: 'navy', curves: joinCurves(Array.from({ length: count }, (_, k) => transformCurves(star, translation(100 * k, 0)))) }],
  widthMm: mm(100 * count - 10),
  heightMm: mm(90),
});

describe('tiles', () => {
  it('cover the design, fit their sheet, and overlap by what was asked for', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.double({ min: 60, max: 500, noNaN: true }), fc.double({ min: 40, max: 300, noNaN: true }), fc.constantFrom(0, 5, 12), (count, widthMm, heightMm, overlapMm) => {
        const design = sign(count);
        const tiles = tilesOf(design, { widthMm, heightMm }, { manner: overlapMm === 0 ? 'butt' : 'overlap', overlapMm });
        for (const { rect } of tiles) {
          expect(rect.widthMm).toBeLessThanOrEqual(widthMm + 1e-6);
          expect(rect.heightMm).toBeLessThanOrEqual(heightMm + 1e-6);
        }
        const row = tiles.filter((tile) => tile.row === 0);
        expect([row[0].rect.xMm, row[row.length - 1].rect.xMm + row[row.length - 1].rect.widthMm]).toEqual([0, expect.closeTo(design.widthMm, 6)]);
        for (const [k, { rect }] of row.slice(1).entries()) expect(row[k].rect.xMm + row[k].rect.widthMm - rect.xMm).toBeCloseTo(overlapMm, 6);
        // As few as can be.
        expect(row.length).toBe(design.widthMm <= widthMm ? 1 : Math.ceil((design.widthMm - overlapMm) / (widthMm - overlapMm) - 1e-9));
        if (overlapMm > 0) return;
        const [{ curves }] = design.layers;
        const lying = tiles.map((tile) => transformCurves(onTile(library, curves, tile) ?? new CurvesBuilder().build(), translation(tile.rect.xMm, tile.rect.yMm)));
        expect(lying.reduce((sum, each) => sum + areaOf(each), 0)).toBeCloseTo(areaOf(curves), 0);
        const together = lying.reduce((whole, each) => combineCurves(library, 'join', whole, each));
        expect(areaOf(combineCurves(library, 'cutOut', curves, together))).toBeLessThan(0.05);
      }),
      { seed: 33, numRuns: 40 },
    );
  });

  it('meet between the pieces where there is room, not through them', () => {
    // Stars of 90 mm with 10 mm between them, on sheets that hold a little more than two.
    const tiles = tilesOf(sign(6), { widthMm: 245, heightMm: 100 }, { manner: 'butt', overlapMm: 0 });
    expect(tiles.slice(1).map(({ rect }) => rect.xMm)).toEqual([expect.closeTo(195, -1), expect.closeTo(395, -1)]);
    for (const { rect } of tiles.slice(1)) expect(rect.xMm % 100).toBeGreaterThanOrEqual(90);
  });

  it('are refused where there would be hundreds, or a sheet has no room beside the overlap', () => {
    expect(codeOf(() => tilesOf(sign(9), { widthMm: 3, heightMm: 100 }, { manner: 'butt', overlapMm: 0 }))).toBe('badValue');
    expect(codeOf(() => tilesOf(sign(9), { widthMm: 10, heightMm: 100 }, { manner: 'overlap', overlapMm: 12 }))).toBe('doesNotFit');
  });
});
