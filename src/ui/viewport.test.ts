import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { fitted, panned, toScreenX, toScreenY, toWorldX, toWorldY, zoomedAt } from './viewport.ts';

const number = fc.double({ min: -500, max: 500, noNaN: true });
const view = fc.record({ scale: fc.double({ min: 0.05, max: 20, noNaN: true }), x: number, y: number });

describe('viewport', () => {
  it('goes to the screen and back', () => {
    fc.assert(
      fc.property(view, number, number, (v, x, y) => {
        expect(toWorldX(v, toScreenX(v, x))).toBeCloseTo(x, 6);
        expect(toWorldY(v, toScreenY(v, y))).toBeCloseTo(y, 6);
      }),
      { seed: 31 },
    );
  });

  it('keeps the point under the pointer when zooming', () => {
    fc.assert(
      fc.property(view, number, number, fc.double({ min: 0.2, max: 5, noNaN: true }), (v, x, y, factor) => {
        const zoomed = zoomedAt(v, factor, x, y);
        expect(toWorldX(zoomed, x)).toBeCloseTo(toWorldX(v, x), 5);
        expect(toWorldY(zoomed, y)).toBeCloseTo(toWorldY(v, y), 5);
      }),
      { seed: 32 },
    );
  });

  it('fits a box with room around it', () => {
    const v = fitted({ x: 10, y: 20, width: 100, height: 50 }, { width: 800, height: 600 }, 50);
    expect(v.scale).toBe(7);
    expect(toScreenX(v, 60)).toBeCloseTo(400, 9);
    expect(toScreenY(v, 45)).toBeCloseTo(300, 9);
    expect(panned(v, 3, -4)).toEqual({ scale: 7, x: v.x + 3, y: v.y - 4 });
  });
});
