import { followedBy, inverseOf, placed, scaling, translation, type Affine } from '../geometry/affine.ts';
import { bent, unbent, type Fan } from '../geometry/fan.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';

/** Places on each edge by which the box around a bent picture is found. */
const ON_EDGE = 64;

/**
 * A picture as it is printed for a taper: read between its pixels by their alpha, at the resolution that it has.
 * @param toDesign from its px to the flat design's mm. @returns the picture, and from its px to the mm of the film.
 */
export function bentPicture(picture: Rgba8, toDesign: Affine, fan: Fan): { readonly picture: Rgba8; readonly toDesign: Affine } {
  const perPx = Math.sqrt(Math.abs(toDesign.a * toDesign.d - toDesign.b * toDesign.c));
  const { left, top, right, bottom } = boxOf(picture, toDesign, fan);
  const [width, height] = [Math.max(1, Math.ceil((right - left) / perPx)), Math.max(1, Math.ceil((bottom - top) / perPx))];
  const data = new Uint8Array(4 * width * height);
  const back = inverseOf(toDesign);
  for (let y = 0, at = 0; y < height; y++) {
    for (let x = 0; x < width; x++, at += 4) {
      const flat = unbent(fan, left + (x + 0.5) * perPx, top + (y + 0.5) * perPx);
      const from = placed(back, flat.x, flat.y);
      read(picture, from.x - 0.5, from.y - 0.5, data, at);
    }
  }
  return { picture: makeRgba8(width, height, data), toDesign: followedBy(scaling(perPx), translation(left, top)) };
}

function boxOf({ width, height }: Rgba8, toDesign: Affine, fan: Fan): { left: number; top: number; right: number; bottom: number } {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let k = 0; k <= ON_EDGE; k++) {
    const t = k / ON_EDGE;
    for (const [x, y] of [[t, 0], [t, 1], [0, t], [1, t]]) {
      const on = placed(toDesign, x * width, y * height);
      const there = bent(fan, on.x, on.y);
      [left, top] = [Math.min(left, there.x), Math.min(top, there.y)];
      [right, bottom] = [Math.max(right, there.x), Math.max(bottom, there.y)];
    }
  }
  return { left, top, right, bottom };
}

/** The picture between four pixels, weighed by how much of each is there; clear beyond its edge. */
function read({ width, height, data }: Rgba8, x: number, y: number, out: Uint8Array, at: number): void {
  const [x0, y0] = [Math.floor(x), Math.floor(y)];
  if (x0 < -1 || y0 < -1 || x0 >= width || y0 >= height) return;
  let [r, g, b, a] = [0, 0, 0, 0];
  for (let k = 0; k < 4; k++) {
    const [px, py] = [x0 + (k & 1), y0 + (k >> 1)];
    if (px < 0 || py < 0 || px >= width || py >= height) continue;
    const i = 4 * (py * width + px);
    const share = (1 - Math.abs(x - px)) * (1 - Math.abs(y - py)) * data[i + 3];
    r += data[i] * share;
    g += data[i + 1] * share;
    b += data[i + 2] * share;
    a += share;
  }
  if (a === 0) return;
  out[at] = Math.round(r / a);
  out[at + 1] = Math.round(g / a);
  out[at + 2] = Math.round(b / a);
  out[at + 3] = Math.round(a);
}
