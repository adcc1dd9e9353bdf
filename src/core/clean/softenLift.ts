import type { Rgb } from '../colour/oklab.ts';
import { withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';

/** Mixed pixels that hold more than this share of the art keep it whole: a lower share is mixture, a higher one is noise of the art. */
const WHOLE = 0.94;

/**
 * Clears the pixels of `lifted` and gives the mixed pixels along its edge the share of art they hold, by placing their colour on the line
 * between the lifted ground and the strongest art colour nearby; the ground's tint is taken out of them (the compositing equation solved
 * for alpha; Porter & Duff, "Compositing digital images", SIGGRAPH 1984, doi:10.1145/800031.808606).
 * @param lifted 1 where the art goes clear.
 * @param ground the colour that was lifted.
 * @param soft false for hard edges: no mixed pixels at all.
 */
export function clearLifted(art: Art, lifted: Uint8Array, ground: Rgb, soft: boolean): Art {
  const { width, height } = art;
  const alpha = art.alpha.slice();
  const work: Softening = { art, lifted, ground, alpha, out: undefined };
  for (let y = 0; y < height; y++) {
    clearRow(alpha, lifted, y * width, (y + 1) * width);
    if (soft) softenRow(work, y);
  }
  return withAlpha(art, alpha, work.out === undefined ? art.colour : makeRgba8(width, height, work.out, art.colour.opaque === true));
}

interface Softening {
  readonly art: Art;
  readonly lifted: Uint8Array;
  readonly ground: Rgb;
  readonly alpha: Uint8Array;
  /** The colours, once one has changed. */
  out: Uint8Array | undefined;
}

function clearRow(alpha: Uint8Array, lifted: Uint8Array, from: number, to: number): void {
  for (let i = from; i < to; i++) if (lifted[i] !== 0) alpha[i] = 0;
}

function softenRow(work: Softening, y: number): void {
  const { art, lifted, ground, alpha } = work;
  const { width, height } = art;
  const rgb = art.colour.data;
  for (let x = 0, i = y * width; x < width; x++, i++) {
    if (lifted[i] !== 0 || art.alpha[i] === 0 || !touchesLifted(lifted, width, height, x, y)) continue;
    const strongest = strongestNear(art, lifted, x, y, ground);
    if (strongest < 0) continue;
    const dr = rgb[strongest * 4] - ground.r;
    const dg = rgb[strongest * 4 + 1] - ground.g;
    const db = rgb[strongest * 4 + 2] - ground.b;
    const length = dr * dr + dg * dg + db * db;
    if (length === 0) continue;
    const share = ((rgb[i * 4] - ground.r) * dr + (rgb[i * 4 + 1] - ground.g) * dg + (rgb[i * 4 + 2] - ground.b) * db) / length;
    if (share >= WHOLE) continue;
    alpha[i] = Math.round(art.alpha[i] * Math.max(0, share));
    work.out ??= new Uint8Array(rgb);
    work.out[i * 4] = rgb[strongest * 4];
    work.out[i * 4 + 1] = rgb[strongest * 4 + 1];
    work.out[i * 4 + 2] = rgb[strongest * 4 + 2];
  }
}

function touchesLifted(lifted: Uint8Array, width: number, height: number, x: number, y: number): boolean {
  const i = y * width + x;
  return (
    (x > 0 && lifted[i - 1] !== 0) || (x < width - 1 && lifted[i + 1] !== 0) || (y > 0 && lifted[i - width] !== 0) || (y < height - 1 && lifted[i + width] !== 0) ||
    (x > 0 && y > 0 && lifted[i - width - 1] !== 0) || (x < width - 1 && y > 0 && lifted[i - width + 1] !== 0) ||
    (x > 0 && y < height - 1 && lifted[i + width - 1] !== 0) || (x < width - 1 && y < height - 1 && lifted[i + width + 1] !== 0)
  );
}

/** The pixel within two of (x, y) that is art and furthest in colour from the ground; −1 when there is none but the pixel itself. */
function strongestNear(art: Art, lifted: Uint8Array, x: number, y: number, ground: Rgb): number {
  const { width, height, alpha } = art;
  const rgb = art.colour.data;
  let best = -1;
  let bestDistance = 0;
  for (let yy = Math.max(0, y - 2); yy <= Math.min(height - 1, y + 2); yy++) {
    for (let xx = Math.max(0, x - 2), j = yy * width + xx; xx <= Math.min(width - 1, x + 2); xx++, j++) {
      if (lifted[j] !== 0 || alpha[j] === 0) continue;
      const dr = rgb[j * 4] - ground.r;
      const dg = rgb[j * 4 + 1] - ground.g;
      const db = rgb[j * 4 + 2] - ground.b;
      const distance = dr * dr + dg * dg + db * db;
      if (distance > bestDistance) {
        bestDistance = distance;
        best = j;
      }
    }
  }
  return best;
}
