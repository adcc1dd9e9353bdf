import { describe, expect, it } from 'vitest';
import type { Recipe } from '../clean/recipe.ts';
import { sparesFinds, withSpared } from './spareFinds.ts';

const base = { enabled: true, v: 1 } as const;
const RECIPE: Recipe = [
  { kind: 'sweep', id: 's', ...base, speckMm2: 1, pinholeMm2: 1 },
  { kind: 'areaLift', id: 'a', ...base, at: { xPx: 1, yPx: 1 }, tolerance: 3, enclosed: false, soft: true },
];
const places = [
  { xPx: 10, yPx: 20 },
  { xPx: 30, yPx: 20 },
];

describe('leaving finds alone', () => {
  it('adds places once and takes them out again', () => {
    const one = withSpared(RECIPE, 's', [places[0]], true);
    expect(one[0]).toMatchObject({ spared: [places[0]] });
    const both = withSpared(withSpared(one, 's', places, true), 's', [places[0]], true);
    expect(both[0]).toMatchObject({ spared: [places[1], places[0]] });
    expect(withSpared(both, 's', [{ xPx: 31, yPx: 20 }], false)[0]).toMatchObject({ spared: [places[0]] });
    expect(withSpared(both, 's', places, false)[0]).toMatchObject({ spared: [] });
  });

  it('is for steps that find things, and changes no other', () => {
    expect(RECIPE.map(sparesFinds)).toEqual([true, false]);
    expect(withSpared(RECIPE, 'a', places, true)).toEqual(RECIPE);
  });
});
