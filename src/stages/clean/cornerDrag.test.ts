import { describe, expect, it } from 'vitest';
import { cornerAt, cornerMoved, startingCorners } from './cornerDrag.ts';

describe('the corners of squaring', () => {
  const corners = startingCorners(200, 100);

  it('start clockwise from the upper left, inside the photo', () => {
    expect(corners).toEqual([{ xPx: 30, yPx: 15 }, { xPx: 170, yPx: 15 }, { xPx: 170, yPx: 85 }, { xPx: 30, yPx: 85 }]);
  });

  it('are held by the nearest within reach', () => {
    expect(cornerAt(corners, 168, 17, 5)).toBe(1);
    expect(cornerAt(corners, 100, 50, 5)).toBeUndefined();
  });

  it('are dragged one by one and stay on the photo', () => {
    const moved = cornerMoved(corners, 2, { x: 500, y: 60.26 }, { widthPx: 200, heightPx: 100 });
    expect(moved[2]).toEqual({ xPx: 200, yPx: 60.3 });
    expect([moved[0], moved[1], moved[3]]).toEqual([corners[0], corners[1], corners[3]]);
  });
});
