import { AppError } from '../errors/appError.ts';
import { within, type Task } from '../task/task.ts';
import { freeOverlaps } from './freeOverlaps.ts';
import { flatTurn } from './flatTurn.ts';
import { layFirst, type LaidPart } from './layFirst.ts';
import type { NestShape } from './nestShape.ts';
import { randomFrom } from '../task/randomFrom.ts';
import { shorten } from './shorten.ts';
import { Strip, type Pose } from './strip.ts';
import { firstTurns, type Turns } from './turns.ts';

export interface NestInput {
  /** One for each copy; copies share theirs. */
  readonly shapes: readonly NestShape[];
  /** Across the sheet, mm. */
  readonly widthMm: number;
  /** Along it, where length is saved, mm. */
  readonly lengthMm: number;
  readonly turns: Turns;
  /** What lies on every sheet and may not be covered: flaws, what is not sheet. As they lie. */
  readonly taken?: readonly NestShape[];
  readonly seed?: number;
  /** How much of the time is gone, 0 to 1: at 1 it ends. */
  readonly share: () => number;
  /** To go on from, instead of from the start. */
  readonly from?: readonly NestedSheet[];
}

export interface NestedSheet {
  /** How far the sheet is used along, mm. */
  readonly usedMm: number;
  readonly laid: readonly LaidPart[];
}

/** More parts than this on a sheet are laid once and not moved any more: pairs are too many. */
const MOST_MOVED = 1200;

/**
 * Lays parts on sheets by their true outlines so that as few sheets as possible and as little of the last one's length are used; nothing overlaps, no part is turned over. The longer it may take the better it
 * becomes; told to end at once, it gives the first arrangement.
 * @throws AppError `doesNotFit` for a part that is larger than the sheet at every turn.
 */
export function* nest(input: NestInput): Task<NestedSheet[]> {
  const { shapes, widthMm, lengthMm, turns, share } = input;
  const fits = new Map([...new Set(shapes)].map((shape) => [shape, placeThatFits(shape, input)]));
  const random = randomFrom(input.seed ?? 1);
  const first = input.from ?? layFirst(shapes, widthMm, lengthMm, turns, input.taken).map((laid) => sheetOf(shapes, laid));
  // A part that fills a sheet to less than a cell gets one of its own.
  const isLaid = new Set(first.flatMap(({ laid }) => laid.map(({ part }) => part)));
  const alone = shapes.flatMap((shape, part) => (isLaid.has(part) ? [] : [sheetOf(shapes, [{ part, pose: fits.get(shape) as Pose }])]));
  let sheets = [...alone, ...first];
  yield 0;
  const many = sheets.length;
  if (many > 1) sheets = yield* within(fillEarlier(sheets, input, random), 0, 0.5);
  const last = sheets[sheets.length - 1];
  if (last === undefined || last.laid.length > MOST_MOVED) return sheets;
  const began = many > 1 ? Math.min(share(), 0.999) : 0;
  const strip = stripOf(last.laid, input, last.usedMm);
  yield* shorten(strip, { turns, random, share: () => (share() - began) / (1 - began) });
  return [...sheets.slice(0, -1), { usedMm: strip.usedMm(), laid: last.laid.map(({ part }, k) => ({ part, pose: strip.pose(k) })) }];
}

/** Brings parts of the last sheet to earlier ones as long as there is room between others. */
function* fillEarlier(sheets: readonly NestedSheet[], input: NestInput, random: () => number): Task<NestedSheet[]> {
  const { turns, share, lengthMm } = input;
  const done = [...sheets];
  const until = 0.6;
  for (let round = 0; share() < until && done.length > 1; round++) {
    const last = done[done.length - 1];
    const at = round % (done.length - 1);
    const [small] = [...last.laid].sort((a, b) => input.shapes[a.part].hullAreaMm2 - input.shapes[b.part].hullAreaMm2).slice(Math.floor((round / Math.max(1, done.length - 1)) % last.laid.length));
    if (done[at].laid.length > MOST_MOVED) break;
    const strip = stripOf([...done[at].laid, small], input, lengthMm);
    const isFree = freeOverlaps(strip, { turns, effort: { anywhere: 40, nearby: 20, followed: 3 }, patience: 12, random, isOver: () => share() >= until });
    if (isFree) {
      done[at] = { usedMm: strip.usedMm(), laid: [...done[at].laid, small].map(({ part }, k) => ({ part, pose: strip.pose(k) })) };
      const rest = last.laid.filter(({ part }) => part !== small.part);
      done[done.length - 1] = sheetOf(input.shapes, rest);
      if (rest.length === 0) done.pop();
    }
    yield share();
  }
  return done;
}

function stripOf(laid: readonly LaidPart[], { shapes, widthMm, taken = [] }: NestInput, lengthMm: number): Strip {
  const strip = new Strip([...laid.map(({ part }) => shapes[part]), ...taken], widthMm, lengthMm, laid.length);
  for (const [k, shape] of taken.entries()) strip.put(laid.length + k, { ...shape.middle, angle: 0 });
  for (const [k, { pose }] of laid.entries()) strip.put(k, pose);
  return strip;
}

/** How far parts reach along their sheet. */
function sheetOf(shapes: readonly NestShape[], laid: readonly LaidPart[]): NestedSheet {
  let usedMm = 0;
  for (const { part, pose } of laid) {
    const { points } = shapes[part];
    const [cos, sin] = [Math.cos(pose.angle), Math.sin(pose.angle)];
    for (let i = 0; i < points.length; i += 2) usedMm = Math.max(usedMm, pose.x + cos * points[i] - sin * points[i + 1]);
  }
  return { usedMm, laid };
}

/** Where a shape lies alone on a sheet. @throws AppError `doesNotFit`. */
function placeThatFits(shape: NestShape, { widthMm, lengthMm, turns }: NestInput): Pose {
  let least = { width: Infinity, height: Infinity };
  for (const angle of firstTurns(turns, [flatTurn(shape), Math.PI / 4])) {
    const strip = new Strip([shape], widthMm, lengthMm);
    strip.turnTo(shape, angle);
    const room = strip.room();
    if (room !== undefined) return { x: room.left, y: room.top, angle };
    const { left, top, right, bottom } = strip.triedBox;
    const over = { width: Math.max(0, right - left - lengthMm), height: Math.max(0, bottom - top - widthMm) };
    if (over.width + over.height < least.width + least.height) least = over;
  }
  throw new AppError('doesNotFit', { overWidthMm: Math.ceil(least.width * 10) / 10, overHeightMm: Math.ceil(least.height * 10) / 10 });
}

/** Which of two results is better: fewer sheets, then less of the last one. */
export const isBetter = (a: readonly NestedSheet[], b: readonly NestedSheet[]): boolean =>
  a.length < b.length || (a.length === b.length && (a[a.length - 1]?.usedMm ?? 0) < (b[b.length - 1]?.usedMm ?? 0));
