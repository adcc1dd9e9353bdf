import { lumaOf } from '../colour/hex.ts';
import { enlarge } from '../clean/enlarge.ts';
import { pictureFromArt, type Art } from '../raster/art.ts';
import { boxBlurred } from '../raster/boxBlur.ts';
import { cropArt } from '../raster/crop.ts';
import { resample } from '../raster/shrink.ts';
import { within, type Task } from '../task/task.ts';

/**
 * Where the mean over 3 × 3 px differs from a drawing by more than this, levels of light or of alpha, so much more a level of noise, the drawing lacks something:
 * noise and the ripples of compression cancel out in it, a line or a dot that is not drawn does not. Restless art ripples over more pixels, and steps that the
 * drawing evens out are half a pixel high.
 */
const LACKING = 24;
const LACKING_UNEVEN = 60;
const LACKING_NOISY = 2;
/** So many times as much in one colour: compression keeps colour coarsely. */
const OF_COLOUR = 2.5;
/** So far around such a place the art's own pixels are taken, px, which pass into the drawing over so much. */
const AROUND_PX = 3;
const FADE_PX = 1.5;

/** How restless an art is: its noise, levels, whether noise or compression ripples over its plain places, and whether its edges run in steps. */
export interface Unrest {
  readonly noise: number;
  readonly restless: boolean;
  readonly stepped: boolean;
}

/** Marks of an art's pixels. */
export interface Lacking {
  readonly width: number;
  readonly height: number;
  readonly marks: Uint8Array;
}

export const isLacking = ({ marks }: Lacking): boolean => marks.includes(1);

/** 1 for each pixel of an art of which a larger drawing, averaged over it and those around it, is something else. */
export function lackingIn(drawn: Art, art: Art, { noise, restless, stepped }: Unrest): Lacking {
  const { width, height } = art;
  const now = resample(pictureFromArt(drawn), 0, 0, drawn.width, drawn.height, width, height).data;
  const was = pictureFromArt(art).data;
  const [red, green, blue, alpha, light] = [0, 1, 2, 3, 4].map(() => new Float32Array(width * height));
  for (let i = 0, j = 0; i < red.length; i++, j += 4) {
    red[i] = (now[j] * now[j + 3] - was[j] * was[j + 3]) / 255;
    green[i] = (now[j + 1] * now[j + 3] - was[j + 1] * was[j + 3]) / 255;
    blue[i] = (now[j + 2] * now[j + 3] - was[j + 2] * was[j + 3]) / 255;
    alpha[i] = now[j + 3] - was[j + 3];
    light[i] = lumaOf({ r: red[i], g: green[i], b: blue[i] });
  }
  const most = (restless || stepped ? LACKING_UNEVEN : LACKING) + LACKING_NOISY * noise;
  const marks = new Uint8Array(width * height);
  for (const off of [light, alpha]) markOver(marks, off, width, height, most);
  for (const off of [red, green, blue]) markOver(marks, off, width, height, OF_COLOUR * most);
  return { width, height, marks };
}

/** Marks where the mean over 3 × 3 px is more than `most`, to either side. */
function markOver(marks: Uint8Array, off: Float32Array, width: number, height: number, most: number): void {
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
      let sum = 0;
      for (let j = i - width; j <= i + width; j += width) sum += off[j - 1] + off[j] + off[j + 1];
      if (Math.abs(sum) > 9 * most) marks[i] = 1;
    }
  }
}

/**
 * A drawing with the enlarged art itself near to what it lacks; only there the art is enlarged, tile by tile. `drawn` is changed.
 * @param times so many px of the drawing lie on one of the art, across and down. @param restless whether the art is.
 */
export function* withArtNear({ width, height, marks }: Lacking, drawn: Art, art: Art, times: 2 | 4, restless: boolean): Task<Art> {
  const share = shareNear({ width, height, marks });
  const fromCorner: Art = { ...art, frame: { leftPx: 0, topPx: 0, scale: 1 } };
  for (let top = 0; top < height; top += TILE_PX) {
    for (let left = 0; left < width; left += TILE_PX) {
      const tile = { left, top, right: Math.min(width, left + TILE_PX), bottom: Math.min(height, top + TILE_PX) };
      if (!hasShare(share, width, tile)) continue;
      const [x, y] = [Math.max(0, left - BESIDE_PX), Math.max(0, top - BESIDE_PX)];
      const around = cropArt(fromCorner, { xPx: x, yPx: y, widthPx: tile.right + BESIDE_PX - x, heightPx: tile.bottom + BESIDE_PX - y });
      mix(drawn, yield* within(enlarge(around, times, restless), top / height, top / height), { x: x * times, y: y * times }, share, tile, times);
      yield (top + (left / width) * TILE_PX) / height;
    }
  }
  return drawn;
}

/** Side of the squares that are enlarged by themselves, px, and what is enlarged with them: further pixels have no part in what a pixel becomes. */
const TILE_PX = 96;
const BESIDE_PX = 16;

interface Tile {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

function hasShare(share: Float32Array, width: number, { left, top, right, bottom }: Tile): boolean {
  for (let y = top; y < bottom; y++) for (let i = y * width + left; i < y * width + right; i++) if (share[i] > 0) return true;
  return false;
}

/** Mixes a tile's share of an enlarged part into a drawing. @param at where the part lies in the drawing, px. */
function mix(drawn: Art, part: Art, at: { readonly x: number; readonly y: number }, share: Float32Array, tile: Tile, times: number): void {
  const { alpha, width } = drawn;
  const { data } = drawn.colour;
  for (let y = tile.top * times; y < tile.bottom * times; y++) {
    const row = Math.floor(y / times) * (width / times);
    for (let x = tile.left * times; x < tile.right * times; x++) {
      const taken = share[row + Math.floor(x / times)];
      if (taken <= 0) continue;
      const [to, from] = [y * width + x, (y - at.y) * part.width + x - at.x];
      alpha[to] = Math.round(alpha[to] + taken * (part.alpha[from] - alpha[to]));
      for (let c = 0; c < 3; c++) data[4 * to + c] = Math.round(data[4 * to + c] + taken * (part.colour.data[4 * from + c] - data[4 * to + c]));
    }
  }
}

/** How much of the art itself is taken at each pixel, 0 to 1. */
function shareNear({ width, height, marks }: Lacking): Float32Array {
  const near = new Float32Array(marks.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (marks[y * width + x] === 0) continue;
      const [from, to] = [Math.max(0, x - AROUND_PX), Math.min(width, x + AROUND_PX + 1)];
      for (let v = Math.max(0, y - AROUND_PX); v <= Math.min(height - 1, y + AROUND_PX); v++) near.fill(1, v * width + from, v * width + to);
    }
  }
  return boxBlurred(near, width, height, FADE_PX);
}
