import { LEVELS_PER_UNIT } from '../colour/differenceTable.ts';

/** What the area curve says about the tolerance of a lift. */
export interface FoundTolerance {
  /** Where to stand, in perceptual difference. */
  readonly tolerance: number;
  /** The stretch in which the area hardly changes. */
  readonly holdsFrom: number;
  readonly holdsTo: number;
}

/** Below this share of growth over one unit the ground's own noise counts as taken. */
const STILL = 0.012;
/** One unit of perceptual difference, in levels: how long the area must stay still. */
const SETTLED = LEVELS_PER_UNIT;
/** A growth by more than this share within a third of a unit is a leak: the lift has run into another area. */
const LEAK = 0.04;
const LEAK_WITHIN = 3;
/** Where between the two to stand: nearer the start, since what ends it is a leak into the art; and no further than three units from it. */
const STAND_AT = 0.4;
const MOST_ABOVE = 3 * LEVELS_PER_UNIT;

/**
 * Reads the area curve like a person who pulls: at first the ground's own noise is still being taken, then the area holds, growing only by the mixed
 * pixels along its edge, until it suddenly runs into something else. Where it never holds (a soft photo), the calmest stretch there is counts.
 * @param areaByLevel pixels reached at each level (a tenth of a perceptual difference) or below, as `reachLevels` gives it.
 */
export function findTolerance(areaByLevel: Float64Array): FoundTolerance {
  const last = areaByLevel.length - 1;
  const settled = firstSettled(areaByLevel);
  const { from, to } = settled === undefined ? calmest(areaByLevel) : { from: settled, to: beforeLeak(areaByLevel, settled) };
  const at = from + Math.max(1, Math.min(MOST_ABOVE, Math.round((to - from) * STAND_AT)));
  return { tolerance: Math.min(at, last) / LEVELS_PER_UNIT, holdsFrom: from / LEVELS_PER_UNIT, holdsTo: to / LEVELS_PER_UNIT };
}

function firstSettled(area: Float64Array): number | undefined {
  for (let level = 0; level + SETTLED < area.length; level++) if (area[level + SETTLED] <= area[level] * (1 + STILL) + 1) return level;
  return undefined;
}

/** The last level before the next leak. */
function beforeLeak(area: Float64Array, from: number): number {
  for (let level = from; level + LEAK_WITHIN < area.length; level++) {
    if (area[level + LEAK_WITHIN] <= area[level] * (1 + LEAK) + 4) continue;
    // Of the few levels looked at, the one with the largest step is where it breaks through.
    let breaks = level;
    for (let k = level; k < level + LEAK_WITHIN; k++) if (area[k + 1] - area[k] > area[breaks + 1] - area[breaks]) breaks = k;
    return breaks;
  }
  return area.length - 1;
}

/** The stretch of still growth that is longest for where it begins. */
function calmest(area: Float64Array): { from: number; to: number } {
  let best = { from: 0, to: 0, score: -1 };
  for (let from = 0; from < area.length; from++) {
    const limit = area[from] * (1 + STILL) + 1;
    let to = from;
    while (to + 1 < area.length && area[to + 1] <= limit) to++;
    const score = (to - from) / (from + SETTLED);
    if (score > best.score) best = { from, to, score };
  }
  return best;
}
