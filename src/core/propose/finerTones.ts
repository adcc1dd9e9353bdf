import { calmedArt } from '../clean/calmedArt.ts';
import { MAX_TONES } from '../clean/palette.ts';
import { PLAIN } from '../clean/plainPixels.ts';
import { levelsApart } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { flatTones, type FlatTones } from '../separate/flatTones.ts';
import { within, type Task } from '../task/task.ts';

/** Plain pixels further from each tone than this in a channel are a shade that has none yet, levels; so much more a level of noise. */
const FAR = 12;
const FAR_NOISY = 2;
/** Colours are counted in cells of so many levels a channel, a power of two. */
const CELL = 8;
/** A shade has so many of the plain pixels at least, a share. */
const LEAST_SHARE = 5e-4;

/**
 * Art that is shaded in tones fine enough for each plain place to have one near to it: with few tones the lightest end of a shade may be taken for another
 * area's tone. The tones that were found stay; the most frequent colours far from all of them are added, 32 in all at most.
 * @throws AppError as `flatTones`.
 */
export function* finerTones(art: Art, flat: FlatTones, leastAreaPx2: number): Task<FlatTones> {
  const { noise, smooth, plain } = yield* within(calmedArt(art), 0, 0.4);
  const far = FAR + FAR_NOISY * noise;
  const cells = cellsOf(smooth.data, plain);
  const least = LEAST_SHARE * cells.reduce((sum, { count }) => sum + count, 0);
  const tones: Rgb[] = flat.tones.map(({ r, g, b }) => ({ r, g, b }));
  for (const { count, ...colour } of cells) {
    if (count < least || tones.length === MAX_TONES) break;
    if (tones.every((tone) => levelsApart(tone, colour) > far)) tones.push(colour);
  }
  return tones.length === flat.tones.length ? flat : yield* within(flatTones(art, { count: tones, leastAreaPx2 }), 0.4, 1);
}

/** The colours of plain pixels by cells, their means, the most frequent first. */
function cellsOf(data: Uint8Array, plain: Uint8Array): (Rgb & { count: number })[] {
  const side = 256 / CELL;
  const sums = new Float64Array(side ** 3 * 4);
  for (let i = 0, j = 0; i < plain.length; i++, j += 4) {
    if (plain[i] !== PLAIN) continue;
    const at = 4 * (((data[j] / CELL) | 0) * side * side + ((data[j + 1] / CELL) | 0) * side + ((data[j + 2] / CELL) | 0));
    sums[at]++;
    for (let c = 0; c < 3; c++) sums[at + 1 + c] += data[j + c];
  }
  const cells: (Rgb & { count: number })[] = [];
  for (let at = 0; at < sums.length; at += 4) {
    const count = sums[at];
    if (count > 0) cells.push({ count, r: Math.round(sums[at + 1] / count), g: Math.round(sums[at + 2] / count), b: Math.round(sums[at + 3] / count) });
  }
  return cells.sort((a, b) => b.count - a.count);
}
