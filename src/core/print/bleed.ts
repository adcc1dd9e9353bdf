import { makeRgba8, type Rgba8 } from '../raster/raster.ts';

/** What is at least so opaque gives its colour to what runs out, alpha. */
const SOLID = 128;

/**
 * A picture whose colours run out over their edge by so many pixels, larger by as much on each side: what is clear takes the colour of the nearest inked pixel, ring after ring.
 * Soft rims become solid, since they lie inside of what is cut then. O(pixels).
 * @returns the picture, and how many px lie before its old upper left.
 */
export function withBleed({ width, height, data }: Rgba8, byPx: number): { readonly picture: Rgba8; readonly padPx: number } {
  const pad = Math.ceil(byPx);
  if (pad <= 0) return { picture: makeRgba8(width, height, Uint8Array.from(data)), padPx: 0 };
  const [w, h] = [width + 2 * pad, height + 2 * pad];
  const out = new Uint8Array(4 * w * h);
  /** Of each pixel, the pixel that it has its colour from; itself where it is inked; −1 as long as there is none. */
  const from = new Int32Array(w * h).fill(-1);
  let ring: number[] = [];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [at, to] = [4 * (y * width + x), (y + pad) * w + x + pad];
      for (let k = 0; k < 4; k++) out[4 * to + k] = data[at + k];
      if (data[at + 3] < SOLID) continue;
      from[to] = to;
      ring.push(to);
    }
  }
  const reach2 = byPx * byPx;
  while (ring.length > 0) {
    const next: number[] = [];
    for (const at of ring) {
      const [x, y, source] = [at % w, (at / w) | 0, from[at]];
      const [sx, sy] = [source % w, (source / w) | 0];
      for (const [nx, ny] of [[x - 1, y], [x + 1, y], [x, y - 1], [x, y + 1]]) {
        if (nx < 0 || ny < 0 || nx >= w || ny >= h || from[ny * w + nx] >= 0 || (nx - sx) ** 2 + (ny - sy) ** 2 > reach2) continue;
        from[ny * w + nx] = source;
        next.push(ny * w + nx);
      }
    }
    ring = next;
  }
  for (let k = 0; k < from.length; k++) {
    const source = from[k];
    if (source < 0 || source === k) continue;
    // What is half there already keeps its share of its own colour.
    const own = out[4 * k + 3] / 255;
    for (let channel = 0; channel < 3; channel++) out[4 * k + channel] = Math.round(out[4 * k + channel] * own + out[4 * source + channel] * (1 - own));
    out[4 * k + 3] = 255;
  }
  return { picture: makeRgba8(w, h, out), padPx: pad };
}
