import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { byRows, type Task } from '../task/task.ts';

/** The middle one in each channel of the pixels that are 1 in a mask. */
export function* middleColour({ colour: { data }, width, height }: Art, chosen: Uint8Array): Task<Rgb> {
  const counts = [0, 1, 2].map(() => new Uint32Array(256));
  let all = 0;
  const [reds, greens, blues] = counts;
  const countRow = (y: number): void => {
    for (let i = y * width; i < (y + 1) * width; i++) {
      if (chosen[i] === 0) continue;
      all++;
      reds[data[4 * i]]++;
      greens[data[4 * i + 1]]++;
      blues[data[4 * i + 2]]++;
    }
  };
  yield* byRows(height, countRow);
  const [r, g, b] = counts.map((count) => {
    let sum = 0;
    return Math.max(
      0,
      count.findIndex((n) => (sum += n) > all / 2),
    );
  });
  return { r, g, b };
}
