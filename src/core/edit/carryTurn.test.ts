import { describe, expect, it } from 'vitest';
import { artFromShare, disc } from '../../../tests/fixtures/shapes.ts';
import { pictureFromArt } from '../raster/art.ts';
import { turnArt } from '../raster/turn.ts';
import { finish } from '../task/task.ts';
import { applyRecipe } from '../run/applyRecipe.ts';
import { basesFirst, turnedAnew } from './carryTurn.ts';
import type { Recipe, Step } from '../clean/recipe.ts';

const base = { enabled: true, v: 1 } as const;
const turn: Extract<Step, { kind: 'turn' }> = { kind: 'turn', id: 't', ...base, mirrored: false, quarters: 0, angleDeg: 0 };
const RECIPE: Recipe = [
  turn,
  { kind: 'crop', id: 'c', ...base, rect: { xPx: 4, yPx: 6, widthPx: 50, heightPx: 30 } },
  { kind: 'areaLift', id: 'a', ...base, at: { xPx: 8.5, yPx: 9.5 }, tolerance: 3, enclosed: false, soft: false },
  { kind: 'rubOut', id: 'r', ...base, strokes: [{ radiusPx: 3, points: [20, 20, 30, 22] }] },
  { kind: 'bringBack', id: 'b', ...base, strokes: [{ radiusPx: 2, points: [25, 21] }] },
];
const picture = artFromShare(disc(70, 44, 28, 20, 12));
const run = (recipe: Recipe) => finish(applyRecipe({ picture, pictureKey: 'p', recipe, finished: { by: 'width', sizeMm: 50, turnDeg: 0 } }));

describe('turnedAnew', () => {
  it('keeps crop, points and strokes on what they were put on', () => {
    const plain = run(RECIPE).art;
    for (const [quarters, mirrored] of [
      [1, false],
      [2, true],
      [3, false],
    ] as const) {
      const recipe = turnedAnew(RECIPE, 't', { ...turn, quarters, mirrored }, { widthPx: 70, heightPx: 44 });
      expect([...run(recipe).art.alpha]).toEqual([...finish(turnArt(plain, { quarters, mirrored, angleDeg: 0 })).alpha]);
      const back = turnedAnew(recipe, 't', undefined, { widthPx: 70, heightPx: 44 });
      expect([...run(back).art.alpha]).toEqual([...plain.alpha]);
    }
  });

  it('carries corners and what is left alone, and nothing that lies on a squared picture', () => {
    const squaring: Step = {
      kind: 'squaring',
      id: 'q',
      ...base,
      marks: {
        by: 'corners',
        corners: [
          { xPx: 10, yPx: 4 },
          { xPx: 60, yPx: 4 },
          { xPx: 60, yPx: 40 },
          { xPx: 10, yPx: 40 },
        ],
        widthMm: 50,
      },
      levelLight: false,
    };
    const sweep: Step = { kind: 'sweep', id: 's', ...base, speckMm2: 1, pinholeMm2: 1, spared: [{ xPx: 10, yPx: 4 }] };
    const turned = turnedAnew([turn, squaring, sweep], 't', { ...turn, quarters: 1 }, { widthPx: 70, heightPx: 44 });
    expect(turned[1]).toMatchObject({
      marks: {
        corners: [
          { xPx: 40, yPx: 10 },
          { xPx: 40, yPx: 60 },
          { xPx: 4, yPx: 60 },
          { xPx: 4, yPx: 10 },
        ],
      },
    });
    expect(turned[2]).toEqual(sweep);
    const off = turnedAnew([turn, { ...squaring, enabled: false }, sweep], 't', { ...turn, quarters: 1 }, { widthPx: 70, heightPx: 44 });
    expect(off[2]).toMatchObject({ spared: [{ xPx: 40, yPx: 10 }] });
  });

  it('carries nothing for a turn that was switched off', () => {
    const off = turnedAnew(RECIPE, 't', { ...turn, quarters: 1, enabled: false }, { widthPx: 70, heightPx: 44 });
    expect(off.slice(1)).toEqual(RECIPE.slice(1));
  });
});

describe('bases', () => {
  it('stand first, in their own order', () => {
    const squaring: Step = { kind: 'squaring', id: 's', ...base, marks: { by: 'sheet' }, levelLight: true };
    expect(basesFirst([RECIPE[1], squaring, RECIPE[2], turn]).map(({ id }) => id)).toEqual(['s', 't', 'c', 'a']);
  });

  it('are what the result says places are counted in', () => {
    const turned = run([{ ...turn, quarters: 1 }]);
    expect([turned.base.art.width, turned.base.art.height]).toEqual([44, 70]);
    expect(run(RECIPE.slice(1)).base.key).toBe('p');
    const skipped = run([{ kind: 'squaring', id: 's', ...base, marks: { by: 'sheet' }, levelLight: true }]);
    expect(skipped.steps[0].skipped).toBe('marksMissing');
    expect(pictureFromArt(skipped.art).data).toEqual(pictureFromArt(picture).data);
  });
});
