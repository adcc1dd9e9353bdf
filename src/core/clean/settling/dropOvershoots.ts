import type { Rgb } from '../../colour/oklab.ts';
import { labelRegions, runsByRegion } from '../../raster/labelRegions.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../../raster/labelMap.ts';
import type { Rgba8 } from '../../raster/raster.ts';
import { tonesAround } from './dropSlivers.ts';
import { ECHO } from './sliver.ts';

/** Larger bits are art, px². */
const MOST_PX2 = 40;
/** Compression takes hardly a pixel further beyond an edge than this share of its height: a bit with so many that lie further is art. */
const BEYOND = 0.25;
const FURTHEST = 0.25;

/**
 * Takes out what compression makes of one side of a strong edge where another tone lies near: beside navy, cream becomes white for some pixels. Such a bit
 * touches both sides of the edge and its tone is as that of the near side, but further from the far one, and by less than a share of the edge's height. So are its pixels: a thin line along the edge that is darker or lighter than
 * both shows more of it.
 */
export function dropOvershoots(labels: LabelMap, { data }: Rgba8, tones: readonly Rgb[]): LabelMap {
  const { width, height } = labels;
  const regions = labelRegions(labels.data, width, height, 'each', true);
  const { runStart, runEnd, count, area, touchesBorder } = regions;
  const { first, runs: all } = runsByRegion(regions);
  const out = labels.data.slice();
  for (let k = 0; k < count; k++) {
    if (area[k] > MOST_PX2 || touchesBorder[k] === 1) continue;
    const runs = all.subarray(first[k], first[k + 1]);
    const own = labels.data[runStart[runs[0]]];
    if (own === CLEAR) continue;
    const around = tonesAround(labels, own, regions, runs);
    if (!around.both || around.first >= tones.length || around.second >= tones.length) continue;
    const near = nearSide(tones[own], tones[around.first], tones[around.second]);
    if (near === undefined) continue;
    const [side, other] = near === 'first' ? [around.first, around.second] : [around.second, around.first];
    const beyond: number[] = [];
    for (const run of runs) for (let i = runStart[run]; i < runEnd[run]; i++) beyond.push(-shareOfWay(tones[side], tones[other], data, 4 * i));
    beyond.sort((a, b) => b - a);
    if (beyond[Math.floor(beyond.length * FURTHEST)] < BEYOND) for (const run of runs) out.fill(side, runStart[run], runEnd[run]);
  }
  return makeLabelMap(width, height, out);
}

/** Which side of an edge a tone is the overshoot of, if of any. */
function nearSide(tone: Rgb, first: Rgb, second: Rgb): 'first' | 'second' | undefined {
  const height2 = product(first, second, first, second);
  if (product(first, tone, first, tone) < ECHO * ECHO * height2 && product(first, tone, first, second) < 0) return 'first';
  if (product(second, tone, second, tone) < ECHO * ECHO * height2 && product(second, tone, second, first) < 0) return 'second';
  return undefined;
}

/** How far a colour lies on the way from one tone to another: below 0 it lies beyond the first. */
const shareOfWay = (from: Rgb, to: Rgb, data: Rgba8['data'], at: number): number =>
  product(from, { r: data[at], g: data[at + 1], b: data[at + 2] }, from, to) / product(from, to, from, to);

/** The product of the ways from `a` to `b` and from `c` to `d`. */
const product = (a: Rgb, b: Rgb, c: Rgb, d: Rgb): number => (b.r - a.r) * (d.r - c.r) + (b.g - a.g) * (d.g - c.g) + (b.b - a.b) * (d.b - c.b);
