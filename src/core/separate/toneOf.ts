import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { wordsOf } from '../raster/raster.ts';
import { lumaAt } from '../raster/luma.ts';

/** Pixels looked at, at most. */
const SAMPLES = 10_000;

/** The middle colour (per channel) of the pixels that are there and whose lightness on white lies from `least` to `most`; black when there is none. */
export function toneOf(art: Art, least: number, most: number): Rgb {
  const words = wordsOf(art.colour);
  const { alpha } = art;
  const red = new Uint32Array(256);
  const green = new Uint32Array(256);
  const blue = new Uint32Array(256);
  const step = Math.max(1, Math.floor(alpha.length / SAMPLES)) | 1;
  let total = 0;
  for (let i = 0; i < alpha.length; i += step) {
    if (alpha[i] < 128) continue;
    const value = lumaAt(words, alpha, i);
    if (value < least || value > most) continue;
    total++;
    const word = words[i];
    red[word & 255]++;
    green[(word >> 8) & 255]++;
    blue[(word >> 16) & 255]++;
  }
  return { r: middle(red, total), g: middle(green, total), b: middle(blue, total) };
}

function middle(histogram: Uint32Array, total: number): number {
  let seen = 0;
  for (let v = 0; v < 256; v++) {
    seen += histogram[v];
    if (seen * 2 >= total && total > 0) return v;
  }
  return 0;
}
