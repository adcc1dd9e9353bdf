import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { artFromShare, sampled, WHITE } from '../../../tests/fixtures/shapes.ts';
import { applyRecipe } from '../run/applyRecipe.ts';
import type { Recipe } from './recipe.ts';
import { artFromPicture, pictureFromArt, type Art } from '../raster/art.ts';
import { shrinkToSide } from '../raster/shrink.ts';
import { finish } from '../task/task.ts';
import { paintStroke } from './paintStrokes.ts';

const base = { id: 's', enabled: true, v: 1 } as const;
const run = (picture: Art, recipe: Recipe): Art =>
  finish(applyRecipe({ picture, pictureKey: 'p', recipe, finished: { by: 'width', sizeMm: 50, turnDeg: 0 } })).art;
const RED = { r: 190, g: 40, b: 30 };
/** A red bar on white. */
const bar = artFromShare(
  sampled(80, 60, (_x, y) => y > 24.5 && y < 36),
  RED,
  WHITE,
);
const across = [10, 30, 70, 30];

describe('a stroke', () => {
  it('is as wide as the pen was pressed', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 1, noNaN: true }), fc.double({ min: 0.1, max: 1, noNaN: true }), (from, to) => {
        const cover = new Uint8Array(90 * 60);
        paintStroke(cover, 90, 60, [15, 30, 75, 30], 12, [from, to]);
        const widthAt = (x: number): number => Array.from({ length: 60 }, (_, y) => cover[y * 90 + x] / 255).reduce((sum, v) => sum + v, 0);
        expect(widthAt(45)).toBeCloseTo(12 * (from + to), -0.3);
        expect(widthAt(20)).toBeCloseTo(24 * (from + (to - from) * (5.5 / 60)), -0.3);
      }),
      { seed: 14, numRuns: 30 },
    );
  });

  it('without pressure is the same as one pressed full', () => {
    const plain = new Uint8Array(40 * 40);
    const pressed = new Uint8Array(40 * 40);
    paintStroke(plain, 40, 40, [8, 9, 30, 20, 12, 33], 5);
    paintStroke(pressed, 40, 40, [8, 9, 30, 20, 12, 33], 5, [1, 1, 1]);
    expect([...pressed]).toEqual([...plain]);
  });

  it('that stays within a colour leaves everything else, when it rubs out and when it brings back', () => {
    const rubbed = run(bar, [{ kind: 'rubOut', ...base, strokes: [{ radiusPx: 15, points: across, within: 8 }] }]);
    expect([rubbed.alpha[30 * 80 + 40], rubbed.alpha[20 * 80 + 40], rubbed.alpha[40 * 80 + 40]]).toEqual([0, 255, 255]);
    // The pixel row that is half red goes with it in part.
    expect(rubbed.alpha[24 * 80 + 40]).toBeGreaterThan(100);
    const back = run(bar, [
      { kind: 'rubOut', ...base, strokes: [{ radiusPx: 40, points: across }] },
      { kind: 'bringBack', ...base, id: 'b', strokes: [{ radiusPx: 15, points: across, within: 8 }] },
    ]);
    expect([back.alpha[30 * 80 + 40], back.alpha[20 * 80 + 40]]).toEqual([255, 0]);
  });

  it('does the same on a reduced picture, and nothing when it starts off the picture', () => {
    const half = artFromPicture(shrinkToSide(pictureFromArt(bar), 40), 0.5);
    const rubbed = run(half, [{ kind: 'rubOut', ...base, strokes: [{ radiusPx: 15, points: across, within: 8 }] }]);
    expect([rubbed.alpha[15 * 40 + 20], rubbed.alpha[10 * 40 + 20]]).toEqual([0, 255]);
    const off = run(bar, [{ kind: 'rubOut', ...base, strokes: [{ radiusPx: 15, points: [-5, 30, 70, 30], within: 8 }] }]);
    expect(off.alpha.every((value) => value === 255)).toBe(true);
  });
});
