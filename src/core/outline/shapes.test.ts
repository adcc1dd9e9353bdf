import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { polygon, randomFrom, sampled } from '../../../tests/fixtures/shapes.ts';
import { calmed } from './calm.ts';
import { CurvesBuilder, LINE, nodeCount, ringCount, type Curves } from './curves.ts';
import { ellipseOf } from './ellipse.ts';
import { flatten } from './flatten.ts';
import { offsetOutline } from './offsetOutline.ts';
import { withParallels } from './parallels.ts';
import { DEFAULT_OUTLINE, outlineOf } from './traceOutline.ts';

const insideEllipse =
  (cx: number, cy: number, a: number, b: number, turn: number) =>
  (x: number, y: number): boolean => {
    const [u, v] = [(x - cx) * Math.cos(turn) + (y - cy) * Math.sin(turn), -(x - cx) * Math.sin(turn) + (y - cy) * Math.cos(turn)];
    return (u / a) ** 2 + (v / b) ** 2 <= 1;
  };
/** Points of a closed ring. */
function ringFrom(points: readonly (readonly [number, number])[]) {
  const n = points.length;
  const along = new Float64Array(n + 1);
  for (let k = 1; k <= n; k++) along[k] = along[k - 1] + Math.hypot(points[k % n][0] - points[k - 1][0], points[k % n][1] - points[k - 1][1]);
  return { n, x: Float64Array.from(points, ([x]) => x), y: Float64Array.from(points, ([, y]) => y), along, closed: true };
}

function shape(points: readonly (readonly [number, number])[]): Curves {
  const builder = new CurvesBuilder();
  builder.start(...(points[0] as [number, number]), -1);
  for (const [x, y] of [...points.slice(1), points[0]]) builder.line(x, y);
  builder.close();
  return builder.build();
}

describe('ellipses', () => {
  it('are drawn as such in four curves, wherever they lie and however they are turned', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 9, max: 28, noNaN: true }),
        fc.double({ min: 0.35, max: 0.9, noNaN: true }),
        fc.double({ min: 0, max: Math.PI, noNaN: true }),
        (a, share, turn) => {
          const b = a * share;
          if (b < 5) return;
          const curves = outlineOf(sampled(70, 70, insideEllipse(35.3, 34.8, a, b, turn)));
          expect(ringCount(curves)).toBe(1);
          expect(nodeCount(curves)).toBe(4);
          const { points } = flatten(curves, 0.01);
          for (let k = 0; k < points.length; k += 2) {
            const [u, v] = [
              (points[k] - 35.3) * Math.cos(turn) + (points[k + 1] - 34.8) * Math.sin(turn),
              -(points[k] - 35.3) * Math.sin(turn) + (points[k + 1] - 34.8) * Math.cos(turn),
            ];
            const value = (u / a) ** 2 + (v / b) ** 2 - 1;
            expect(Math.abs(value) / Math.hypot((2 * u) / a ** 2, (2 * v) / b ** 2)).toBeLessThan(0.12);
          }
        },
      ),
      { seed: 4, numRuns: 25 },
    );
  });

  it('give back their axes and direction from points with noise', () => {
    const random = randomFrom(8);
    const points = Array.from({ length: 90 }, (_, k): [number, number] => {
      const [u, v] = [40 * Math.cos((k / 90) * 2 * Math.PI), 18 * Math.sin((k / 90) * 2 * Math.PI)];
      return [100 + u * Math.cos(0.7) - v * Math.sin(0.7) + (random() - 0.5) * 0.1, 60 + u * Math.sin(0.7) + v * Math.cos(0.7) + (random() - 0.5) * 0.1];
    });
    const found = ellipseOf(ringFrom(points), 0.3);
    expect(found).toMatchObject({
      x: expect.closeTo(100, 1) as number,
      y: expect.closeTo(60, 1) as number,
      a: expect.closeTo(40, 0) as number,
      b: expect.closeTo(18, 0) as number,
    });
    expect(Math.abs(Math.sin((found?.turnRad ?? 0) - 0.7))).toBeLessThan(0.01);
  });

  it('are not seen in what is none, nor when shapes are off', () => {
    const rounded = sampled(70, 70, (x, y) => Math.abs((x - 35) / 25) ** 4 + Math.abs((y - 35) / 15) ** 4 <= 1);
    const plain = sampled(70, 70, insideEllipse(35, 35, 25, 14, 0.4));
    const off = outlineOf(plain, { ...DEFAULT_OUTLINE, shapes: false });
    expect(
      ellipseOf(
        ringFrom(
          Array.from({ length: 80 }, (_, k): [number, number] => {
            const [c, s] = [Math.cos((k / 80) * 2 * Math.PI), Math.sin((k / 80) * 2 * Math.PI)];
            return [25 * Math.sign(c) * Math.sqrt(Math.abs(c)), 15 * Math.sign(s) * Math.sqrt(Math.abs(s))];
          }),
        ),
        0.3,
      ),
    ).toBeUndefined();
    expect(nodeCount(outlineOf(rounded))).toBeGreaterThan(4);
    expect([...off.coords]).not.toEqual([...outlineOf(plain).coords]);
    expect(
      ellipseOf(
        ringFrom([
          [0, 0],
          [1, 0],
          [1, 1],
        ]),
        0.3,
      ),
    ).toBeUndefined();
  });
});

const anglesOf = (curves: Curves): number[] => {
  const out: number[] = [];
  const { verbs, coords, coordStart } = curves;
  let at = coordStart[0];
  for (const verb of verbs) {
    const end = at + (verb === LINE ? 2 : 6);
    if (verb === LINE) out.push((Math.atan2(coords[end + 1] - coords[at + 1], coords[end] - coords[at]) + Math.PI) % Math.PI);
    at = end;
  }
  return out;
};

describe('parallel edges', () => {
  it('of a turned rectangle come out exactly parallel, its corners where the edges meet', () => {
    const [c, s] = [Math.cos(0.3), Math.sin(0.3)];
    const corners = [
      [-30, -14],
      [30, -14],
      [30, 14],
      [-30, 14],
    ].map(([x, y]): [number, number] => [45 + x * c - y * s, 40 + x * s + y * c]);
    const curves = outlineOf(polygon(90, 80, corners));
    const angles = anglesOf(curves);
    expect(angles).toHaveLength(4);
    expect(angles[0]).toBeCloseTo(angles[2], 9);
    expect(angles[1]).toBeCloseTo(angles[3], 9);
    for (const [x, y] of corners)
      expect(Math.min(...Array.from({ length: 5 }, (_, k) => Math.hypot(curves.coords[2 * k] - x, curves.coords[2 * k + 1] - y)))).toBeLessThan(0.15);
  });

  it('that are level or upright within the tolerance are exactly so, and others are left alone', () => {
    const level = withParallels(
      shape([
        [10, 10],
        [60, 10.1],
        [60.05, 40],
        [10, 40.05],
      ]),
      0.3,
    );
    for (const angle of anglesOf(level)) expect(Math.min(Math.abs(angle), Math.abs(angle - Math.PI / 2), Math.abs(angle - Math.PI))).toBeLessThan(1e-9);
    const skew = shape([
      [10, 10],
      [60, 14],
      [52, 40],
      [14, 33],
    ]);
    expect(withParallels(skew, 0.3)).toBe(skew);
  });

  it('move no end further than the tolerance, and take the handles of curves along', () => {
    const builder = new CurvesBuilder();
    builder.start(10, 10, -1);
    builder.line(60, 10.2);
    builder.cubic(64, 10.2, 70, 16, 70, 20);
    builder.line(70.1, 60);
    builder.line(10, 60);
    builder.line(10, 10);
    builder.close();
    const before = builder.build();
    const after = withParallels(before, 0.3);
    for (let k = 0; k < before.coords.length; k += 2)
      expect(Math.hypot(after.coords[k] - before.coords[k], after.coords[k + 1] - before.coords[k + 1])).toBeLessThan(0.3);
    expect(after.coords[4] - after.coords[2]).toBeCloseTo(before.coords[4] - before.coords[2], 9);
    expect(after.coords[5] - after.coords[3]).toBeCloseTo(before.coords[5] - before.coords[3], 9);
    expect(Math.hypot(after.coords[0] - after.coords[after.coords.length - 2], after.coords[1] - after.coords[after.coords.length - 1])).toBeLessThan(1e-12);
  });
});

describe('calming', () => {
  const round = (n: number, radius: number, jag: number) => {
    const x = Float64Array.from({ length: n + 1 }, (_, k) => (radius + (k % 2 === 0 ? jag : -jag)) * Math.cos((2 * Math.PI * (k % n)) / n));
    const y = Float64Array.from({ length: n + 1 }, (_, k) => (radius + (k % 2 === 0 ? jag : -jag)) * Math.sin((2 * Math.PI * (k % n)) / n));
    const along = new Float64Array(n + 1);
    for (let k = 1; k <= n; k++) along[k] = along[k - 1] + Math.hypot(x[k] - x[k - 1], y[k] - y[k - 1]);
    return { x, y, along };
  };

  it('takes the jags off a round and does not shrink it', () => {
    const { x, y, along } = round(126, 20, 0.4);
    const calm = calmed(x, y, along, true, 2);
    for (let k = 0; k < x.length; k++) expect(Math.abs(Math.hypot(calm.x[k], calm.y[k]) - 20)).toBeLessThan(0.06);
    expect(calm.x[0]).toBeCloseTo(calm.x[calm.x.length - 1], 9);
  });

  it('leaves the ends of an open edge and straight lines as they are', () => {
    const x = Float64Array.from({ length: 30 }, (_, k) => k);
    const y = Float64Array.from({ length: 30 }, (_, k) => 2 * k);
    const along = x.map((value) => value * Math.sqrt(5));
    const calm = calmed(x, y, along, false, 3);
    for (let k = 0; k < 30; k++) expect([calm.x[k], calm.y[k]]).toEqual([expect.closeTo(x[k], 6), expect.closeTo(y[k], 6)]);
    expect(calmed(x, y, along, false, 0)).toEqual({ x, y });
  });

  it('needs fewer nodes on a jagged edge and keeps its corners', () => {
    const jagged = sampled(90, 90, (x, y) => x > 15 && x < 75 && y > 15 && y < 60 + 0.9 * Math.sin(x * 2.1) + 0.3 * Math.sin(x * 5 + 1));
    const plain = outlineOf(jagged);
    const calm = outlineOf(jagged, { ...DEFAULT_OUTLINE, smoothPx: 3 });
    expect(nodeCount(calm)).toBeLessThan(nodeCount(plain) / 2);
    const corner = (curves: Curves): number =>
      Math.min(...Array.from({ length: curves.coords.length / 2 }, (_, k) => Math.hypot(curves.coords[2 * k] - 15, curves.coords[2 * k + 1] - 15)));
    expect(corner(calm)).toBeLessThan(0.2);
  });
});

describe('offsets', () => {
  it('lie at their width from every convex shape, and grow together', () => {
    const box = shape([
      [20, 20],
      [60, 20],
      [60, 40],
      [20, 40],
    ]);
    for (const width of [1, 4, 11]) {
      const { points } = flatten(offsetOutline(box, width), 0.01);
      for (let k = 0; k < points.length; k += 2) {
        const away = Math.hypot(Math.max(20 - points[k], 0, points[k] - 60), Math.max(20 - points[k + 1], 0, points[k + 1] - 40));
        expect(Math.abs(away - width)).toBeLessThan(0.02 * width + 0.05);
      }
    }
    const two = outlineOf(sampled(90, 50, (x, y) => Math.hypot(x - 25, y - 25) < 10 || Math.hypot(x - 60, y - 25) < 10));
    expect(ringCount(two)).toBe(2);
    expect(ringCount(offsetOutline(two, 9))).toBe(1);
    expect(ringCount(offsetOutline(two, 6))).toBe(2);
    expect(offsetOutline(two, 0)).toBe(two);
  });

  it('are smooth curves with few nodes', () => {
    const star = outlineOf(
      polygon(
        100,
        100,
        Array.from({ length: 10 }, (_, k): [number, number] => [
          50 + (k % 2 === 0 ? 38 : 17) * Math.sin((k * Math.PI) / 5),
          50 - (k % 2 === 0 ? 38 : 17) * Math.cos((k * Math.PI) / 5),
        ]),
      ),
    );
    const around = offsetOutline(star, 5);
    expect(nodeCount(around)).toBeLessThan(70);
  });
});
