/**
 * Distance of every cell that is not 0 to the nearest cell that is, centre to centre, px; exact, in two passes of lower envelopes of parabolas
 * (P. F. Felzenszwalb & D. P. Huttenlocher, "Distance transforms of sampled functions", Theory of Computing 8, 2012,
 * doi:10.4086/toc.2012.v008a019). O(cells).
 * @param outside what lies beyond the raster: `zero` cells (the default), or nothing at all, `free`.
 */
export function distanceInside(cells: Uint8Array, width: number, height: number, outside: 'zero' | 'free' = 'zero'): Float32Array {
  const FAR = (width + height + 2) ** 2;
  const out = new Float32Array(cells.length);
  const beyond = outside === 'zero' ? 0 : FAR;
  const longest = Math.max(width, height) + 2;
  const scratch = { f: new Float64Array(longest), d: new Float64Array(longest), v: new Int32Array(longest), z: new Float64Array(longest + 1) };
  for (let x = 0; x < width; x++) {
    scratch.f[0] = scratch.f[height + 1] = beyond;
    for (let y = 0; y < height; y++) scratch.f[y + 1] = cells[y * width + x] === 0 ? 0 : FAR;
    envelope(scratch, height + 2);
    for (let y = 0; y < height; y++) out[y * width + x] = scratch.d[y + 1];
  }
  for (let y = 0; y < height; y++) {
    scratch.f[0] = scratch.f[width + 1] = beyond;
    for (let x = 0; x < width; x++) scratch.f[x + 1] = out[y * width + x];
    envelope(scratch, width + 2);
    for (let x = 0; x < width; x++) out[y * width + x] = Math.sqrt(scratch.d[x + 1]);
  }
  return out;
}

/** Distance of every cell to the nearest one that is not 0, px; nothing lies beyond the raster. */
export function distanceTo(cells: Uint8Array, width: number, height: number): Float32Array {
  return distanceInside(cells.map((v) => (v === 0 ? 1 : 0)), width, height, 'free');
}

/** Distance of every cell to the nearest one that lies more than `radiusPx` inside the cells that are not 0: what an opening by a disc keeps is at most that radius away. */
export function distanceToWide(cells: Uint8Array, width: number, height: number, radiusPx: number): Float32Array {
  return distanceTo(Uint8Array.from(distanceInside(cells, width, height, 'free'), (inside) => (inside > radiusPx ? 1 : 0)), width, height);
}

/** Squared distances along one line: the lower envelope of the parabolas rooted at f. */
function envelope({ f, d, v, z }: { f: Float64Array; d: Float64Array; v: Int32Array; z: Float64Array }, n: number): void {
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
