import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { followedBy, rotation, translation } from '../geometry/affine.ts';
import { nodeCount, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { aloneSegments } from './aloneSegments.ts';
import { chordMap } from './chordMap.ts';
import { combineCurves, joinOverlaps } from './combineCurves.ts';
import { inStrips } from './inStrips.ts';
import type { MarkedRings } from './polygonLibrary.ts';

const library = await loadPolygons();
const star = figureCurves({ form: 'star', widthMm: 14, heightMm: 14, corners: 9, depth: 0.4, cornerMm: 0.7 });
const field = (columns: number, rows: number, rad: number): Curves =>
  joinCurves(Array.from({ length: columns * rows }, (_, k) => transformCurves(star, followedBy(rotation(rad * k, 7, 7), translation((k % columns) * 15.3, Math.floor(k / columns) * 15.1)))));
const areaOfRings = ({ points, starts }: MarkedRings): number => {
  let sum = 0;
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    for (let k = starts[ring], j = starts[ring + 1] - 1; k < starts[ring + 1]; j = k++) sum += points[2 * j] * points[2 * k + 1] - points[2 * k] * points[2 * j + 1];
  }
  return sum / 2;
};

describe('combining in strips', () => {
  const a = field(30, 14, 0.1);
  const b = transformCurves(a, followedBy(rotation(0.11, 0, 0), translation(5, 3)));

  it('gives the areas that one go gives, and sews every strip', () => {
    const map = chordMap([a, b], 0.004);
    expect(map.x.length).toBeGreaterThan(40_000);
    for (const kind of ['join', 'cutOut', 'common'] as const) {
      let runs = 0;
      const whole = library.combine(kind, map.rings[0], map.rings[1]);
      const strips = inStrips(map.rings, ([subject, clip]) => {
        runs++;
        return library.combine(kind, subject, clip);
      });
      // Another run over everything would be what is done where strips could not be sewn.
      expect(runs).toBe(Math.floor(map.x.length / 12_000));
      expect(Math.abs(areaOfRings(strips) - areaOfRings(whole)) / areaOfRings(whole)).toBeLessThan(1e-6);
    }
  });

  it('keeps every node of what nothing crosses', () => {
    const kept = joinOverlaps(library, a);
    expect(nodeCount(kept)).toBe(nodeCount(a));
    const places = ({ coords }: Curves): Set<string> => new Set(Array.from({ length: coords.length / 2 }, (_, k) => `${coords[2 * k]} ${coords[2 * k + 1]}`));
    const before = places(a);
    expect([...places(kept)].filter((place) => !before.has(place))).toEqual([]);
  });

  it('adds up: what either has is what both have, less what they have in common', () => {
    const [join, common, left] = (['join', 'common', 'cutOut'] as const).map((kind) => areaOf(combineCurves(library, kind, a, b)));
    expect(Math.abs(join + common - areaOf(a) - areaOf(b))).toBeLessThan(0.5);
    expect(Math.abs(left + common - areaOf(a))).toBeLessThan(0.5);
  });
});

describe('segments that are alone', () => {
  const segmentsOf = (...all: Curves[]): { alone: Uint8Array; chords: (tolerance: number) => number } => {
    const map = chordMap(all, 0.004);
    const before = new Int32Array(map.at.length).map((_, k) => k);
    return { alone: aloneSegments(map, before, 0.1), chords: (tolerance) => chordMap(all, tolerance).x.length };
  };
  it('are none where another outline passes, and get fewer chords where none does', () => {
    const round = figureCurves({ form: 'round', widthMm: 40, heightMm: 40 });
    const at = (x: number): Curves => transformCurves(round, translation(x, 0));
    expect([...segmentsOf(round, at(39.95)).alone].some((each) => each === 0)).toBe(true);
    expect(segmentsOf(round, at(45)).chords(0.004)).toBeLessThan(0.6 * segmentsOf(round, at(0.05)).chords(0.004));
  });

  it('lose nothing of what is common of two rounds, however they lie', () => {
    const disc = (r: number, x: number): Curves => transformCurves(figureCurves({ form: 'round', widthMm: 2 * r, heightMm: 2 * r }), translation(x - r, -r));
    fc.assert(
      fc.property(fc.double({ min: 3, max: 30, noNaN: true }), fc.double({ min: 3, max: 30, noNaN: true }), fc.double({ min: 0.01, max: 0.99, noNaN: true }), (r, s, share) => {
        const d = Math.abs(r - s) + share * (r + s - Math.abs(r - s));
        const lens = r * r * Math.acos(Math.max(-1, Math.min(1, (d * d + r * r - s * s) / (2 * d * r)))) + s * s * Math.acos(Math.max(-1, Math.min(1, (d * d + s * s - r * r) / (2 * d * s)))) - 0.5 * Math.sqrt(Math.max(0, (-d + r + s) * (d + r - s) * (d - r + s) * (d + r + s)));
        expect(Math.abs(areaOf(combineCurves(library, 'common', disc(r, 0), disc(s, d))) - lens)).toBeLessThan(0.02 + 2e-4 * lens);
      }),
      { seed: 8, numRuns: 60 },
    );
  });
});
