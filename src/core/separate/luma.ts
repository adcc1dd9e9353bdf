import type { Art } from '../raster/art.ts';

/** Rec. 709 weights in 1/65536, summing to 65536, so that white stays 255. */
const RED = 13933;
const GREEN = 46871;
const BLUE = 4732;

/** Light and dark of the art on white, 0 black to 255 white, one byte a pixel: what is clear counts as white. */
export function lumaOnWhite(art: Art): Uint8Array {
  const rgb = art.colour.data;
  const { alpha } = art;
  const luma = new Uint8Array(alpha.length);
  for (let i = 0, c = 0; i < luma.length; i++, c += 4) {
    const value = (RED * rgb[c] + GREEN * rgb[c + 1] + BLUE * rgb[c + 2] + 32768) >>> 16;
    const a = alpha[i];
    luma[i] = a === 255 ? value : 255 - (((255 - value) * a + 127) / 255 | 0);
  }
  return luma;
}

/** How many values of each lightness there are, 256 counts. */
export function histogramOf(luma: Uint8Array): Float64Array {
  const histogram = new Float64Array(256);
  for (let i = 0; i < luma.length; i++) histogram[luma[i]]++;
  return histogram;
}
