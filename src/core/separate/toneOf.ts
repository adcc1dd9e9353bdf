import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';

/** Pixels looked at, at most: a tone's colour does not get truer by reading all of twelve million. */
const SAMPLES = 200_000;

/** The middle colour (per channel) of the pixels that `belongs` accepts by lightness and alpha; black when there is none. */
export function toneOf(art: Art, luma: Uint8Array, belongs: (luma: number, alpha: number) => boolean): Rgb {
  const rgb = art.colour.data;
  const counts = [new Uint32Array(256), new Uint32Array(256), new Uint32Array(256)];
  const step = Math.max(1, Math.floor(luma.length / SAMPLES));
  let total = 0;
  for (let i = 0; i < luma.length; i += step) {
    if (art.alpha[i] < 128 || !belongs(luma[i], art.alpha[i])) continue;
    total++;
    for (let c = 0; c < 3; c++) counts[c][rgb[i * 4 + c]]++;
  }
  const middle = (histogram: Uint32Array): number => {
    let seen = 0;
    for (let v = 0; v < 256; v++) {
      seen += histogram[v];
      if (seen * 2 >= total && total > 0) return v;
    }
    return 0;
  };
  return { r: middle(counts[0]), g: middle(counts[1]), b: middle(counts[2]) };
}
