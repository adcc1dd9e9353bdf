import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { polygon, sampled } from '../../../tests/fixtures/shapes.ts';
import { alignCorners } from './alignCorners.ts';
import { Bends } from './bends.ts';
import { findCorners, type Corner, type Ring } from './corners.ts';
import { LINE, nodeCount, ringArea, ringCount, type Curves } from './curves.ts';
import { flatten } from './flatten.ts';
import { DEFAULT_OUTLINE, outlineOf } from './traceOutline.ts';

/** A ring through points that lie about a px apart along the given sides. */
function ringAlong(points: readonly (readonly [number, number])[]): Ring {
  const xs: number[] = [];
  const ys: number[] = [];
  points.forEach(([x, y], k) => {
    const [nx, ny] = points[(k + 1) % points.length];
    const steps = Math.round(Math.hypot(nx - x, ny - y));
    for (let s = 0; s < steps; s++) {
      xs.push(x + ((nx - x) * (s + 0.5)) / steps);
      ys.push(y + ((ny - y) * (s + 0.5)) / steps);
    }
  });
  const n = xs.length;
  const along = new Float64Array(n + 1);
  for (let k = 1; k <= n; k++) along[k] = along[k - 1] + Math.hypot(xs[k % n] - xs[k - 1], ys[k % n] - ys[k - 1]);
  return { n, x: Float64Array.from(xs), y: Float64Array.from(ys), along, closed: true };
}

const OPTIONS = { leastTurnRad: DEFAULT_OUTLINE.cornerRad, edgeWidthPx: 1 };
const turned = (points: readonly (readonly [number, number])[], angle: number): [number, number][] =>
  points.map(([x, y]) => [50 + (x - 50) * Math.cos(angle) - (y - 50) * Math.sin(angle), 50 + (x - 50) * Math.sin(angle) + (y - 50) * Math.cos(angle)]);
const straightLines = (curves: Curves): number => curves.verbs.filter((verb) => verb === LINE).length;

describe('corners and small arcs', () => {
  it('are told apart: an arc of a few pixels stays round, an octagon keeps its corners', () => {
    for (const radius of [4.5, 6, 8, 11]) {
      // The bowl of a letter: half round, half square.
      const bowl = outlineOf(
        sampled(40, 40, (x, y) => (x < 20.2 ? x > 20.2 - radius && Math.abs(y - 20.1) < radius : Math.hypot(x - 20.2, y - 20.1) < radius)),
      );
      expect(straightLines(bowl)).toBeLessThanOrEqual(3);
      expect(nodeCount(bowl)).toBeLessThanOrEqual(8);
    }
    const octagon = outlineOf(
      polygon(
        80,
        80,
        Array.from({ length: 8 }, (_, k) => [40.3 + 30 * Math.cos((k * Math.PI) / 4 + 0.2), 39.8 + 30 * Math.sin((k * Math.PI) / 4 + 0.2)] as const),
      ),
    );
    expect([straightLines(octagon), nodeCount(octagon)]).toEqual([8, 8]);
  });

  it('reads a circle through both sides against a line for each', () => {
    const round = ringAlong(
      Array.from({ length: 30 }, (_, k) => [50 + 5 * Math.cos((2 * Math.PI * k) / 30), 50 + 5 * Math.sin((2 * Math.PI * k) / 30)] as const),
    );
    const square = ringAlong([
      [30, 30],
      [60, 30],
      [60, 60],
      [30, 60],
    ]);
    expect(Array.from({ length: round.n }, (_, i) => new Bends(round, 0.7).isArc(i, 4.4, 4.4)).every(Boolean)).toBe(true);
    const corner = [...square.x.keys()].find((i) => square.x[i] > 59 && square.y[i] < 31) as number;
    expect(new Bends(square, 0.7).isArc(corner, 4.4, 4.4)).toBe(false);
    // Too few points on a side say nothing.
    expect(new Bends(square, 0.7).isArc(corner, 1.5, 4.4)).toBe(false);
  });

  it('lie on the whole of their straight sides', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: Math.PI, noNaN: true }), fc.double({ min: -0.3, max: 0.3, noNaN: true }), (angle, off) => {
        const truth = turned(
          [
            [20, 25],
            [82, 25],
            [82, 71],
            [20, 71],
          ],
          angle,
        );
        const ring = ringAlong(truth);
        const moved: Corner[] = findCorners(ring, OPTIONS).map((corner) => ({ ...corner, x: corner.x + off, y: corner.y - off }));
        expect(moved).toHaveLength(4);
        for (const { x, y } of alignCorners(ring, moved, 0.2, 0.9)) expect(Math.min(...truth.map(([tx, ty]) => Math.hypot(tx - x, ty - y)))).toBeLessThan(1e-6);
      }),
      { seed: 3, numRuns: 40 },
    );
  });

  it('stay where they are beside what is not straight, and when their sides would carry them far', () => {
    const ring = ringAlong(
      Array.from({ length: 24 }, (_, k) => [50 + 30 * Math.cos((2 * Math.PI * k) / 24), 50 + 30 * Math.sin((2 * Math.PI * k) / 24)] as const),
    );
    const corners: Corner[] = [
      { index: 3, x: 80, y: 52, turnRad: 1 },
      { index: 90, x: 20, y: 50, turnRad: 1 },
    ];
    expect(alignCorners(ring, corners, 0.2, 0.9)).toEqual(corners);
    const square = ringAlong([
      [30, 30],
      [60, 30],
      [60, 60],
      [30, 60],
    ]);
    const far = findCorners(square, OPTIONS).map((corner) => ({ ...corner, x: corner.x + 1.5 }));
    expect(alignCorners(square, far, 0.2, 0.9)).toEqual(far);
  });
});

describe('ends of thin strips', () => {
  it('are blunt: a stroke of one to two pixels keeps its length, width and four corners, however it lies', () => {
    fc.assert(
      fc.property(fc.double({ min: 1.2, max: 2.2, noNaN: true }), fc.double({ min: 0.1, max: 1.4, noNaN: true }), (width, angle) => {
        const [half, across] = [22, width / 2];
        const outline = outlineOf(
          polygon(
            100,
            100,
            turned(
              [
                [50 - half, 50 - across],
                [50 + half, 50 - across],
                [50 + half, 50 + across],
                [50 - half, 50 + across],
              ],
              angle,
            ),
          ),
        );
        expect(ringCount(outline)).toBe(1);
        expect(Math.abs(ringArea(outline, 0))).toBeGreaterThan(0.9 * 2 * half * width);
        expect(Math.abs(ringArea(outline, 0))).toBeLessThan(1.12 * 2 * half * width);
        const { points } = flatten(outline, 0.02);
        for (let k = 0; k < points.length; k += 2) {
          const [u, v] = [
            (points[k] - 50) * Math.cos(angle) + (points[k + 1] - 50) * Math.sin(angle),
            -(points[k] - 50) * Math.sin(angle) + (points[k + 1] - 50) * Math.cos(angle),
          ];
          expect(Math.abs(v)).toBeLessThan(across + 0.35);
          expect(Math.abs(u)).toBeLessThan(half + 0.8);
        }
      }),
      { seed: 11, numRuns: 8 },
    );
  });
});
