import { describe, expect, it } from 'vitest';
import { followedBy, rotation, translation } from '../../core/geometry/affine.ts';
import { bent, fanOf, type Fan } from '../../core/geometry/fan.ts';
import { placeOnSheet, type LyingOnSheet } from './placeOnSheet.ts';

const fan = fanOf(43.3, 35.3, { widthMm: 100, heightMm: 95 }, { xMm: 10, yMm: 8 }) as Fan;
const at = followedBy(rotation(Math.PI / 2, 0, 0), translation(120, 7));
const tile = { xMm: 30, yMm: 20, widthMm: 40, heightMm: 40 };

describe('places of the design on its sheet', () => {
  it('are found back, however what is cut was bent, mirrored or parted', () => {
    for (const lying of [{ at }, { at, fan }, { at, fan, mirroredMm: 86 }, { at, tile }] satisfies LyingOnSheet[]) {
      const place = placeOnSheet(lying);
      for (const [x, y] of [[0, 0], [12, 40], [70, 33]]) {
        const there = place.to(x, y);
        const back = place.from(there.x, there.y);
        expect([back.x, back.y]).toEqual([expect.closeTo(x, 6), expect.closeTo(y, 6)]);
      }
    }
  });

  it('follow the film: bent first, then mirrored, then laid', () => {
    const on = bent(fan, 20, 30);
    expect(placeOnSheet({ at: translation(5, 6), fan, mirroredMm: 86 }).to(20, 30)).toEqual({ x: expect.closeTo(86 - on.x + 5, 9), y: expect.closeTo(on.y + 6, 9) });
  });

  it('of a tile count from its corner, and lie elsewhere beyond it', () => {
    const place = placeOnSheet({ at: translation(2, 3), tile });
    expect(place.to(35, 25)).toEqual({ x: 7, y: 8 });
    expect([place.isElsewhere(35, 25), place.isElsewhere(29, 25), place.isElsewhere(35, 61)]).toEqual([false, true, true]);
    expect(placeOnSheet({ at }).isElsewhere(-5, 900)).toBe(false);
  });
});
