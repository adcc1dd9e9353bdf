import { boxOfPoints, type Bounds, type Curves } from '../outline/curves.ts';
import { insideRing } from '../outline/checkCurves.ts';
import { flatten } from '../outline/flatten.ts';
import { piecesOf, type Piece } from '../outline/pieces.ts';
import type { Rings } from '../geometry/rings.ts';

/** Chords for telling what lies where, mm. */
const CHORD_MM = 0.02;

/** The pieces of an outline with their boxes and chords, worked out once. */
export interface PiecesIndex {
  readonly pieces: readonly Piece[];
  readonly boxes: readonly Bounds[];
  readonly rings: Rings;
}
const indexes = new WeakMap<Curves, PiecesIndex>();

export function piecesIndex(curves: Curves): PiecesIndex {
  const known = indexes.get(curves);
  if (known !== undefined) return known;
  const pieces = piecesOf(curves);
  const rings = flatten(curves, CHORD_MM);
  const made = { pieces, rings, boxes: pieces.map(({ outer }) => boxOfPoints(rings.points, rings.starts[outer], rings.starts[outer + 1])) };
  indexes.set(curves, made);
  return made;
}

/** The number of the smallest piece at a place, or beside it by no more than the slack; −1 where there is none. */
export function pieceAt(curves: Curves, x: number, y: number, slackMm = 0): number {
  const { pieces, boxes, rings } = piecesIndex(curves);
  let found = -1;
  for (const [k, { outer, holes, area }] of pieces.entries()) {
    const box = boxes[k];
    if (x < box.left - slackMm || x > box.right + slackMm || y < box.top - slackMm || y > box.bottom + slackMm) continue;
    if (found >= 0 && pieces[found].area <= area) continue;
    const isIn = insideRing(rings, outer, x, y) && !holes.some((hole) => insideRing(rings, hole, x, y));
    if (isIn || (slackMm > 0 && [outer, ...holes].some((ring) => isNear(rings, ring, x, y, slackMm)))) found = k;
  }
  return found;
}

function isNear({ points, starts }: Rings, ring: number, x: number, y: number, within: number): boolean {
  for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) {
    const [px, py] = [points[2 * j], points[2 * j + 1]];
    const [dx, dy] = [points[2 * i] - px, points[2 * i + 1] - py];
    const length2 = dx * dx + dy * dy;
    const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((x - px) * dx + (y - py) * dy) / length2));
    if (Math.hypot(x - px - t * dx, y - py - t * dy) <= within) return true;
  }
  return false;
}
