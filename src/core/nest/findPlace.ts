import type { Pose, Strip } from './strip.ts';
import { chanceTurn, type Turns } from './turns.ts';

/** How many places are tried for a part: anywhere, and near where it lies; and how many of the best are followed. */
export interface SearchEffort {
  readonly anywhere: number;
  readonly nearby: number;
  readonly followed: number;
}

export interface Found {
  readonly pose: Pose;
  /** Weighed overlap there. */
  readonly value: number;
}

/** A followed place is left when its steps are this share of the shape's size; the best one is followed on to the second. */
const COARSE_STEP = 0.02;
const FINE_STEP = 0.0005;
const FIRST_STEP = 0.15;
/** Steps of one way downhill at most. */
const MOST_STEPS = 120;

/**
 * A place for one part on a strip where it overlaps the others least, looked for by chance everywhere and near to where it lies, the best ones then followed downhill along both axes, both diagonals and, where it may turn, around
 * (Gardeyn, Vanden Berghe & Wauters, 2025, arXiv:2509.13329).
 */
export function findPlace(strip: Strip, part: number, turns: Turns, effort: SearchEffort, random: () => number): Found {
  const shape = strip.shapes[part];
  const before = strip.pose(part);
  const best: Found[] = [{ pose: before, value: strip.weighed(part) }];
  const consider = (x: number, y: number, angle: number): void => {
    const limit = best.length < effort.followed ? Infinity : best[best.length - 1].value;
    const value = strip.tried(part, x, y, limit);
    if (value >= limit) return;
    const at = best.findIndex((each) => value < each.value);
    best.splice(at < 0 ? best.length : at, 0, { pose: { x, y, angle }, value });
    if (best.length > effort.followed) best.pop();
  };
  for (let k = 0; k < effort.anywhere; k++) {
    const angle = chanceTurn(turns, before.angle, random);
    strip.turnTo(shape, angle);
    const room = strip.room();
    if (room !== undefined) consider(room.left + random() * (room.right - room.left), room.top + random() * (room.bottom - room.top), angle);
  }
  const reach = shape.radiusMm * 0.5;
  for (let k = 0; k < effort.nearby; k++) {
    const angle = random() < 0.5 ? before.angle : chanceTurn(turns, before.angle, random);
    strip.turnTo(shape, angle);
    const room = strip.room();
    if (room === undefined) continue;
    consider(clamp(before.x + (random() * 2 - 1) * reach, room.left, room.right), clamp(before.y + (random() * 2 - 1) * reach, room.top, room.bottom), angle);
  }
  let found = best[0];
  for (const each of best) {
    if (found.value === 0) return found;
    const followed = follow(strip, part, each, turns, FIRST_STEP, COARSE_STEP, random);
    if (followed.value < found.value) found = followed;
  }
  return found.value === 0 ? found : follow(strip, part, found, turns, COARSE_STEP * 2, FINE_STEP, random);
}

const clamp = (value: number, least: number, most: number): number => (value < least ? least : value > most ? most : value);

/** Downhill from a place, by steps that grow while they help and are halved when not. */
export function follow(strip: Strip, part: number, from: Found, turns: Turns, firstShare: number, lastShare: number, random: () => number): Found {
  const shape = strip.shapes[part];
  let { x, y, angle } = from.pose;
  let { value } = from;
  let step = firstShare * shape.radiusMm;
  const last = lastShare * shape.radiusMm;
  const ways = turns === 'free' ? 5 : 4;
  for (let round = 0; round < MOST_STEPS && step >= last && value > 0; round++) {
    const way = Math.floor(random() * ways);
    const [dx, dy] = way === 0 ? [step, 0] : way === 1 ? [0, step] : way === 2 ? [step * 0.7, step * 0.7] : way === 3 ? [step * 0.7, -step * 0.7] : [0, 0];
    const turn = way === 4 ? step / shape.radiusMm : 0;
    let isBetter = false;
    const first = random() < 0.5 ? 1 : -1;
    for (const sign of [first, -first]) {
      strip.turnTo(shape, angle + sign * turn);
      const room = strip.room();
      if (room === undefined) continue;
      const [nx, ny] = [clamp(x + sign * dx, room.left, room.right), clamp(y + sign * dy, room.top, room.bottom)];
      const next = strip.tried(part, nx, ny, value);
      if (next >= value) continue;
      [x, y, angle, value, isBetter] = [nx, ny, angle + sign * turn, next, true];
      break;
    }
    step *= isBetter ? 1.2 : 0.5;
  }
  return { pose: { x, y, angle }, value };
}
