import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sampled } from '../../../tests/fixtures/shapes.ts';
import { makeDesign } from '../assemble/design.ts';
import { rotation } from '../geometry/affine.ts';
import { CurvesBuilder, type Curves } from '../outline/curves.ts';
import { nestRings } from '../outline/nestRings.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { outlineOf } from '../outline/traceOutline.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { cutCheck } from './cutCheck.ts';
import { jaggedPlaces } from '../outline/jaggedPlaces.ts';
import { thinPlaces } from '../outline/thinPlaces.ts';

/** Closed polygons in mm, clockwise on screen for outer ones; a ring with a parent is a hole. */
function polygons(...rings: { points: readonly (readonly [number, number])[]; parent?: number }[]): Curves {
  const builder = new CurvesBuilder();
  for (const { points, parent } of rings) {
    builder.start(points[0][0], points[0][1], parent ?? -1);
    for (const [x, y] of [...points.slice(1), points[0]]) builder.line(x, y);
    builder.close();
  }
  return builder.build();
}
const bar = (x: number, y: number, width: number, height: number): [number, number][] => [
  [x, y],
  [x + width, y],
  [x + width, y + height],
  [x, y + height],
];

describe('thin places', () => {
  it('are found at their width and middle, at any turn, and not where the film is wide enough', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 1.4, noNaN: true }), fc.double({ min: 0, max: 6.28, noNaN: true }), (width, turn) => {
        // A dumbbell: two squares and a neck between them, whose middle stays put when it is turned.
        const neck: [number, number][] = [
          [30, 30],
          [40, 30],
          [40, 35 - width / 2],
          [50, 35 - width / 2],
          [50, 30],
          [60, 30],
          [60, 40],
          [50, 40],
          [50, 35 + width / 2],
          [40, 35 + width / 2],
          [40, 40],
          [30, 40],
        ];
        const places = thinPlaces(transformCurves(polygons({ points: neck }), rotation(turn, 45, 35)), 0.8);
        if (Math.abs(width - 0.8) < 0.03) return;
        expect(places).toHaveLength(width < 0.8 ? 1 : 0);
        for (const { xMm, yMm, widthMm } of places) {
          expect(Math.abs(widthMm - width)).toBeLessThan(0.02);
          expect(Math.hypot(xMm - 45, yMm - 35)).toBeLessThan(5.5);
        }
      }),
      { seed: 41, numRuns: 60 },
    );
  });

  it('count a long thin line once, a frame too, and leave plain corners alone', () => {
    expect(thinPlaces(polygons({ points: bar(5, 5, 80, 0.5) }), 0.8)).toHaveLength(1);
    // What is shown as the least width is not below it.
    expect([0.797, 0.79].map((width) => thinPlaces(polygons({ points: bar(5, 5, 80, width) }), 0.8).length)).toEqual([0, 1]);
    const frame = polygons(
      { points: bar(5, 5, 40, 30) },
      {
        points: [
          [5.5, 5.5],
          [5.5, 34.5],
          [44.5, 34.5],
          [44.5, 5.5],
        ],
        parent: 0,
      },
    );
    expect(thinPlaces(frame, 0.8)).toHaveLength(1);
    expect(
      thinPlaces(
        polygons({
          points: [
            [5, 5],
            [25, 5],
            [5, 25],
          ],
        }),
        0.8,
      ),
    ).toEqual([]);
  });

  it('are not the pointed ends of what is drawn, nor its short nubs', () => {
    expect(
      thinPlaces(
        polygons({
          points: [
            [5, 5],
            [35, 5],
            [5, 16],
          ],
        }),
        0.8,
      ),
    ).toEqual([]);
    expect(
      thinPlaces(
        polygons({
          points: [
            [5, 5],
            [20, 5],
            [20, 11],
            [21.2, 11],
            [21.2, 11.6],
            [20, 11.6],
            [20, 20],
            [5, 20],
          ],
        }),
        0.8,
      ),
    ).toEqual([]);
  });

  it('lie between the openings where the art is cut out', () => {
    const openings = polygons({ points: bar(5, 5, 10, 10) }, { points: bar(15.5, 5, 10, 10) });
    expect(thinPlaces(openings, 1, 'inside')).toEqual([]);
    const [web, ...rest] = thinPlaces(openings, 1, 'outside');
    expect(rest).toEqual([]);
    expect([web.xMm, web.widthMm]).toEqual([expect.closeTo(15.25, 2), expect.closeTo(0.5, 2)]);
  });
});

describe('jagged places', () => {
  const teeth = (count: number, depth: number, pitch: number): [number, number][] =>
    Array.from({ length: count * 2 + 1 }, (_, k) => [5 + k * pitch, k % 2 === 0 ? 10 : 10 - depth] as [number, number]);
  const saw = (count: number, depth: number, pitch: number): Curves =>
    polygons({ points: [[5, 30] as [number, number], ...teeth(count, depth, pitch), [5 + count * 2 * pitch, 30] as [number, number]] });

  it('are runs of small teeth, told by their depth, and once for a run', () => {
    const [place, ...rest] = jaggedPlaces(saw(12, 0.3, 0.4), 0.8);
    expect(rest).toEqual([]);
    expect(place.depthMm).toBeCloseTo(0.3, 2);
    expect(place.yMm).toBeGreaterThan(9);
  });

  it('are not the teeth of a drawing, a single step or a round edge', () => {
    expect(jaggedPlaces(saw(12, 3, 2), 0.8)).toEqual([]);
    expect(
      jaggedPlaces(
        polygons({
          points: [
            [0, 0],
            [10, 0],
            [10, 0.4],
            [20, 0.4],
            [20, 20],
            [0, 20],
          ],
        }),
        0.8,
      ),
    ).toEqual([]);
    expect(jaggedPlaces(outlineOf(sampled(60, 60, (x, y) => Math.hypot(x - 30, y - 30) < 20)), 0.8)).toEqual([]);
  });
});

describe('the cut check', () => {
  it('lists each kind smallest first, with strips and edges after the pieces', () => {
    // A hair of a stroke beside a block.
    const share = sampled(
      120,
      80,
      (x, y) => (x > 10 && x < 60 && y > 10 && y < 70) || (x > 80 && x < 83 && y > 10 && y < 70) || Math.hypot(x - 100, y - 40) < 2,
    );
    const design = makeDesign([{ filmId: 'film', curves: outlineOf(share) }], { by: 'width', sizeMm: 18.4, turnDeg: 0 });
    const kinds = cutCheck(design, { leastPieceMm2: 1.5, leastStripMm: 0.8, artIsOpening: false }).map(({ kind }) => kind);
    expect(kinds).toEqual(['smallPiece', 'thin']);
  });

  it('tells where an outline was cut open, and by how much', () => {
    const open = nestRings(curvesFromPathData('M10 10L40 10L40 40L10 40L10 12M60 10L90 10L90 40L60 40Z'));
    const design = makeDesign([{ filmId: 'a', curves: open }], { by: 'width', sizeMm: 80, turnDeg: 0 });
    const findings = cutCheck(design, { leastPieceMm2: 4, leastStripMm: 0, artIsOpening: false }).filter(({ kind }) => kind === 'openOutline');
    expect(findings).toEqual([
      { kind: 'openOutline', filmId: 'a', xMm: expect.closeTo(0, 9) as number, yMm: expect.closeTo(1, 9) as number, size: expect.closeTo(2, 9) as number },
    ]);
  });
});

describe('gaps and tips', () => {
  const layer = (...rings: { points: readonly (readonly [number, number])[]; parent?: number }[]) => ({ layers: [{ filmId: 'f', curves: polygons(...rings) }] });
  const limits = { leastPieceMm2: 1, leastStripMm: 0.8, leastGapMm: 0.5, leastTipDeg: 12, artIsOpening: false };

  it('are found between pieces at their width, and not where they are wide enough', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 1, noNaN: true }), fc.double({ min: 0, max: 6.28, noNaN: true }), (gap, turn) => {
        if (Math.abs(gap - 0.5) < 0.02) return;
        const { layers } = layer({ points: bar(0, 0, 20, 10) }, { points: bar(20 + gap, 0, 20, 10) });
        const turned = { layers: layers.map((each) => ({ ...each, curves: transformCurves(each.curves, rotation(turn, 10, 10)) })) };
        const found = cutCheck(turned, limits).filter(({ kind }) => kind === 'narrowGap');
        expect(found).toHaveLength(gap < 0.5 ? 1 : 0);
        for (const { size } of found) expect(Math.abs(size - gap)).toBeLessThan(0.02);
      }),
      { seed: 9, numRuns: 40 },
    );
  });

  it('of a stencil are its openings; its strips are what stands between them', () => {
    const design = layer({ points: bar(0, 0, 20, 0.3) }, { points: bar(0, 5, 20, 5) }, { points: bar(0, 10.6, 20, 5) });
    const found = cutCheck(design, { ...limits, artIsOpening: true }).filter(({ kind }) => kind === 'thin' || kind === 'narrowGap');
    expect(found.map(({ kind, size }) => [kind, Math.round(size * 100) / 100])).toEqual([['thin', 0.6], ['narrowGap', 0.3]]);
  });

  it('are sharp by the angle of the film, not of the waste', () => {
    const wedge = layer({ points: [[0, 0], [40, 3], [0, 6]] });
    expect(cutCheck(wedge, limits).filter(({ kind }) => kind === 'sharp').map(({ size, xMm }) => [Math.round(size * 10) / 10, xMm])).toEqual([[8.6, 40]]);
    const notch = layer({ points: [[0, 0], [50, 0], [50, 10], [10, 11.5], [50, 13], [50, 20], [0, 20]] });
    expect(cutCheck(notch, limits).filter(({ kind }) => kind === 'sharp')).toEqual([]);
  });
});
