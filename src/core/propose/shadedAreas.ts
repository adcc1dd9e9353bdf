import type { Tone } from '../clean/palette.ts';
import { colourDifference } from '../colour/oklab.ts';
import { isAppError } from '../errors/appError.ts';
import { smoothArt } from '../clean/smoothArt.ts';
import { withAlpha, type Art } from '../raster/art.ts';
import { eachBorderPixel } from '../raster/eachBorderPixel.ts';
import { CLEAR, makeLabelMap } from '../raster/labelMap.ts';
import { flatTones, type FlatTones } from '../separate/flatTones.ts';
import { within, type Task } from '../task/task.ts';
import { finerTones } from './finerTones.ts';
import { shadeGroups } from './shadeGroups.ts';

/** What has so much of the border is the ground. */
const GROUND_SHARE = 0.5;

/** What differs by less within an area is the grain of what it lies on, levels. */
const WEAVE_LEVELS = 12;

/** Shaded art as areas: its tones, fine enough for each shade, and which of them are the shades of one area. The ground of `flat` is the lowest of its shades. */
export interface ShadedAreas {
  readonly flat: FlatTones;
  /** For each tone the lowest one of its area. */
  readonly groupOf: readonly number[];
}

/** The areas of art that is shaded within them; undefined where no tones can be told, as in noise. @param leastAreaPx2 smaller bits are no part of the art. */
export function* shadedAreas(art: Art, leastAreaPx2: number): Task<ShadedAreas | undefined> {
  try {
    const few = yield* within(flatTones(art, { count: 'auto', leastAreaPx2 }), 0, 0.5);
    const finer = yield* within(finerTones(art, few, leastAreaPx2), 0.5, 0.8);
    // The weave of a cloth would make edges between shades that have none.
    const calm = withAlpha(art, art.alpha, yield* within(smoothArt(art, WEAVE_LEVELS), 0.8, 0.9));
    // What is ground is told by areas: a shade of it alone may have little of the border.
    const { groupOf, isShade } = shadeGroups(calm, { ...finer, ground: CLEAR });
    const stays = finer.tones.map((_, k) => k < few.tones.length || !isShade[k] || groupOf.some((group, other) => other !== k && group === groupOf[k]));
    return grounded(withoutTones(finer, stays), groupOf.filter((_, k) => stays[k]).map((group) => group - stays.slice(0, group).filter((stay) => !stay).length));
  } catch (error) {
    if (isAppError(error)) return undefined;
    throw error;
  }
}

/** Without some of the tones: their pixels go to the nearest of the others. Counts are pixels then. */
function withoutTones({ tones, labels, ground }: FlatTones, stays: readonly boolean[]): FlatTones {
  const left = tones.filter((_, k) => stays[k]);
  const nearest = (tone: Tone): number => left.reduce((best, other, k) => (colourDifference(tone, other) < colourDifference(tone, left[best]) ? k : best), 0);
  const to = new Uint8Array(256).fill(CLEAR);
  tones.forEach((tone, k) => (to[k] = stays[k] ? left.indexOf(tone) : nearest(tone)));
  const counts = new Float64Array(256);
  const data = labels.data.map((label) => to[label]);
  for (const label of data) counts[label]++;
  return { tones: left.map((tone, k) => ({ ...tone, count: counts[k] })), labels: makeLabelMap(labels.width, labels.height, data), ground };
}

/** The area that has most of the border as ground, its shades with it. */
function grounded(flat: FlatTones, groupOf: readonly number[]): ShadedAreas {
  const { data, width, height } = flat.labels;
  const votes = new Uint32Array(256);
  eachBorderPixel(width, height, (i) => void votes[groupOf[data[i]] ?? CLEAR]++);
  const most = votes.indexOf(Math.max(...votes));
  const ground = most !== CLEAR && votes[CLEAR] === 0 && votes[most] >= GROUND_SHARE * 2 * (width + height) ? most : CLEAR;
  return { flat: { ...flat, ground }, groupOf };
}
