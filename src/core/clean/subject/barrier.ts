/** Scans over the picture, down and up by turns; three come within a few percent of the true distance. */
const SCANS = 3;

/**
 * How high the barrier is that a way from the seeds to each pixel must cross at least: the difference between the highest and the lowest value on it (minimum
 * barrier distance, in the raster-scanning approximation of J. Zhang et al., "Minimum barrier salient object detection at 80 FPS", ICCV 2015,
 * doi:10.1109/ICCV.2015.165). What the ground's own texture and slow light lead to without a step has none.
 * @param plane any values. @param seeds 1 where ways begin. @returns in the unit of the plane, `Infinity` without seeds.
 */
export function barrierFrom(plane: Float32Array, seeds: Uint8Array, width: number): Float32Array {
  const scan: Scan = { plane, distance: new Float32Array(plane.length), highest: plane.slice(), lowest: plane.slice() };
  for (let i = 0; i < seeds.length; i++) scan.distance[i] = seeds[i] !== 0 ? 0 : Infinity;
  const last = plane.length - 1;
  for (let k = 0; k < SCANS; k++) {
    if (k % 2 === 0) scanForth(scan, width, last);
    else scanBack(scan, width, last);
  }
  return scan.distance;
}

interface Scan {
  readonly plane: Float32Array;
  readonly distance: Float32Array;
  /** Highest and lowest value on the best way to each pixel. */
  readonly highest: Float32Array;
  readonly lowest: Float32Array;
}

function scanForth(scan: Scan, width: number, last: number): void {
  for (let i = 0; i <= last; i++) {
    if (i % width !== 0) step(scan, i, i - 1);
    if (i >= width) step(scan, i, i - width);
  }
}

function scanBack(scan: Scan, width: number, last: number): void {
  for (let i = last; i >= 0; i--) {
    if ((i + 1) % width !== 0) step(scan, i, i + 1);
    if (i + width <= last) step(scan, i, i + width);
  }
}

function step({ plane, distance, highest, lowest }: Scan, i: number, from: number): void {
  if (distance[from] === Infinity) return;
  const high = Math.max(highest[from], plane[i]);
  const low = Math.min(lowest[from], plane[i]);
  if (high - low >= distance[i]) return;
  distance[i] = high - low;
  highest[i] = high;
  lowest[i] = low;
}
