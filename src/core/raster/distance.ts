import { byRows, finish, within, type Task } from '../task/task.ts';

/**
 * Distance of every cell that is not 0 to the nearest cell that is, centre to centre, px; exact, in two passes of lower envelopes of parabolas
 * (P. F. Felzenszwalb & D. P. Huttenlocher, "Distance transforms of sampled functions", Theory of Computing 8, 2012,
 * doi:10.4086/toc.2012.v008a019). O(cells).
 * @param outside what lies beyond the raster: `zero` cells (the default), or nothing at all, `free`.
 */
export function distanceInside(cells: Uint8Array, width: number, height: number, outside: 'zero' | 'free' = 'zero'): Float32Array {
  return finish(distancesInside(cells, width, height, outside));
}

/** The same in turns, for large rasters. */
export const distancesInside = (cells: Uint8Array, width: number, height: number, outside: 'zero' | 'free' = 'zero'): Task<Float32Array> =>
  distances(cells, 0, width, height, outside);

/** To the nearest cell that is 0, or that is not where `inverted` is 1. @param out as many values as cells, all of them written. */
function* distances(
  cells: Uint8Array,
  inverted: 0 | 1,
  width: number,
  height: number,
  outside: 'zero' | 'free',
  out: Float32Array = new Float32Array(cells.length),
): Task<Float32Array> {
  const far = width + height + 2;
  const beyond = outside === 'zero' ? 0 : far;
  yield* within(columnDistances(cells, inverted, out, width, height, beyond, far), 0, 0.4);
  const line = makeLine(width + 2);
  yield* within(byRows(height, (y) => rowDistances(out, line, y * width, width, beyond, far)), 0.4, 1);
  return out;
}

/**
 * Distance of every cell to the nearest one sought above or below it, row by row down and up again. Rows are functions of their own: code that is met often is
 * compiled soon.
 */
function* columnDistances(cells: Uint8Array, inverted: 0 | 1, out: Float32Array, width: number, height: number, beyond: number, far: number): Task<void> {
  const edge = new Float32Array(width).fill(beyond);
  fartherDown(cells, inverted, edge, 0, out, 0, width, far);
  yield* within(byRows(height - 1, (y) => fartherDown(cells, inverted, out, y * width, out, (y + 1) * width, width, far)), 0, 0.5);
  nearerUp(edge, 0, out, (height - 1) * width, width);
  yield* within(byRows(height - 1, (k) => nearerUp(out, (height - 1 - k) * width, out, (height - 2 - k) * width, width)), 0.5, 1);
}

function fartherDown(
  cells: Uint8Array,
  inverted: 0 | 1,
  before: Float32Array,
  above: number,
  out: Float32Array,
  start: number,
  width: number,
  far: number,
): void {
  for (let i = start, j = above; i < start + width; i++, j++) {
    const next = before[j] + 1;
    out[i] = (cells[i] === 0 ? 0 : 1) === inverted ? 0 : next < far ? next : far;
  }
}

function nearerUp(before: Float32Array, below: number, out: Float32Array, start: number, width: number): void {
  for (let i = start, j = below; i < start + width; i++, j++) {
    const next = before[j] + 1;
    if (next < out[i]) out[i] = next;
  }
}

function rowDistances(out: Float32Array, line: Line, start: number, width: number, beyond: number, far: number): void {
  const { f, d } = line;
  // A row without a 0 in sight, or of nothing else, is done.
  let least = Infinity;
  let most = 0;
  for (let x = 0; x < width; x++) {
    const v = out[start + x];
    if (v < least) least = v;
    if (v > most) most = v;
    f[x + 1] = v * v;
  }
  if (most === 0 || (least >= far && beyond !== 0)) return;
  f[0] = f[width + 1] = beyond * beyond;
  lowerEnvelope(line, width + 2);
  for (let x = 0; x < width; x++) out[start + x] = Math.sqrt(d[x + 1]);
}

/** Room for the distances along one line. */
export interface Line {
  /** Squared distances across the line. */
  readonly f: Float64Array;
  /** Squared distances that follow from them. */
  readonly d: Float64Array;
  readonly v: Int32Array;
  readonly z: Float64Array;
}

export const makeLine = (longest: number): Line => ({
  f: new Float64Array(longest),
  d: new Float64Array(longest),
  v: new Int32Array(longest),
  z: new Float64Array(longest + 1),
});

/** Distance of every cell to the nearest one that is not 0, px; nothing lies beyond the raster. @param out where it is written, when it is at hand. */
export function distanceTo(cells: Uint8Array, width: number, height: number, out?: Float32Array): Float32Array {
  return finish(distances(cells, 1, width, height, 'free', out));
}

/** The same in turns, for large rasters. */
export const distancesTo = (cells: Uint8Array, width: number, height: number): Task<Float32Array> => distances(cells, 1, width, height, 'free');

/**
 * Distance of every cell to the nearest one that lies more than `radiusPx` inside the cells that are not 0: what an opening by a disc keeps is at most that
 * radius away.
 * @param out where it is written, when it is at hand.
 */
export function distanceToWide(cells: Uint8Array, width: number, height: number, radiusPx: number, out?: Float32Array): Float32Array {
  const inside = finish(distances(cells, 0, width, height, 'free', out));
  return distanceTo(cellsAbove(inside, radiusPx), width, height, inside);
}

/** Squared distances along the first `n` cells of a line: the lower envelope of the parabolas rooted at f. */
export function lowerEnvelope({ f, d, v, z }: Line, n: number): void {
  let k = 0;
  v[0] = 0;
  z[0] = -Infinity;
  z[1] = Infinity;
  for (let q = 1; q < n; q++) {
    let s = meet(f, q, v[k]);
    while (s <= z[k]) s = meet(f, q, v[--k]);
    v[++k] = q;
    z[k] = s;
    z[k + 1] = Infinity;
  }
  k = 0;
  for (let q = 0; q < n; q++) {
    while (z[k + 1] < q) k++;
    d[q] = (q - v[k]) ** 2 + f[v[k]];
  }
}

const meet = (f: Float64Array, q: number, r: number): number => (f[q] + q * q - f[r] - r * r) / (2 * q - 2 * r);

/** 1 for each value that is larger than a limit. Loops: a callback for every cell would cost more than what the cells are for. */
export function cellsAbove(values: Float32Array, limit: number): Uint8Array {
  const cells = new Uint8Array(values.length);
  for (let from = 0; from < cells.length; from += STRETCH) markAbove(values, limit, cells, from, Math.min(cells.length, from + STRETCH));
  return cells;
}

/** So many cells at a time, so that the code is met often. */
const STRETCH = 4096;

function markAbove(values: Float32Array, limit: number, cells: Uint8Array, from: number, to: number): void {
  for (let i = from; i < to; i++) cells[i] = values[i] > limit ? 1 : 0;
}
