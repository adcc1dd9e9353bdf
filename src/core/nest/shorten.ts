import type { Task } from '../task/task.ts';
import { flatTurn } from './flatTurn.ts';
import { freeOverlaps } from './freeOverlaps.ts';
import type { Pose, Strip } from './strip.ts';
import type { NestShape } from './nestShape.ts';
import { firstTurns, type Turns } from './turns.ts';

export interface ShortenOptions {
  readonly turns: Turns;
  readonly random: () => number;
  /** How much of the time is gone, 0 to 1. */
  readonly share: () => number;
}

/** Share of the time that goes to new arrangements; the rest presses the best one together. */
const EXPLORING = 0.8;
/** By how much a strip is shortened at a time: while that comes out easily, when it does not, and at the end. */
const MOST_STEP = 0.03;
const EXPLORING_STEP = 0.003;
const LEAST_STEP = 0.0003;
/** Arrangements that nearly came out, to go on from. */
const POOL = 8;

interface Arrangement {
  readonly poses: readonly Pose[];
  readonly overlap: number;
}

/**
 * Shortens a strip on which nothing overlaps: again and again it is made shorter, what then overlaps is freed; when that does not come out, large parts change places in one of the arrangements that came nearest. At last the best
 * one is pressed together in small steps. Ends with the time; the strip lies as it was shortest.
 */
export function* shorten(strip: Strip, { turns, random, share }: ShortenOptions): Task<number> {
  const movable = Array.from({ length: strip.fixedFrom }, (_, k) => k);
  const poses = (): Pose[] => movable.map(strip.pose);
  const lie = (to: readonly Pose[]): void => movable.forEach((k) => strip.put(k, to[k]));
  let best = { lengthMm: strip.usedMm(), poses: poses() };
  const shortest = shortestTurns(strip, turns);
  const least = Math.max(leastLength(strip), ...[...shortest.values()].map(({ lengthMm }) => lengthMm));
  const few = strip.fixedFrom <= 60 ? 1 : 60 / strip.fixedFrom;
  const effort = { anywhere: Math.max(8, Math.round(20 * few)), nearby: Math.max(6, Math.round(12 * few)), followed: 3 };
  let step = MOST_STEP;
  let pool: Arrangement[] = [];
  let isNew = true;
  while (share() < 1 && movable.length > 0) {
    const isExploring = share() < EXPLORING;
    const target = Math.max(least, best.lengthMm * (1 - step));
    if (target >= best.lengthMm - 1e-4) break;
    if (isNew || !isExploring) {
      strip.lengthMm = best.lengthMm;
      lie(best.poses);
      squeeze(strip, target, shortest, random);
      pool = [];
    } else {
      lie(pool[Math.floor(random() ** 2 * pool.length)].poses);
      disturb(strip, random);
    }
    const until = isExploring ? EXPLORING : 1;
    const isFree = freeOverlaps(strip, { turns, effort, patience: isExploring ? 100 : 30, random, isOver: () => share() >= until });
    isNew = isFree;
    if (isFree) {
      best = { lengthMm: strip.usedMm(), poses: poses() };
      step = Math.min(MOST_STEP, step * 1.5);
    } else if (isExploring && step > EXPLORING_STEP) {
      step = Math.max(EXPLORING_STEP, step / 2);
      isNew = true;
    } else if (isExploring) {
      const overlap = strip.total();
      const at = pool.findIndex((each) => overlap < each.overlap);
      pool.splice(at < 0 ? pool.length : at, 0, { poses: poses(), overlap });
      if (pool.length > POOL) pool.pop();
    } else step = Math.max(LEAST_STEP, step / 2);
    yield share();
  }
  strip.lengthMm = best.lengthMm;
  lie(best.poses);
  return best.lengthMm;
}

/** No strip is shorter than its shapes side by side without a gap, nor than any of them. */
function leastLength({ shapes, fixedFrom, widthMm }: Strip): number {
  const area = shapes.slice(0, fixedFrom).reduce((sum, shape) => sum + materialOf(shape.points, shape.starts), 0);
  return area / widthMm;
}

/** Area of rings, even-odd, as outer rings and openings run against each other. */
function materialOf(points: Float64Array, starts: Int32Array): number {
  let twice = 0;
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    let j = starts[ring + 1] - 1;
    for (let i = starts[ring]; i < starts[ring + 1]; j = i++) twice += points[2 * j] * points[2 * i + 1] - points[2 * i] * points[2 * j + 1];
  }
  return Math.abs(twice) / 2;
}

/** For each shape the turn at which it takes the least of the strip's length, of those at which it lies across it. */
function shortestTurns(strip: Strip, turns: Turns): Map<NestShape, { readonly angle: number; readonly lengthMm: number }> {
  const found = new Map<NestShape, { angle: number; lengthMm: number }>();
  for (const shape of new Set(strip.shapes.slice(0, strip.fixedFrom))) {
    let best = { angle: 0, lengthMm: Infinity };
    for (const angle of firstTurns(turns, [flatTurn(shape), Math.PI / 4])) {
      strip.turnTo(shape, angle);
      const { left, top, right, bottom } = strip.triedBox;
      if (bottom - top <= strip.widthMm && right - left < best.lengthMm) best = { angle, lengthMm: right - left };
    }
    found.set(shape, best);
  }
  return found;
}

/** Takes a length out of a strip at a place of chance: what lies beyond moves along, and what is too long as it lies is turned. */
function squeeze(strip: Strip, lengthMm: number, shortest: ReturnType<typeof shortestTurns>, random: () => number): void {
  const by = strip.lengthMm - lengthMm;
  const cut = random() * strip.lengthMm;
  strip.lengthMm = lengthMm;
  for (let k = 0; k < strip.fixedFrom; k++) {
    const { x, y, angle: before } = strip.pose(k);
    const shape = strip.shapes[k];
    strip.turnTo(shape, before);
    const isTooLong = strip.room() === undefined;
    const angle = isTooLong ? (shortest.get(shape)?.angle ?? before) : before;
    strip.turnTo(shape, angle);
    const room = strip.room();
    if (room === undefined) continue;
    const moved = x > cut ? x - by : x;
    const to = { x: Math.max(room.left, Math.min(room.right, moved)), y: Math.max(room.top, Math.min(room.bottom, y)), angle };
    if (isTooLong || to.x !== x || to.y !== y) strip.put(k, to);
  }
}

/** Changes the places of two large parts that are not alike. */
function disturb(strip: Strip, random: () => number): void {
  const large = Array.from({ length: strip.fixedFrom }, (_, k) => k).sort((a, b) => strip.shapes[b].hullAreaMm2 - strip.shapes[a].hullAreaMm2);
  const pool = large.slice(0, Math.max(2, Math.ceil(large.length * 0.75)));
  const a = pool[Math.floor(random() * pool.length)];
  const others = large.filter((k) => strip.shapes[k] !== strip.shapes[a]);
  const b = others[Math.floor(random() * others.length)];
  if (b === undefined) return;
  const [poseA, poseB] = [strip.pose(a), strip.pose(b)];
  for (const [k, { x, y }, { angle }] of [[a, poseB, poseA], [b, poseA, poseB]] as const) {
    strip.turnTo(strip.shapes[k], angle);
    const room = strip.room();
    if (room !== undefined) strip.put(k, { x: Math.max(room.left, Math.min(room.right, x)), y: Math.max(room.top, Math.min(room.bottom, y)), angle });
  }
}
