import type { Curves } from './curves.ts';
import { flatten } from './flatten.ts';

/** Chords of curves whose rings may be open, and the ring of each. */
export interface RingChords {
  readonly from: Float64Array;
  readonly to: Float64Array;
  readonly ring: Int32Array;
}

/** Chords no further than `tolerance` from the curves, both `times` as large. */
export function ringChords(curves: Curves, tolerance: number, times = 1): RingChords {
  const { points, starts } = flatten(curves, tolerance / times);
  const count = points.length / 2;
  const [from, to, ring] = [new Float64Array(2 * count), new Float64Array(2 * count), new Int32Array(count)];
  for (let k = 0; k + 1 < starts.length; k++) {
    for (let i = starts[k]; i < starts[k + 1]; i++) {
      const isLast = i + 1 === starts[k + 1];
      ring[i] = k;
      for (const c of [0, 1]) {
        from[2 * i + c] = points[2 * i + c] * times;
        // An open ring ends where its last curve does, not where it began.
        to[2 * i + c] = (isLast ? endOf(curves, k, c) : points[2 * i + 2 + c]) * times;
      }
    }
  }
  return { from, to, ring };
}

const endOf = ({ coords, coordStart }: Curves, ring: number, c: number): number => coords[coordStart[ring + 1] - 2 + c];

/** Chords by the row, 1 high, that they reach into: those of row y are `chords[first[y]]` to `chords[first[y + 1]]` (exclusive). */
export interface RowChords {
  readonly first: Int32Array;
  readonly chords: Int32Array;
}

export function chordsByRow({ from, to, ring }: RingChords, height: number): RowChords {
  const topOf = (k: number): number => Math.max(0, Math.floor(Math.min(from[2 * k + 1], to[2 * k + 1])));
  const endRow = (k: number): number => Math.min(height - 1, Math.ceil(Math.max(from[2 * k + 1], to[2 * k + 1])) - 1);
  const first = new Int32Array(height + 1);
  for (let k = 0; k < ring.length; k++) for (let y = topOf(k), end = endRow(k); y <= end; y++) first[y + 1]++;
  for (let y = 0; y < height; y++) first[y + 1] += first[y];
  const chords = new Int32Array(first[height]);
  const next = first.slice();
  for (let k = 0; k < ring.length; k++) for (let y = topOf(k), end = endRow(k); y <= end; y++) chords[next[y]++] = k;
  return { first, chords };
}
