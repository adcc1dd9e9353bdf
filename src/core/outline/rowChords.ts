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

/** @param isWanted leaves chords of other rings out. */
export function chordsByRow({ from, to, ring }: RingChords, height: number, isWanted: (ring: number) => boolean = () => true): RowChords {
  const topOf = (k: number): number => Math.max(0, Math.floor(Math.min(from[2 * k + 1], to[2 * k + 1])));
  const endRow = (k: number): number => (isWanted(ring[k]) ? Math.min(height - 1, Math.ceil(Math.max(from[2 * k + 1], to[2 * k + 1])) - 1) : -1);
  const first = new Int32Array(height + 1);
  for (let k = 0; k < ring.length; k++) for (let y = topOf(k), end = endRow(k); y <= end; y++) first[y + 1]++;
  for (let y = 0; y < height; y++) first[y + 1] += first[y];
  const chords = new Int32Array(first[height]);
  const next = first.slice();
  for (let k = 0; k < ring.length; k++) for (let y = topOf(k), end = endRow(k); y <= end; y++) chords[next[y]++] = k;
  return { first, chords };
}

/**
 * Goes along the part of a chord that lies in one row, pixel by pixel from its left: so much of the row's height, above 0 when the chord goes down, changes in
 * pixel `x`, counted from `left`, and so much in the next one, so that sums along the row are what lies on one side of the chord (the accumulation buffer of
 * R. Levien's font-rs, 2016). What lies left of the first pixel changes that one; what lies right of the last is left out.
 */
export function alongRow(
  y: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  left: number,
  width: number,
  visit: (x: number, here: number, next: number) => void,
): void {
  if (y0 === y1) return;
  const slope = (x1 - x0) / (y1 - y0);
  const top = Math.max(y, Math.min(y0, y1));
  const bottom = Math.min(y + 1, Math.max(y0, y1));
  const xTop = x0 + (top - y0) * slope - left;
  const xBottom = x0 + (bottom - y0) * slope - left;
  const rise = y1 > y0 ? bottom - top : top - bottom;
  let a = Math.min(xTop, xBottom);
  const b = Math.max(xTop, xBottom);
  if (a >= width) return;
  if (b <= 0) {
    visit(0, rise, 0);
    return;
  }
  if (b - a < 1e-9) {
    const x = Math.floor(a);
    visit(x, rise * (1 - (a - x)), rise * (a - x));
    return;
  }
  const perPx = rise / (b - a);
  if (a < 0) {
    visit(0, -a * perPx, 0);
    a = 0;
  }
  for (const end = Math.min(b, width); a < end; ) {
    const x = Math.floor(a);
    const to = Math.min(end, x + 1);
    const after = perPx * (to - a) * ((a + to) / 2 - x);
    visit(x, perPx * (to - a) - after, after);
    a = to;
  }
}
