import type { Rgb } from '../colour/oklab.ts';
import { withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { Softening } from './softening.ts';

/**
 * Clears the pixels of `lifted` and gives the mixed pixels on both sides of its edge the share of art they hold: their colour lies on the way from the ground
 * as it is there to the art's colour beside it, both read where they are plain; the ground's tint is taken out of them (the compositing equation solved for
 * alpha; Porter & Duff, "Compositing digital images", SIGGRAPH 1984, doi:10.1145/800031.808606). So the edge stays where it was inside of the pixels.
 * @param lifted 1 where the art goes clear.
 * @param ground the colour that was lifted, for places where none of it is plain.
 * @param soft false for hard edges: no mixed pixels at all.
 * @param stays 1 for pixels of about the ground's colour that are art; they and what is beside them are no mixtures with the ground.
 */
export function clearLifted(art: Art, lifted: Uint8Array, ground: Rgb, soft: boolean, stays?: Uint8Array): Art {
  const { width, height } = art;
  const alpha = art.alpha.slice();
  for (let y = 0; y < height; y++) clearRow(alpha, lifted, y * width, (y + 1) * width);
  if (!soft) return withAlpha(art, alpha);
  const softening = new Softening(art, lifted, ground, stays);
  let out: Uint8Array | undefined;
  for (const i of softening.rim()) {
    if (!softening.isMixed(i)) continue;
    alpha[i] = Math.round(art.alpha[i] * softening.share);
    if (softening.share === 0) continue;
    out ??= new Uint8Array(art.colour.data);
    out.set(softening.colour, 4 * i);
  }
  return withAlpha(art, alpha, out === undefined ? art.colour : makeRgba8(width, height, out, art.colour.opaque === true));
}

function clearRow(alpha: Uint8Array, lifted: Uint8Array, from: number, to: number): void {
  for (let i = from; i < to; i++) if (lifted[i] !== 0) alpha[i] = 0;
}
