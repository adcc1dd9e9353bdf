import type { Art } from '../raster/art.ts';
import { wordsOf } from '../raster/raster.ts';

/** Rec. 709 weights in 1/65536, summing to 65536, so that white stays 255. */
const RED = 13933;
const GREEN = 46871;
const BLUE = 4732;

/** Lightness of a pixel word (red in the lowest byte), 0 black to 255 white. */
export const lumaOfWord = (word: number): number => (RED * (word & 255) + GREEN * ((word >> 8) & 255) + BLUE * ((word >> 16) & 255) + 32768) >> 16;

/** Lightness on white of art pixel `i`: what is clear counts as white. */
export function lumaAt(words: Uint32Array, alpha: Uint8Array, i: number): number {
  const value = lumaOfWord(words[i]);
  return alpha[i] === 255 ? value : 255 - ((((255 - value) * alpha[i] + 127) / 255) | 0);
}

/** Whether no pixel is clear, not even partly. Looks at four at a time. */
export function isOpaque(alpha: Uint8Array): boolean {
  let i = 0;
  if (alpha.byteOffset % 4 === 0) {
    const fours = new Uint32Array(alpha.buffer, alpha.byteOffset, alpha.length >> 2);
    for (let k = 0; k < fours.length; k++) if (fours[k] !== 0xffffffff) return false;
    i = fours.length * 4;
  }
  for (; i < alpha.length; i++) if (alpha[i] !== 255) return false;
  return true;
}

/** More pixels than this are only sampled: tones do not get truer by reading all of twelve million. */
const SAMPLES = 700_000;

/** How many of the pixels looked at have each lightness (256 counts), and how many of them are at least half there. */
export function lumaHistogram(art: Art): { histogram: Float64Array; there: number; seen: number } {
  const words = wordsOf(art.colour);
  const { alpha } = art;
  const histogram = new Float64Array(256);
  // An odd step does not fall in with the rows of a picture of even width.
  const step = alpha.length <= SAMPLES ? 1 : Math.ceil(alpha.length / SAMPLES) | 1;
  let there = 0;
  let seen = 0;
  for (let i = 0; i < alpha.length; i += step) {
    histogram[lumaAt(words, alpha, i)]++;
    if (alpha[i] >= 128) there++;
    seen++;
  }
  return { histogram, there, seen };
}

/**
 * Looks each pixel's lightness on white up in a table of 256 and gives the answers, one byte a pixel. Art repeats its colours from pixel to pixel,
 * so the last colour's answer is kept.
 */
export function throughTable(art: Art, table: Uint8Array, opaque: boolean): Uint8Array {
  const words = wordsOf(art.colour);
  const { alpha } = art;
  const count = alpha.length;
  const out = new Uint8Array(count);
  let lastWord = 0;
  let last = table[lumaOfWord(0)];
  if (opaque) {
    for (let i = 0; i < count; i++) {
      const word = words[i];
      if (word !== lastWord) {
        lastWord = word;
        last = table[(RED * (word & 255) + GREEN * ((word >> 8) & 255) + BLUE * ((word >> 16) & 255) + 32768) >> 16];
      }
      out[i] = last;
    }
  } else for (let i = 0; i < count; i++) out[i] = table[lumaAt(words, alpha, i)];
  return out;
}
