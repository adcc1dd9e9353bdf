import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { rotation, translation, followedBy } from '../geometry/affine.ts';
import { nodeCount, ringCount, type Curves } from '../outline/curves.ts';
import { nestRings } from '../outline/nestRings.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { combineCurves, joinOverlaps } from './combineCurves.ts';

const library = await loadPolygons();
const moved = (curves: Curves, x: number, y: number, turn = 0): Curves => transformCurves(curves, followedBy(rotation(turn, 0, 0), translation(x, y)));
const round = (d: number): Curves => figureCurves({ form: 'round', widthMm: d, heightMm: d });
const box = (w: number, h: number, cornerMm = 0): Curves => figureCurves({ form: 'rectangle', widthMm: w, heightMm: h, cornerMm });
const path = (d: string): Curves => nestRings(curvesFromPathData(d));
/** The nodes of a curve that has none but those of another, as text. */
const nodesOf = ({ coords, verbs, verbStart, coordStart, parent }: Curves): Set<string> => {
  const nodes = new Set<string>();
  for (let ring = 0; ring < parent.length; ring++) {
    let at = coordStart[ring];
    nodes.add(`${coords[at].toFixed(9)},${coords[at + 1].toFixed(9)}`);
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      at += verbs[v] === 1 ? 2 : 6;
      nodes.add(`${coords[at].toFixed(9)},${coords[at + 1].toFixed(9)}`);
    }
  }
  return nodes;
};

const shape = fc.oneof(
  fc.tuple(fc.constant('round'), fc.double({ min: 4, max: 40, noNaN: true }), fc.double({ min: 4, max: 40, noNaN: true })),
  fc.tuple(fc.constant('box'), fc.double({ min: 4, max: 40, noNaN: true }), fc.double({ min: 4, max: 40, noNaN: true })),
);
const placedShape = fc
  .tuple(shape, fc.double({ min: -25, max: 25, noNaN: true }), fc.double({ min: -25, max: 25, noNaN: true }), fc.double({ min: 0, max: 6.28, noNaN: true }))
  .map(([[kind, w, h], x, y, turn]) => moved(kind === 'round' ? figureCurves({ form: 'round', widthMm: w, heightMm: h }) : box(w, h, w / 8), x, y, turn));

describe('combined outlines', () => {
  it('have the areas that they should: join is both less what is common, cutting out leaves the rest', () => {
    fc.assert(
      fc.property(placedShape, placedShape, (a, b) => {
        const [join, common, rest] = (['join', 'common', 'cutOut'] as const).map((kind) => combineCurves(library, kind, a, b));
        const tolerance = 2e-3 * (Math.sqrt(areaOf(a)) + Math.sqrt(areaOf(b)));
        expect(Math.abs(areaOf(join) - areaOf(a) - areaOf(b) + areaOf(common))).toBeLessThan(tolerance);
        expect(Math.abs(areaOf(rest) - areaOf(a) + areaOf(common))).toBeLessThan(tolerance);
        // Nothing lies over itself: joined with itself it is the same.
        for (const made of [join, common, rest]) expect(Math.abs(areaOf(joinOverlaps(library, made)) - areaOf(made))).toBeLessThan(tolerance);
      }),
      { seed: 13, numRuns: 120 },
    );
  });

  it('keep the nodes of what was not cut, and add two for two crossings', () => {
    const [a, b] = [round(30), moved(box(20, 6), 20, 12)];
    const join = combineCurves(library, 'join', a, b);
    const kept = [...nodesOf(join)].filter((node) => nodesOf(a).has(node) || nodesOf(b).has(node));
    expect(nodesOf(join).size - kept.length).toBe(2);
    // The far half of the round, with its handles.
    const far = [...a.coords].filter((_, k) => k > 20 && k < 40);
    expect([...join.coords].join(' ')).toContain(far.slice(0, 6).join(' '));
  });

  it('are curves of the old ones: no more nodes than corners and crossings', () => {
    const a = round(50);
    const b = moved(round(50), 20, 0);
    const common = combineCurves(library, 'common', a, b);
    expect(ringCount(common)).toBe(1);
    expect(nodeCount(common)).toBeLessThanOrEqual(10);
    // The lens of two circles of radius r whose centres are d apart.
    const [r, d] = [25, 20];
    const lens = 2 * r * r * Math.acos(d / (2 * r)) - (d / 2) * Math.sqrt(4 * r * r - d * d);
    expect(Math.abs(areaOf(common) - lens) / lens).toBeLessThan(1e-5);
  });

  it('leave everything as it is where nothing meets', () => {
    const a = path('M0 0L20 0C30 0 30 20 20 20L0 20ZM4 4L4 8L8 8L8 4Z');
    const far = moved(a, 100, 3);
    expect([...combineCurves(library, 'cutOut', a, far).coords].length).toBe(a.coords.length);
    expect(nodesOf(combineCurves(library, 'join', a, far))).toEqual(new Set([...nodesOf(a), ...nodesOf(far)]));
    expect(ringCount(combineCurves(library, 'common', a, far))).toBe(0);
  });

  it('are right where edges lie on each other: side by side, one in the other, the same', () => {
    const a = box(20, 10);
    expect(areaOf(combineCurves(library, 'join', a, moved(a, 20, 0)))).toBeCloseTo(400, 6);
    expect(ringCount(combineCurves(library, 'join', a, moved(a, 20, 0)))).toBe(1);
    expect(areaOf(combineCurves(library, 'cutOut', a, box(5, 10)))).toBeCloseTo(150, 6);
    expect(combineCurves(library, 'cutOut', a, a).parent.length).toBe(0);
    const same = combineCurves(library, 'join', round(30), round(30));
    expect(nodesOf(same)).toEqual(nodesOf(round(30)));
    expect(areaOf(combineCurves(library, 'common', round(30), round(30)))).toBeCloseTo(areaOf(round(30)), 9);
  });

  it('knock a word’s counters through: holes stay holes', () => {
    const ring = path('M0 0L30 0L30 30L0 30ZM10 10L10 20L20 20L20 10Z');
    const bar = moved(box(50, 40), -10, -5);
    const out = combineCurves(library, 'cutOut', bar, ring);
    expect(areaOf(out)).toBeCloseTo(2000 - 900 + 100, 6);
    expect(ringCount(out)).toBe(3);
  });

  it('are bounded', () => {
    const many = { kind: 'curves', verbs: new Uint8Array(500_000).fill(1), coords: new Float64Array(1_000_002), verbStart: Int32Array.of(0, 500_000), coordStart: Int32Array.of(0, 1_000_002), parent: Int32Array.of(-1) } as const;
    expect(() => combineCurves(library, 'join', many, many)).toThrow();
  });
});
