/** Scans over the picture, down and up by turns: ways that turn back more often are found a little too long. */
const SCANS = 8;

/**
 * Length of the shortest way to each pixel, where every pixel costs something to enter (generalised distance transform by raster scans; P. J. Toivanen, "New
 * geodesic distance transforms for gray-scale images", Pattern Recognition Letters 17(5), 1996, doi:10.1016/0167-8655(96)00010-4).
 * @param cost above 0 for each pixel. @param seeds 1 where ways begin. @returns in the unit of the cost, `Infinity` without seeds.
 */
export function wayFrom(cost: Float32Array, seeds: Uint8Array, width: number): Float32Array {
  const way = new Float32Array(cost.length);
  const last = cost.length - 1;
  for (let i = 0; i <= last; i++) way[i] = seeds[i] !== 0 ? 0 : Infinity;
  for (let k = 0; k < SCANS; k += 2) {
    for (let i = 0; i <= last; i++) {
      if (i % width !== 0) way[i] = Math.min(way[i], way[i - 1] + cost[i]);
      if (i >= width) way[i] = Math.min(way[i], way[i - width] + cost[i]);
    }
    for (let i = last; i >= 0; i--) {
      if ((i + 1) % width !== 0) way[i] = Math.min(way[i], way[i + 1] + cost[i]);
      if (i + width <= last) way[i] = Math.min(way[i], way[i + width] + cost[i]);
    }
  }
  return way;
}
