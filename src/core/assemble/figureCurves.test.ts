import { describe, expect, it } from 'vitest';
import { boundsOf, ringArea } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { figureCurves } from './figureCurves.ts';

const box = (left: number, top: number, right: number, bottom: number): unknown => ({
  left: expect.closeTo(left, 6),
  top: expect.closeTo(top, 6),
  right: expect.closeTo(right, 6),
  bottom: expect.closeTo(bottom, 6),
});

describe('a figure', () => {
  it('fills its box, runs clockwise and has the area that its measures say', () => {
    const cases = [
      [{ form: 'rectangle', widthMm: 40, heightMm: 10 }, 400],
      [{ form: 'rectangle', widthMm: 40, heightMm: 10, cornerMm: 3 }, 400 - (4 - Math.PI) * 9],
      [{ form: 'rectangle', widthMm: 40, heightMm: 10, cornerMm: 50 }, 400 - (4 - Math.PI) * 25],
      [{ form: 'round', widthMm: 40, heightMm: 40 }, Math.PI * 400],
      [{ form: 'round', widthMm: 40, heightMm: 10 }, Math.PI * 100],
    ] as const;
    for (const [shape, area] of cases) {
      const curves = figureCurves(shape);
      expect(boundsOf(curves)).toEqual(box(0, 0, shape.widthMm, shape.heightMm));
      expect(Math.abs(ringArea(curves, 0) - area), JSON.stringify(shape)).toBeLessThan(1e-5 * area);
    }
  });

  it('is as round as a cutter can tell, also a large one', () => {
    const { points } = flatten(figureCurves({ form: 'round', widthMm: 1000, heightMm: 1000 }), 0.001);
    for (let k = 0; k < points.length; k += 2) expect(Math.abs(Math.hypot(points[k] - 500, points[k + 1] - 500) - 500)).toBeLessThan(0.005);
  });
});
