import { wordsOf, type Rgba8 } from '../raster/raster.ts';
import { byRows, type Task } from '../task/task.ts';

/** Marks of pixels: in the middle of a plain place, or at the side of one, which is all that a line of two pixels has. */
export const PLAIN = 1;
export const NARROW = 2;

/** `PLAIN` where a pixel is there and none of its four neighbours differs by more than `most` in any channel, `NARROW` where one does. */
export function* plainPixels(picture: Rgba8, alpha: Uint8Array, most: number): Task<Uint8Array> {
  const { width, height } = picture;
  const words = wordsOf(picture);
  const plain = new Uint8Array(width * height);
  // Whether each pixel is like the one above it, for this row and the next: every pair is compared once.
  let above = new Uint8Array(width).fill(1);
  let below = new Uint8Array(width);
  yield* byRows(height, (y) => {
    if (y < height - 1) likeBelow(words, below, width, y * width, most);
    else below.fill(1);
    plainRow(words, alpha, plain, width, y * width, most, above, below);
    [above, below] = [below, above];
  });
  return plain;
}

function likeBelow(words: Int32Array, below: Uint8Array, width: number, start: number, most: number): void {
  for (let x = 0, i = start; x < width; x++, i++) below[x] = words[i] === words[i + width] ? 1 : isLike(words[i], words[i + width], most);
}

function plainRow(
  words: Int32Array,
  alpha: Uint8Array,
  plain: Uint8Array,
  width: number,
  start: number,
  most: number,
  above: Uint8Array,
  below: Uint8Array,
): void {
  let left = 1;
  for (let x = 0, i = start; x < width; x++, i++) {
    const right = x === width - 1 || words[i] === words[i + 1] ? 1 : isLike(words[i], words[i + 1], most);
    const alike = left + right + above[x] + below[x];
    left = right;
    if (alpha[i] >= 128) plain[i] = alike === 4 ? PLAIN : alike === 3 ? NARROW : 0;
  }
}

function isLike(a: number, b: number, most: number): number {
  return Math.abs((a & 255) - (b & 255)) <= most &&
    Math.abs(((a >> 8) & 255) - ((b >> 8) & 255)) <= most &&
    Math.abs(((a >> 16) & 255) - ((b >> 16) & 255)) <= most
    ? 1
    : 0;
}
