import { describe, expect, it } from 'vitest';
import { paintedArt, WHITE } from '../../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../../colour/oklab.ts';
import type { Art } from '../../raster/art.ts';
import { finish } from '../../task/task.ts';
import { clearAround } from './clearAround.ts';

const SIZE = 160;
const NAVY: Rgb = { r: 36, g: 80, b: 154 };
const SKY: Rgb = { r: 156, g: 201, b: 230 };
const YELLOW: Rgb = { r: 242, g: 182, b: 50 };
const SHADE: Rgb = { r: 214, g: 214, b: 214 };

interface Disc {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly colour: Rgb;
}

/** Discs over each other on white, the last one on top. */
const drawn = (discs: readonly Disc[], ground = WHITE): Art =>
  paintedArt(SIZE, SIZE, (x, y) => discs.findLast((disc) => Math.hypot(x - disc.x, y - disc.y) <= disc.radius)?.colour ?? ground);

const NONE = new Uint8Array(SIZE * SIZE);
const ALL = new Uint8Array(SIZE * SIZE).fill(1);
const clearedOf = (art: Art, mask: Uint8Array, isSaid = false): ((x: number, y: number) => boolean) | undefined => {
  const cleared = finish(clearAround(art, mask, isSaid));
  return cleared === undefined ? undefined : (x, y) => cleared.alpha[y * SIZE + x] < 128;
};

describe('clearAround', () => {
  it('keeps art in quite another tone as a whole, also what the frame cuts and what is as light as a shadow, whatever was thought', () => {
    const isClear = clearedOf(
      drawn([
        { x: 80, y: 0, radius: 26, colour: NAVY },
        { x: 60, y: 100, radius: 30, colour: SKY },
      ]),
      NONE,
    );
    expect(isClear?.(80, 10)).toBe(false);
    expect(isClear?.(60, 100)).toBe(false);
    expect(isClear?.(140, 140)).toBe(true);
  });

  it('opens counters of art that lies on the ground alone, and leaves the white of an eye', () => {
    const letter: Disc[] = [
      { x: 40, y: 40, radius: 28, colour: NAVY },
      { x: 40, y: 40, radius: 10, colour: WHITE },
    ];
    const eye: Disc[] = [
      { x: 110, y: 110, radius: 40, colour: NAVY },
      { x: 110, y: 110, radius: 34, colour: YELLOW },
      { x: 110, y: 110, radius: 14, colour: WHITE },
      { x: 110, y: 110, radius: 6, colour: NAVY },
    ];
    const isClear = clearedOf(drawn([...letter, ...eye]), ALL);
    expect(isClear?.(40, 40)).toBe(true);
    expect(isClear?.(40, 58)).toBe(false);
    expect(isClear?.(110, 100)).toBe(false);
    expect(isClear?.(5, 155)).toBe(true);
  });

  it('goes by what was thought where another tone has much of the border, and where strokes said what stays', () => {
    const sea = paintedArt(SIZE, SIZE, (x, y) => (Math.hypot(x - 80, y - 60) < 30 ? YELLOW : y > 125 ? NAVY : WHITE));
    expect(clearedOf(sea, NONE)?.(80, 150)).toBe(true);
    expect(clearedOf(sea, ALL)?.(80, 150)).toBe(false);
    expect(clearedOf(drawn([{ x: 80, y: 80, radius: 30, colour: NAVY }]), NONE, true)?.(80, 80)).toBe(true);
  });

  it('has nothing to say where a shadow lies on the ground', () => {
    const shaded = drawn([
      { x: 80, y: 120, radius: 20, colour: SHADE },
      { x: 80, y: 60, radius: 30, colour: NAVY },
    ]);
    expect(clearedOf(shaded, NONE)).toBeUndefined();
  });
});
