import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { followedBy, rotation, translation } from '../geometry/affine.ts';
import type { Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { nestShape, type NestShape } from './nestShape.ts';
import { Strip, type Pose } from './strip.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const FIGURES = [
  figureCurves({ form: 'star', widthMm: 40, heightMm: 40, corners: 5, depth: 0.6 }),
  figureCurves({ form: 'ring', widthMm: 50, heightMm: 50, bandMm: 5 }),
  figureCurves({ form: 'bar', widthMm: 60, heightMm: 6, ends: 'pointed' }),
  figureCurves({ form: 'round', widthMm: 12, heightMm: 12 }),
];
const SHAPES = FIGURES.map((curves) => nestShape(flatten(curves, 0.01)));
const lying = (figure: number, { x, y, angle }: Pose): Curves => transformCurves(FIGURES[figure], followedBy(followedBy(translation(-SHAPES[figure].middle.x, -SHAPES[figure].middle.y), rotation(angle, 0, 0)), translation(x, y)));

const pose = fc.record({ x: fc.double({ min: 30, max: 130, noNaN: true }), y: fc.double({ min: 30, max: 70, noNaN: true }), angle: fc.double({ min: 0, max: 6.28, noNaN: true }) });
const part = fc.record({ figure: fc.integer({ min: 0, max: FIGURES.length - 1 }), pose });

describe('shapes on a strip', () => {
  it('overlap as their outlines do, also across openings, and the deeper the more', () => {
    fc.assert(
      fc.property(part, part, (a, b) => {
        const strip = new Strip([SHAPES[a.figure], SHAPES[b.figure]], 100, 160);
        strip.put(0, a.pose);
        strip.put(1, b.pose);
        const common = areaOf(combineCurves(library, 'common', lying(a.figure, a.pose), lying(b.figure, b.pose)));
        // What only just touches may be told either way.
        if (common > 0.3) expect(strip.total()).toBeGreaterThan(0);
        if (strip.total() > 0) expect(common).toBeGreaterThan(0);
        expect(strip.overlapOf(0)).toBe(strip.overlapOf(1));
        // What is tried and what lies are the same.
        strip.turnTo(SHAPES[a.figure], a.pose.angle);
        expect(strip.tried(0, a.pose.x, a.pose.y, Infinity)).toBeCloseTo(strip.weighed(0), 3);
      }),
      { seed: 3, numRuns: 200 },
    );
    const strip = new Strip([SHAPES[0], SHAPES[0]], 100, 200);
    strip.put(0, { x: 50, y: 50, angle: 0 });
    const at = (x: number): number => {
      strip.put(1, { x, y: 50, angle: 0 });
      return strip.total();
    };
    const values = [50, 60, 70, 80, 91].map(at);
    expect(values).toEqual([...values].sort((p, q) => q - p));
    expect(values[4]).toBe(0);
  });

  it('leave room on the strip for their middles, at any turn', () => {
    fc.assert(
      fc.property(part, ({ figure, pose: { angle } }) => {
        const strip = new Strip([SHAPES[figure]], 70, 80);
        strip.turnTo(SHAPES[figure], angle);
        const room = strip.room();
        if (room === undefined) return;
        for (const [x, y] of [[room.left, room.top], [room.right, room.bottom]]) {
          const { points } = flatten(lying(figure, { x, y, angle }), 0.01);
          for (let i = 0; i < points.length; i += 2) expect(points[i] >= -1e-6 && points[i] <= 80 + 1e-6 && points[i + 1] >= -1e-6 && points[i + 1] <= 70 + 1e-6).toBe(true);
        }
      }),
      { seed: 6, numRuns: 60 },
    );
  });

  it('are covered by discs that lie inside of them, the largest first', () => {
    for (const { poles, points, starts } of SHAPES) {
      expect(poles.length).toBeGreaterThan(0);
      for (let k = 3; k < poles.length; k += 3) expect(poles[k + 2]).toBeLessThanOrEqual(poles[k - 1] + 1e-9);
      for (let k = 0; k < poles.length; k += 3) expect(distanceTo({ points, starts }, poles[k], poles[k + 1])).toBeGreaterThanOrEqual(poles[k + 2] - 1e-6);
    }
  });
});

function distanceTo({ points, starts }: Pick<NestShape, 'points' | 'starts'>, x: number, y: number): number {
  let least = Infinity;
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) {
      const [ax, ay, bx, by] = [points[2 * j], points[2 * j + 1], points[2 * i], points[2 * i + 1]];
      const t = Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2 || 1)));
      least = Math.min(least, Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay)));
    }
  }
  return least;
}
