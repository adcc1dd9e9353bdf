import { placed, type Affine } from '../geometry/affine.ts';
import type { DesignLayer } from '../assemble/design.ts';
import { boxOfPoints, CurvesBuilder, ringCount, type Curves } from '../outline/curves.ts';
import { nestBySense } from '../outline/nestBySense.ts';
import type { Piece } from '../outline/pieces.ts';
import { joinCurves } from '../outline/transformCurves.ts';
import type { PieceMark } from './operation.ts';
import { pieceAt, piecesIndex } from './piecesIndex.ts';

/** Scanlines on which the broadest stretch of a piece is looked for. */
const LINES = 9;

/** A place well inside of a piece: the middle of the broadest of some stretches across it. */
export function innerPlace(curves: Curves, { outer, holes }: Pick<Piece, 'outer' | 'holes'>): { x: number; y: number } {
  const { points, starts } = piecesIndex(curves).rings;
  const { top, bottom, left } = boxOfPoints(points, starts[outer], starts[outer + 1]);
  let best = { x: left, y: top, width: -1 };
  for (let line = 1; line <= LINES; line++) {
    // Off the round shares, where nodes like to lie.
    const y = top + ((bottom - top) * (line - 0.03)) / (LINES + 1);
    const crossings = [outer, ...holes].flatMap((ring) => crossingsOf(points, starts[ring], starts[ring + 1], y)).sort((a, b) => a - b);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const width = crossings[k + 1] - crossings[k];
      if (width > best.width) best = { x: (crossings[k] + crossings[k + 1]) / 2, y, width };
    }
  }
  return { x: best.x, y: best.y };
}

/** A place well inside of the largest piece. @param curves of one piece at least. */
export const largestPlace = (curves: Curves): { x: number; y: number } => innerPlace(curves, piecesIndex(curves).pieces.reduce((largest, piece) => (piece.area > largest.area ? piece : largest)));

function crossingsOf(points: Float64Array, from: number, to: number, y: number): number[] {
  const found: number[] = [];
  for (let i = from, j = to - 1; i < to; j = i++) {
    const [yi, yj] = [points[2 * i + 1], points[2 * j + 1]];
    if (yi > y !== yj > y) found.push(points[2 * i] + ((points[2 * j] - points[2 * i]) * (y - yi)) / (yj - yi));
  }
  return found;
}

/** A mark that no piece was found for by now, and one for the piece that is nearest to it. */
export interface LostMark {
  readonly mark: PieceMark;
  readonly nearest?: PieceMark | undefined;
}

export interface MarkedPieces {
  /** Of each layer the pieces that were marked, and all others. */
  readonly marked: readonly DesignLayer[];
  readonly rest: readonly DesignLayer[];
  readonly lost: readonly LostMark[];
}

/**
 * Parts the pieces that are marked from the others.
 * @param toMm from the frame of the marks to the mm of the layers; `fromMm` is the way back.
 */
export function markedPieces(layers: readonly DesignLayer[], marks: readonly PieceMark[], toMm: Affine, fromMm: Affine): MarkedPieces {
  const marked: DesignLayer[] = [];
  const rest: DesignLayer[] = [];
  const lost: LostMark[] = marks.filter(({ film }) => layers.every(({ filmId }) => filmId !== film)).map((mark) => ({ mark }));
  for (const layer of layers) {
    const { filmId, curves } = layer;
    const { pieces } = piecesIndex(curves);
    const taken = new Set<number>();
    for (const mark of marks) {
      if (mark.film !== filmId) continue;
      const { x, y } = placed(toMm, mark.x, mark.y);
      const piece = pieceAt(curves, x, y);
      if (piece >= 0) taken.add(piece);
      else lost.push({ mark, nearest: nearestPiece(curves, pieces, x, y, filmId, fromMm) });
    }
    if (taken.size === 0) rest.push(layer);
    else {
      marked.push({ filmId, curves: ofPieces(curves, pieces.filter((_, k) => taken.has(k))) });
      const others = pieces.filter((_, k) => !taken.has(k));
      rest.push({ ...layer, curves: ofPieces(curves, others) });
    }
  }
  return { marked, rest, lost };
}

function nearestPiece(curves: Curves, pieces: readonly Piece[], x: number, y: number, film: string, fromMm: Affine): PieceMark | undefined {
  const { points, starts } = piecesIndex(curves).rings;
  let [found, nearest] = [undefined as Piece | undefined, Infinity];
  for (const piece of pieces) {
    for (let k = starts[piece.outer]; k < starts[piece.outer + 1]; k++) {
      const away = Math.hypot(points[2 * k] - x, points[2 * k + 1] - y);
      if (away < nearest) [found, nearest] = [piece, away];
    }
  }
  if (found === undefined) return undefined;
  const inner = innerPlace(curves, found);
  return { film, ...placed(fromMm, inner.x, inner.y) };
}

/** The rings of some pieces alone. */
export function ofPieces(curves: Curves, pieces: readonly Piece[]): Curves {
  const builder = new CurvesBuilder();
  let count = 0;
  for (const { outer, holes } of pieces) {
    const around = count++;
    builder.copy(curves, outer, -1);
    for (const hole of holes) {
      builder.copy(curves, hole, around);
      count++;
    }
  }
  return builder.build();
}

/** Outlines of several layers of one film as one, nested anew. */
export function together(parts: readonly Curves[]): Curves {
  const some = parts.filter((curves) => ringCount(curves) > 0);
  if (some.length === 1) return some[0];
  return nestBySense(joinCurves(some));
}
