import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boundsOf, ringArea } from '../outline/curves.ts';
import { isProperlyNested, isSimpleRing } from '../outline/checkCurves.ts';
import { flatten } from '../outline/flatten.ts';
import { FIGURE_FORMS, figureSchema } from './figure.ts';
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

describe('every form', () => {
  const forms = Object.entries(FIGURE_FORMS);
  it('has a box that it fills, rings that are nested and do not cross, in any size', () => {
    fc.assert(
      fc.property(fc.constantFrom(...forms), fc.double({ min: 4, max: 900, noNaN: true }), fc.double({ min: 4, max: 900, noNaN: true }), ([form, { first }], widthMm, heightMm) => {
        const figure = figureSchema.parse(first(widthMm, heightMm));
        const curves = figureCurves(figure);
        expect(isProperlyNested(curves, 0.01), form).toBe(true);
        const rings = flatten(curves, 0.05);
        for (let ring = 0; ring < curves.parent.length; ring++) expect(isSimpleRing(rings, ring), `${form} ${widthMm} × ${heightMm}`).toBe(true);
        const around = boundsOf(curves)!;
        expect([around.left, around.top].every((side) => side > -1e-6), form).toBe(true);
        expect(around.right <= widthMm + 1e-6 && around.bottom <= heightMm + 1e-6, form).toBe(true);
        // An arc is set in the box of its whole circle.
        if (form !== 'arc') expect([around.right - around.left, around.bottom - around.top]).toEqual([expect.closeTo(widthMm, 6), expect.closeTo(heightMm, 6)]);
      }),
      { seed: 31, numRuns: 200 },
    );
  });

  it('keeps to its extremes: broad bands, many points, deep stars, long tails', () => {
    const extremes = [
      { form: 'ring', widthMm: 20, heightMm: 10, bandMm: 900 },
      { form: 'arc', widthMm: 20, heightMm: 20, bandMm: 900, sweepDeg: 359, ends: 'flat' },
      { form: 'wave', widthMm: 20, heightMm: 20, bandMm: 900, waves: 50 },
      { form: 'star', widthMm: 20, heightMm: 20, corners: 60, depth: 0.98, cornerMm: 50 },
      { form: 'polygon', widthMm: 20, heightMm: 20, corners: 3, cornerMm: 50 },
      { form: 'ribbon', widthMm: 20, heightMm: 20, tailMm: 900 },
      { form: 'speech', widthMm: 20, heightMm: 20, cornerMm: 90, at: 1, tailMm: 900 },
      { form: 'bar', widthMm: 5, heightMm: 50, ends: 'pointed' },
    ];
    for (const figure of extremes) {
      const curves = figureCurves(figureSchema.parse(figure));
      const rings = flatten(curves, 0.002);
      expect(isProperlyNested(curves, 0.01), figure.form).toBe(true);
      for (let ring = 0; ring < curves.parent.length; ring++) expect(isSimpleRing(rings, ring), figure.form).toBe(true);
    }
  });
});
