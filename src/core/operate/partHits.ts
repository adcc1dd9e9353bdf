import type { PartInDesign } from '../assemble/composeDesign.ts';
import type { Bounds } from '../outline/curves.ts';
import { pieceAt } from './piecesIndex.ts';

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
  const near = parts.filter(({ box }) => x >= box.left - slackMm && x <= box.right + slackMm && y >= box.top - slackMm && y <= box.bottom + slackMm);
  for (const film of order) {
    for (let k = near.length - 1; k >= 0; k--) {
      const part = near[k];
      // What cuts lies on no film: it is found below all that does.
      if ((part.cutsOut === true) !== (film === undefined)) continue;
      for (const { filmId, curves } of part.layers) {
        if (film !== undefined && filmId !== film) continue;
        const piece = pieceAt(curves, x, y, slackMm);
        if (piece >= 0) found.push({ partId: part.id, film: filmId, piece });
      }
    }
  }
  return found;
}

/** Whether a box lies in another. */
export const liesIn = (box: Bounds, frame: Bounds): boolean => box.left >= frame.left && box.top >= frame.top && box.right <= frame.right && box.bottom <= frame.bottom;
