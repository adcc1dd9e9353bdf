import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { rotation } from '../geometry/affine.ts';
import { CurvesBuilder, nodeCount, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { edgeSamples } from '../outline/edgeSamples.ts';
import { widthsAcross } from '../outline/widthsAcross.ts';
import { evenStrokes } from './evenStrokes.ts';
import { rightAngles } from './rightAngles.ts';
import { straysOf } from './strays.ts';
import { tidyCurves } from './tidyCurves.ts';

const library = await loadPolygons();
const polygon = (...points: readonly (readonly [number, number])[]): Curves => {
  const builder = new CurvesBuilder();
  builder.start(...points[0], -1);
  for (const point of [...points.slice(1), points[0]]) builder.line(...point);
  builder.close();
  return builder.build();
};
/** Corners of a ring of lines in degrees. */
function anglesOf({ coords }: Curves): number[] {
  const points = Array.from({ length: coords.length / 2 - 1 }, (_, k) => [coords[2 * k], coords[2 * k + 1]]);
  return points.map(([x, y], k) => {
    const [a, b] = [points[(k + points.length - 1) % points.length], points[(k + 1) % points.length]];
    const turn = Math.atan2((x - a[0]) * (b[1] - y) - (y - a[1]) * (b[0] - x), (x - a[0]) * (b[0] - x) + (y - a[1]) * (b[1] - y));
    return (Math.abs(turn) * 180) / Math.PI;
  });
}

describe('corners that are nearly square', () => {
  it('become so, whatever way the shape is turned', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 3, noNaN: true }), fc.array(fc.double({ min: -0.9, max: 0.9, noNaN: true }), { minLength: 8, maxLength: 8 }), (rad, off) => {
        const crooked = polygon([0 + off[0], 0 + off[1]], [60 + off[2], 0 + off[3]], [60 + off[4], 40 + off[5]], [0 + off[6], 40 + off[7]]);
        const square = rightAngles(transformCurves(crooked, rotation(rad, 0, 0)));
        for (const angle of anglesOf(square)) expect(angle).toBeCloseTo(90, 6);
        expect(Math.abs(areaOf(square) - areaOf(crooked)) / 2400).toBeLessThan(0.05);
      }),
      { seed: 3, numRuns: 40 },
    );
  });

  it('stay as they are in a triangle, a star and a round', () => {
    for (const curves of [polygon([0, 0], [50, 0], [20, 40]), figureCurves({ form: 'star', widthMm: 60, heightMm: 60, corners: 5, depth: 0.5 }), figureCurves({ form: 'round', widthMm: 30, heightMm: 20 })]) expect(rightAngles(curves)).toEqual(curves);
  });

  it('stand upright when they nearly do, and keep a round end on its side', () => {
    const [board] = [rightAngles(transformCurves(polygon([0, 0], [50, 0.4], [50, 30], [0, 30]), rotation(0.01, 0, 0)))];
    for (let k = 0; k + 2 < board.coords.length; k += 2) expect(Math.min(Math.abs(board.coords[k + 2] - board.coords[k]), Math.abs(board.coords[k + 3] - board.coords[k + 1]))).toBeLessThan(1e-9);
    const bar = figureCurves({ form: 'rectangle', widthMm: 60, heightMm: 20, cornerMm: 5 });
    expect(areaOf(rightAngles(bar))).toBeCloseTo(areaOf(bar), 6);
  });
});

/** A band along a wavy way, as broad as a function says. */
function band(widthAt: (share: number) => number): Curves {
  const places = Array.from({ length: 121 }, (_, k) => k / 120);
  const way = (t: number): [number, number] => [120 * t, 10 * Math.sin(4 * t)];
  const side = (sign: 1 | -1) => (t: number): [number, number] => {
    const [x, y] = way(t);
    const [dx, dy] = [120, 40 * Math.cos(4 * t)];
    const length = Math.hypot(dx, dy);
    return [x - (sign * dy * widthAt(t)) / 2 / length, y + (sign * dx * widthAt(t)) / 2 / length];
  };
  return polygon(...places.map(side(-1)), ...[...places].reverse().map(side(1)));
}
function widthsOf(curves: Curves): number[] {
  const samples = edgeSamples(flatten(curves, 0.02), 0.3);
  return [...widthsAcross(samples, 4).width].filter(Number.isFinite).sort((a, b) => a - b);
}

describe('strokes', () => {
  const uneven = band((t) => 2 + 0.45 * Math.sin(22 * t));

  it('become as broad everywhere as they usually are', () => {
    const before = widthsOf(uneven);
    expect(before[before.length - 20] - before[20]).toBeGreaterThan(0.75);
    const even = widthsOf(evenStrokes(uneven, 4));
    // All but the ends, where nothing lies across.
    const [low, high] = [even[Math.floor(0.03 * even.length)], even[Math.floor(0.97 * even.length)]];
    expect(high - low).toBeLessThan(0.16);
    expect(Math.abs((low + high) / 2 - before[before.length >> 1])).toBeLessThan(0.12);
  });

  it('that are even stay, and so does what is broader', () => {
    const even = band(() => 2);
    expect(Math.abs(areaOf(combineCurves(library, 'cutOut', even, evenStrokes(even, 4))))).toBeLessThan(0.02 * areaOf(even));
    const board = figureCurves({ form: 'rectangle', widthMm: 60, heightMm: 40 });
    expect(evenStrokes(board, 4)).toEqual(board);
  });

  it('are tidied with few nodes again', () => {
    const tidied = tidyCurves(library, uneven, { withinMm: 0.05, leastMm2: 0, gapMm: 0, straight: true, strokesMm: 4 });
    expect(nodeCount(tidied)).toBeLessThan(60);
    const widths = widthsOf(tidied);
    expect(widths[Math.floor(0.95 * widths.length)] - widths[Math.floor(0.05 * widths.length)]).toBeLessThan(0.25);
  });
});

describe('strays', () => {
  const at = (diameter: number, x: number, y: number): Curves => transformCurves(figureCurves({ form: 'round', widthMm: diameter, heightMm: diameter }), { a: 1, b: 0, c: 0, d: 1, e: x, f: y });
  it('are small pieces by themselves: none of a row of dots, nothing close to the drawing', () => {
    const layers = [{ filmId: 'navy', curves: joinCurves([at(40, 0, 0), at(1, 60, 10), at(1, 41, 20), at(1, 70, 60), at(1, 71.5, 60)]) }, { filmId: 'red', curves: at(1, -20, 10) }];
    expect(straysOf(layers)).toEqual([{ film: 'navy', piece: 1 }, { film: 'red', piece: 0 }]);
    expect(straysOf([{ filmId: 'navy', curves: at(1, 0, 0) }])).toEqual([]);
  });
});
