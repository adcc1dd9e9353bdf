import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { artFromShare, BLACK, disc, WHITE } from '../../../../tests/fixtures/shapes.ts';
import { CLEAR, makeLabelMap } from '../../raster/labelMap.ts';
import { finish } from '../../task/task.ts';
import { DEFAULT_OUTLINE } from '../traceOutline.ts';
import { meshOf } from './arcMesh.ts';
import { drawMesh } from './drawMesh.ts';

const EDGES = { ...DEFAULT_OUTLINE, followPx: 0.05 };
const meshOfDisc = (radius: number, inside: number, outside: number): ReturnType<typeof meshOf> => {
  const share = disc(48, 40, 24, 20, radius);
  const labels = makeLabelMap(
    48,
    40,
    share.data.map((value) => (value >= 128 ? inside : outside)),
  );
  return meshOf(artFromShare(share), labels, [WHITE, BLACK], EDGES);
};

describe('drawMesh', () => {
  it('draws as much of each tone as its outline encloses, at any size, and no pixel darker or lighter than both', () => {
    fc.assert(
      fc.property(fc.double({ min: 4, max: 18, noNaN: true }), fc.constantFrom(1, 2, 4), (radius, times) => {
        const { colour, alpha } = finish(drawMesh(meshOfDisc(radius, 1, 0), [WHITE, BLACK], times));
        expect([colour.width, colour.height]).toEqual([48 * times, 40 * times]);
        let dark = 0;
        for (let i = 0; i < alpha.length; i++) dark += (WHITE.r - colour.data[4 * i]) / (WHITE.r - BLACK.r);
        // As the radius of a disc of that area, px of the picture.
        expect(Math.abs(Math.sqrt(dark / Math.PI) / times - radius)).toBeLessThan(0.06);
        expect(alpha.every((value) => value === 255)).toBe(true);
        expect(colour.data[0]).toBe(255);
        expect(colour.data[4 * (20 * times * 48 * times + 24 * times)]).toBe(BLACK.r);
      }),
      { numRuns: 30 },
    );
  });

  it('makes pixels on an edge the mean of what lies in them', () => {
    const { colour } = finish(drawMesh(meshOfDisc(12.4, 1, 0), [WHITE, BLACK], 4));
    // The disc begins at 24 − 12.4 = 11.6 px, 46.4 of the drawing, on its middle row all but upright: 0.4 of pixel 46 is outside of it.
    const row = 80 * 192;
    expect(colour.data[4 * (row + 45)]).toBeGreaterThan(250);
    expect(Math.abs(colour.data[4 * (row + 46)] - (0.4 * WHITE.r + 0.6 * BLACK.r))).toBeLessThan(25);
    expect(colour.data[4 * (row + 47)]).toBeLessThan(BLACK.r + 5);
  });

  it('leaves what is clear clear, with the colour of what lies beside it', () => {
    const share = disc(48, 40, 24, 20, 10);
    const art = { ...artFromShare(share), alpha: share.data };
    const labels = makeLabelMap(
      48,
      40,
      share.data.map((value) => (value >= 128 ? 0 : CLEAR)),
    );
    const { colour, alpha } = finish(drawMesh(meshOf(art, labels, [BLACK], EDGES), [BLACK], 2));
    let covered = 0;
    for (const value of alpha) covered += value / 255;
    expect(Math.abs(Math.sqrt(covered / Math.PI) / 2 - 10)).toBeLessThan(0.06);
    expect(alpha[0]).toBe(0);
    // Edges are black all through: nothing of the clear is mixed in.
    for (let i = 0; i < alpha.length; i++) if (alpha[i] > 0) expect(colour.data[4 * i]).toBe(BLACK.r);
  });
});
