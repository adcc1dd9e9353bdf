import { nodePlaces, ringCount, type Curves } from './curves.ts';
import type { NodeRun } from './jaggedPlaces.ts';

export interface CrowdedNodes extends NodeRun {
  readonly xMm: number;
  readonly yMm: number;
}

/**
 * Nodes that follow each other more closely are too many, mm: a plotter counts in steps of 0.025 mm (the plotter unit of HP-GL), and a way of fewer than two of them goes in one of eight directions, so the tool stutters from
 * one rounded corner to the next.
 */
export const CROWDED_MM = 0.05;
/** So many in a row are no corner that was rounded, nor a serif: these have up to six. */
const LEAST_RUN = 12;

/**
 * Stretches of the outlines that have more nodes than a tool can follow, as an interchange format or a pixel edge leaves them: for each the middle of its run.
 * @param curves in mm. @param closeMm nodes nearer than this are too near.
 */
export function crowdedNodes(curves: Curves, closeMm: number = CROWDED_MM): CrowdedNodes[] {
  const found: CrowdedNodes[] = [];
  for (let ring = 0; ring < ringCount(curves); ring++) {
    const ends = nodePlaces(curves, ring);
    const count = ends.length;
    const isClose = (k: number): boolean => distance(curves, ends[k % count], ends[(k + 1) % count]) < closeMm;
    // Begins where no run can be under way; a ring that is crowded all around is one run.
    let begin = 0;
    while (begin < count && isClose(begin)) begin++;
    for (let k = begin + 1; k <= begin + count;) {
      let length = 1;
      while (length < count && isClose(k + length - 1)) length++;
      if (length >= LEAST_RUN) {
        const middle = ends[(k + (length >> 1)) % count];
        found.push({ ring, from: k % count, nodes: length, xMm: curves.coords[middle], yMm: curves.coords[middle + 1] });
      }
      k += length;
    }
  }
  return found;
}

const distance = ({ coords }: Curves, a: number, b: number): number => Math.hypot(coords[a] - coords[b], coords[a + 1] - coords[b + 1]);
