import { describe, expect, it } from 'vitest';
import { makeShareMap } from '../raster/raster.ts';
import { artFromShare } from '../../../tests/fixtures/shapes.ts';
import { finish } from '../task/task.ts';
import { guardLeaks } from './guardLeaks.ts';
import { liftAt } from './liftAt.ts';

const [WIDTH, HEIGHT] = [60, 40];

/** Ground around a box of one pixel's outline with a gap of so many pixels in its left side; a narrow nook in its right side leads nowhere. */
function boxMask(gapPx: number): Uint8Array {
  return new Uint8Array(WIDTH * HEIGHT).map((_, i) => {
    const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
    const onBox = x >= 20 && x <= 44 && y >= 8 && y <= 32 && (x === 20 || x >= 40 || y === 8 || y === 32);
    const inGap = x === 20 && y >= 18 && y < 18 + gapPx;
    const inNook = y === 20 && x >= 42;
    return onBox && !inGap && !inNook ? 0 : 1;
  });
}
const at = (mask: Uint8Array, x: number, y: number): number => mask[y * WIDTH + x];

describe('guardLeaks', () => {
  it('lets a lift through a gap only when it is as wide as said', () => {
    for (const [gapPx, guardPx, through] of [
      [3, 6, 0],
      [3, 2, 1],
      [9, 6, 1],
      [5, 8, 0],
    ] as const) {
      const kept = finish(guardLeaks(boxMask(gapPx), WIDTH, HEIGHT, 3, 3, guardPx));
      expect(at(kept, 30, 20), `${gapPx} px, guarded to ${guardPx}`).toBe(through);
      expect([at(kept, 3, 3), at(kept, 55, 35), at(kept, 43, 20)]).toEqual([1, 1, 1]);
    }
  });

  it('never takes more than the lift did, and all of it where there is no gap', () => {
    const closed = boxMask(0);
    const outside = closed.map((v, i) => (v !== 0 && !(i % WIDTH > 20 && i % WIDTH < 40 && i > 8 * WIDTH && i < 32 * WIDTH) ? 1 : 0));
    expect([...finish(guardLeaks(outside, WIDTH, HEIGHT, 3, 3, 10))]).toEqual([...outside]);
    const guarded = finish(guardLeaks(boxMask(4), WIDTH, HEIGHT, 30, 20, 7));
    guarded.forEach((v, i) => expect(v <= boxMask(4)[i]).toBe(true));
    expect([at(guarded, 30, 20), at(guarded, 3, 3)]).toEqual([1, 0]);
  });

  it('leaves a lift that starts in a narrow place as it is', () => {
    const narrow = new Uint8Array(WIDTH * HEIGHT).map((_, i) => (Math.floor(i / WIDTH) === 5 ? 1 : 0));
    expect(finish(guardLeaks(narrow, WIDTH, HEIGHT, 10, 5, 8))).toBe(narrow);
  });

  it('is part of a lift', () => {
    const art = artFromShare(
      makeShareMap(
        WIDTH,
        HEIGHT,
        boxMask(3).map((v) => (v !== 0 ? 0 : 255)),
      ),
    );
    const options = { tolerance: 3, everywhere: false, enclosed: false, soft: false } as const;
    const alphaAt = (guardPx: number): number => finish(liftAt(art, 3, 3, { ...options, guardPx })).art.alpha[20 * WIDTH + 30];
    expect([alphaAt(0), alphaAt(6)]).toEqual([0, 255]);
  });
});
