import type { Task } from '../../task/task.ts';
import { distanceToWide } from '../../raster/distance.ts';
import { EDGE, type Basins } from './basins.ts';
import type { Planes, Three } from '../planes.ts';
import { MARK } from './marks.ts';
import { smoothGround, type SmoothGround } from './smoothGround.ts';

/** An area belongs to the ground when less of its border with it is sharp than this share. */
const SHARP_SHARE = 0.4;
/** Or when it opens to the ground over so much of its size (the root of its area); a gap in an outline is narrower. */
const OPENING = 0.3;
/** Strokes that cover this share of an area along the border say that it is no ground. */
const SAID_SHARE = 0.1;
/** An area along the picture's border is ground from this share of the border on. */
const BORDER_SHARE = 0.03;

/** What is known of each area before the ground is continued under the subject. */
interface AreaFacts {
  readonly count: number;
  readonly pixels: Float64Array;
  /** Pixels on the picture's border. */
  readonly onBorder: Float64Array;
  /** Neighbours of each area. */
  readonly borders: readonly Map<number, Border>[];
}

/** The common border of two areas. */
interface Border {
  length: number;
  /** How much of it is sharp, px. */
  sharp: number;
  /**
   * Sums, where it is not sharp, of the colour changes over it, and over as many pixels before and behind it, from the lower to the higher area number; three
   * channels each.
   */
  readonly over: Float64Array;
  readonly before: Float64Array;
  readonly behind: Float64Array;
}

/** The change over a border is taken between the pixels next but one to it on both sides; before and behind it over as many more, px. */
const NEAR_PX = 1;
const FAR_PX = 4;

function factsOf({ labels, count }: Basins, sharp: Float32Array, { width, height, planes }: Planes): AreaFacts {
  const pixels = new Float64Array(count);
  const onBorder = new Float64Array(count);
  const borders = Array.from({ length: count }, () => new Map<number, Border>());
  const borderOf = (a: number, b: number): Border => {
    const known = borders[a].get(b);
    if (known !== undefined) return known;
    const border = { length: 0, sharp: 0, over: new Float64Array(3), before: new Float64Array(3), behind: new Float64Array(3) };
    borders[a].set(b, border);
    borders[b].set(a, border);
    return border;
  };
  const meet = (i: number, j: number, step: number, back: number, forth: number): void => {
    const [a, b] = [labels[i], labels[j]];
    if (a === b) return;
    const border = borderOf(a, b);
    border.length++;
    if (Math.max(sharp[i], sharp[j]) > EDGE) {
      border.sharp++;
      return;
    }
    const sign = a < b ? 1 : -1;
    const farBack = i - Math.min(FAR_PX, back) * step;
    const nearBack = i - Math.min(NEAR_PX, back) * step;
    const nearForth = j + Math.min(NEAR_PX, forth) * step;
    const farForth = j + Math.min(FAR_PX, forth) * step;
    const [before, behind] = a < b ? [border.before, border.behind] : [border.behind, border.before];
    for (let c = 0; c < 3; c++) {
      border.over[c] += sign * (planes[c][nearForth] - planes[c][nearBack]);
      before[c] += planes[c][nearBack] - planes[c][farBack];
      behind[c] += planes[c][farForth] - planes[c][nearForth];
    }
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      pixels[labels[i]]++;
      if (x === 0 || y === 0 || x === width - 1 || y === height - 1) onBorder[labels[i]]++;
      if (x < width - 1) meet(i, i + 1, 1, x, width - 2 - x);
      if (y < height - 1) meet(i, i + width, width, y, height - 2 - y);
    }
  }
  return { count, pixels, onBorder, borders };
}

/** What an area is taken for. Doubtful ones join the ground somewhere without a sharp edge, yet are flat and of another colour. */
export const SUBJECT = 0;
export const GROUND = 1;
export const DOUBTFUL = 2;

/**
 * Which areas are ground: those along the picture's border, all that join them without a sharp edge, and enclosed ones that look as the ground would there.
 * @returns `SUBJECT`, `GROUND` or `DOUBTFUL` for each area.
 */
export function* groundAreas(basins: Basins, sharp: Float32Array, colours: Planes, noise: number, marks: Uint8Array): Task<Uint8Array> {
  const { width, height } = colours;
  const facts = factsOf(basins, sharp, colours);
  yield 0.3;
  const isGround = new Uint8Array(facts.count);
  const around = 2 * (width + height) - 4;
  for (let k = 0; k < facts.count; k++) if (facts.onBorder[k] >= BORDER_SHARE * around) isGround[k] = 1;
  if (!isGround.includes(1)) isGround[facts.onBorder.indexOf(Math.max(...facts.onBorder))] = 1;
  const said = areasSaid(basins, marks);
  for (let k = 0; k < facts.count; k++) {
    // A stroke on the wide ground speaks for what lies under it alone; the cut sees to that.
    if (said[k] < 0 && isGround[k] === GROUND && -said[k] < SAID_SHARE * facts.pixels[k]) said[k] = 0;
    if (said[k] !== 0) isGround[k] = said[k] > 0 ? GROUND : SUBJECT;
  }
  const first = isGround.slice();
  growGround(facts, isGround, said, noise);
  yield 0.4;
  doubtStrangers(basins, first, isGround, colours, noise);
  yield 0.8;
  if (addEnclosedGround(basins, facts, isGround, said, colours, noise)) growGround(facts, isGround, said, noise);
  return isGround;
}

/** What strokes say of each area: above 0 that it is ground, below 0 that it is not, by the pixels that they cover. */
function areasSaid({ labels, count }: Basins, marks: Uint8Array): Float64Array {
  const said = new Float64Array(count);
  for (let i = 0; i < marks.length; i++) if (marks[i] !== 0) said[labels[i]] += marks[i] === MARK.keep ? -1 : 1;
  return said;
}

/** Deepest shade of a soft shadow, share of the light that is left. */
const DEEPEST_SHADE = 0.4;

/** The shade of the ground that comes nearest to a colour: 1 is full light. @param dot of colour and ground. @param square of the ground. */
export const shadeOf = (dot: number, square: number): number => Math.max(DEEPEST_SHADE, Math.min(1, square === 0 ? 1 : dot / square));

/** Half the width of the widest place that is left out of the certain ground, px: outlines that run into the ground are narrower. */
const NARROW_PX = 6;

/** 1 for ground pixels in wide places: what an opening of the ground by a disc leaves. */
export function certainGround({ labels, distance }: Basins, isGround: Uint8Array, { width, height }: Planes): Uint8Array {
  const open = new Uint8Array(labels.length);
  for (let i = 0; i < open.length; i++) open[i] = isGround[labels[i]] === GROUND && distance[i] > 1 ? 1 : 0;
  const fromWide = distanceToWide(open, width, height, NARROW_PX);
  for (let i = 0; i < open.length; i++) open[i] = open[i] !== 0 && fromWide[i] < NARROW_PX - 1 ? 1 : 0;
  return open;
}

function growGround(facts: AreaFacts, isGround: Uint8Array, said: Float64Array, noise: number): void {
  const { count, borders, pixels } = facts;
  let changed = true;
  while (changed) {
    changed = false;
    for (let k = 0; k < count; k++) {
      if (isGround[k] !== SUBJECT || said[k] < 0) continue;
      let length = 0;
      let open = 0;
      for (const [other, border] of borders[k]) {
        if (isGround[other] !== GROUND) continue;
        length += border.length;
        if (!isStep(border, noise)) open += border.length - border.sharp;
      }
      if (open === 0 || (open <= (1 - SHARP_SHARE) * length && open < OPENING * Math.sqrt(pixels[k]))) continue;
      isGround[k] = 1;
      changed = true;
    }
  }
}

/** A step is so many times what changes over as many pixels before or behind it; on softly changing ground they are alike. */
const STEP_RISE = 2;

/** Whether the areas part by a step all along their border, one that may be too low to show against the noise in single pixels. */
function isStep({ length: whole, sharp, over, before, behind }: Border, noise: number): boolean {
  const length = whole - sharp;
  if (length === 0) return true;
  const rise = Math.hypot(over[0], over[1], over[2]) / length;
  const beside = Math.max(Math.hypot(before[0], before[1], before[2]), Math.hypot(behind[0], behind[1], behind[2])) / length;
  return rise > 2 + (4 * noise) / Math.sqrt(length) && rise > STEP_RISE * beside;
}

/** Enclosed ground on a photograph may differ so much from what its surroundings suggest, levels. */
const FURTHEST = 110;
/** Areas of fewer pixels say too little of themselves. */
const TELLING_PX = 24;

function addEnclosedGround(basins: Basins, facts: AreaFacts, isGround: Uint8Array, said: Float64Array, colours: Planes, noise: number): boolean {
  const certain = certainGround(basins, isGround, colours);
  const ground = smoothGround(colours, certain);
  const means = areaMeans(basins, colours, ground);
  const groundActivity = activityOfGround(means, isGround);
  const floor = 2 + 1.5 * noise;
  let added = false;
  for (let k = 0; k < facts.count; k++) {
    const { count, difference, spread, activity } = means[k];
    if (isGround[k] === GROUND || said[k] < 0 || count < TELLING_PX) continue;
    const asFlatGround = difference <= Math.max(floor, Math.min(12, 1.2 * Math.sqrt(spread)));
    const asLivelyGround = !isFlat(activity, groundActivity, noise) && groundActivity > liveliest(noise) && difference < FURTHEST;
    if (!asFlatGround && !asLivelyGround) continue;
    isGround[k] = GROUND;
    added = true;
  }
  return added;
}

/** Marks as doubtful what grew onto the first ground but is flat and of a colour that the ground, even in shade, does not have there. */
function doubtStrangers(basins: Basins, first: Uint8Array, isGround: Uint8Array, colours: Planes, noise: number): void {
  const means = areaMeans(basins, colours, smoothGround(colours, certainGround(basins, first, colours)));
  const groundActivity = activityOfGround(means, first);
  for (let k = 0; k < first.length; k++) {
    if (first[k] !== 0 || isGround[k] !== GROUND) continue;
    const { shaded, spread, activity } = means[k];
    if (shaded > Math.max(12 + noise, 1.5 * Math.sqrt(spread)) && isFlat(activity, groundActivity, noise)) isGround[k] = DOUBTFUL;
  }
}

/** Change that noise may leave in a flat colour, levels a pixel. */
const liveliest = (noise: number): number => 0.5 + 0.8 * noise;

/** Whether an area is one flat colour, as art is and a softened photograph is not. */
const isFlat = (activity: number, groundActivity: number, noise: number): boolean => activity <= Math.max(liveliest(noise), 0.3 * groundActivity);

interface AreaMeans {
  count: number;
  /** Length of the mean colour difference from the continued ground, levels. */
  difference: number;
  /** The same from the ground in whatever shade comes nearest. */
  shaded: number;
  /** Mean squared straying of the ground around there. */
  spread: number;
  /** How much the colour changes inside the area, levels a pixel. */
  activity: number;
}

/** Pixels nearer to an edge may be mixed, px. */
const INSIDE_PX = 2.5;

function areaMeans({ labels, count: areas, distance }: Basins, colours: Planes, { colour: ground, spread }: SmoothGround): AreaMeans[] {
  const { width, height, planes } = colours;
  const sums = new Float64Array(areas * 9);
  for (let i = 0; i < labels.length; i++) {
    if (distance[i] < INSIDE_PX) continue;
    const at = labels[i] * 9;
    sums[at]++;
    sums[at + 1] += spread[i];
    for (let c = 0; c < 3; c++) {
      const value = planes[c][i];
      sums[at + 2 + c] += value - ground.planes[c][i];
      sums[at + 5 + c] += value;
    }
    sums[at + 8] += change(planes, i, width, height);
  }
  return Array.from({ length: areas }, (_, k) => {
    const at = k * 9;
    const count = Math.max(1, sums[at]);
    return {
      count: sums[at],
      difference: Math.hypot(sums[at + 2], sums[at + 3], sums[at + 4]) / count,
      shaded: shadedDifference(sums, at, count),
      spread: sums[at + 1] / count,
      activity: sums[at + 8] / count,
    };
  });
}

/** Length of the colour gradient at a pixel, levels a pixel. */
function change(planes: Three, i: number, width: number, height: number): number {
  const x = i % width;
  const right = x < width - 1 ? i + 1 : i;
  const left = x > 0 ? i - 1 : i;
  const down = i + width < width * height ? i + width : i;
  const up = i >= width ? i - width : i;
  let square = 0;
  for (const plane of planes) square += (plane[right] - plane[left]) ** 2 + (plane[down] - plane[up]) ** 2;
  return Math.sqrt(square) / 2;
}

function shadedDifference(sums: Float64Array, at: number, count: number): number {
  const value = [0, 1, 2].map((c) => sums[at + 5 + c] / count);
  const ground = [0, 1, 2].map((c) => value[c] - sums[at + 2 + c] / count);
  const shade = shadeOf(value[0] * ground[0] + value[1] * ground[1] + value[2] * ground[2], ground[0] ** 2 + ground[1] ** 2 + ground[2] ** 2);
  return Math.hypot(value[0] - shade * ground[0], value[1] - shade * ground[1], value[2] - shade * ground[2]);
}

/** What `activity` is in the ground's areas, the middle one by pixels. */
function activityOfGround(means: readonly AreaMeans[], isGround: Uint8Array): number {
  const own = means.filter((_, k) => isGround[k] === GROUND).sort((a, b) => a.activity - b.activity);
  const half = own.reduce((sum, { count }) => sum + count, 0) / 2;
  let seen = 0;
  for (const { activity, count } of own) {
    seen += count;
    if (seen >= half) return activity;
  }
  return 0;
}
