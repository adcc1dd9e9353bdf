import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useTwoFingers } from './useTwoFingers.ts';

const at = (pointerId: number, screenX: number, screenY: number, pointerType = 'touch'): PointerEvent => ({ pointerId, pointerType, screenX, screenY }) as PointerEvent;
let told: string[];
let fingers: ReturnType<typeof useTwoFingers>;
beforeEach(() => {
  vi.useFakeTimers();
  told = [];
  fingers = useTwoFingers({
    press: ({ screenX }) => told.push(`press ${screenX}`),
    abort: () => told.push('abort'),
    pinch: (factor, x, y, dx, dy) => told.push(`pinch ${factor} at ${x},${y} by ${dx},${dy}`),
    pointOf: ({ screenX, screenY }) => ({ screenX, screenY }),
  });
});
afterEach(() => vi.useRealTimers());

describe('fingers on the table', () => {
  it('one presses when it moves, is lifted, or has waited', () => {
    fingers.down(at(1, 10, 10));
    expect(fingers.move(at(1, 12, 10))).toBe(true);
    expect(told).toEqual([]);
    expect(fingers.move(at(1, 30, 10))).toBe(false);
    expect(fingers.up(at(1, 30, 10))).toBe(false);
    fingers.down(at(2, 40, 10));
    fingers.up(at(2, 40, 10));
    fingers.down(at(3, 50, 10));
    vi.advanceTimersByTime(100);
    fingers.up(at(3, 50, 10));
    expect(told).toEqual(['press 10', 'press 40', 'press 50']);
  });

  it('two zoom about their middle and move, and press nothing; what had begun is given up', () => {
    fingers.down(at(1, 100, 100));
    fingers.down(at(2, 200, 100));
    fingers.move(at(2, 300, 100));
    fingers.up(at(1, 100, 100));
    expect(fingers.move(at(2, 310, 100))).toBe(true);
    fingers.up(at(2, 310, 100));
    vi.advanceTimersByTime(500);
    expect(told).toEqual(['pinch 2 at 200,100 by 50,0']);
    fingers.down(at(3, 0, 0));
    vi.advanceTimersByTime(100);
    fingers.down(at(4, 50, 0));
    expect(told.slice(1)).toEqual(['press 0', 'abort']);
  });

  it('mouse and pen are let through', () => {
    expect(fingers.down(at(1, 0, 0, 'pen'))).toBe(false);
    expect(fingers.move(at(1, 9, 0, 'pen'))).toBe(false);
    expect(fingers.up(at(1, 9, 0, 'mouse'))).toBe(false);
  });
});
