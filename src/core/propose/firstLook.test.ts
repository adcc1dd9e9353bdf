import { describe, expect, it } from 'vitest';
import { artFromShare, disc, pictureFromShare, randomFrom, sampled } from '../../../tests/fixtures/shapes.ts';
import { pictureFromArt, withAlpha } from '../raster/art.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';
import { firstLook } from './firstLook.ts';
import { recipeSchema } from '../clean/recipe.ts';

const WIDTH = 160;
const HEIGHT = 120;

function painted(colourAt: (x: number, y: number) => readonly [number, number, number], sigma = 0): Rgba8 {
  const data = new Uint8Array(WIDTH * HEIGHT * 4);
  const random = randomFrom(6);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const noise = (): number => sigma * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
      data.set([...colourAt(x, y).map((v) => Math.max(0, Math.min(255, Math.round(v + noise())))), 255], (y * WIDTH + x) * 4);
    }
  }
  return makeRgba8(WIDTH, HEIGHT, data, true);
}

const kinds = (picture: Rgba8): string[] => firstLook(picture).recipe.map((step) => step.kind);
const strokes = (x: number, y: number): number => (Math.abs(y - 60) < 2 || Math.abs(Math.hypot(x - 80, y - 60) - 40) < 2 ? 0.1 : 1);

describe('first look', () => {
  it('knows a line drawing, on shaded paper too, and levels the light there first', () => {
    const even = painted((x, y) => [240, 238, 232].map((v) => v * strokes(x, y)) as [number, number, number], 2);
    expect(firstLook(even)).toMatchObject({ kind: 'line', tones: 2, fallOffPercent: 0 });
    const shaded = painted((x, y) => [245, 240, 230].map((v) => v * strokes(x, y) * (1 - 0.3 * (x / WIDTH))) as [number, number, number], 2);
    const look = firstLook(shaded);
    expect(look.kind).toBe('line');
    expect(look.fallOffPercent).toBeGreaterThan(15);
    expect(look.recipe[0].kind).toBe('lightLevelling');
    expect(look.words).toContain('level it first');
  });

  it('makes a pale grey drawing black, and leaves a pale one in colours its colours', () => {
    const drawn = (ink: readonly [number, number, number]): string[] => kinds(painted((x, y) => (strokes(x, y) < 1 ? [...ink] : [252, 252, 250]), 1));
    expect(drawn([190, 190, 188])).toContain('levels');
    expect(drawn([226, 170, 180])).toEqual(['sweep']);
  });

  it('counts the tones of flat art, which needs no more than a sweep', () => {
    const flat = painted((x, y) => (Math.hypot(x - 60, y - 60) < 35 ? [34, 55, 95] : Math.hypot(x - 110, y - 60) < 30 ? [181, 72, 44] : [250, 250, 250]), 4);
    const look = firstLook(flat);
    expect([look.kind, look.tones]).toEqual(['flat', 3]);
    expect(kinds(flat)).toEqual(['sweep']);
    expect(look.sure).toBeGreaterThan(0.6);
  });

  it('tells shaded art from a photo by its noise', () => {
    const sky = (x: number, y: number): [number, number, number] => [
      60 + 150 * (y / HEIGHT),
      90 + 60 * (x / WIDTH),
      180 - 120 * (y / HEIGHT) + 40 * Math.sin(x / 14),
    ];
    expect(firstLook(painted(sky)).kind).toBe('shaded');
    expect(firstLook(painted(sky, 5)).kind).toBe('photo');
    expect(kinds(painted(sky, 5))[0]).toBe('smoothing');
  });

  it('knows art that is clear around, and always gives a recipe that can be stored', () => {
    const art = artFromShare(disc(80, 60, 40, 30, 20));
    const clear = pictureFromArt(
      withAlpha(
        art,
        art.alpha.map((_, i) => (Math.hypot((i % 80) - 40, i / 80 - 30) < 22 ? 255 : 0)),
      ),
    );
    expect(firstLook(clear).hasClear).toBe(true);
    for (const picture of [
      clear,
      painted(() => [90, 90, 90]),
      pictureFromShare(
        sampled(3, 2, () => true),
        { r: 0, g: 0, b: 0 },
        { r: 255, g: 255, b: 255 },
      ),
    ]) {
      expect(recipeSchema.safeParse(firstLook(picture).recipe).success).toBe(true);
    }
  });
});
