import type { Design } from '../assemble/design.ts';
import { boxOfPoints, ringArea, type Curves } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';
import { thinPlaces } from '../outline/thinPlaces.ts';
import type { CheckLimits, Finding } from './cutCheck.ts';

/** A place that stands in the way of a smaller size. */
export interface SizeBlocker {
  readonly finding: Finding;
  /** Width of the design from which on it is large enough, mm. */
  readonly fromWidthMm: number;
}

/** Down to which size a design works. */
export interface WorkingSize {
  /** Width from which on nothing is too thin, too narrow or too small, mm; 0 where nothing was found down to `downToMm`. */
  readonly leastWidthMm: number;
  /** Narrower than this nothing was looked for. */
  readonly downToMm: number;
  /** What would have to go, or be mended, for a smaller size: what needs the largest size first. */
  readonly blockers: readonly SizeBlocker[];
}

/** Sizes are looked at down to this share of the present one. */
const DOWN_TO = 0.25;
/** Widths are measured by chords of this share of the present limit. */
const CHORD = 1 / 20;

/**
 * Down to which width a design cuts and weeds well. A place grows with the design: a strip with its width, a piece with its square; so that one look with wider limits says for every
 * place from which size on it is large enough.
 */
export function workingSize(design: Pick<Design, 'layers' | 'widthMm'>, of: CheckLimits | ((filmId: string) => CheckLimits)): WorkingSize {
  const limitsOf = typeof of === 'function' ? of : () => of;
  const blockers = design.layers
    .flatMap(({ filmId, curves }) => {
      const limits = limitsOf(filmId);
      const { small, isTold } = smallOf(curves, limits);
      return [...small, ...narrowOf(curves, limits).filter(({ finding }) => !isTold(finding))].map(({ finding, factor }) => ({ finding: { ...finding, filmId }, fromWidthMm: design.widthMm * factor }));
    })
    .sort((a, b) => b.fromWidthMm - a.fromWidthMm);
  return { leastWidthMm: blockers[0]?.fromWidthMm ?? 0, downToMm: design.widthMm * DOWN_TO, blockers };
}

/** A place, and by how much the design must be larger for it to be large enough; below 1 it may be smaller. */
interface Needed {
  readonly finding: Finding;
  readonly factor: number;
}

function smallOf(curves: Curves, { leastPieceMm2, artIsOpening }: CheckLimits): { readonly small: readonly Needed[]; readonly isTold: (finding: Finding) => boolean } {
  const small: Needed[] = [];
  const take = (kind: 'smallPiece' | 'smallHole', ring: number, areaMm2: number): void => {
    if (areaMm2 >= leastPieceMm2 / DOWN_TO ** 2 || areaMm2 <= 0) return;
    const { left, top, right, bottom } = boxOfPoints(curves.coords, curves.coordStart[ring] / 2, curves.coordStart[ring + 1] / 2);
    small.push({ finding: { kind, xMm: (left + right) / 2, yMm: (top + bottom) / 2, size: areaMm2 }, factor: Math.sqrt(leastPieceMm2 / areaMm2) });
  };
  for (const { outer, holes, area } of piecesOf(curves)) {
    take('smallPiece', outer, area);
    if (!artIsOpening) for (const hole of holes) take('smallHole', hole, Math.abs(ringArea(curves, hole)));
  }
  // A piece that is too small as a whole is told once, where that needs more than its width does.
  const isTold = ({ kind, xMm, yMm }: Finding): boolean => kind === 'thin' && small.some(({ finding, factor }) => finding.kind === 'smallPiece' && factor >= 1 && Math.hypot(finding.xMm - xMm, finding.yMm - yMm) <= Math.sqrt(finding.size));
  return { small, isTold };
}

function narrowOf(curves: Curves, { leastStripMm, leastGapMm = 0, artIsOpening }: CheckLimits): Needed[] {
  const look = (kind: 'thin' | 'narrowGap', leastMm: number, side: 'inside' | 'outside'): Needed[] =>
    thinPlaces(curves, leastMm / DOWN_TO, side, leastMm * CHORD).map(({ xMm, yMm, widthMm }) => ({ finding: { kind, xMm, yMm, size: widthMm }, factor: leastMm / Math.max(widthMm, 1e-6) }));
  return [...look('thin', leastStripMm, artIsOpening ? 'outside' : 'inside'), ...look('narrowGap', leastGapMm, artIsOpening ? 'inside' : 'outside')];
}
