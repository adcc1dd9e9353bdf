import { describe, expect, it } from 'vitest';
import type { Viewport } from '../viewport.ts';
import { clustersOf, pinAt, type Pin } from './pins.ts';

const view: Viewport = { scale: 1, x: 0, y: 0 };

describe('pins', () => {
  it('that lie too near to be told apart are one with their number', () => {
    const pins: Pin[] = [...Array.from({ length: 100 }, (_, k) => ({ x: 100 + (k % 10), y: 105 + Math.floor(k / 10) })), { x: 500, y: 40 }];
    const clusters = clustersOf(view, pins);
    expect(clusters.reduce((sum, { count }) => sum + count, 0)).toBe(101);
    expect(clusters.length).toBeLessThan(8);
    expect(clusters.some(({ pin, count }) => count === 1 && pin.x === 500)).toBe(true);
  });

  it('are found under the pointer: by their head, or as dots the nearest', () => {
    const few: Pin[] = [{ x: 50, y: 60 }, { x: 52, y: 60 }];
    expect(pinAt(view, few, 51, 43)).toBe(1);
    expect(pinAt(view, few, 51, 75)).toBeUndefined();
    const many = Array.from({ length: 90 }, (_, k): Pin => ({ x: 10 * k, y: 20 }));
    expect(pinAt(view, many, 304, 22)).toBe(30);
    expect(pinAt(view, many, 304, 60)).toBeUndefined();
  });
});
