import { areaOf, type Ring } from '../corners.ts';
import type { ArcPoints } from './arcPoints.ts';
import type { CrackArcs } from './crackArcs.ts';

/** An arc with fewer points is mostly corners and bends: what strays on it is its shape. */
const LONG = 48;
/** So many points of long arcs say how rough the edges between two tones are. */
const ENOUGH = 96;

/** Where neighbouring points of long edges stray by more than this, px, and by so many px per share that plain pixels do, the art itself is jagged. */
const JAGGED_PX = 0.12;
const JAGGED_PER_STRAY = 15;
/** What is narrower than this in the mean, px, as letters are, turns as often as a jagged edge does. */
const BROAD_PX = 4;
/** What is broader than this is no lettering whose bends look like roughness: its own points tell, also where its tones are even, as after cleaning. */
const SHAPE_PX = 10;
/** So many pixels beside an edge say how restless its tones are; an edge with fewer goes by all between the same two tones, or by all there are. */
const ENOUGH_STRAYS = 24;
/**
 * Where plain pixels stray by a share of the way between two tones, points of their edge stray by up to so many px per share, as long edges under noise and
 * compression show; and by so many px in any picture.
 */
const ROUGH_PER_STRAY = 3;
const ROUGH_ANYWAY_PX = 0.03;

/**
 * How rough each arc is, px: as rough as its own points say, but no rougher than the long edges between the same two tones are, or than all long edges where
 * those are few, and, unless it goes around something broad, no rougher than the pixels beside it are restless. Compression and noise roughen all edges between
 * two tones alike and what lies beside them as well, while the third differences of a short arc, such as a letter, are those of its shape.
 */
export function commonRoughness({ left, right, count }: CrackArcs, points: readonly ArcPoints[]): (arc: number) => number {
  const pairOf = (arc: number): number => Math.min(left[arc], right[arc]) * 256 + Math.max(left[arc], right[arc]);
  const pairs = new Map<number, number[]>();
  const all: number[] = [];
  for (let k = 0; k < count; k++) {
    if (points[k].ring.n < LONG) continue;
    all.push(k);
    const pair = pairs.get(pairOf(k));
    if (pair === undefined) pairs.set(pairOf(k), [k]);
    else pair.push(k);
  }
  const ofLong = (arcs: readonly number[]): LongEdges => ({
    roughPx: middleOf(arcs, points, ({ roughPx }) => roughPx),
    isJagged: middleOf(arcs.filter((k) => isBroad(points[k].ring, BROAD_PX)), points, ({ finelyRoughPx, stray }) => (finelyRoughPx > JAGGED_PER_STRAY * (stray?.middle ?? 0) ? finelyRoughPx : 0)) > JAGGED_PX,
  });
  const overall = ofLong(all);
  const ofPair = new Map([...pairs].map(([pair, arcs]) => [pair, arcs.reduce((sum, k) => sum + points[k].ring.n, 0) >= ENOUGH ? ofLong(arcs) : overall]));
  const mostOf = mostByStray(points, pairOf);
  return (arc) => {
    const { roughPx, isJagged } = ofPair.get(pairOf(arc)) ?? overall;
    return Math.min(points[arc].roughPx, roughPx, isJagged || isBroad(points[arc].ring, SHAPE_PX) ? Infinity : mostOf(arc));
  };
}

/** Whether what an edge goes around is as broad as that in the mean, so that it turns slowly; one that has ends may be the edge of anything. */
const isBroad = (ring: Ring, widthPx: number): boolean => !ring.closed || 2 * Math.abs(areaOf(ring)) >= widthPx * ring.along[ring.n];

interface LongEdges {
  readonly roughPx: number;
  readonly isJagged: boolean;
}

/** The middle of what some arcs say, each weighed by its points; 0 without any: then nothing is known to be rough. */
function middleOf(arcs: readonly number[], points: readonly ArcPoints[], of: (points: ArcPoints) => number): number {
  const sorted = [...arcs].sort((a, b) => of(points[a]) - of(points[b]));
  let left = sorted.reduce((sum, k) => sum + points[k].ring.n, 0) / 2;
  for (const k of sorted) {
    left -= points[k].ring.n;
    if (left <= 0) return of(points[k]);
  }
  return 0;
}

interface Strays {
  sum: number;
  count: number;
}

/** How rough each arc may be by what strays beside it, px. */
function mostByStray(points: readonly ArcPoints[], pairOf: (arc: number) => number): (arc: number) => number {
  const all: Strays = { sum: 0, count: 0 };
  const pairs = new Map<number, Strays>();
  for (const [k, { stray }] of points.entries()) {
    if (stray === undefined) continue;
    const pair = pairs.get(pairOf(k)) ?? { sum: 0, count: 0 };
    pairs.set(pairOf(k), pair);
    for (const strays of [pair, all]) {
      strays.sum += stray.middle * stray.count;
      strays.count += stray.count;
    }
  }
  return (arc) => {
    const { stray } = points[arc];
    if (stray === undefined) return Infinity;
    const own = { sum: stray.middle * stray.count, count: stray.count };
    const enough = [own, pairs.get(pairOf(arc)) ?? all, all].find(({ count }) => count >= ENOUGH_STRAYS);
    return enough === undefined ? Infinity : ROUGH_ANYWAY_PX + (ROUGH_PER_STRAY * enough.sum) / enough.count;
  };
}
