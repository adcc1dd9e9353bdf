import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeDesign } from '../assemble/design.ts';
import { newJob } from '../job/newJob.ts';
import { boundsOf, depthOf, nodeCount, ringArea, ringCount } from '../outline/curves.ts';
import { nestRings } from '../outline/nestRings.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { cutRoute } from './cutRoute.ts';
import { curvesOfRole, cutPlanOf, type CutPlan } from './cutPlan.ts';
import { laySheet, type LayoutSettings } from './laySheet.ts';

const FILM = { id: 'film', name: 'Harbour navy', colour: '#22375f' };
const square = (x: number, y: number, side: number): string => `M${x} ${y}L${x + side} ${y}L${x + side} ${y + side}L${x} ${y + side}Z`;
/** A frame with a frame in it that holds a dot, and a square beside them. */
const curves = nestRings(
  curvesFromPathData([square(0, 0, 40), square(5, 5, 30), square(10, 10, 20), square(12, 12, 16), square(18, 18, 4), square(50, 0, 10)].join('')),
);
const design = makeDesign([{ filmId: 'film', curves }], { by: 'width', sizeMm: 60, turnDeg: 0 });
const planOf = (change: Partial<LayoutSettings> = {}): CutPlan =>
  cutPlanOf(laySheet(design, 'film', { ...newJob('x').layout, mirrored: false, ...change }), FILM);

describe('the plan of a sheet', () => {
  it('does every ring of every copy once, and the boxes after all of them', () => {
    const { runs } = planOf({ copies: 4 });
    expect(runs.map(({ role }) => role)).toEqual(['cut', 'cut', 'cut', 'cut', 'box']);
    for (const { curves: own, order } of runs) expect([...order].sort((a, b) => a - b)).toEqual([...own.parent.keys()]);
    expect(ringCount(curvesOfRole({ ...planOf({ copies: 4 }) }, 'box'))).toBe(4);
    expect(planOf({ box: { on: false, marginMm: 0 } }).runs.map(({ role }) => role)).toEqual(['cut']);
  });

  it('cuts what lies inside before what lies around it', () => {
    const [{ curves: own, order }] = planOf().runs;
    const depths = [...order].map((ring) => depthOf(own, ring));
    expect(depths).toEqual([4, 3, 2, 1, 0, 0]);
  });

  it('is mirrored copy by copy, with nothing added, lost or turned inside out', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.boolean(),
        fc.constantFrom('topLeft', 'topRight', 'bottomLeft', 'bottomRight'),
        (copies, mirrored, origin) => {
          const { sheet } = newJob('x').layout;
          const cut = curvesOfRole(planOf({ copies, mirrored, sheet: { ...sheet, origin } }), 'cut');
          expect([ringCount(cut), nodeCount(cut)]).toEqual([copies * ringCount(curves), copies * nodeCount(curves)]);
          for (let ring = 0; ring < ringCount(cut); ring++) expect(ringArea(cut, ring) > 0).toBe(depthOf(cut, ring) % 2 === 0);
          const [one, other] = [boundsOf(cut), boundsOf(curvesOfRole(planOf({ copies, sheet: { ...sheet, origin } }), 'cut'))];
          for (const side of ['left', 'top', 'right', 'bottom'] as const) expect(one?.[side]).toBeCloseTo(other?.[side] as number, 9);
        },
      ),
      { seed: 41, numRuns: 40 },
    );
  });
});

describe('the way of the knife', () => {
  const place = fc.record({ x: fc.integer({ min: 0, max: 30 }), y: fc.integer({ min: 0, max: 30 }), hasHole: fc.boolean() });
  /** Squares on a lattice, some of them with an opening. */
  const squares = fc.uniqueArray(place, { selector: ({ x, y }) => x * 100 + y, minLength: 2, maxLength: 40 }).map((places) => nestRings(curvesFromPathData(places.map(({ x, y, hasHole }) => square(12 * x, 12 * y, 8) + (hasHole ? square(12 * x + 2, 12 * y + 2, 4) : '')).join(''))));
  const travel = (own: typeof curves, order: ArrayLike<number>): number => {
    let [length, px, py] = [0, 0, 0];
    for (let k = 0; k < order.length; k++) {
      const at = own.coordStart[order[k]];
      length += Math.hypot(own.coords[at] - px, own.coords[at + 1] - py);
      [px, py] = [own.coords[at], own.coords[at + 1]];
    }
    return length;
  };

  it('does every ring once, what lies inside first, the same outlines, and is no longer than as drawn', () => {
    fc.assert(
      fc.property(squares, (drawn) => {
        const { curves: own, order } = cutRoute(drawn, { x: 0, y: 0 });
        expect([...order].sort((a, b) => a - b)).toEqual([...drawn.parent.keys()]);
        for (const [k, ring] of order.entries()) expect(own.parent[ring] < 0 || order.indexOf(own.parent[ring]) > k).toBe(true);
        for (const ring of drawn.parent.keys()) expect(ringArea(own, ring)).toBeCloseTo(ringArea(drawn, ring), 9);
        expect(nodeCount(own)).toBe(nodeCount(drawn));
        expect(travel(own, order)).toBeLessThanOrEqual(travel(drawn, [...drawn.parent.keys()].sort((a, b) => depthOf(drawn, b) - depthOf(drawn, a))) + 1e-9);
      }),
      { seed: 21, numRuns: 80 },
    );
  });
});
