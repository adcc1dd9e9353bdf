/** Changes between two tones that come at even distances along a line: at `at` and every `period` px from there. */
export interface Lattice {
  readonly period: number;
  readonly at: number;
  /** How many changes tell it. */
  readonly count: number;
}

/** What a pixel of a line is: one of the two tones, or neither. */
export const NEITHER = 2;
/** So many changes tell that they are even, at so small a distance at least, px. */
const LEAST_CHANGES = 6;
const LEAST_PERIOD = 3;
/** Between two tones as many px may be neither: their mixtures. */
const MIXED_PX = 3;
/** Changes stray from even distances by no more than this share of them and so many px. */
const STRAY = 0.08;
const STRAY_PX = 0.7;
/** Nearly all do: art cuts squares too. */
const NEARLY_ALL = 0.9;

/**
 * Finds changes at even distances along a line, by the middle distance between two and a straight line through their places; undefined where there are none.
 * @param kinds 0, 1 or `NEITHER` for each pixel.
 */
export function latticeOf(kinds: Uint8Array): Lattice | undefined {
  const places = changesOf(kinds);
  if (places.length < LEAST_CHANGES) return undefined;
  const gaps = places.slice(1).map((place, k) => place - places[k]);
  const rough = [...gaps].sort((a, b) => a - b)[gaps.length >> 1];
  if (rough < LEAST_PERIOD) return undefined;
  // Numbers go on from change to change, so that what strays does not add up.
  const numbers = [0];
  for (const gap of gaps) numbers.push(numbers[numbers.length - 1] + Math.max(1, Math.round(gap / rough)));
  const { slope: period, from: at } = lineThrough(numbers, places);
  const near = places.filter((place, k) => Math.abs(place - at - period * numbers[k]) <= STRAY * period + STRAY_PX).length;
  return near >= NEARLY_ALL * places.length ? { period, at, count: places.length } : undefined;
}

/** Where one tone gives way to the other, px: half-way through what is neither. */
function changesOf(kinds: Uint8Array): number[] {
  const places: number[] = [];
  let before = NEITHER;
  let last = -MIXED_PX;
  for (let x = 0; x < kinds.length; x++) {
    if (kinds[x] === NEITHER) continue;
    if (before !== NEITHER && kinds[x] !== before && x - last <= MIXED_PX + 1) places.push((last + 1 + x) / 2);
    before = kinds[x];
    last = x;
  }
  return places;
}

function lineThrough(xs: readonly number[], ys: readonly number[]): { slope: number; from: number } {
  const [mx, my] = [xs, ys].map((values) => values.reduce((sum, value) => sum + value, 0) / values.length);
  const xx = xs.reduce((sum, x) => sum + (x - mx) ** 2, 0);
  const slope = xs.reduce((sum, x, k) => sum + (x - mx) * (ys[k] - my), 0) / xx;
  return { slope, from: my - slope * mx };
}
