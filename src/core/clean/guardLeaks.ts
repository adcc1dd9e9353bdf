import { cellsAbove, distancesInside, distancesTo } from '../raster/distance.ts';
import { fillRegions, labelRegions } from '../raster/labelRegions.ts';
import { within, type Task } from '../task/task.ts';

/**
 * Keeps of a lifted area what can be reached from the point without passing a gap narrower than `guardPx`: an opening of the area by a disc, the part of it at
 * the point, and around that what lies within the disc's reach (J. Serra, Image Analysis and Mathematical Morphology, 1982). Nooks too narrow for the disc that
 * lead nowhere wide are kept.
 * @param mask 1 where the lift reached; not changed. @param x whole pixel at which it starts; the same for `y`.
 */
export function* guardLeaks(mask: Uint8Array, width: number, height: number, x: number, y: number, guardPx: number): Task<Uint8Array> {
  const half = guardPx / 2;
  const inside = yield* within(distancesInside(mask, width, height, 'free'), 0, 0.4);
  const wide = cellsAbove(inside, half);
  const part = partAt(wide, width, height, x, y, half);
  if (part === undefined) return mask;
  const near = yield* within(distancesTo(part, width, height), 0.45, 0.85);
  const kept = new Uint8Array(mask.length);
  const rest = new Uint8Array(mask.length);
  for (let i = 0; i < mask.length; i++) {
    if (mask[i] === 0) continue;
    if (near[i] <= half + 0.5) kept[i] = 1;
    else rest[i] = 1;
  }
  yield 0.9;
  const regions = labelRegions(rest, width, height, 1, false);
  const ends = new Uint8Array(regions.count).fill(1);
  for (let run = 0; run < regions.runStart.length; run++) {
    if (wide.subarray(regions.runStart[run], regions.runEnd[run]).includes(1)) ends[regions.regionOfRun[run]] = 0;
  }
  return fillRegions(regions, ends, kept);
}

/** The connected wide part nearest to the point, at most the disc's reach away; undefined when the point itself lies in a narrow place. */
function partAt(wide: Uint8Array, width: number, height: number, x: number, y: number, reachPx: number): Uint8Array | undefined {
  const regions = labelRegions(wide, width, height, 1, true);
  let region = -1;
  let nearest = reachPx + 1;
  for (let run = 0; run < regions.runStart.length; run++) {
    const row = Math.floor(regions.runStart[run] / width);
    const first = regions.runStart[run] - row * width;
    const last = regions.runEnd[run] - 1 - row * width;
    const distance = Math.hypot(Math.max(0, first - x, x - last), row - y);
    if (distance >= nearest) continue;
    nearest = distance;
    region = regions.regionOfRun[run];
  }
  if (region < 0) return undefined;
  const part = new Uint8Array(wide.length);
  for (let run = 0; run < regions.runStart.length; run++) if (regions.regionOfRun[run] === region) part.fill(1, regions.runStart[run], regions.runEnd[run]);
  return part;
}
