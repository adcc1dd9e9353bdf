/**
 * Distance of every cell that is not 0 to the nearest cell that is, centre to centre, px; exact, in two passes of lower envelopes of parabolas
 * (P. F. Felzenszwalb & D. P. Huttenlocher, "Distance transforms of sampled functions", Theory of Computing 8, 2012,
 * doi:10.4086/toc.2012.v008a019). O(cells).
 * @param outside what lies beyond the raster: `zero` cells (the default), or nothing at all, `free`.
 */
export function distanceInside(cells: Uint8Array, width: number, height: number, outside: 'zero' | 'free' = 'zero'): Float32Array {
  const far = width + height + 2;
  const out = new Float32Array(cells.length);
  const beyond = outside === 'zero' ? 0 : far;
  columnDistances(cells, out, width, height, beyond, far);
  const longest = width + 2;
  const scratch = { f: new Float64Array(longest), d: new Float64Array(longest), v: new Int32Array(longest), z: new Float64Array(longest + 1) };
  for (let y = 0; y < height; y++) rowDistances(out, scratch, y * width, width, beyond, far);
  return out;
}

/** Distance of every cell to the nearest 0 above or below it, row by row down and up again. */
function columnDistances(cells: Uint8Array, out: Float32Array, width: number, height: number, beyond: number, far: number): void {
  for (let x = 0; x < width; x++) out[x] = cells[x] === 0 ? 0 : Math.min(far, beyond + 1);
  for (let y = 1; y < height; y++) {
    for (let i = y * width, end = i + width; i < end; i++) out[i] = cells[i] === 0 ? 0 : Math.min(far, out[i - width] + 1);
  }
  const last = (height - 1) * width;
  for (let i = last; i < last + width; i++) out[i] = Math.min(out[i], beyond + 1);
  for (let y = height - 2; y >= 0; y--) {
    for (let i = y * width, end = i + width; i < end; i++) out[i] = Math.min(out[i], out[i + width] + 1);
  }
}

function rowDistances(out: Float32Array, scratch: Scratch, start: number, width: number, beyond: number, far: number): void {
  const { f, d } = scratch;
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
  envelope(scratch, width + 2);
  for (let x = 0; x < width; x++) out[start + x] = Math.sqrt(d[x + 1]);
}

interface Scratch {
  readonly f: Float64Array;
  readonly d: Float64Array;
  readonly v: Int32Array;
  readonly z: Float64Array;
}

/** Distance of every cell to the nearest one that is not 0, px; nothing lies beyond the raster. */
export function distanceTo(cells: Uint8Array, width: number, height: number): Float32Array {
  const others = new Uint8Array(cells.length);
  for (let i = 0; i < others.length; i++) others[i] = cells[i] === 0 ? 1 : 0;
  return distanceInside(others, width, height, 'free');
}

/** Distance of every cell to the nearest one that lies more than `radiusPx` inside the cells that are not 0: what an opening by a disc keeps is at most that radius away. */
export function distanceToWide(cells: Uint8Array, width: number, height: number, radiusPx: number): Float32Array {
  return distanceTo(cellsAbove(distanceInside(cells, width, height, 'free'), radiusPx), width, height);
}

/** Squared distances along one line: the lower envelope of the parabolas rooted at f. */
function envelope({ f, d, v, z }: Scratch, n: number): void {
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

/** 1 for each value that is larger than a limit. A loop: a callback for every cell would cost more than what the cells are for. */
export function cellsAbove(values: ArrayLike<number>, limit: number): Uint8Array {
  const cells = new Uint8Array(values.length);
  for (let i = 0; i < cells.length; i++) cells[i] = values[i] > limit ? 1 : 0;
  return cells;
}
