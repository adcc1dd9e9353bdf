import { describe, expect, it } from 'vitest';
import { artFromShare, disc } from '../../../tests/fixtures/shapes.ts';
import { pictureFromArt, type Art } from '../raster/art.ts';
import { resample } from '../raster/shrink.ts';
import { artFromPicture } from '../raster/art.ts';
import { finish } from '../task/task.ts';
import { applyRecipe } from '../run/applyRecipe.ts';
import type { Recipe } from '../clean/recipe.ts';
import { scaledRecipe } from './scaledRecipe.ts';

const base = { enabled: true, v: 1 } as const;
const RECIPE: Recipe = [
  { kind: 'crop', id: 'c', ...base, rect: { xPx: 4, yPx: 6, widthPx: 60, heightPx: 30 } },
  { kind: 'areaLift', id: 'a', ...base, at: { xPx: 8.5, yPx: 9.5 }, tolerance: 5, enclosed: false, soft: false, guardPx: 2, spared: [{ xPx: 1, yPx: 2 }] },
  { kind: 'gapMending', id: 'g', ...base, widestPx: 3 },
  { kind: 'edgeTidying', id: 't', ...base, amountPx: 1 },
  { kind: 'rubOut', id: 'r', ...base, strokes: [{ radiusPx: 3, points: [20, 20, 30, 22] }] },
  { kind: 'bringBack', id: 'b', ...base, strokes: [{ radiusPx: 2, points: [25, 21] }] },
  { kind: 'sweep', id: 's', ...base, speckMm2: 1, pinholeMm2: 0 },
];
const run = (picture: Art, recipe: Recipe) => finish(applyRecipe({ picture, pictureKey: 'p', recipe, finished: { by: 'width', sizeMm: 50, turnDeg: 0 } }));

describe('a recipe for more pixels', () => {
  it('does to the larger picture what it did to the smaller one', () => {
    const small = artFromShare(disc(70, 44, 28, 20, 12));
    const large = artFromPicture(resample(pictureFromArt(small), 0, 0, 70, 44, 140, 88));
    const a = run(small, RECIPE).art;
    const b = run(large, scaledRecipe(RECIPE, 2)).art;
    expect([b.width, b.height, b.frame.leftPx]).toEqual([2 * a.width, 2 * a.height, 2 * a.frame.leftPx]);
    let differ = 0;
    for (let y = 0; y < a.height; y++)
      for (let x = 0; x < a.width; x++) if (a.alpha[y * a.width + x] >= 128 !== b.alpha[2 * y * b.width + 2 * x] >= 128) differ++;
    expect(differ).toBeLessThan(40);
  });

  it('is the same again when it is scaled back', () => {
    expect(scaledRecipe(scaledRecipe(RECIPE, 2), 0.5)).toEqual(RECIPE);
  });
});
