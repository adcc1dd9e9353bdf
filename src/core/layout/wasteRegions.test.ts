import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { combineCurves, joinOverlaps } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { translation } from '../geometry/affine.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { weedLines } from './weedLines.ts';
import { weedingPlan } from './wasteRegions.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const box = { xMm: 0, yMm: 0, widthMm: 200, heightMm: 80 };
const sheet = (curves: Parameters<typeof areaOf>[0]) => ({ parts: [{ id: 'a', curves }], placements: [{ partId: 'a', at: translation(0, 0) }], boxes: [box], used: box });
const at = (curves: Parameters<typeof areaOf>[0], x: number, y: number) => transformCurves(curves, translation(x, y));
const ring = figureCurves({ form: 'ring', widthMm: 40, heightMm: 40, bandMm: 6 });

describe('the weeding plan', () => {
  it('tells the waste around from what is picked out, in that order', () => {
    const { waste, picked } = weedingPlan(library, sheet(joinCurves([at(ring, 10, 20), at(ring, 80, 20), at(figureCurves({ form: 'round', widthMm: 10, heightMm: 10 }), 95, 35)])));
    expect(picked).toBe(2);
    expect(waste.map(({ isPicked }) => isPicked)).toEqual([false, true, true]);
    const [around, ...inside] = waste.map(({ areaMm2 }) => areaMm2);
    expect(around).toBeCloseTo(16_000 - 2 * Math.PI * 400, 0);
    expect(inside.sort((a, b) => a - b)).toEqual([Math.PI * (196 - 25), Math.PI * 196].map((value) => expect.closeTo(value, 0) as number));
  });

  it('is what pieces leave of the boxes, all of it, in pieces that do not overlap', () => {
    const figure = fc.record({ form: fc.constantFrom('heart' as const, 'round' as const, 'shield' as const), x: fc.double({ min: 2, max: 150, noNaN: true }), y: fc.double({ min: 2, max: 40, noNaN: true }), size: fc.double({ min: 5, max: 35, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(figure, { minLength: 1, maxLength: 6 }), fc.boolean(), (figures, hasLines) => {
        const curves = joinOverlaps(library, joinCurves(figures.map(({ form, x, y, size }) => at(figureCurves({ form, widthMm: size, heightMm: size }), x, y))));
        const lying = sheet(curves);
        const lines = hasLines ? weedLines(lying, { everyMm: 50, awayMm: 1 }).curves : undefined;
        const { waste, takesS } = weedingPlan(library, { ...lying, weedLines: lines });
        const all = waste.reduce((sum, { areaMm2 }) => sum + areaMm2, 0);
        // The slits of weed lines are all that is missing.
        expect(all).toBeGreaterThan(16_000 - areaOf(curves) - 8);
        expect(all).toBeLessThan(16_000 - areaOf(curves) + 0.5);
        for (const each of waste) expect(areaOf(combineCurves(library, 'common', each.curves, curves))).toBeLessThan(0.05);
        expect(takesS).toBeGreaterThan(0);
      }),
      { seed: 3, numRuns: 30 },
    );
  });

  it('lifts more easily in strips: weed lines part what winds', () => {
    const curves = joinCurves(Array.from({ length: 12 }, (_, k) => at(figureCurves({ form: 'round', widthMm: 10, heightMm: 60 }), 4 + 16 * k, 10)));
    const lying = sheet(curves);
    const whole = weedingPlan(library, lying).waste;
    const strips = weedingPlan(library, { ...lying, weedLines: weedLines(lying, { everyMm: 40, awayMm: 1 }).curves }).waste;
    expect(whole.map(({ ease }) => ease)).toEqual(['care']);
    expect(strips.length).toBe(5);
    expect(strips.every(({ ease }) => ease === 'easy')).toBe(true);
  });
});
