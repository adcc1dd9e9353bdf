import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { lumaOfWord } from '../raster/luma.ts';
import { makeRgba8, wordsOf } from '../raster/raster.ts';

/**
 * The art with every pixel in the colour of its own tone of lightness: what films of a photo are held against.
 * @param steps lightness 0 to 255 at which one tone passes into the next, ascending. @param colours of the tones, darkest first, one more than there are steps.
 */
export function posterised(art: Art, steps: readonly number[], colours: readonly Rgb[]): Art {
  const words = wordsOf(art.colour);
  const table = Array.from({ length: 256 }, (_, value) => colours[steps.filter((step) => value >= step).length] ?? colours[colours.length - 1]);
  const data = new Uint8Array(words.length * 4);
  for (let i = 0, j = 0; i < words.length; i++, j += 4) {
    const { r, g, b } = table[lumaOfWord(words[i])];
    data[j] = r;
    data[j + 1] = g;
    data[j + 2] = b;
    data[j + 3] = 255;
  }
  return { ...art, colour: makeRgba8(art.width, art.height, data) };
}
