import { findPlace, type SearchEffort } from './findPlace.ts';
import type { Strip } from './strip.ts';
import type { Turns } from './turns.ts';

/** How weights follow overlaps: what overlaps most counts for twice as much after a round, what no longer does loses slowly. */
const LEAST_GROWTH = 1.2;
const MOST_GROWTH = 2;
const DECAY = 0.95;
const MOST_WEIGHT = 1e6;

export interface FreeOptions {
  readonly turns: Turns;
  readonly effort: SearchEffort;
  /** Rounds without less overlap than ever before until it is given up. */
  readonly patience: number;
  readonly random: () => number;
  readonly isOver: () => boolean;
}

/**
 * Moves parts that overlap until none does: each to where it overlaps least, pair by pair counted more the longer it overlaps (guided local search; J. Egeblad, B. K. Nielsen & A. Odgaard, "Fast neighborhood
 * search for two- and three-dimensional nesting problems", EJOR 183(3), 2007, doi:10.1016/j.ejor.2005.11.063).
 * @returns whether nothing overlaps any more; when not, the strip lies as it overlapped least.
 */
export function freeOverlaps(strip: Strip, { turns, effort, patience, random, isOver }: FreeOptions): boolean {
  const movable = Array.from({ length: strip.fixedFrom }, (_, k) => k);
  let least = strip.total();
  let kept = movable.map(strip.pose);
  let waiting = 0;
  strip.weight.fill(1);
  while (least > 0) {
    for (const part of shuffled(movable.filter((k) => strip.overlapOf(k) > 0), random)) {
      const now = strip.weighed(part);
      if (now === 0) continue;
      const { pose, value } = findPlace(strip, part, turns, effort, random);
      if (value < now) strip.put(part, pose);
      if (isOver()) break;
    }
    const total = strip.total();
    if (total < least) {
      // A little less is no reason to go on for long.
      if (total < 0.98 * least) waiting = 0;
      least = total;
      kept = movable.map(strip.pose);
    } else waiting++;
    if (least === 0 || waiting > patience || isOver()) break;
    weigh(strip);
  }
  if (strip.total() > least) for (const k of movable) strip.put(k, kept[k]);
  return least === 0;
}

function weigh({ overlap, weight }: Strip): void {
  let most = 0;
  for (const value of overlap) if (value > most) most = value;
  if (most === 0) return;
  for (let i = 0; i < weight.length; i++) {
    const value = overlap[i];
    weight[i] = value > 0 ? Math.min(MOST_WEIGHT, weight[i] * (LEAST_GROWTH + ((MOST_GROWTH - LEAST_GROWTH) * value) / most)) : Math.max(1, weight[i] * DECAY);
  }
}

/** Changes the order of values by chance (R. Durstenfeld, CACM 7(7), 1964). */
export function shuffled(values: number[], random: () => number): number[] {
  for (let k = values.length - 1; k > 0; k--) {
    const other = Math.floor(random() * (k + 1));
    [values[k], values[other]] = [values[other], values[k]];
  }
  return values;
}
