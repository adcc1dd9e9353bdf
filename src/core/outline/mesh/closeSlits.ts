import { distanceInside } from '../../raster/distance.ts';
import { labelRegions, runsByRegion } from '../../raster/labelRegions.ts';

/** Slits narrower than this, px, are closed however short a film reaches. */
const LEAST_PX = 2;

/**
 * Closes what a reach leaves open of a neighbour that it nearly runs through, as under a line: a slit that lies under that neighbour alone, no broader than
 * both its sides reach, is not worth a cut, nobody sees it, and its waste cannot be lifted.
 * @param isOpen 1 where the film does not lie; what is closed is set to 0. @param reachOf how far the film runs on at a pixel, px; 0 where it may not.
 */
export function closeSlits(isOpen: Uint8Array, width: number, height: number, reachOf: (pixel: number) => number): void {
  const regions = labelRegions(isOpen, width, height, 1, false);
  const { first, runs } = runsByRegion(regions);
  const { runStart, runEnd } = regions;
  let inside: Float32Array | undefined;
  for (let k = 0; k < regions.count; k++) {
    if (regions.touchesBorder[k] !== 0) continue;
    const own = runs.subarray(first[k], first[k + 1]);
    if (!own.every((run) => isUnder(runStart[run], runEnd[run], reachOf))) continue;
    inside ??= distanceInside(isOpen, width, height, 'free');
    const distance = inside;
    if (own.every((run) => isNarrow(runStart[run], runEnd[run], distance, reachOf))) for (const run of own) isOpen.fill(0, runStart[run], runEnd[run]);
  }
}

/** Whether the film may run on at all pixels of a run. */
function isUnder(from: number, to: number, reachOf: (pixel: number) => number): boolean {
  for (let i = from; i < to; i++) if (reachOf(i) === 0) return false;
  return true;
}

function isNarrow(from: number, to: number, inside: Float32Array, reachOf: (pixel: number) => number): boolean {
  for (let i = from; i < to; i++) if (2 * inside[i] - 1 > Math.max(LEAST_PX, 2 * reachOf(i))) return false;
  return true;
}
