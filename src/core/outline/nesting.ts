import type { Crossings } from './isoline.ts';

/**
 * For each ring the ring directly around it, −1 for none. Read off the rows of pixel centres: the nearest crossing left of a ring's own
 * leftmost one belongs either to its parent or to a sibling. O(n log n) in the number of crossings.
 * @param isHole whether each ring is a hole (its inside is not ink).
 */
export function parentRings(crossings: Crossings, ringCount: number, isHole: (ring: number) => boolean): Int32Array {
  const { count, row, x, ring, inkRight } = crossings;
  const leftmost = new Int32Array(ringCount).fill(-1);
  for (let k = 0; k < count; k++) {
    const best = leftmost[ring[k]];
    if (best < 0 || x[k] < x[best]) leftmost[ring[k]] = k;
  }
  const order = byRowThenX(crossings);
  const place = new Int32Array(count);
  for (let i = 0; i < count; i++) place[order[i]] = i;

  const parent = new Int32Array(ringCount).fill(-1);
  const turn = Array.from({ length: ringCount }, (_, k) => k).sort((a, b) => x[leftmost[a]] - x[leftmost[b]]);
  for (const r of turn) {
    const k = leftmost[r];
    const at = place[k];
    if (at === 0) continue;
    const west = order[at - 1];
    if (row[west] !== row[k]) continue;
    const other = ring[west];
    // Right of that crossing lies ink or not; it is inside `other` when that is what `other` encloses.
    const inside = (inkRight[west] === 1) !== isHole(other);
    parent[r] = inside ? other : parent[other];
  }
  return parent;
}

function byRowThenX({ count, row, x }: Crossings): Int32Array {
  let rows = 0;
  for (let k = 0; k < count; k++) if (row[k] >= rows) rows = row[k] + 1;
  const first = new Int32Array(rows + 1);
  for (let k = 0; k < count; k++) first[row[k] + 1]++;
  for (let y = 0; y < rows; y++) first[y + 1] += first[y];
  const order = new Int32Array(count);
  const next = first.slice();
  for (let k = 0; k < count; k++) order[next[row[k]]++] = k;
  for (let y = 0; y < rows; y++) {
    if (first[y + 1] - first[y] > 1) order.subarray(first[y], first[y + 1]).sort((a, b) => x[a] - x[b]);
  }
  return order;
}
