import type { PartInDesign } from '../assemble/composeDesign.ts';
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

/** A piece of a part: by its part, film and number in `piecesOf` the film's outline. */
export interface PieceHit {
  readonly partId: string;
  readonly film: string;
  readonly piece: number;
}

/**
 * The pieces at a place of a design, the uppermost first: by the order of films, then of parts.
 * @param films of the design, lowest first. @param slackMm how far beside a piece one may point.
 */
export function hitsAt(parts: readonly PartInDesign[], films: readonly string[], x: number, y: number, slackMm = 0): PieceHit[] {
  const found: PieceHit[] = [];
  const order = [undefined, ...films].reverse();
  for (const film of order) {
    for (let k = parts.length - 1; k >= 0; k--) {
      const part = parts[k];
      // What cuts lies on no film: it is found below all that does.
      if ((part.cutsOut === true) !== (film === undefined)) continue;
      for (const { filmId, curves } of part.layers) {
        if (film !== undefined && filmId !== film) continue;
        const piece = pieceNear(curves, x, y, slackMm);
        if (piece >= 0) found.push({ partId: part.id, film: filmId, piece });
      }
    }
  }
  return found;
}

function pieceNear(curves: Curves, x: number, y: number, slackMm: number): number {
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

/** Whether a box lies in another. */
export const liesIn = (box: Bounds, frame: Bounds): boolean => box.left >= frame.left && box.top >= frame.top && box.right <= frame.right && box.bottom <= frame.bottom;
