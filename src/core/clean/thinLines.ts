import { wordsOf, type Rgba8 } from '../raster/raster.ts';
import { byRows, type Task } from '../task/task.ts';
import { NARROW, PLAIN } from './plainPixels.ts';

/** Nearest and furthest places across a line that are looked at for the plain areas beside it, px. */
const NEAREST = 2;
const FURTHEST = 3;
/**
 * A line's colour lies at least so far off the way between those of its two sides, levels of 255: mixtures along edges, also of tints that ran into each other,
 * lie nearer.
 */
const OFF_THE_WAY = 60;
/** Beside lines that compression has left ripples around nothing is plain: then a pixel is that its four neighbours are as near to as this, levels of 255. */
const RIPPLE = 40;
/** Rows and columns at the picture's frame that are not looked at. */
const MARGIN = FURTHEST + 1;

/**
 * Marks, beside what is plain, the pixels of lines too thin to have any: with plain areas on both sides and a colour that no mixture of the two makes. Where a
 * tone is only there in such lines, as the ink of a drawing that was sent small, they are all that shows it. Single pixels, alone or in a pattern, and what is
 * clear are not marked.
 * @param plain what is marked so far; changed.
 */
export function* markThinLines(picture: Rgba8, alpha: Uint8Array, plain: Uint8Array): Task<void> {
  const { width, height } = picture;
  const words = wordsOf(picture);
  yield* byRows(height - 2 * MARGIN, (y) => markRow(words, alpha, plain, width, (y + MARGIN) * width + MARGIN, (y + MARGIN + 1) * width - MARGIN));
}

function markRow(words: Int32Array, alpha: Uint8Array, plain: Uint8Array, width: number, from: number, to: number): void {
  for (let i = from; i < to; i++) {
    if (plain[i] !== 0 || alpha[i] < 128 || !goesOn(words, i, width)) continue;
    const isLine = (across: number): boolean => isLineAcross(words, plain, width, i, across);
    if (isLine(1) || isLine(width) || isLine(width + 1) || isLine(width - 1)) plain[i] = NARROW;
  }
}

/** Whether one of a pixel's eight neighbours is like it, as along a line. */
function goesOn(words: Int32Array, i: number, width: number): boolean {
  for (let up = -width; up <= width; up += width) {
    for (let k = i + up - 1; k <= i + up + 1; k++) if (k !== i && distance2(words[k], words[i]) < OFF_THE_WAY * OFF_THE_WAY) return true;
  }
  return false;
}

function isLineAcross(words: Int32Array, plain: Uint8Array, width: number, i: number, across: number): boolean {
  const before = plainBeside(words, plain, width, i, -across);
  if (before < 0) return false;
  const after = plainBeside(words, plain, width, i, across);
  return after >= 0 && isOffTheWay(words[i], words[before], words[after]);
}

/** The nearest plain pixel to one side, or else the nearest that is plain but for ripples; −1 when there is neither near. */
function plainBeside(words: Int32Array, plain: Uint8Array, width: number, i: number, across: number): number {
  for (let k = NEAREST; k <= FURTHEST; k++) if (plain[i + k * across] === PLAIN) return i + k * across;
  for (let k = NEAREST; k <= FURTHEST; k++) if (isRippled(words, width, i + k * across)) return i + k * across;
  return -1;
}

function isRippled(words: Int32Array, width: number, i: number): boolean {
  const own = words[i];
  const isNear = (j: number): boolean => distance2(own, words[j]) <= RIPPLE * RIPPLE;
  return isNear(i - 1) && isNear(i + 1) && isNear(i - width) && isNear(i + width);
}

const distance2 = (a: number, b: number): number =>
  ((a & 255) - (b & 255)) ** 2 + (((a >> 8) & 255) - ((b >> 8) & 255)) ** 2 + (((a >> 16) & 255) - ((b >> 16) & 255)) ** 2;

function isOffTheWay(own: number, from: number, to: number): boolean {
  const r = (own & 255) - (from & 255);
  const g = ((own >> 8) & 255) - ((from >> 8) & 255);
  const b = ((own >> 16) & 255) - ((from >> 16) & 255);
  const dr = (to & 255) - (from & 255);
  const dg = ((to >> 8) & 255) - ((from >> 8) & 255);
  const db = ((to >> 16) & 255) - ((from >> 16) & 255);
  const t = Math.max(0, Math.min(1, (r * dr + g * dg + b * db) / Math.max(1, dr * dr + dg * dg + db * db)));
  return (r - t * dr) ** 2 + (g - t * dg) ** 2 + (b - t * db) ** 2 > OFF_THE_WAY * OFF_THE_WAY;
}
