import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { CurvesBuilder, type Curves } from '../outline/curves.ts';
import { knifeWay } from './knifeWay.ts';
import { holderStrokes } from './bladeOffset.ts';
import type { CutPlan, PathRole } from './cutPlan.ts';
import { toolStrokes, type ToolStroke } from './toolStrokes.ts';

const FILM = { id: 'a', name: 'Navy', colour: '#22375f' };
const planOf = (...runs: readonly (readonly [PathRole, Curves])[]): CutPlan => ({ film: FILM, widthMm: 200, heightMm: 200, runs: runs.map(([role, curves]) => ({ role, curves, order: Int32Array.from(curves.parent.keys()) })) });
const square = figureCurves({ form: 'rectangle', widthMm: 10, heightMm: 10 });
const round = figureCurves({ form: 'round', widthMm: 30, heightMm: 20 });
const star = figureCurves({ form: 'star', widthMm: 40, heightMm: 40, corners: 5, depth: 0.5, cornerMm: 0 });

function line(...[first, ...rest]: readonly (readonly [number, number])[]): Curves {
  const builder = new CurvesBuilder();
  builder.start(first[0], first[1], -1);
  for (const [x, y] of rest) builder.line(x, y);
  builder.close();
  return builder.build();
}

const lengthOf = (points: Float64Array): number => {
  let length = 0;
  for (let i = 2; i < points.length; i += 2) length += Math.hypot(points[i] - points[i - 2], points[i + 1] - points[i - 1]);
  return length;
};

describe('strokes of a tool', () => {
  it('go around once for each pass and on by the overcut; a pen and marks go once', () => {
    const plan = planOf(['cut', square], ['mark', square]);
    expect(toolStrokes(plan, { chordMm: 0.01, passes: 3, overcutMm: 1.5 }).map(({ points }) => lengthOf(points))).toEqual([121.5, 40]);
    expect(toolStrokes(plan, { chordMm: 0.01, passes: 3, overcutMm: 1.5, tool: 'pen' }).map(({ points }) => lengthOf(points))).toEqual([40, 40]);
    // The overcut goes on along what comes next, around a corner too, and once around at most.
    const [{ points }] = toolStrokes(plan, { chordMm: 0.01, overcutMm: 12 });
    expect(lengthOf(points)).toBeCloseTo(52, 9);
    expect(lengthOf(toolStrokes(plan, { chordMm: 0.01, overcutMm: 1000 })[0].points)).toBeCloseTo(80, 9);
  });

  it('cut open lines to their very end, and anew each pass', () => {
    const strokes = toolStrokes(planOf(['weedLine', line([0, 0], [30, 0], [30, 5])]), { chordMm: 0.01, passes: 2, overcutMm: 3 });
    expect(strokes.map(({ points }) => Array.from(points))).toEqual([[0, 0, 30, 0, 30, 5], [0, 0, 30, 0, 30, 5]]);
    // A way that leaves lines through the waste out is shorter than what is cut.
    expect(knifeWay(planOf(['weedLine', line([0, 0], [30, 0])]), { speedMmS: 100, passes: 2, tool: 'knife' }).cutMm).toBeCloseTo(60, 9);
  });
});

/** The tip of a blade whose holder is drawn along strokes in small steps: always so far behind it. */
function tipsOf(strokes: readonly ToolStroke[], offsetMm: number, start: { x: number; y: number }): { x: number; y: number }[] {
  const tips: { x: number; y: number }[] = [];
  let { x: tipX, y: tipY } = start;
  for (const { points } of strokes) {
    // Lifted, it is carried over without turning.
    const last = tips.length === 0 ? undefined : { dx: points[0] - holder.x, dy: points[1] - holder.y };
    if (last !== undefined) [tipX, tipY] = [tipX + last.dx, tipY + last.dy];
    for (let i = 2; i < points.length; i += 2) {
      const [ax, ay, bx, by] = points.subarray(i - 2, i + 2);
      const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / 0.01));
      for (let step = 1; step <= steps; step++) {
        const [hx, hy] = [ax + ((bx - ax) * step) / steps, ay + ((by - ay) * step) / steps];
        const away = Math.hypot(hx - tipX, hy - tipY);
        [tipX, tipY] = [hx - ((hx - tipX) / away) * offsetMm, hy - ((hy - tipY) / away) * offsetMm];
        tips.push({ x: tipX, y: tipY });
      }
    }
    holder = { x: points[points.length - 2], y: points[points.length - 1] };
  }
  return tips;
}
let holder = { x: 0, y: 0 };

function segmentDistance(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const [dx, dy] = [bx - ax, by - ay];
  const share = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(x - ax - share * dx, y - ay - share * dy);
}

const farthest = (tips: readonly { x: number; y: number }[], strokes: readonly ToolStroke[]): number =>
  Math.max(...tips.map(({ x, y }) => Math.min(...strokes.flatMap(({ points }) => Array.from({ length: points.length / 2 - 1 }, (_, k) => segmentDistance(x, y, points[2 * k], points[2 * k + 1], points[2 * k + 2], points[2 * k + 3]))))));

describe('the holder of a trailing knife', () => {
  it('draws its tip along the strokes: sharp corners, rounds, and from one stroke to the next', () => {
    fc.assert(
      fc.property(fc.constantFrom(square, round, star), fc.constantFrom(square, round, star), fc.double({ min: 0.1, max: 0.9, noNaN: true }), fc.double({ min: 0, max: 2, noNaN: true }), (first, second, offsetMm, overcutMm) => {
        const strokes = toolStrokes(planOf(['cut', first], ['cut', second]), { chordMm: 0.1, overcutMm });
        const moved = holderStrokes(strokes, offsetMm, 0.005);
        const [x, y] = strokes[0].points;
        expect(farthest(tipsOf(moved, offsetMm, { x, y }), strokes)).toBeLessThan(0.02);
      }),
      { seed: 3, numRuns: 8 },
    );
  });

  it('without compensation would cut corners: what the simulation is worth', () => {
    const strokes = toolStrokes(planOf(['cut', square]), { chordMm: 0.05 });
    const [x, y, toX, toY] = strokes[0].points;
    const away = Math.hypot(toX - x, toY - y);
    const behind = { x: x - ((toX - x) / away) * 0.5, y: y - ((toY - y) / away) * 0.5 };
    expect(farthest(tipsOf(strokes, 0.5, behind).slice(300), strokes)).toBeGreaterThan(0.1);
  });

  it('is what it was without an offset, and leaves out strokes that go nowhere', () => {
    const strokes = toolStrokes(planOf(['cut', round]), { chordMm: 0.05 });
    expect(holderStrokes(strokes, 0)).toEqual(strokes);
    expect(holderStrokes([{ role: 'cut', points: Float64Array.of(1, 1, 1, 1) }], 0.3)).toEqual([]);
  });
});
