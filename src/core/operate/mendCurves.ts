import { combineCurves } from '../combine/combineCurves.ts';
import { offsetCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { sharpTips } from '../combine/sharpTips.ts';
import { CurvesBuilder, ringArea, ringCount, type Curves } from '../outline/curves.ts';
import { piecesOf, type Piece } from '../outline/pieces.ts';
import { thinPlaces } from '../outline/thinPlaces.ts';
import { ofPieces } from './pieceMarks.ts';
import { pieceAt, piecesIndex } from './piecesIndex.ts';
import { smoothRuns } from './smoothRuns.ts';

/** What is to become of places that will not cut or weed well; lengths in the mm of the outlines. */
export interface MendSettings {
  /** Strips become as broad as this; left alone when absent. */
  readonly stripMm?: number | undefined;
  /** Gaps become as wide as this, or are closed. */
  readonly gapMm?: number | undefined;
  readonly gapsAre?: 'opened' | 'closed' | undefined;
  /** Smaller pieces are dropped and smaller holes filled, mm². */
  readonly pieceMm2?: number | undefined;
  /** Tips more pointed than this are rounded, degrees, by this radius. */
  readonly tipDeg?: number | undefined;
  readonly tipRadiusMm?: number | undefined;
  /** Teeth with sides up to this are smoothed, and nodes that are nearer than `closeMm` become few. */
  readonly teethMm?: number | undefined;
  readonly closeMm?: number | undefined;
  /** Only what lies at these places; all of it when absent. */
  readonly at?: readonly { readonly x: number; readonly y: number }[] | undefined;
}

/** A little more than was asked for, mm, so that rounding does not leave a hair too little. */
const OVER_MM = 0.012;
/** A place belongs to what lies within this of it, as a share of the width that is asked for. */
const NEAR = 0.75;

/**
 * Outlines with their weak places mended, each by itself: a strip grows where it is too thin and nowhere else, a gap opens where it is too narrow. Strips are what is left over by a morphological
 * opening (G. Matheron, Random Sets and Integral Geometry, 1975) and holds one of the places that the cut check tells; so corners, which an opening takes off too, stay.
 * @param curves of one film, nested. They are not changed.
 */
export function mendCurves(library: PolygonLibrary, curves: Curves, { stripMm, gapMm, gapsAre = 'opened', pieceMm2, tipDeg, tipRadiusMm, teethMm, closeMm = 0, at }: MendSettings): Curves {
  let now = teethMm === undefined ? curves : smoothRuns(curves, { teethMm, closeMm, isMeant: (x, y) => isOne(at, x, y, teethMm) });
  if (pieceMm2 !== undefined) now = withoutSmall(now, pieceMm2, at);
  if (tipDeg !== undefined && tipRadiusMm !== undefined && tipRadiusMm > 0) now = rounded(library, now, tipDeg, tipRadiusMm, at);
  if (gapMm !== undefined && gapMm > 0) now = gapsAre === 'opened' ? widened(library, now, gapMm, at) : closed(library, now, gapMm, at);
  if (stripMm !== undefined && stripMm > 0) now = broadened(library, now, stripMm, at);
  return now;
}

type Places = MendSettings['at'];
const isOne = (at: Places, x: number, y: number, within: number): boolean => at === undefined || at.some((place) => Math.hypot(place.x - x, place.y - y) <= within);

function withoutSmall(curves: Curves, leastMm2: number, at: Places): Curves {
  const builder = new CurvesBuilder();
  let count = 0;
  const isMeant = (piece: Pick<Piece, 'outer' | 'holes'>, area: number): boolean => at === undefined || at.some(({ x, y }) => isAtRing(curves, piece.outer, x, y, Math.sqrt(area)));
  for (const piece of piecesOf(curves)) {
    if (piece.area < leastMm2 && isMeant(piece, piece.area)) continue;
    const around = count++;
    builder.copy(curves, piece.outer, -1);
    for (const hole of piece.holes) {
      const area = Math.abs(ringArea(curves, hole));
      if (area < leastMm2 && isMeant({ outer: hole, holes: [] }, area)) continue;
      builder.copy(curves, hole, around);
      count++;
    }
  }
  return builder.build();
}

/** Whether a place lies within so much of the middle of a ring's nodes. */
function isAtRing({ coords, coordStart }: Curves, ring: number, x: number, y: number, within: number): boolean {
  for (let k = coordStart[ring]; k < coordStart[ring + 1]; k += 2) if (Math.hypot(coords[k] - x, coords[k + 1] - y) <= within) return true;
  return false;
}

/** The pieces of `left` at which one of the places lies, each with the width that it is there. */
function atPlaces(left: Curves, places: readonly { readonly xMm: number; readonly yMm: number; readonly widthMm: number }[], within: number): { readonly piece: Curves; readonly widthMm: number }[] {
  const { pieces } = piecesIndex(left);
  const widths = new Map<number, number>();
  for (const { xMm, yMm, widthMm } of places) {
    const piece = pieceAt(left, xMm, yMm, within);
    if (piece >= 0) widths.set(piece, Math.min(widths.get(piece) ?? Infinity, widthMm));
  }
  return [...widths].map(([piece, widthMm]) => ({ piece: ofPieces(left, [pieces[piece]]), widthMm }));
}

const opened = (library: PolygonLibrary, curves: Curves, byMm: number): Curves => offsetCurves(library, offsetCurves(library, curves, -byMm), byMm + OVER_MM);

function broadened(library: PolygonLibrary, curves: Curves, stripMm: number, at: Places): Curves {
  const places = thinPlaces(curves, stripMm).filter(({ xMm, yMm }) => isOne(at, xMm, yMm, stripMm));
  if (places.length === 0) return curves;
  const thin = combineCurves(library, 'cutOut', curves, opened(library, curves, stripMm / 2));
  return atPlaces(thin, places, stripMm * NEAR).reduce((whole, { piece, widthMm }) => combineCurves(library, 'join', whole, offsetCurves(library, piece, (stripMm - widthMm) / 2 + OVER_MM)), curves);
}

/** The waste between outlines that is narrower than a width, where one of the places lies. */
function narrowWaste(library: PolygonLibrary, curves: Curves, gapMm: number, at: Places): ReturnType<typeof atPlaces> {
  const places = thinPlaces(curves, gapMm, 'outside').filter(({ xMm, yMm }) => isOne(at, xMm, yMm, gapMm));
  if (places.length === 0) return [];
  const filled = offsetCurves(library, offsetCurves(library, curves, gapMm / 2), -gapMm / 2 - OVER_MM);
  return atPlaces(combineCurves(library, 'cutOut', filled, curves), places, gapMm * NEAR);
}

const widened = (library: PolygonLibrary, curves: Curves, gapMm: number, at: Places): Curves =>
  narrowWaste(library, curves, gapMm, at).reduce((whole, { piece, widthMm }) => combineCurves(library, 'cutOut', whole, offsetCurves(library, piece, (gapMm - widthMm) / 2 + OVER_MM)), curves);

const closed = (library: PolygonLibrary, curves: Curves, gapMm: number, at: Places): Curves => narrowWaste(library, curves, gapMm, at).reduce((whole, { piece }) => combineCurves(library, 'join', whole, offsetCurves(library, piece, 2 * OVER_MM)), curves);

function rounded(library: PolygonLibrary, curves: Curves, tipDeg: number, radiusMm: number, at: Places): Curves {
  const tips = sharpTips(curves, tipDeg).filter(({ xMm, yMm }) => isOne(at, xMm, yMm, radiusMm));
  if (tips.length === 0 || ringCount(curves) === 0) return curves;
  const ends = combineCurves(library, 'cutOut', curves, opened(library, curves, radiusMm));
  return atPlaces(ends, tips.map(({ xMm, yMm }) => ({ xMm, yMm, widthMm: 0 })), radiusMm).reduce((whole, { piece }) => combineCurves(library, 'cutOut', whole, offsetCurves(library, piece, OVER_MM / 2)), curves);
}
