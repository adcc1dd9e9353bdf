import type { Design } from '../assemble/design.ts';
import { ringArea, type Curves } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';

/** A place that will not cut or weed well. */
export interface Finding {
  readonly kind: 'smallPiece' | 'smallHole' | 'coarsePicture';
  /** Where, in mm on the design. */
  readonly xMm: number;
  readonly yMm: number;
  /** How small: mm² for pieces and holes, dots per inch for the picture. */
  readonly size: number;
}

export interface CheckLimits {
  readonly leastPieceMm2: number;
}

/** Below this many picture pixels on a mm, edges are guessed rather than read: 60 dots per inch. */
const COARSE_PX_PER_MM = 60 / 25.4;

/** Looks for pieces and holes that are too small at the finished size, smallest first, and for a picture that is too coarse for it. */
export function cutCheck(design: Design, limits: CheckLimits): Finding[] {
  const findings: Finding[] = [];
  for (const { curves } of design.layers) {
    for (const piece of piecesOf(curves)) {
      if (piece.area < limits.leastPieceMm2) findings.push({ kind: 'smallPiece', ...ringMiddle(curves, piece.outer), size: piece.area });
      for (const hole of piece.holes) {
        const area = Math.abs(ringArea(curves, hole));
        if (area < limits.leastPieceMm2) findings.push({ kind: 'smallHole', ...ringMiddle(curves, hole), size: area });
      }
    }
  }
  findings.sort((a, b) => a.size - b.size);
  if (design.resolution < COARSE_PX_PER_MM) findings.push({ kind: 'coarsePicture', xMm: 0, yMm: 0, size: design.resolution * 25.4 });
  return findings;
}

function ringMiddle(curves: Curves, ring: number): { xMm: number; yMm: number } {
  let x = 0;
  let y = 0;
  const from = curves.coordStart[ring];
  const to = curves.coordStart[ring + 1];
  for (let i = from; i < to; i += 2) {
    x += curves.coords[i];
    y += curves.coords[i + 1];
  }
  const count = (to - from) / 2;
  return { xMm: x / count, yMm: y / count };
}
