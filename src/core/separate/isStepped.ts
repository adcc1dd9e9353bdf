import type { Art } from '../raster/art.ts';
import { CLEAR } from '../raster/labelMap.ts';
import type { FlatTones } from './flatTones.ts';

/** A pixel beside an edge is not mixed when it is no further than this share of the way between the edge's two tones from its own: compression moves it so far. */
const UNMIXED = 0.2;
/** So many of the pixels beside edges are not, in art without mixed pixels. */
const STEPPED_SHARE = 0.85;

/** Whether each pixel of flat art has one tone or another, or is clear, none a mixture of two, so that its edges run in steps. */
export function isStepped({ alpha, colour: { data: colours } }: Art, { labels: { data, width, height }, tones }: FlatTones): boolean {
  let [beside, unmixed] = [0, 0];
  const look = (i: number, j: number): void => {
    const [own, other] = [data[i], data[j]];
    if (own === other) return;
    if (own === CLEAR || other === CLEAR) {
      beside++;
      if (Math.abs(alpha[i] - (own === CLEAR ? 0 : 255)) <= UNMIXED * 255) unmixed++;
      return;
    }
    const [a, b] = [tones[own], tones[other]];
    const off = Math.max(Math.abs(colours[4 * i] - a.r), Math.abs(colours[4 * i + 1] - a.g), Math.abs(colours[4 * i + 2] - a.b));
    beside++;
    if (off <= UNMIXED * Math.max(Math.abs(a.r - b.r), Math.abs(a.g - b.g), Math.abs(a.b - b.b))) unmixed++;
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (x > 0) look(i, i - 1);
      if (x < width - 1) look(i, i + 1);
      if (y > 0) look(i, i - width);
      if (y < height - 1) look(i, i + width);
    }
  }
  return beside > 0 && unmixed >= STEPPED_SHARE * beside;
}
