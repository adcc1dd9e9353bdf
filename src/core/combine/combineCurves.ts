import { AppError } from '../errors/appError.ts';
import { CurvesBuilder, nodeCount, ringArea, ringCount, type Curves } from '../outline/curves.ts';
import { nestBySense } from '../outline/nestBySense.ts';
import { chordMap, placeAt, speedAt, type ChordMap } from './chordMap.ts';
import { ChordsNear, type OnChord } from './chordsNear.ts';
import { inStrips } from './inStrips.ts';
import type { CombineKind, MarkedRings, PolygonLibrary } from './polygonLibrary.ts';
import { drawStretch, type Stretch } from './stretch.ts';

/** How far chords may lie from their curves, mm: where two outlines cross is known so well before it is made exact. */
const CHORD_MM = 0.004;
/** New points lie on a lattice of a ten-thousandth of a mm: so far off its chord one may be, mm. */
const OFF_CHORD_MM = 3e-4;
/** What is smaller than this is rounding, mm². */
const LEAST_MM2 = 5e-4;
/** More nodes than this together are refused. */
const MOST_NODES = 400_000;
/** Stretches of a segment that end nearer than this to one of its ends end there. */
const AT_END = 1e-6;
/** Rounds of Newton's method, which doubles the right digits in each. */
const ROUNDS = 6;
/** A crossing is looked for no further away than this, mm. */
const CROSSING_MM = 0.02;

/**
 * Joins two outlines, cuts one out of the other, or takes what is in both. Polygons are combined by a library; each edge of what comes out is then read as a stretch of the line or curve that it
 * came from: what was not cut keeps its very nodes, what was is a part of its curve (de Casteljau), and where two outlines cross is found on the curves themselves.
 * @param a mm, rings nested as `Curves` says; as b.
 * @throws AppError `tooIntricate` for more than some hundred thousand nodes.
 */
export function combineCurves(library: PolygonLibrary, kind: CombineKind, a: Curves, b: Curves): Curves {
  if (nodeCount(a) + nodeCount(b) > MOST_NODES) throw new AppError('tooIntricate', { count: nodeCount(a) + nodeCount(b), limit: MOST_NODES });
  const map = chordMap([a, b], CHORD_MM);
  return curvesOf(map, inStrips(map.rings, ([subject, clip]) => library.combine(kind, subject, clip)));
}

/** What rings that may cross themselves wind around clockwise. */
export function settleCurves(library: PolygonLibrary, curves: Curves): Curves {
  if (nodeCount(curves) > MOST_NODES) throw new AppError('tooIntricate', { count: nodeCount(curves), limit: MOST_NODES });
  const map = chordMap([curves], CHORD_MM);
  return curvesOf(map, inStrips(map.rings, ([rings]) => library.settle(rings)));
}

/** Rings of the library as the curves that they came from. */
function curvesOf(map: ChordMap, combined: MarkedRings): Curves {
  const reader = new StretchReader(map);
  const builder = new CurvesBuilder();
  for (let ring = 0; ring + 1 < combined.starts.length; ring++) drawRing(builder, map, reader.read(combined, ring));
  return nestBySense(withoutSlivers(builder.build()));
}

/** One outline of what overlaps in it, as script letters do. */
export const joinOverlaps = (library: PolygonLibrary, curves: Curves): Curves => combineCurves(library, 'join', curves, new CurvesBuilder().build());

/** Reads the rings that the library gives as stretches of segments. */
class StretchReader {
  private near: ChordsNear | undefined;
  private endsBefore: Int32Array | undefined;

  constructor(private readonly map: ChordMap) {}

  read({ points, marks, starts }: MarkedRings, ring: number): Stretch[] {
    const { map } = this;
    const [from, to] = [starts[ring], starts[ring + 1]];
    const edges: Stretch[] = [];
    let last: Stretch | undefined;
    for (let k = from; k < to; k++) {
      const next = k + 1 < to ? k + 1 : from;
      if (last !== undefined && this.goesOn(last, marks[k] - 1, marks[next] - 1)) continue;
      last = this.edge(points, marks, k, next, last?.segment ?? -1);
      edges.push(last);
    }
    const merged = mergedStretches(edges);
    meet(map, merged);
    return merged.filter((stretch, k) => !isPoint(map, stretch, merged[(k + 1) % merged.length]));
  }

  /** Lengthens a stretch by the chord between two points of the curves, where it is the next one of its segment. */
  private goesOn(last: Stretch, p: number, q: number): boolean {
    const { next, segment, step, steps } = this.map;
    if (p < 0 || q < 0 || last.segment < 0) return false;
    if (next[p] === q && segment[p] === last.segment && last.to > last.from && last.to === step[p] / steps[p]) last.to = (step[p] + 1) / steps[p];
    else if (next[q] === p && segment[q] === last.segment && last.to < last.from && last.to === (step[q] + 1) / steps[q]) last.to = step[q] / steps[q];
    else return false;
    return true;
  }

  private edge(points: Float64Array, marks: Int32Array, a: number, b: number, before: number): Stretch {
    const { next, segment, step, steps, x, y } = this.map;
    const [p, q] = [marks[a] - 1, marks[b] - 1];
    const start = p >= 0 ? { x: x[p], y: y[p] } : { x: points[2 * a], y: points[2 * a + 1] };
    const along = (chord: number, share: number): number => (step[chord] + share) / steps[chord];
    if (p >= 0 && q >= 0 && next[p] === q) return { segment: segment[p], from: along(p, 0), to: along(p, 1), ...start };
    if (p >= 0 && q >= 0 && next[q] === p) return { segment: segment[q], from: along(q, 1), to: along(q, 0), ...start };
    const [onA, onB] = [this.chordsAt(points, a, p), this.chordsAt(points, b, q)];
    let best: { a: OnChord; b: OnChord } | undefined;
    for (const at of onA) {
      const other = onB.find(({ chord }) => chord === at.chord);
      if (other === undefined || other.along === at.along) continue;
      if (best === undefined || segment[at.chord] === before) best = { a: at, b: other };
    }
    if (best === undefined) return { segment: -1, from: 0, to: 1, ...start };
    return { segment: segment[best.a.chord], from: along(best.a.chord, best.a.along), to: along(best.b.chord, best.b.along), ...start };
  }

  /** Chords that a point lies on; of one of the curves first the two that meet there, at their very ends. @param own number of the point, −1 for one that is new. */
  private chordsAt(points: Float64Array, k: number, own: number): readonly OnChord[] {
    this.near ??= new ChordsNear(this.map, OFF_CHORD_MM);
    const found = this.near.at(points[2 * k], points[2 * k + 1]);
    if (own < 0) return found;
    const before = this.before();
    return [{ chord: own, along: 0 }, { chord: before[own], along: 1 }, ...found.filter(({ chord }) => chord !== own && chord !== before[own])];
  }

  /** The chord that ends where each begins. */
  private before(): Int32Array {
    if (this.endsBefore === undefined) {
      const { next } = this.map;
      this.endsBefore = new Int32Array(next.length);
      for (let chord = 0; chord < next.length; chord++) this.endsBefore[next[chord]] = chord;
    }
    return this.endsBefore;
  }
}

/** Edges that go on along one segment as one stretch; the first edge starts one. */
function mergedStretches(edges: readonly Stretch[]): Stretch[] {
  const goesOn = (a: Stretch, b: Stretch): boolean => a.segment >= 0 && a.segment === b.segment && Math.abs(a.to - b.from) < 1e-4 && a.to > a.from === b.to > b.from;
  const count = edges.length;
  const breaks = edges.findIndex((edge, k) => !goesOn(edges[(k + count - 1) % count], edge));
  const merged: Stretch[] = [];
  for (let k = 0; k < count; k++) {
    const edge = edges[(Math.max(0, breaks) + k) % count];
    const last = merged[merged.length - 1];
    if (last !== undefined && goesOn(last, edge)) last.to = edge.to;
    else merged.push({ ...edge });
  }
  for (const stretch of merged) {
    stretch.from = atEnd(stretch.from);
    stretch.to = atEnd(stretch.to);
  }
  return merged;
}

const atEnd = (t: number): number => (t < AT_END ? 0 : t > 1 - AT_END ? 1 : t);
const isEnd = (t: number): boolean => t === 0 || t === 1;

/** Puts the places at which stretches meet on their curves: nodes that there were are kept, crossings are made exact. */
function meet(map: ChordMap, stretches: Stretch[]): void {
  for (const [k, next] of stretches.entries()) {
    const before = stretches[(k + stretches.length - 1) % stretches.length];
    const place = meetingOf(map, before, next);
    if (place === undefined) continue;
    next.x = place.x;
    next.y = place.y;
  }
}

function meetingOf(map: ChordMap, before: Stretch, next: Stretch): { x: number; y: number } | undefined {
  if (next.segment >= 0 && isEnd(next.from)) return placeAt(map, next.segment, next.from);
  if (before.segment >= 0 && isEnd(before.to)) return placeAt(map, before.segment, before.to);
  if (before.segment < 0 || next.segment < 0) return undefined;
  if (before.segment === next.segment) return placeAt(map, next.segment, next.from);
  let [t, u] = [before.to, next.from];
  const began = placeAt(map, before.segment, t);
  for (let round = 0; round < ROUNDS; round++) {
    const [p, q] = [placeAt(map, before.segment, t), placeAt(map, next.segment, u)];
    const [v, w] = [speedAt(map, before.segment, t), speedAt(map, next.segment, u)];
    const determinant = v.x * -w.y + w.x * v.y;
    if (Math.abs(determinant) < 1e-12) break;
    const [dx, dy] = [q.x - p.x, q.y - p.y];
    t += (dx * -w.y + w.x * dy) / determinant;
    u += (v.x * dy - v.y * dx) / determinant;
  }
  const [p, q] = [placeAt(map, before.segment, t), placeAt(map, next.segment, u)];
  if (!(t >= 0 && t <= 1 && u >= 0 && u <= 1) || Math.hypot(p.x - q.x, p.y - q.y) > 1e-6 || Math.hypot(p.x - began.x, p.y - began.y) > CROSSING_MM) return placeAt(map, next.segment, next.from);
  before.to = t;
  next.from = u;
  return p;
}

/** Whether a stretch has no length to speak of: the rounding of a crossing. */
function isPoint(map: ChordMap, stretch: Stretch, next: Stretch): boolean {
  if (Math.hypot(stretch.x - next.x, stretch.y - next.y) > 2 * OFF_CHORD_MM) return false;
  if (stretch.segment < 0) return true;
  const middle = placeAt(map, stretch.segment, (stretch.from + stretch.to) / 2);
  return Math.hypot(middle.x - stretch.x, middle.y - stretch.y) < 2 * OFF_CHORD_MM;
}

function drawRing(builder: CurvesBuilder, map: ChordMap, stretches: readonly Stretch[]): void {
  if (stretches.length === 0) return;
  builder.start(stretches[0].x, stretches[0].y, -1);
  for (const [k, stretch] of stretches.entries()) drawStretch(builder, map, stretch, stretches[(k + 1) % stretches.length]);
  builder.close();
}

function withoutSlivers(curves: Curves): Curves {
  const builder = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) if (Math.abs(ringArea(curves, ring)) >= LEAST_MM2) builder.copy(curves, ring, -1);
  return builder.build();
}
