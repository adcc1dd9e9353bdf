import type { Rgba8 } from '../raster/raster.ts';
import { byRows, type Task } from '../task/task.ts';

/** Changes within a block of 3 × 3 pixels, green levels: above this it holds an edge, from `RIPPLE` on it is no plain one. */
const EDGE = 24;
const RIPPLE = 4;
/** Flat art is restless when so many of its blocks without an edge ripple, and so many for each block with one: soft tails of edges do too, in far fewer. */
const OF_PLAIN = 0.04;
const OF_EDGES = 0.6;
/** Where fewer blocks than this share are without an edge, noise is so strong that it looks like edges. */
const LEAST_PLAIN = 0.05;

/**
 * Whether flat art carries noise or what compression leaves around edges, which a mean over the picture does not tell from a clean one (`noiseLevel`): most of
 * it is plain in both. Every pixel of every second row is looked at.
 */
export function* isRestless(picture: Rgba8): Task<boolean> {
  const { width, height } = picture;
  const seen = { plain: 0, rippled: 0, edges: 0 };
  yield* byRows(Math.ceil((height - 2) / 2), (k) => lookAlong(picture, 1 + 2 * k, seen));
  if (seen.plain < LEAST_PLAIN * (seen.plain + seen.edges)) return true;
  return seen.rippled > OF_PLAIN * seen.plain && seen.rippled > OF_EDGES * seen.edges && width > 2;
}

function lookAlong({ data, width }: Rgba8, y: number, seen: { plain: number; rippled: number; edges: number }): void {
  const stride = 4 * width;
  for (let x = 1, i = y * stride + 5; x < width - 1; x++, i += 4) {
    let low = 255;
    let high = 0;
    for (let row = i - stride; row <= i + stride; row += stride) {
      for (let j = row - 4; j <= row + 4; j += 4) {
        if (data[j] < low) low = data[j];
        if (data[j] > high) high = data[j];
      }
    }
    const change = high - low;
    if (change > EDGE) seen.edges++;
    else {
      seen.plain++;
      if (change >= RIPPLE) seen.rippled++;
    }
  }
}
