import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loadFont } from '../../../cli/loadFont.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { letterCurves } from '../lettering/letterCurves.ts';
import { boundsOf, nodeCount, ringCount, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { nestRings } from '../outline/nestRings.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { offsetCurves, strokeCurves } from './offsetCurves.ts';

const library = await loadPolygons();
const text = (letters: string, font: string, heightMm: number): Promise<Curves> => loadFont(font).then((face) => letterCurves(library, face, { text: letters, font, heightMm }).curves);

/** How far the points of outlines lie from others, least and most. */
function distances(of: Curves, from: Curves): [number, number] {
  const [a, b] = [flatten(of, 0.002), flatten(from, 0.001)];
  let [least, most] = [Infinity, 0];
  for (let i = 0; i < a.points.length; i += 2) {
    let near = Infinity;
    for (let ring = 0; ring + 1 < b.starts.length; ring++) {
      for (let j = b.starts[ring]; j < b.starts[ring + 1]; j++) {
        const next = j + 1 < b.starts[ring + 1] ? j + 1 : b.starts[ring];
        const [px, py, dx, dy] = [b.points[2 * j], b.points[2 * j + 1], b.points[2 * next] - b.points[2 * j], b.points[2 * next + 1] - b.points[2 * j + 1]];
        const length2 = dx * dx + dy * dy;
        const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((a.points[i] - px) * dx + (a.points[i + 1] - py) * dy) / length2));
        near = Math.min(near, (a.points[i] - px - t * dx) ** 2 + (a.points[i + 1] - py - t * dy) ** 2);
      }
    }
    least = Math.min(least, Math.sqrt(near));
    most = Math.max(most, Math.sqrt(near));
  }
  return [least, most];
}

describe('moved outlines', () => {
  it('of rounds are rounds, of rectangles rectangles with round corners or sharp ones', () => {
    fc.assert(
      fc.property(fc.double({ min: 4, max: 300, noNaN: true }), fc.double({ min: 0.1, max: 1.8, noNaN: true }), (d, by) => {
        const round = figureCurves({ form: 'round', widthMm: d, heightMm: d });
        for (const way of [by, -by]) {
          const made = offsetCurves(library, round, way);
          expect(nodeCount(made)).toBeLessThanOrEqual(8);
          expect(Math.abs(Math.sqrt(areaOf(made) / Math.PI) - d / 2 - way)).toBeLessThan(0.003);
        }
      }),
      { seed: 41, numRuns: 25 },
    );
    const bar = figureCurves({ form: 'rectangle', widthMm: 60, heightMm: 10 });
    expect(areaOf(offsetCurves(library, bar, 2))).toBeCloseTo(600 + 280 + 4 * Math.PI, 2);
    const inner = offsetCurves(library, bar, -2);
    expect([areaOf(inner), nodeCount(inner)]).toEqual([expect.closeTo(56 * 6, 6), 4]);
    expect(ringCount(offsetCurves(library, bar, -5.1))).toBe(0);
  });

  it('lie everywhere at their distance, letters and concave outlines too', async () => {
    const shapes = [nestRings(curvesFromPathData('M0 0L30 0L30 20L16 20L15 6L14 20L0 20ZM4 4L4 8L8 8L8 4Z')), await text('B', 'Lora', 20), await text('g', 'Lora', 20), await text('&', 'Lora', 20), await text('8', 'Pacifico', 25)];
    for (const shape of shapes) {
      for (const by of [0.4, 1.3, -0.3]) {
        const [least, most] = distances(offsetCurves(library, shape, by), shape);
        expect(least).toBeGreaterThan(Math.abs(by) - 0.008);
        expect(most).toBeLessThan(Math.abs(by) + 0.008);
      }
    }
  });

  it('grow together where they meet, and part where they are thin', () => {
    const two = nestRings(curvesFromPathData('M0 0L10 0L10 10L0 10ZM12 0L22 0L22 10L12 10Z'));
    expect([ringCount(offsetCurves(library, two, 0.9)), ringCount(offsetCurves(library, two, 1.1))]).toEqual([2, 1]);
    const waist = nestRings(curvesFromPathData('M0 0L20 0L20 4L30 4L30 0L50 0L50 10L30 10L30 6L20 6L20 10L0 10Z'));
    expect([ringCount(offsetCurves(library, waist, -0.9)), ringCount(offsetCurves(library, waist, -1.1))]).toEqual([1, 2]);
  });

  it('come back when they are moved out and in again', async () => {
    const shape = await text('R', 'Archivo Black', 30);
    const back = offsetCurves(library, offsetCurves(library, shape, 0.8), -0.8);
    // What is left over are inner corners, which a disc does not reach into.
    expect(Math.abs(areaOf(back) - areaOf(shape)) / areaOf(shape)).toBeLessThan(0.01);
    const [, most] = distances(shape, back);
    expect(most).toBeLessThan(0.6);
    expect(boundsOf(back)?.right).toBeCloseTo(boundsOf(shape)?.right ?? 0, 1);
  });
});

describe('lines of a width', () => {
  const line = (d: string): Curves => curvesFromPathData(d);
  it('have the area of their length, their corners and their ends', () => {
    const corner = line('M0 0L40 0L40 30');
    const area = (corners: 'round' | 'sharp' | 'flat', ends: 'round' | 'flat' | 'square'): number => areaOf(strokeCurves(library, corner, 2, corners, ends));
    expect(area('sharp', 'flat')).toBeCloseTo(70 * 4, 3);
    expect(area('flat', 'flat')).toBeCloseTo(70 * 4 - 2, 3);
    expect(area('round', 'flat')).toBeCloseTo(70 * 4 - 4 + Math.PI, 2);
    expect(area('sharp', 'square')).toBeCloseTo(70 * 4 + 16, 3);
    expect(area('sharp', 'round')).toBeCloseTo(70 * 4 + 4 * Math.PI, 2);
  });

  it('that are closed are rings, or full where they are broader than what they go around', () => {
    const round = figureCurves({ form: 'round', widthMm: 20, heightMm: 20 });
    expect(areaOf(strokeCurves(library, round, 3))).toBeCloseTo(Math.PI * (13 ** 2 - 7 ** 2), 0);
    const full = strokeCurves(library, round, 12);
    expect([ringCount(full), areaOf(full)]).toEqual([1, expect.closeTo(Math.PI * 22 ** 2, 0)]);
  });

  it('that curve and cross themselves lie everywhere within their half', () => {
    const loop = line('M0 0C60 40 -40 40 20 0C24 -4 26 -4 30 6');
    const made = strokeCurves(library, loop, 1.5);
    // Of what crosses itself the edge is nowhere further away, and nowhere nearer but where rounding is.
    const open = flatten(curvesFromPathData('M0 0C60 40 -40 40 20 0C24 -4 26 -4 30 6L30 6.0001'), 0.001);
    let [least, most] = [Infinity, 0];
    const edge = flatten(made, 0.002);
    for (let i = 0; i < edge.points.length; i += 2) {
      let near = Infinity;
      for (let j = 0; j + 3 < open.points.length; j += 2) {
        const [dx, dy] = [open.points[j + 2] - open.points[j], open.points[j + 3] - open.points[j + 1]];
        const t = Math.max(0, Math.min(1, ((edge.points[i] - open.points[j]) * dx + (edge.points[i + 1] - open.points[j + 1]) * dy) / (dx * dx + dy * dy)));
        near = Math.min(near, Math.hypot(edge.points[i] - open.points[j] - t * dx, edge.points[i + 1] - open.points[j + 1] - t * dy));
      }
      least = Math.min(least, near);
      most = Math.max(most, near);
    }
    expect([least, most]).toEqual([expect.closeTo(1.5, 1), expect.closeTo(1.5, 2)]);
  });

  it('go where they are narrower than twice a way inwards, rounds as well as bars', () => {
    for (const [w, h] of [[10, 10], [30, 6], [8, 40]]) {
      const round = figureCurves({ form: 'round', widthMm: w, heightMm: h });
      for (const by of [0.51, 0.6, 1, 3]) expect(ringCount(offsetCurves(library, round, -by * Math.min(w, h)))).toBe(0);
    }
  });

  it('around a corner reach to its point, or are cut across', () => {
    const bar = figureCurves({ form: 'rectangle', widthMm: 60, heightMm: 10 });
    expect([areaOf(offsetCurves(library, bar, 2, 'sharp')), nodeCount(offsetCurves(library, bar, 2, 'sharp'))]).toEqual([expect.closeTo(64 * 14, 6), 4]);
    expect([areaOf(offsetCurves(library, bar, 2, 'flat')), nodeCount(offsetCurves(library, bar, 2, 'flat'))]).toEqual([expect.closeTo(64 * 14 - 8, 6), 8]);
  });
});
