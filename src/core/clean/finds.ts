import type { RectPx } from '../raster/crop.ts';
import type { Frame } from '../raster/art.ts';
import type { Regions } from '../raster/labelRegions.ts';

/** A place that a step found by itself: shown with a pin, and spared when the step is to leave it alone. */
export interface Find {
  readonly kind: 'speck' | 'pinhole' | 'joint' | 'enclosed';
  /** A place on it. */
  readonly xPx: number;
  readonly yPx: number;
  /** Area in px², for a joint the length of its gap in px. */
  readonly size: number;
  readonly spared: boolean;
}

export type Places = readonly { readonly xPx: number; readonly yPx: number }[];

/** Of so many finds only the largest are told one by one. */
export const MOST_FINDS = 5000;
/** A place that was pointed out is that of a find when it is no further away than this, px, or than the find is large. */
const REACH_PX = 3;

/** 1 for each find that a place belongs to: the nearest one within reach. */
export function sparedOf(xs: ArrayLike<number>, ys: ArrayLike<number>, extents: ArrayLike<number>, places: Places): Uint8Array {
  const spared = new Uint8Array(xs.length);
  for (const { xPx, yPx } of places) {
    let nearest = -1;
    let least = Infinity;
    for (let k = 0; k < xs.length; k++) {
      const distance = Math.hypot(xs[k] - xPx, ys[k] - yPx);
      if (distance >= least || distance > Math.max(REACH_PX, extents[k])) continue;
      least = distance;
      nearest = k;
    }
    if (nearest >= 0) spared[nearest] = 1;
  }
  return spared;
}

/**
 * Tells the chosen regions as finds, in reading order, and takes the spared ones out of the choice.
 * @param chosen 1 for each region that the step works on; those that are spared are set to 0. @param spared in art pixels.
 */
export function spareRegions(regions: Regions, chosen: Uint8Array, width: number, kind: Find['kind'], spared: Places): Find[] {
  const { region, xs, ys } = regionPlaces(regions, chosen, width);
  const extents = Float64Array.from(region, (k) => Math.sqrt(regions.area[k]));
  const isSpared = sparedOf(xs, ys, extents, spared);
  for (let n = 0; n < region.length; n++) if (isSpared[n] !== 0) chosen[region[n]] = 0;
  const told = largest(region.map((k) => regions.area[k]));
  return told.map((n) => ({ kind, xPx: xs[n], yPx: ys[n], size: regions.area[region[n]], spared: isSpared[n] !== 0 }));
}

/** The places of finds of one kind, at most `MOST_FINDS`, as indices in their own order. */
function largest(sizes: Int32Array): number[] {
  const all = Array.from(sizes, (_, n) => n);
  if (all.length <= MOST_FINDS) return all;
  return all
    .sort((a, b) => sizes[b] - sizes[a])
    .slice(0, MOST_FINDS)
    .sort((a, b) => a - b);
}

/** A place on each chosen region: the middle of its longest run. */
function regionPlaces(
  { runStart, runEnd, regionOfRun, count }: Regions,
  chosen: Uint8Array,
  width: number,
): { region: Int32Array; xs: Float64Array; ys: Float64Array } {
  const longest = new Int32Array(count).fill(-1);
  for (let run = 0; run < runStart.length; run++) {
    const k = regionOfRun[run];
    if (chosen[k] === 0) continue;
    const before = longest[k];
    if (before < 0 || runEnd[run] - runStart[run] > runEnd[before] - runStart[before]) longest[k] = run;
  }
  const region = Int32Array.from(longest.keys()).filter((k) => longest[k] >= 0);
  const xs = Float64Array.from(region, (k) => ((runStart[longest[k]] % width) + ((runEnd[longest[k]] - 1) % width) + 1) / 2);
  const ys = Float64Array.from(region, (k) => Math.floor(runStart[longest[k]] / width) + 0.5);
  return { region, xs, ys };
}

/** Places in picture pixels as art pixels. */
export const placesInArt = ({ leftPx, topPx, scale }: Frame, places: Places): Places =>
  places.map(({ xPx, yPx }) => ({ xPx: (xPx - leftPx) * scale, yPx: (yPx - topPx) * scale }));

/** A rectangle in picture pixels as art pixels. */
export const rectInArt = ({ leftPx, topPx, scale }: Frame, { xPx, yPx, widthPx, heightPx }: RectPx): RectPx => ({
  xPx: (xPx - leftPx) * scale,
  yPx: (yPx - topPx) * scale,
  widthPx: widthPx * scale,
  heightPx: heightPx * scale,
});

/** Finds in art pixels as finds in picture pixels. */
export const findsInPicture = ({ leftPx, topPx, scale }: Frame, finds: readonly Find[]): Find[] =>
  finds.map((find) => ({
    ...find,
    xPx: leftPx + find.xPx / scale,
    yPx: topPx + find.yPx / scale,
    size: find.size / (find.kind === 'joint' ? scale : scale * scale),
  }));
