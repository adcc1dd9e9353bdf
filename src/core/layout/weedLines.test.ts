import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { rotation, translation } from '../geometry/affine.ts';
import type { Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { weedLines } from './weedLines.ts';

const IDENTITY_AT = translation(0, 0);
const linesOf = ({ coords }: Curves): [number, number, number, number][] => Array.from({ length: coords.length / 4 }, (_, k) => [coords[4 * k], coords[4 * k + 1], coords[4 * k + 2], coords[4 * k + 3]]);
/** Whether a place is on film, and how far from its edge it is. */
function near(curves: Curves, x: number, y: number): { isOn: boolean; away: number } {
  const { points, starts } = flatten(curves, 0.02);
  let [isOn, away] = [false, Infinity];
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) {
      const [ax, ay, bx, by] = [points[2 * j], points[2 * j + 1], points[2 * i], points[2 * i + 1]];
      if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) isOn = !isOn;
      const t = Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2 || 1)));
      away = Math.min(away, Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay)));
    }
  }
  return { isOn, away };
}

describe('weed lines', () => {
  const figure = fc.record({ form: fc.constantFrom('heart' as const, 'round' as const, 'shield' as const), x: fc.double({ min: 5, max: 220, noNaN: true }), y: fc.double({ min: 5, max: 70, noNaN: true }), size: fc.double({ min: 4, max: 60, noNaN: true }), turn: fc.double({ min: 0, max: 6.2, noNaN: true }) });

  it('cross no piece, keep their distance, and stay in the box', () => {
    fc.assert(
      fc.property(fc.array(figure, { minLength: 1, maxLength: 6 }), fc.double({ min: 0.5, max: 4, noNaN: true }), fc.boolean(), (figures, awayMm, isHigh) => {
        const lying = joinCurves(figures.map(({ form, x, y, size, turn }) => transformCurves(transformCurves(figureCurves({ form, widthMm: size, heightMm: size }), rotation(turn, size / 2, size / 2)), translation(isHigh ? y : x, isHigh ? x : y))));
        const box = isHigh ? { xMm: 0, yMm: 0, widthMm: 140, heightMm: 290 } : { xMm: 0, yMm: 0, widthMm: 290, heightMm: 140 };
        const drawn = weedLines({ parts: [{ id: 'a', curves: lying }], placements: [{ partId: 'a', at: IDENTITY_AT }], boxes: [box] }, { everyMm: 60, awayMm }).curves;
        for (const [ax, ay, bx, by] of linesOf(drawn)) {
          expect([ax, bx].every((x) => x >= 0 && x <= box.widthMm) && [ay, by].every((y) => y >= 0 && y <= box.heightMm)).toBe(true);
          for (let k = 0; k <= 20; k++) {
            const { isOn, away } = near(lying, ax + ((bx - ax) * k) / 20, ay + ((by - ay) * k) / 20);
            // Pieces that overlap each other leave even-odd holes: what lies in those is near an edge all the same.
            expect(isOn).toBe(false);
            expect(away).toBeGreaterThan(awayMm - 0.06);
          }
        }
      }),
      { seed: 12, numRuns: 60 },
    );
  });

  it('part a long box into strips, each where it meets least, and leave a small one whole', () => {
    const dots = joinCurves([58, 62].map((x) => transformCurves(figureCurves({ form: 'round', widthMm: 6, heightMm: 6 }), translation(x, 25))));
    const lines = (widthMm: number): ReturnType<typeof linesOf> => linesOf(weedLines({ parts: [{ id: 'a', curves: dots }], placements: [{ partId: 'a', at: IDENTITY_AT }], boxes: [{ xMm: 0, yMm: 0, widthMm, heightMm: 50 }] }, { everyMm: 60, awayMm: 1 }).curves);
    expect(lines(50)).toEqual([]);
    const [first, ...more] = lines(120);
    expect(more).toEqual([]);
    // Beside the dots rather than through their middle.
    expect([first[1], first[3], Math.abs(first[0] - 63) > 4]).toEqual([0, 50, true]);
  });
});
