import { coordsOfVerb, CUBIC, cubicAt, isOpenRing, type Curves } from '../outline/curves.ts';
import { chordCount } from '../outline/flatten.ts';
import { aloneSegments } from './aloneSegments.ts';
import type { MarkedRings } from './polygonLibrary.ts';

/** Segments of several curves, numbered through: segment s begins at coords[at[s]] and is a cubic or a line. */
export interface Segments {
  readonly coords: Float64Array;
  readonly at: Int32Array;
  readonly isCubic: Uint8Array;
}

/** Chords of the segments: chord c goes from point c to point next[c], between two places of its segment. */
export interface ChordMap extends Segments {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly next: Int32Array;
  readonly segment: Int32Array;
  /** Number of the chord in its segment, and how many that has. */
  readonly step: Int32Array;
  readonly steps: Int32Array;
  /** The rings of each of the curves, points marked by their number and one. */
  readonly rings: readonly MarkedRings[];
}

/** How far chords of segments that are alone may lie from them, mm: they cross nothing. */
const ALONE_MM = 0.03;

/** Chords no further than `toleranceMm` from their curves; coarser ones where nothing else is near. Rings that were cut open are left out: they hold nothing. */
export function chordMap(all: readonly Curves[], toleranceMm: number): ChordMap {
  const { coords, at: segmentAt, isCubic: cubic, before } = segmentsOf(all);
  const alone = aloneSegments({ coords, at: segmentAt, isCubic: cubic }, before, 2 * ALONE_MM + 2 * toleranceMm);
  const toleranceOf = (segment: number): number => (alone[segment] === 1 ? Math.max(ALONE_MM, toleranceMm) : toleranceMm);
  const found = { at: [] as number[], isCubic: [] as number[], x: [] as number[], y: [] as number[], next: [] as number[], segment: [] as number[], step: [] as number[], steps: [] as number[] };
  const rings: MarkedRings[] = [];
  let base = 0;
  for (const curves of all) {
    const from = found.x.length;
    const starts: number[] = [0];
    for (let ring = 0; ring < curves.parent.length; ring++) {
      if (isOpenRing(curves, ring)) continue;
      addRing(curves, ring, base, toleranceOf, found);
      starts.push(found.x.length - from);
    }
    rings.push(markedRings(found, from, starts));
    base += curves.coords.length;
  }
  return {
    coords,
    at: Int32Array.from(found.at),
    isCubic: Uint8Array.from(found.isCubic),
    x: Float64Array.from(found.x),
    y: Float64Array.from(found.y),
    next: Int32Array.from(found.next),
    segment: Int32Array.from(found.segment),
    step: Int32Array.from(found.step),
    steps: Int32Array.from(found.steps),
    rings,
  };
}

/** All segments numbered through, and the one that ends where each begins. */
function segmentsOf(all: readonly Curves[]): Segments & { readonly before: Int32Array } {
  const coords = new Float64Array(all.reduce((sum, { coords: own }) => sum + own.length, 0));
  const [segmentAt, isCubic, before] = [[] as number[], [] as number[], [] as number[]];
  let base = 0;
  for (const curves of all) {
    const { verbs, verbStart, coordStart } = curves;
    coords.set(curves.coords, base);
    for (let ring = 0; ring < curves.parent.length; ring++) {
      if (isOpenRing(curves, ring)) continue;
      const first = segmentAt.length;
      let place = coordStart[ring];
      for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
        segmentAt.push(base + place);
        isCubic.push(verbs[v] === CUBIC ? 1 : 0);
        before.push(segmentAt.length - 2);
        place += coordsOfVerb(verbs[v]);
      }
      if (segmentAt.length > first) before[first] = segmentAt.length - 1;
    }
    base += curves.coords.length;
  }
  return { coords, at: Int32Array.from(segmentAt), isCubic: Uint8Array.from(isCubic), before: Int32Array.from(before) };
}

interface Found {
  readonly at: number[];
  readonly isCubic: number[];
  readonly x: number[];
  readonly y: number[];
  readonly next: number[];
  readonly segment: number[];
  readonly step: number[];
  readonly steps: number[];
}

function addRing({ verbs, coords, verbStart, coordStart }: Curves, ring: number, base: number, toleranceOf: (segment: number) => number, found: Found): void {
  const first = found.x.length;
  let at = coordStart[ring];
  for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
    const isCubic = verbs[v] === CUBIC;
    const steps = isCubic ? chordCount(coords, at, toleranceOf(found.at.length)) : 1;
    for (let k = 0; k < steps; k++) {
      found.x.push(k === 0 ? coords[at] : cubicAt(coords, at, k / steps));
      found.y.push(k === 0 ? coords[at + 1] : cubicAt(coords, at + 1, k / steps));
      found.next.push(found.x.length);
      found.segment.push(found.at.length);
      found.step.push(k);
      found.steps.push(steps);
    }
    found.at.push(base + at);
    found.isCubic.push(isCubic ? 1 : 0);
    at += coordsOfVerb(verbs[v]);
  }
  if (found.x.length > first) found.next[found.next.length - 1] = first;
}

function markedRings({ x, y }: Found, from: number, starts: readonly number[]): MarkedRings {
  const count = x.length - from;
  const points = new Float64Array(2 * count);
  const marks = new Int32Array(count);
  for (let k = 0; k < count; k++) {
    points[2 * k] = x[from + k];
    points[2 * k + 1] = y[from + k];
    marks[k] = from + k + 1;
  }
  return { points, marks, starts: Int32Array.from(starts) };
}

/** A place of a segment, 0 to 1. */
export function placeAt({ coords, at, isCubic }: Segments, segment: number, t: number): { x: number; y: number } {
  const i = at[segment];
  if (isCubic[segment] !== 0) return { x: cubicAt(coords, i, t), y: cubicAt(coords, i + 1, t) };
  return { x: coords[i] + (coords[i + 2] - coords[i]) * t, y: coords[i + 1] + (coords[i + 3] - coords[i + 1]) * t };
}

/** How fast a place of a segment moves there. */
export function speedAt({ coords: c, at, isCubic }: Segments, segment: number, t: number): { x: number; y: number } {
  const i = at[segment];
  if (isCubic[segment] === 0) return { x: c[i + 2] - c[i], y: c[i + 3] - c[i + 1] };
  const u = 1 - t;
  const along = (k: number): number => 3 * (u * u * (c[k + 2] - c[k]) + 2 * u * t * (c[k + 4] - c[k + 2]) + t * t * (c[k + 6] - c[k + 4]));
  return { x: along(i), y: along(i + 1) };
}
