import type { ArcPoints } from './arcPoints.ts';
import type { CrackArcs } from './crackArcs.ts';

/** An arc with fewer points is mostly corners and bends: what strays on it is its shape. */
const LONG = 48;
/** So many points of long arcs say how rough the edges between two tones are. */
const ENOUGH = 96;

/**
 * How rough each arc is, px: as rough as its own points say, but no rougher than the long edges between the same two tones are, or than all long edges where
 * those are few. Compression and noise roughen all edges between two tones alike, while the third differences of a short arc, such as a letter's counter, are
 * those of its shape.
 */
export function commonRoughness({ left, right, count }: CrackArcs, points: readonly ArcPoints[]): (arc: number) => number {
  const pairs = new Map<number, number[]>();
  const pairOf = (arc: number): number => Math.min(left[arc], right[arc]) * 256 + Math.max(left[arc], right[arc]);
  const all: number[] = [];
  for (let k = 0; k < count; k++) {
    if (points[k].ring.n < LONG) continue;
    all.push(k);
    const pair = pairs.get(pairOf(k));
    if (pair === undefined) pairs.set(pairOf(k), [k]);
    else pair.push(k);
  }
  const overall = middleOf(all, points);
  const ofPair = new Map(
    [...pairs].map(([pair, arcs]) => [pair, arcs.reduce((sum, k) => sum + points[k].ring.n, 0) >= ENOUGH ? middleOf(arcs, points) : overall]),
  );
  return (arc) => Math.min(points[arc].roughPx, ofPair.get(pairOf(arc)) ?? overall);
}

/** The middle roughness of some arcs, each weighed by its points; without any, nothing is known to be rough. */
function middleOf(arcs: readonly number[], points: readonly ArcPoints[]): number {
  const sorted = [...arcs].sort((a, b) => points[a].roughPx - points[b].roughPx);
  let left = sorted.reduce((sum, k) => sum + points[k].ring.n, 0) / 2;
  for (const k of sorted) {
    left -= points[k].ring.n;
    if (left <= 0) return points[k].roughPx;
  }
  return 0;
}
