import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { cropDragged, cropHoldAt, withAspect, type CropHold } from './cropDrag.ts';

const rect = { xPx: 20, yPx: 30, widthPx: 100, heightPx: 60 };

describe('crop frame', () => {
  it('is held by its corners, edges and inside', () => {
    expect(cropHoldAt(rect, 21, 29, 3, 300, 200)).toBe('nw');
    expect(cropHoldAt(rect, 120, 60, 3, 300, 200)).toBe('e');
    expect(cropHoldAt(rect, 60, 90, 3, 300, 200)).toBe('s');
    expect(cropHoldAt(rect, 60, 60, 3, 300, 200)).toBe('move');
    expect(cropHoldAt(rect, 5, 5, 3, 300, 200)).toBe('new');
  });

  it('starts anew inside a frame around the whole picture, which cannot move', () => {
    const whole = { xPx: 0, yPx: 0, widthPx: 300, heightPx: 200 };
    expect(cropHoldAt(whole, 150, 100, 3, 300, 200)).toBe('new');
    expect(cropHoldAt(whole, 299, 100, 3, 300, 200)).toBe('e');
  });

  it('grows by an edge, moves as a whole, starts anew', () => {
    expect(cropDragged(rect, 'e', { x: 120, y: 60 }, { x: 140, y: 99 }, 300, 200)).toEqual({ ...rect, widthPx: 120 });
    expect(cropDragged(rect, 'n', { x: 50, y: 30 }, { x: 50, y: 10 }, 300, 200)).toEqual({ ...rect, yPx: 10, heightPx: 80 });
    expect(cropDragged(rect, 'move', { x: 0, y: 0 }, { x: 500, y: -500 }, 300, 200)).toEqual({ ...rect, xPx: 200, yPx: 0 });
    expect(cropDragged(rect, 'new', { x: 50, y: 50 }, { x: 10, y: 80 }, 300, 200)).toEqual({ xPx: 10, yPx: 50, widthPx: 40, heightPx: 30 });
  });

  it('keeps its aspect about the corner or edge that stays', () => {
    expect(cropDragged(rect, 'se', { x: 120, y: 90 }, { x: 140, y: 90 }, 300, 200, 2)).toEqual({ xPx: 20, yPx: 30, widthPx: 120, heightPx: 60 });
    expect(cropDragged(rect, 'nw', { x: 20, y: 30 }, { x: 20, y: 10 }, 300, 200, 2)).toEqual({ xPx: 0, yPx: 30, widthPx: 120, heightPx: 60 });
    expect(cropDragged(rect, 'e', { x: 120, y: 60 }, { x: 100, y: 60 }, 300, 200, 1)).toEqual({ xPx: 20, yPx: 20, widthPx: 80, heightPx: 80 });
    expect(cropDragged(rect, 's', { x: 60, y: 90 }, { x: 60, y: 80 }, 300, 200, 1)).toEqual({ xPx: 45, yPx: 30, widthPx: 50, heightPx: 50 });
    expect(cropDragged(rect, 'new', { x: 200, y: 150 }, { x: 100, y: 140 }, 300, 200, 4)).toEqual({ xPx: 100, yPx: 125, widthPx: 100, heightPx: 25 });
    expect(withAspect(rect, 'se', { x: 0, y: 0 }, 1, 300, 200)).toEqual({ xPx: 20, yPx: 30, widthPx: 100, heightPx: 100 });
  });

  it('stays in the picture and keeps at least one pixel, whatever is dragged where', () => {
    const holds: CropHold[] = ['n', 's', 'w', 'e', 'nw', 'ne', 'sw', 'se', 'move', 'new'];
    const point = fc.record({ x: fc.integer({ min: -900, max: 900 }), y: fc.integer({ min: -900, max: 900 }) });
    fc.assert(
      fc.property(fc.constantFrom(...holds), point, point, fc.option(fc.double({ min: 0.2, max: 5, noNaN: true }), { nil: undefined }), (hold, from, to, aspect) => {
        const next = cropDragged(rect, hold, from, to, 300, 200, aspect);
        if (aspect !== undefined && hold !== 'move' && Math.min(next.widthPx, next.heightPx) > 20) expect(Math.abs(next.widthPx / next.heightPx / aspect - 1)).toBeLessThan(0.06);
        expect(next.xPx).toBeGreaterThanOrEqual(0);
        expect(next.yPx).toBeGreaterThanOrEqual(0);
        expect(next.widthPx).toBeGreaterThanOrEqual(1);
        expect(next.heightPx).toBeGreaterThanOrEqual(1);
        expect(next.xPx + next.widthPx).toBeLessThanOrEqual(300);
        expect(next.yPx + next.heightPx).toBeLessThanOrEqual(200);
      }),
      { seed: 41 },
    );
  });
});
