import { lightnessOf, tintDifference } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { labelRegions } from '../raster/labelRegions.ts';
import { CLEAR } from '../raster/labelMap.ts';
import { softPairs } from '../separate/evenTones.ts';
import type { FlatTones } from '../separate/flatTones.ts';

/** A shadow differs in tint from the ground that it lies on by no more than this, in less light, perceptual difference. */
const SAME_TINT = 4;
/** In an area of its own more than this share of a tone's pixels are the tone itself, within so many levels; in a shade few are. */
const MOSTLY = 0.5;
const ITSELF = 4;
/** Smaller parts say nothing, px². */
const LEAST_PX2 = 40;

/**
 * The tones of flat art that are the soft shadow of it on its ground: darker than the ground and of its tint, passing into it, or into a paler part of the
 * shadow, without a step, and nowhere an area of their own. Art that is shaded itself has none.
 */
export function softShadow(art: Art, flat: FlatTones): ReadonlySet<number> {
  const { tones, ground } = flat;
  const shadow = new Set<number>();
  if (ground === CLEAR || tones.length < 3) return shadow;
  const isSoft = softPairs(art, flat);
  const lightness = tones.map(lightnessOf);
  const shades = tones.map((_, k) => k).filter((k) => k !== ground && lightness[k] < lightness[ground] && tintDifference(tones[k], tones[ground]) <= SAME_TINT && isShade(art, flat, k));
  // The palest first: each darker part lies on a paler one.
  for (const k of shades.sort((a, b) => lightness[b] - lightness[a])) if ([ground, ...shadow].some((other) => isSoft(k, other))) shadow.add(k);
  // Where other tones pass into each other too the art is shaded itself.
  const isOut = (k: number): boolean => k === ground || shadow.has(k);
  const isShaded = tones.some((_, a) => tones.some((__, b) => a < b && !(isOut(a) && isOut(b)) && isSoft(a, b)));
  return isShaded ? new Set() : shadow;
}

/** Whether a tone has no area of its own, but only parts in which hardly a pixel is the tone itself. */
function isShade({ colour: { data } }: Art, { labels, tones }: FlatTones, tone: number): boolean {
  const { r, g, b } = tones[tone];
  const { runStart, runEnd, regionOfRun, area } = labelRegions(labels.data, labels.width, labels.height, tone, true);
  const same = new Float64Array(area.length);
  for (let run = 0; run < runStart.length; run++)
    for (let i = runStart[run]; i < runEnd[run]; i++)
      if (Math.abs(data[4 * i] - r) <= ITSELF && Math.abs(data[4 * i + 1] - g) <= ITSELF && Math.abs(data[4 * i + 2] - b) <= ITSELF) same[regionOfRun[run]]++;
  return area.every((px2, k) => px2 < LEAST_PX2 || same[k] < MOSTLY * px2);
}
