import { wordsOf, type Rgba8 } from '../raster/raster.ts';
import { NARROW, PLAIN } from './plainPixels.ts';

/** Nearest and furthest places across a line that are looked at for the plain areas beside it, px. */
const NEAREST = 2;
const FURTHEST = 3;
/**
 * A line's colour lies at least so far off the way between those of its two sides, levels of 255: mixtures along edges, also of tints that ran into each other,
 * lie nearer.
 */
const OFF_THE_WAY = 60;

/**
 * Marks, beside what is plain, the pixels of lines too thin to have any: with plain areas on both sides and a colour that no mixture of the two makes. Where a
 * tone is only there in such lines, as the ink of a drawing that was sent small, they are all that shows it. Single pixels, alone or in a pattern, are not
 * marked.
 * @param plain what is marked so far; changed.
 */
export function markThinLines(picture: Rgba8, plain: Uint8Array): void {
  const { width, height } = picture;
  const words = wordsOf(picture);
  for (let y = FURTHEST; y < height - FURTHEST; y++) markRow(words, plain, width, y * width + FURTHEST, (y + 1) * width - FURTHEST);
}

function markRow(words: Int32Array, plain: Uint8Array, width: number, from: number, to: number): void {
  for (let i = from; i < to; i++) {
    if (plain[i] !== 0 || !goesOn(words, i, width)) continue;
    if (isLine(words, plain, i, 1) || isLine(words, plain, i, width) || isLine(words, plain, i, width + 1) || isLine(words, plain, i, width - 1))
      plain[i] = NARROW;
  }
}

/** Whether one of a pixel's eight neighbours is like it, as along a line. */
function goesOn(words: Int32Array, i: number, width: number): boolean {
  for (let up = -width; up <= width; up += width) {
    for (let k = i + up - 1; k <= i + up + 1; k++) if (k !== i && distance2(words[k], words[i]) < OFF_THE_WAY * OFF_THE_WAY) return true;
  }
  return false;
}

function isLine(words: Int32Array, plain: Uint8Array, i: number, across: number): boolean {
  const before = plainBeside(plain, i, -across);
  if (before < 0) return false;
  const after = plainBeside(plain, i, across);
  return after >= 0 && isOffTheWay(words[i], words[before], words[after]);
}

function plainBeside(plain: Uint8Array, i: number, across: number): number {
  for (let k = NEAREST; k <= FURTHEST; k++) if (plain[i + k * across] === PLAIN) return i + k * across;
  return -1;
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
