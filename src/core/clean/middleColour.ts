import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';

/** The middle one in each channel of the pixels that are 1 in a mask. */
export function middleColour({ colour: { data } }: Art, chosen: Uint8Array): Rgb {
  const counts = [0, 1, 2].map(() => new Uint32Array(256));
  let all = 0;
  for (let i = 0; i < chosen.length; i++) {
    if (chosen[i] === 0) continue;
    all++;
    for (let c = 0; c < 3; c++) counts[c][data[4 * i + c]]++;
  }
  const [r, g, b] = counts.map((count) => {
    let sum = 0;
    return Math.max(
      0,
      count.findIndex((n) => (sum += n) > all / 2),
    );
  });
  return { r, g, b };
}
