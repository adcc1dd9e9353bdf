import { LEVELS_PER_UNIT } from '../colour/differenceTable.ts';

/** What the area curve says about the tolerance of a lift. */
export interface FoundTolerance {
  /** Where to stand, in perceptual difference. */
  readonly tolerance: number;
  /** The stretch in which the area hardly changes. */
  readonly holdsFrom: number;
  readonly holdsTo: number;
}

/** Below this share of growth from one end of a stretch to the other the area counts as unchanged. */
const STILL = 0.012;
/** A stretch must be this long to count, in levels: one perceptual unit. */
const SHORTEST = LEVELS_PER_UNIT;
/** Where in the stretch to stand: nearer its start, since what ends it is a leak into the art. */
const STAND_AT = 0.4;

/**
 * Finds the first stretch of the area curve that is nearly flat: up to its start the ground's own noise is still being taken, at its end
 * the lift runs into something else. When the curve never rests (a soft photo) the longest calm stretch there is counts.
 * @param areaByLevel pixels reached at each level (a tenth of a perceptual difference) or below, as `reachLevels` gives it.
 */
export function findTolerance(areaByLevel: Float64Array): FoundTolerance {
  const last = areaByLevel.length - 1;
  let best = { from: 0, to: 0, score: -1 };
  for (let from = 0; from <= last; from++) {
    if (from > 0 && areaByLevel[from] === areaByLevel[from - 1]) continue;
    const to = stillUntil(areaByLevel, from);
    const length = to - from;
    if (length >= SHORTEST && length >= from * 0.5) {
      best = { from, to, score: length };
      break;
    }
    const score = length / (from + SHORTEST);
    if (score > best.score) best = { from, to, score };
  }
  const at = best.from + Math.max(1, Math.round((best.to - best.from) * STAND_AT));
  return { tolerance: Math.min(at, last) / LEVELS_PER_UNIT, holdsFrom: best.from / LEVELS_PER_UNIT, holdsTo: best.to / LEVELS_PER_UNIT };
}

/** The furthest level at which the area has grown by no more than the still share since `from`. */
function stillUntil(area: Float64Array, from: number): number {
  const limit = area[from] * (1 + STILL) + 1;
  let to = from;
  while (to + 1 < area.length && area[to + 1] <= limit) to++;
  return to;
}
