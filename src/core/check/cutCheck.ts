import type { Design } from '../assemble/design.ts';
import { isOpenRing, ringArea, type Curves } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';
import type { Material } from '../process/material.ts';
import { PROCESSES } from '../process/processes.ts';
import { crowdedNodes } from '../outline/crowdedNodes.ts';
import { jaggedPlaces } from '../outline/jaggedPlaces.ts';
import { sharpTips } from '../combine/sharpTips.ts';
import { thinPlaces } from '../outline/thinPlaces.ts';

/** A place that will not cut or weed well. */
export interface Finding {
  readonly kind: 'smallPiece' | 'smallHole' | 'island' | 'thin' | 'narrowGap' | 'sharp' | 'jagged' | 'openOutline' | 'cutTwice' | 'crowded' | 'backwards' | 'coarsePicture' | 'likeBlank' | 'holdsNone';
  /** Film on which it lies; absent for what is of the whole picture. */
  readonly filmId?: string;
  /** Where, in mm on the design. */
  readonly xMm: number;
  readonly yMm: number;
  /**
   * How small: mm² for pieces, holes, islands and what is cut twice, degrees for sharp tips, mm for the width of thin places and narrow gaps, the depth of teeth and the gap of open outlines, nodes where they are crowded, signs that read backwards, dots per inch for the
   * picture, the difference of colours (CIEDE2000) for a film like its blank, mm² for what lies on film that takes none.
   */
  readonly size: number;
}

export interface CheckLimits {
  readonly leastPieceMm2: number;
  /** Thinnest strip of film that can be weeded, mm. */
  readonly leastStripMm: number;
  /** Narrowest gap between film, or opening of a stencil, that comes out, mm; any does when absent. */
  readonly leastGapMm?: number;
  /** Tips of film that are more pointed lift with the knife, degrees; none when absent. */
  readonly leastTipDeg?: number;
  /** Whether the art is cut out of the film, so that a hole in it is an island that nothing holds. */
  readonly artIsOpening: boolean;
}

/** The limits of what a film is made of, as they are checked. */
export const checkLimits = ({ least, process }: Pick<Material, 'least' | 'process'>): CheckLimits => ({ leastPieceMm2: least.pieceMm2, leastStripMm: least.stripMm, leastGapMm: least.gapMm, leastTipDeg: least.tipDeg, artIsOpening: PROCESSES[process].artIsOpening });

/** Below this many picture pixels on a mm, edges are guessed rather than read: 60 dots per inch. */
const COARSE_PX_PER_MM = 60 / 25.4;

/**
 * Looks for pieces and holes that are too small at the finished size, for islands of a stencil, for strips that are too thin and edges that are jagged, each
 * kind smallest first, and for a picture that is too coarse for the size.
 * @param of the limits, the same for all films or those of each. @param picturePxPerMm pixels of the picture as it came on a mm of the design; none is too coarse when absent.
 */
export function cutCheck(design: Pick<Design, 'layers'>, of: CheckLimits | ((filmId: string) => CheckLimits), picturePxPerMm = Infinity): Finding[] {
  const findings: Finding[] = [];
  const limitsOf = typeof of === 'function' ? of : () => of;
  for (const { filmId, curves } of design.layers) {
    const limits = limitsOf(filmId);
    for (const piece of piecesOf(curves)) {
      if (piece.area < limits.leastPieceMm2) findings.push({ kind: 'smallPiece', filmId, ...ringMiddle(curves, piece.outer), size: piece.area });
      for (const hole of piece.holes) {
        const area = Math.abs(ringArea(curves, hole));
        if (limits.artIsOpening) findings.push({ kind: 'island', filmId, ...ringMiddle(curves, hole), size: area });
        else if (area < limits.leastPieceMm2) findings.push({ kind: 'smallHole', filmId, ...ringMiddle(curves, hole), size: area });
      }
    }
  }
  findings.sort((a, b) => a.size - b.size);
  for (const { filmId, curves } of design.layers) findings.push(...openOutlines(curves).map((finding) => ({ ...finding, filmId })));
  const small = findings.filter(({ kind }) => kind === 'smallPiece');
  // A piece that is too small as a whole is told once.
  const isTold = ({ xMm, yMm }: Finding): boolean => small.some((piece) => Math.hypot(piece.xMm - xMm, piece.yMm - yMm) <= Math.sqrt(piece.size));
  for (const { filmId, curves } of design.layers)
    findings.push(
      ...stripFindings(curves, limitsOf(filmId))
        .filter((finding) => !isTold(finding))
        .map((finding) => ({ ...finding, filmId })),
    );
  if (picturePxPerMm < COARSE_PX_PER_MM) findings.push({ kind: 'coarsePicture', xMm: 0, yMm: 0, size: picturePxPerMm * 25.4 });
  return findings;
}

/** Outlines that were cut open: where their ends are, and how far apart. */
function openOutlines(curves: Curves): Finding[] {
  const { coords, coordStart } = curves;
  return Array.from(curves.parent.keys())
    .filter((ring) => isOpenRing(curves, ring))
    .map((ring) => {
      const [a, b] = [coordStart[ring], coordStart[ring + 1] - 2];
      return {
        kind: 'openOutline',
        xMm: (coords[a] + coords[b]) / 2,
        yMm: (coords[a + 1] + coords[b + 1]) / 2,
        size: Math.hypot(coords[a] - coords[b], coords[a + 1] - coords[b + 1]),
      };
    });
}

function stripFindings(curves: Curves, { leastStripMm, leastGapMm = 0, leastTipDeg = 0, artIsOpening }: CheckLimits): Finding[] {
  const thin = thinPlaces(curves, leastStripMm, artIsOpening ? 'outside' : 'inside').map(({ xMm, yMm, widthMm }): Finding => ({
    kind: 'thin',
    xMm,
    yMm,
    size: widthMm,
  }));
  const gaps = thinPlaces(curves, leastGapMm, artIsOpening ? 'inside' : 'outside').map(({ xMm, yMm, widthMm }): Finding => ({ kind: 'narrowGap', xMm, yMm, size: widthMm }));
  const tips = artIsOpening ? [] : sharpTips(curves, leastTipDeg).map(({ xMm, yMm, angleDeg }): Finding => ({ kind: 'sharp', xMm, yMm, size: angleDeg }));
  const jagged = jaggedPlaces(curves, leastStripMm).map(({ xMm, yMm, depthMm }): Finding => ({ kind: 'jagged', xMm, yMm, size: depthMm }));
  const crowded = crowdedNodes(curves).map(({ xMm, yMm, nodes }): Finding => ({ kind: 'crowded', xMm, yMm, size: nodes }));
  return [...[thin, gaps, tips].flatMap((found) => found.sort((a, b) => a.size - b.size)), ...[jagged, crowded].flatMap((found) => found.sort((a, b) => b.size - a.size))];
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
