import type { Rgb } from '../../colour/oklab.ts';

/** A sum of differences of colours, channel by channel. */
export type Difference = readonly [number, number, number];

/** A tone that leaves less unexplained than the others by this factor is the one. */
export const CLEARLY = 3;
/** What leaves no more than this share unexplained explains it. */
const WELL_SHARE = 0.02;

/** Of some tones, those whose mixtures with a ground explain a sum of differences from it best, or as well as the best by a factor. */
export function explaining(tones: readonly Rgb[], likely: readonly number[], ground: number, sum: Difference, factor: number): number[] {
  const all = sum[0] ** 2 + sum[1] ** 2 + sum[2] ** 2;
  const { r, g, b } = tones[ground];
  const left = likely.map((tone) => {
    const way = [tones[tone].r - r, tones[tone].g - g, tones[tone].b - b];
    const dot = Math.max(0, way[0] * sum[0] + way[1] * sum[1] + way[2] * sum[2]);
    return all - dot ** 2 / (way[0] ** 2 + way[1] ** 2 + way[2] ** 2);
  });
  const bound = Math.max(factor * Math.min(...left), WELL_SHARE * all);
  return likely.filter((_, k) => left[k] <= bound);
}
