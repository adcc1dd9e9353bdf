import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { artFromShare, artFromText, sampled, thereAsText } from '../../../tests/fixtures/shapes.ts';
import { applyRecipe } from '../run/applyRecipe.ts';
import type { Recipe } from './recipe.ts';
import { artFromPicture, pictureFromArt, type Art } from '../raster/art.ts';
import { labelRegions } from '../raster/labelRegions.ts';
import { shrinkToSide } from '../raster/shrink.ts';
import { finish } from '../task/task.ts';
import { MOST_FINDS, spareRegions, sparedOf, type Find } from './finds.ts';
import { mendGaps } from './mendGaps.ts';
import { sweepSpecks } from './sweepSpecks.ts';
import { sweepTones } from './sweepTones.ts';

const base = { id: 's', enabled: true, v: 1 } as const;
const findsOf = (picture: Art, recipe: Recipe): readonly Find[] =>
  finish(applyRecipe({ picture, pictureKey: 'p', recipe, finished: { by: 'width', sizeMm: picture.width / picture.frame.scale, turnDeg: 0 } })).steps[0]
    .finds ?? [];

describe('spared places', () => {
  it('belong to the nearest find within reach, and to none beyond', () => {
    expect([
      ...sparedOf(
        [10, 14, 40],
        [10, 10, 10],
        [1, 1, 9],
        [
          { xPx: 12.5, yPx: 10 },
          { xPx: 33, yPx: 10 },
        ],
      ),
    ]).toEqual([0, 1, 1]);
    expect([...sparedOf([10], [10], [1], [{ xPx: 10, yPx: 14 }])]).toEqual([0]);
  });

  it('lie on their regions, whatever the shapes, and spare exactly those', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { minLength: 120, maxLength: 120 }), fc.nat(), (there, pick) => {
        const cells = Uint8Array.from(there, Number);
        const regions = labelRegions(cells, 12, 10, 1, true);
        if (regions.count === 0) return;
        const all = spareRegions(regions, new Uint8Array(regions.count).fill(1), 12, 'speck', []);
        expect(all).toHaveLength(regions.count);
        for (const { xPx, yPx } of all) expect(cells[Math.floor(yPx) * 12 + Math.floor(xPx)]).toBe(1);
        const one = all[pick % all.length];
        const chosen = new Uint8Array(regions.count).fill(1);
        const told = spareRegions(regions, chosen, 12, 'speck', [one]);
        expect(told.filter((find) => find.spared)).toEqual([{ ...one, spared: true }]);
        expect(chosen.filter((value) => value === 0)).toHaveLength(1);
      }),
      { seed: 12, numRuns: 60 },
    );
  });

  it('tells the largest when there are too many', () => {
    const size = 300;
    const cells = Uint8Array.from({ length: size * size }, (_, i) =>
      ((i % size) % 3 === 0 && Math.floor(i / size) % 3 === 0) || Math.floor(i / size) === 1 ? 1 : 0,
    );
    const regions = labelRegions(cells, size, size, 1, false);
    const told = spareRegions(regions, new Uint8Array(regions.count).fill(1), size, 'speck', []);
    expect(regions.count).toBeGreaterThan(MOST_FINDS);
    expect(told).toHaveLength(MOST_FINDS);
    expect(Math.max(...told.map((find) => find.size))).toBe(Math.max(...regions.area));
  });
});

describe('a sweep', () => {
  const rows = ['          ', ' ######  #', ' # ####   ', ' ####  #  ', ' ######## ', '          '];

  it('tells what it found, and leaves the spared ones', () => {
    const { finds } = sweepSpecks(artFromText(rows), 3, 2);
    expect(finds).toEqual([
      { kind: 'pinhole', xPx: 2.5, yPx: 2.5, size: 1, spared: false },
      { kind: 'speck', xPx: 9.5, yPx: 1.5, size: 1, spared: false },
    ]);
    const kept = sweepSpecks(artFromText(rows), 3, 2, [finds[1]]);
    expect([kept.specks, kept.pinholes]).toEqual([0, 1]);
    expect(thereAsText(kept.art)[1]).toBe(' ######  #');
    const filled = sweepSpecks(artFromText(rows), 3, 2, [finds[0]]);
    expect(thereAsText(filled.art)[2]).toBe(' # ####   ');
  });

  it('does so where nothing is clear too', () => {
    const art = artFromShare(
      sampled(60, 60, (x, y) => Math.hypot(x - 30, y - 45) < 12 || (x > 10 && x < 13 && y > 10 && y < 13) || (x > 40 && x < 43 && y > 20 && y < 23)),
    );
    const { finds, specks } = finish(sweepTones(art, 12));
    expect([specks, finds.length]).toEqual([2, 2]);
    const again = finish(sweepTones(art, 12, [finds[1]]));
    expect(again.specks).toBe(1);
    const dark = (at: Art, x: number, y: number): boolean => at.colour.data[(y * 60 + x) * 4] < 100;
    expect([dark(again.art, 11, 11), dark(again.art, 41, 21)]).toEqual([false, true]);
  });

  it('names places in picture pixels after a crop and on a reduced picture, so that what was spared stays spared', () => {
    const whole = artFromShare(sampled(120, 120, (x, y) => Math.hypot(x - 60, y - 50) < 30 || Math.hypot(x - 100.3, y - 90.7) < 4));
    const cleared = { ...whole, alpha: Uint8Array.from(whole.alpha, (_, i) => 255 - whole.colour.data[i * 4]) };
    const recipe: Recipe = [{ kind: 'sweep', ...base, speckMm2: 200, pinholeMm2: 0 }];
    const [find] = findsOf(cleared, recipe);
    expect(Math.hypot(find.xPx - 100.3, find.yPx - 90.7)).toBeLessThan(1.5);
    const half = artFromPicture(shrinkToSide(pictureFromArt(cleared), 60), 0.5);
    const [reduced] = findsOf(half, [{ kind: 'sweep', ...base, speckMm2: 200, pinholeMm2: 0, spared: [find] }]);
    expect(reduced.spared).toBe(true);
    expect(Math.abs(reduced.size / find.size - 1)).toBeLessThan(0.3);
  });
});

describe('gap mending', () => {
  it('tells its joints at their middles and does not draw those that are spared', () => {
    const broken = artFromShare(sampled(80, 80, (x, y) => Math.abs(y - 40) < 2 && Math.abs(x - 30) > 4 && Math.abs(x - 60) > 3));
    const { finds, joints } = finish(mendGaps(broken, 12));
    expect(finds.map(({ xPx, yPx }) => [Math.round(xPx), Math.round(yPx)])).toEqual(
      expect.arrayContaining([
        [30, 40],
        [60, 40],
      ]),
    );
    expect(joints).toHaveLength(2);
    const one = finish(mendGaps(broken, 12, [{ xPx: 30, yPx: 40 }]));
    expect(one.joints).toHaveLength(1);
    expect([one.art.colour.data[(40 * 80 + 30) * 4] > 200, one.art.colour.data[(40 * 80 + 60) * 4] < 100]).toEqual([true, true]);
  });
});

describe('an area lift', () => {
  it('leaves a spared enclosed area filled and still counts it', () => {
    const rings = artFromShare(sampled(90, 40, (x, y) => Math.abs(Math.hypot(x - 22, y - 20) - 11) < 3 || Math.abs(Math.hypot(x - 66, y - 20) - 11) < 3));
    const lift = { kind: 'areaLift', ...base, at: { xPx: 1, yPx: 1 }, tolerance: 5, enclosed: true, soft: false } as const;
    const finds = findsOf(rings, [lift]);
    expect(finds.map(({ kind, spared }) => [kind, spared])).toEqual([
      ['enclosed', false],
      ['enclosed', false],
    ]);
    const result = finish(
      applyRecipe({ picture: rings, pictureKey: 'p', recipe: [{ ...lift, spared: [finds[0]] }], finished: { by: 'width', sizeMm: 90, turnDeg: 0 } }),
    );
    expect(result.steps[0].facts['enclosed']).toBe(1);
    expect([result.art.alpha[20 * 90 + 22], result.art.alpha[20 * 90 + 66]]).toEqual([255, 0]);
  });
});
