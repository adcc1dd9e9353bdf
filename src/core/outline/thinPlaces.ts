import { flatten } from './flatten.ts';
import type { Curves } from './curves.ts';
import { edgeSamples, widthsAcross, type EdgeSamples } from './widthsAcross.ts';

/** Samples along the outlines lie this share of the least width apart. */
const SPACING = 1 / 4;
/** Widths that differ by less are one, mm. */
const EVEN_MM = 0.005;
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
 * through a grid, neighbouring ones make one strip. O(length of the outlines / least width).
 * @param curves in mm. @param side which side of the outlines is film: inside them, or outside for art that is cut out. @param chordMm how far chords may lie off the curves: widths are known within half of it.
 */
export function thinPlaces(curves: Curves, leastMm: number, side: 'inside' | 'outside' = 'inside', chordMm = leastMm / 20): ThinPlace[] {
  if (!(leastMm >= LEAST_ASKED_MM)) return [];
  const samples = edgeSamples(flatten(curves, chordMm), leastMm * SPACING, side);
  const { width, partner } = widthsAcross(samples, leastMm * SKEWED);
  for (let k = 0; k < width.length; k++) {
    if (partner[k] < 0) continue;
    // The sample on the other side lies somewhere beside the nearest place: what counts is how far its edge is.
    width[k] = Math.min(width[k], toEdge(samples, k, partner[k]));
    if (width[k] >= leastMm) partner[k] = -1;
  }
  return strips(samples, width, partner, leastMm);
}

/** How far a sample is from the edge on both sides of another one. */
function toEdge({ x, y, starts, ring }: EdgeSamples, k: number, q: number): number {
  const [first, end] = [starts[ring[q]], starts[ring[q] + 1]];
  let least = Infinity;
  for (const other of [q === first ? end - 1 : q - 1, q + 1 === end ? first : q + 1]) {
    const [dx, dy] = [x[other] - x[q], y[other] - y[q]];
    const square = dx * dx + dy * dy;
    const t = square === 0 ? 0 : Math.max(0, Math.min(1, ((x[k] - x[q]) * dx + (y[k] - y[q]) * dy) / square));
    least = Math.min(least, Math.hypot(x[k] - x[q] - t * dx, y[k] - y[q] - t * dy));
  }
  return least;
}

/** Joins thin samples that follow each other, and the two sides of a strip, and tells each strip by its narrowest place. */
function strips({ x, y, starts, spacing }: EdgeSamples, width: Float64Array, partner: Int32Array, leastMm: number): ThinPlace[] {
  const root = Int32Array.from(x.keys());
  const find = (k: number): number => {
    while (root[k] !== k) k = root[k] = root[root[k]];
    return k;
  };
  for (let r = 0; r + 1 < starts.length; r++) {
    for (let k = starts[r]; k < starts[r + 1]; k++) {
      if (partner[k] < 0) continue;
      root[find(partner[k])] = find(k);
      const after = k + 1 === starts[r + 1] ? starts[r] : k + 1;
      if (partner[after] >= 0) root[find(after)] = find(k);
    }
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
