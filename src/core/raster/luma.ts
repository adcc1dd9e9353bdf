import type { Art } from './art.ts';
import { BAND, wordsOf } from './raster.ts';

/** Rec. 709 weights in 1/65536, summing to 65536, so that white stays 255. */
const RED = 13933;
const GREEN = 46871;
const BLUE = 4732;

/** Lightness of a pixel word (red in the lowest byte), 0 black to 255 white. Whole-number products, which stay in machine integers. */
export const lumaOfWord = (word: number): number =>
  (((Math.imul(RED, word & 255) + Math.imul(GREEN, (word >> 8) & 255)) | 0) + Math.imul(BLUE, (word >> 16) & 255) + 32768) >> 16;

/** Lightness on white of art pixel `i`: what is clear counts as white. */
export function lumaAt(words: Int32Array, alpha: Uint8Array, i: number): number {
  const value = lumaOfWord(words[i]);
  return alpha[i] === 255 ? value : 255 - ((((255 - value) * alpha[i] + 127) / 255) | 0);
}

/** More pixels than this are only sampled: the share of a tone is then within a fifth of a percent, and no tone moves. */
const SAMPLES = 150_000;

/** How many of the pixels looked at have each lightness (256 counts), and how many of them are at least half there. */
export function lumaHistogram(art: Art): { histogram: Float64Array; there: number; seen: number } {
  const words = wordsOf(art.colour);
  const { alpha } = art;
  const count = alpha.length;
  // An odd step does not fall in with the rows of a picture of even width.
  const step = count <= SAMPLES ? 1 : Math.ceil(count / SAMPLES) | 1;
  const counts = new Int32Array(256);
  let there = 0;
  const band = BAND * step;
  for (let from = 0; from < count; from += band) there += countBand(words, alpha, counts, from, Math.min(count, from + band), step);
  return { histogram: Float64Array.from(counts), there, seen: Math.ceil(count / step) };
}

/**
 * Counts a band of pixels. Equal pixels in a row are counted together: a counter that every step adds to would make each step wait for the one
 * before. Gives how many are at least half there.
 */
function countBand(words: Int32Array, alpha: Uint8Array, counts: Int32Array, from: number, to: number, step: number): number {
  let there = 0;
  for (let i = from; i < to;) {
    const word = words[i];
    const value = alpha[i];
    const at = lumaAt(words, alpha, i);
    let run = 0;
    do {
      run++;
      i += step;
    } while (i < to && words[i] === word && alpha[i] === value);
    counts[at] += run;
    if (value >= 128) there += run;
  }
  return there;
}

/** Looks each pixel's lightness on white up in a table of 256 and gives the answers, one byte a pixel. */
export function throughTable(art: Art, table: Uint8Array, opaque: boolean): Uint8Array {
  const words = wordsOf(art.colour);
  const { alpha } = art;
  const count = alpha.length;
  const out = new Uint8Array(count);
  for (let from = 0; from < count; from += BAND) {
    const to = Math.min(count, from + BAND);
    if (opaque) tableBand(words, table, out, from, to);
    else for (let i = from; i < to; i++) out[i] = table[lumaAt(words, alpha, i)];
  }
  return out;
}

/** Art repeats its colours from pixel to pixel, so the last colour's answer is kept. */
function tableBand(words: Int32Array, table: Uint8Array, out: Uint8Array, from: number, to: number): void {
  let lastWord = words[from];
  let last = table[lumaOfWord(lastWord)];
  for (let i = from; i < to; i++) {
    const word = words[i];
    if (word !== lastWord) {
      lastWord = word;
      last = table[lumaOfWord(word)];
    }
    out[i] = last;
  }
}
