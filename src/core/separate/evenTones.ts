import { calmedArt } from '../clean/calmedArt.ts';
import { PLAIN } from '../clean/plainPixels.ts';
import { isAppError } from '../errors/appError.ts';
import type { Art } from '../raster/art.ts';
import { CLEAR, type LabelMap } from '../raster/labelMap.ts';
import type { Task } from '../task/task.ts';
import { flatTones, type FlatTones } from './flatTones.ts';

/** Art is in even tones when nearly all of its plain pixels, away from edges, are this near to their tone, levels; so much more a level of noise. */
const OFF_TONE = 9;
const OFF_TONE_NOISY = 3;
const EVEN = 0.985;
const AWAY_PX = 5;
/** An edge that holds less than this share of the step between its tones within a few px is a shade that was cut into bands. */
const OF_STEP = 0.6;
const REACH_PX = 3;
/** Both tones go on so far from the edge at least, px. */
const BROAD_PX = 2;
/** So many px of edge between two tones tell, of which half must be sharp. */
const TELLING_PX = 24;

/** The tones of art that has few and even ones, with edges between them; nothing of other art, such as shaded one. */
export function* evenTones(art: Art): Task<FlatTones | undefined> {
  let flat: FlatTones;
  try {
    flat = yield* flatTones(art, { count: 'auto', leastAreaPx2: 0 });
  } catch (error) {
    // Noise, or all in one tone.
    if (isAppError(error)) return undefined;
    throw error;
  }
  return (yield* isEven(art, flat)) && !hasSoftEdges(art, flat) ? flat : undefined;
}

/** Whether plain places are as their tones are. */
function* isEven(art: Art, { labels, tones }: FlatTones): Task<boolean> {
  const { noise, smooth, plain } = yield* calmedArt(art);
  const reach = OFF_TONE + OFF_TONE_NOISY * noise;
  let [seen, even] = [0, 0];
  for (let i = 0, j = 0; i < plain.length; i++, j += 4) {
    const label = labels.data[i];
    if (plain[i] !== PLAIN || label === CLEAR || !isInside(labels, i)) continue;
    const { r, g, b } = tones[label];
    seen++;
    if (Math.abs(smooth.data[j] - r) <= reach && Math.abs(smooth.data[j + 1] - g) <= reach && Math.abs(smooth.data[j + 2] - b) <= reach) even++;
  }
  return even >= EVEN * seen;
}

/** Whether an area goes on so far to all four sides: nearer to its edge compression ripples. */
function isInside({ data, width }: LabelMap, i: number): boolean {
  const label = data[i];
  return data[i - AWAY_PX] === label && data[i + AWAY_PX] === label && data[i - AWAY_PX * width] === label && data[i + AWAY_PX * width] === label;
}

/** Whether tones pass into each other somewhere without a step: bands of a shade, however near to its band every pixel is. */
function hasSoftEdges(art: Art, flat: FlatTones): boolean {
  const isSoft = softPairs(art, flat);
  return flat.tones.some((_, a) => flat.tones.some((__, b) => a < b && isSoft(a, b)));
}

/**
 * Which pairs of tones pass into each other without a step, over most of the edge between them.
 * @param ofStep less than this share of the difference between two tones, met within a few px of the edge, is no step.
 */
export function softPairs({ colour }: Art, { labels, tones }: FlatTones, ofStep = OF_STEP): (a: number, b: number) => boolean {
  const { data, width, height } = labels;
  const sharp = new Uint32Array(tones.length ** 2);
  const soft = new Uint32Array(tones.length ** 2);
  const look = (i: number, step: number, room: number): void => {
    const [a, b] = [data[i], data[i + step]];
    if (a === b || a === CLEAR || b === CLEAR) return;
    // A strip of mixed pixels tells nothing of the tone that it was taken for.
    if (data[i - BROAD_PX * step] !== a || data[i + (1 + BROAD_PX) * step] !== b) return;
    const { r, g, b: blue } = tones[a];
    const [x, y, z] = [tones[b].r - r, tones[b].g - g, tones[b].b - blue];
    const whole = x * x + y * y + z * z;
    let most = 0;
    for (let k = 0; k < Math.min(REACH_PX, room); k++) {
      const [p, q] = [4 * (i - k * step), 4 * (i + (k + 1) * step)];
      most = Math.max(most, (colour.data[q] - colour.data[p]) * x + (colour.data[q + 1] - colour.data[p + 1]) * y + (colour.data[q + 2] - colour.data[p + 2]) * z);
    }
    (most >= ofStep * whole ? sharp : soft)[Math.min(a, b) * tones.length + Math.max(a, b)]++;
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (x < width - 1) look(i, 1, Math.min(x + 1, width - 1 - x));
      if (y < height - 1) look(i, width, Math.min(y + 1, height - 1 - y));
    }
  }
  return (a, b) => {
    const pair = Math.min(a, b) * tones.length + Math.max(a, b);
    return soft[pair] + sharp[pair] >= TELLING_PX && soft[pair] > sharp[pair];
  };
}
