import { flatten } from './flatten.ts';
import type { Curves } from './curves.ts';
import { edgeSamples, type EdgeSamples } from './edgeSamples.ts';
import { widthsAcross } from './widthsAcross.ts';

/** Samples along the outlines lie this share of the least width apart. */
const SPACING = 1 / 4;
/** Widths that differ by less are one, mm. */
const EVEN_MM = 0.005;
/** A width that is less by no more than this is the least width itself, mm: it is not told apart where both are shown. */
const UNTOLD_MM = 0.005;
/** Samples lie this much further from each other than the edges that they are on. */
const SKEWED = 1.08;

export interface ThinPlace {
  readonly xMm: number;
  readonly yMm: number;
  /** Width at the narrowest, mm. */
  readonly widthMm: number;
}

/** A width below this asks for nothing, mm: no knife is that fine, and the work grows as it falls. */
const LEAST_ASKED_MM = 0.01;

/** A strip is at least so many of its least widths long; shorter ones are the tips of corners. */
const LEAST_LENGTH = 1;

/**
 * Strips that are narrower than `leastMm`: for each, the narrowest place. Pairs of samples on the outlines that face each other across film are looked for
 * through a grid, neighbouring ones make one strip. O(number of chords + length of what is narrow / least width).
 * @param curves in mm. @param side which side of the outlines is film: inside them, or outside for art that is cut out. @param chordMm how far chords may lie off the curves: widths are known within half of it.
 */
export function thinPlaces(curves: Curves, leastMm: number, side: 'inside' | 'outside' = 'inside', chordMm = leastMm / 20): ThinPlace[] {
  if (!(leastMm >= LEAST_ASKED_MM)) return [];
  const samples = edgeSamples(flatten(curves, chordMm), leastMm * SPACING, side, SKEWED * leastMm);
  const { width, partner } = widthsAcross(samples, leastMm * SKEWED);
  for (let k = 0; k < width.length; k++) {
    if (partner[k] < 0) continue;
    // The sample on the other side lies somewhere beside the nearest place: what counts is how far its edge is.
    width[k] = Math.min(width[k], toEdge(samples, k, partner[k]));
    if (width[k] >= leastMm - UNTOLD_MM) partner[k] = -1;
  }
  return strips(samples, width, partner, leastMm);
}

/** The sample of the place before or after another one on its ring; −1 where that was not taken. */
function neighbour({ starts, ring, along, around }: EdgeSamples, k: number, step: 1 | -1): number {
  const [first, end, count] = [starts[ring[k]], starts[ring[k] + 1], around[ring[k]]];
  const other = k + step < first ? end - 1 : k + step >= end ? first : k + step;
  return along[other] === (along[k] + step + count) % count ? other : -1;
}

/** How far a sample is from the edge on both sides of another one. */
function toEdge(samples: EdgeSamples, k: number, q: number): number {
  const { x, y } = samples;
  let least = Infinity;
  for (const other of [neighbour(samples, q, -1), neighbour(samples, q, 1)]) {
    if (other < 0) continue;
    const [dx, dy] = [x[other] - x[q], y[other] - y[q]];
    const square = dx * dx + dy * dy;
    const t = square === 0 ? 0 : Math.max(0, Math.min(1, ((x[k] - x[q]) * dx + (y[k] - y[q]) * dy) / square));
    least = Math.min(least, Math.hypot(x[k] - x[q] - t * dx, y[k] - y[q] - t * dy));
  }
  return least;
}

/** Joins thin samples that follow each other, and the two sides of a strip, and tells each strip by its narrowest place. */
function strips(samples: EdgeSamples, width: Float64Array, partner: Int32Array, leastMm: number): ThinPlace[] {
  const { x, y, spacing } = samples;
  const root = new Int32Array(x.length);
  for (let k = 0; k < root.length; k++) root[k] = k;
  const find = (k: number): number => {
    while (root[k] !== k) k = root[k] = root[root[k]];
    return k;
  };
  for (let k = 0; k < x.length; k++) {
    if (partner[k] < 0) continue;
    root[find(partner[k])] = find(k);
    const after = neighbour(samples, k, 1);
    if (after >= 0 && partner[after] >= 0) root[find(after)] = find(k);
  }
  const narrowest = new Map<number, { widthMm: number; members: number[] }>();
  for (let k = 0; k < x.length; k++) {
    if (partner[k] < 0) continue;
    const strip = find(k);
    const known = narrowest.get(strip);
    if (known === undefined) narrowest.set(strip, { widthMm: width[k], members: [k] });
    else {
      known.members.push(k);
      known.widthMm = Math.min(known.widthMm, width[k]);
    }
  }
  // Both sides are sampled.
  const least = (2 * LEAST_LENGTH * leastMm) / spacing;
  return [...narrowest.values()]
    .filter(({ members }) => members.length >= least)
    .map(({ widthMm, members }) => {
      // Of a strip that is as narrow all along, its middle.
      const asNarrow = members.filter((k) => width[k] <= widthMm + EVEN_MM);
      const at = asNarrow[Math.floor(asNarrow.length / 4)];
      return { xMm: (x[at] + x[partner[at]]) / 2, yMm: (y[at] + y[partner[at]]) / 2, widthMm };
    });
}
