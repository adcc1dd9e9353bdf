import { noiseLevel } from '../clean/noiseLevel.ts';
import { levelsApart } from '../colour/hex.ts';
import { lightnessOf, tintDifference, type Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { labelRegions } from '../raster/labelRegions.ts';
import { CLEAR } from '../raster/labelMap.ts';
import { softPairs } from '../separate/evenTones.ts';
import type { FlatTones } from '../separate/flatTones.ts';

/** Shades of the ground differ in tint from it by no more than this, in their own light, perceptual difference. */
const SAME_TINT = 4;
/**
 * In an area of its own more than this share of a tone's pixels are the tone itself, within so many levels and so much of the way to the next shade at most; a
 * shade that goes on evenly has only a quarter of its pixels there.
 */
const MOSTLY = 0.5;
const ITSELF = 4;
const OF_WAY = 1 / 8;
/** Tones further apart, levels of the channel that differs most, are shades of an area only with less of a step between them than compression leaves of an edge. */
const NEAR = 40;
const FAR_PASSES = 0.35;
/** Pixels of an area stray by so much more a level of noise above what compression alone leaves. */
const STRAYS_NOISY = 2;
const QUIET = 1;
/** Smaller parts say nothing, px². */
const LEAST_PX2 = 40;

/** Tones that are the shades of one area, as a gradient or a soft shadow has them. */
export interface ShadeGroups {
  /** For each tone the lowest one that is a shade of the same area; itself where it stands alone. */
  readonly groupOf: readonly number[];
  /** The tones beside the ground that are its shades: a shadow that fades on it, or paper that is darker at its rim. */
  readonly ofGround: ReadonlySet<number>;
  /** Whether each tone is a shade: it has no area of its own. */
  readonly isShade: readonly boolean[];
  /** Whether an area that is no ground has shades. */
  readonly hasShadedArea: boolean;
}

/**
 * Puts together which tones are the shades of one area: they pass into each other without a step, and at most one of two is an area of its own, which a tone of
 * flat art is. Shades of the ground have its tint too. Art in which areas of their own pass into each other is blurred: it has none, each tone stands alone.
 */
export function shadeGroups(art: Art, flat: FlatTones): ShadeGroups {
  const { tones, ground } = flat;
  const alone = (isShade: readonly boolean[]): ShadeGroups => ({ groupOf: tones.map((_, k) => k), ofGround: new Set(), isShade, hasShadedArea: false });
  if (tones.length < 3) return alone(tones.map(() => false));
  const isSoft = softPairs(art, flat);
  const passesFar = softPairs(art, flat, FAR_PASSES);
  const passes = (a: number, b: number): boolean => (levelsApart(tones[a], tones[b]) <= NEAR ? isSoft : passesFar)(a, b);
  const strays = STRAYS_NOISY * Math.max(0, noiseLevel(art.colour) - QUIET);
  const isShade = tones.map((tone, k) => {
    const shades = tones.filter((_, other) => other !== k && isSoft(k, other));
    return hasNoArea(art, flat, k, strays + Math.min(ITSELF, OF_WAY * toNext(tone, shades)));
  });
  const ofGround = ground === CLEAR ? new Set<number>() : shadesOfGround(flat, isSoft, isShade);
  const isOut = (k: number): boolean => k === ground || ofGround.has(k);
  const groupOf = tones.map((_, k) => (isOut(k) ? ground : k));
  for (const a of tones.keys()) {
    for (const b of tones.keys()) {
      if (a >= b || isOut(a) || isOut(b) || groupOf[a] === groupOf[b] || !passes(a, b) || !(isShade[a] || isShade[b])) continue;
      const [lower, upper] = [Math.min(groupOf[a], groupOf[b]), Math.max(groupOf[a], groupOf[b])];
      for (const k of tones.keys()) if (groupOf[k] === upper) groupOf[k] = lower;
    }
  }
  const isBlurred = tones.some((_, a) => tones.some((__, b) => a < b && groupOf[a] !== groupOf[b] && passes(a, b)));
  return isBlurred ? alone(isShade) : { groupOf, ofGround, isShade, hasShadedArea: groupOf.some((group, k) => group !== k && !isOut(k)) };
}

/** The tones of the ground's tint that only fade from it, or from one of them, those nearest to it in lightness first. */
function shadesOfGround({ tones, ground }: FlatTones, isSoft: (a: number, b: number) => boolean, isShade: readonly boolean[]): Set<number> {
  const away = (k: number): number => Math.abs(lightnessOf(tones[k]) - lightnessOf(tones[ground]));
  const shades = [...tones.keys()].filter((k) => k !== ground && isShade[k] && tintDifference(tones[k], tones[ground]) <= SAME_TINT);
  const found = new Set<number>();
  for (const k of shades.sort((a, b) => away(a) - away(b))) if ([ground, ...found].some((other) => isSoft(k, other))) found.add(k);
  return found;
}

/** How far the nearest of other tones is, levels of the channel that differs most. */
const toNext = (tone: Rgb, others: readonly Rgb[]): number =>
  Math.min(Infinity, ...others.map((other) => levelsApart(tone, other)));

/** Whether a tone has no area of its own, but only parts in which hardly a pixel is the tone itself, within so many levels. */
function hasNoArea({ colour: { data } }: Art, { labels, tones }: FlatTones, tone: number, levels: number): boolean {
  const { r, g, b } = tones[tone];
  const { runStart, runEnd, regionOfRun, area } = labelRegions(labels.data, labels.width, labels.height, tone, true);
  const same = new Float64Array(area.length);
  for (let run = 0; run < runStart.length; run++)
    for (let i = runStart[run]; i < runEnd[run]; i++)
      if (Math.abs(data[4 * i] - r) <= levels && Math.abs(data[4 * i + 1] - g) <= levels && Math.abs(data[4 * i + 2] - b) <= levels) same[regionOfRun[run]]++;
  return area.every((px2, k) => px2 < LEAST_PX2 || same[k] < MOSTLY * px2);
}
