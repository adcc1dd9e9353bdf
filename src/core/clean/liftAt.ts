import type { Art } from '../raster/art.ts';
import { within, type Task } from '../task/task.ts';
import { paintedSquares, type PaintedSquares } from './squares/paintedSquares.ts';
import { findTolerance, type FoundTolerance } from './findTolerance.ts';
import type { Find, Places } from './finds.ts';
import { guardLeaks } from './guardLeaks.ts';
import { addEnclosed, areaMask, nearTo, levelFromTolerance } from './liftMask.ts';
import { reachLevels, seedColour } from './reachLevels.ts';
import { clearHard, clearLifted, type Lifted } from './softenLift.ts';

export interface LiftOptions {
  readonly tolerance: 'auto' | number;
  /** The colour wherever it is, instead of only what is connected to the point. */
  readonly everywhere: boolean;
  /** Also closed-off areas of the same colour. */
  readonly enclosed: boolean;
  /** Places, in art pixels, of closed-off areas that stay. */
  readonly spared?: Places;
  readonly soft: boolean;
  /** Gaps in an outline narrower than this do not let the lift through, px; 0 or absent for no guard. */
  readonly guardPx?: number;
}

export interface LiftOutcome {
  readonly art: Art;
  readonly tolerance: number;
  /** Where the tolerance that was found holds; absent when it was given. */
  readonly found?: FoundTolerance;
  readonly areaPx2: number;
  /** The ground was painted in squares, which told what goes. */
  readonly inSquares?: true;
  /** Closed-off areas of the colour that were found, those that stay too; in art pixels. */
  readonly finds: readonly Find[];
}

/**
 * Lifts from one whole art pixel: the tolerance found or given, then the area, everywhere or with what is enclosed, then the edge. Where the pixel lies in squares
 * that stand for clear all of them go.
 */
export function* liftAt(art: Art, x: number, y: number, options: LiftOptions): Task<LiftOutcome> {
  const squares = options.everywhere ? undefined : yield* within(paintedSquares(art), 0, 0.2);
  if (squares?.mask[y * art.width + x] === 1) return yield* within(liftSquares(squares, options), 0.2, 1);
  const given = options.tolerance === 'auto' ? undefined : options.tolerance;
  const reach = yield* within(reachLevels(art, x, y, given === undefined ? undefined : levelFromTolerance(given)), 0, 0.7);
  const found = given === undefined ? findTolerance(reach.areaByLevel) : undefined;
  const tolerance = given ?? found?.tolerance ?? 0;
  const reached = yield* within(options.everywhere ? nearTo(art, seedColour(art, x, y), tolerance) : areaMask(reach, tolerance), 0.7, 0.73);
  const guardPx = options.everywhere ? 0 : (options.guardPx ?? 0);
  const mask = guardPx > 0 ? yield* within(guardLeaks(reached, art.width, art.height, x, y, guardPx), 0.73, 0.78) : reached;
  const { finds, stays } = options.enclosed ? yield* within(addEnclosed(art, mask, reach.from, tolerance, options.spared), 0.78, 0.85) : { finds: [], stays: undefined };
  yield 0.85;
  let areaPx2 = 0;
  for (let i = 0; i < mask.length; i++) areaPx2 += mask[i];
  const what: Lifted = { lifted: mask, ground: reach.from, everywhere: options.everywhere || options.enclosed, ...(stays === undefined ? {} : { stays }) };
  return { art: yield* within(options.soft ? clearLifted(art, what) : clearHard(art, mask), 0.85, 1), tolerance, areaPx2, finds, ...(found === undefined ? {} : { found }) };
}

/** Lifts a ground that is painted in squares, wherever they are; art of their greys stays. */
function* liftSquares({ mask, stays, plain, ground }: PaintedSquares, { tolerance, soft }: LiftOptions): Task<LiftOutcome> {
  let areaPx2 = 0;
  for (let i = 0; i < mask.length; i++) areaPx2 += mask[i];
  const art = yield* soft ? clearLifted(plain, { lifted: mask, ground, stays, everywhere: true }) : clearHard(plain, mask);
  return { art, tolerance: tolerance === 'auto' ? 0 : tolerance, areaPx2, finds: [], inSquares: true };
}
