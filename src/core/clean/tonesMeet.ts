import type { Rgb } from '../colour/oklab.ts';
import type { Rgba8 } from '../raster/raster.ts';
import { PLAIN } from './plainPixels.ts';

/** How far apart two areas may be to count as meeting: the width of a soft edge, px. */
const EDGE_PX = 5;
/** Rows that are looked at. */
const ROWS = 400;
/** Of the places where two tones meet, so many may be without an edge. */
const SMOOTH = 0.2;
/** The same in pixels, where they hardly meet. */
const FEW = 6;

/**
 * Whether two near colours are tones of their own: where their areas meet there is an edge. In shading one colour passes into the next without any.
 * @param plain `PLAIN` in the middle of plain places. Looks at some rows, pixel by pixel.
 */
export function meetAtEdges({ data, width, height }: Rgba8, plain: Uint8Array, a: Rgb, b: Rgb): boolean {
  const most2 = distance2(a, b) / 3;
  let [smooth, sharp] = [0, 0];
  for (let y = 0; y < height; y += Math.max(1, Math.floor(height / ROWS))) {
    let last = 0;
    let lastAt = -EDGE_PX;
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (plain[i] !== PLAIN) continue;
      const side = sideOf(data, i, a, b, most2);
      if (side === 0) continue;
      if (side !== last && x - lastAt <= EDGE_PX) {
        if (x - lastAt === 1) smooth++;
        else sharp++;
      }
      last = side;
      lastAt = x;
    }
  }
  return smooth <= Math.max(FEW, SMOOTH * (smooth + sharp));
}

/** −1 for a pixel of the first colour, 1 for one of the second, 0 for one of neither. */
function sideOf(data: Rgba8['data'], i: number, a: Rgb, b: Rgb, most2: number): number {
  const fromA = offBy2(data, i, a);
  const fromB = offBy2(data, i, b);
  return Math.min(fromA, fromB) > most2 ? 0 : fromA < fromB ? -1 : 1;
}

const offBy2 = (data: Rgba8['data'], i: number, { r, g, b }: Rgb): number => (data[4 * i] - r) ** 2 + (data[4 * i + 1] - g) ** 2 + (data[4 * i + 2] - b) ** 2;
const distance2 = (a: Rgb, b: Rgb): number => (a.r - b.r) ** 2 + (a.g - b.g) ** 2 + (a.b - b.b) ** 2;
