import { combineCurves, joinOverlaps } from '../combine/combineCurves.ts';
import { offsetCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { CurvesBuilder, depthOf, ringCount, type Curves } from '../outline/curves.ts';
import { joinCurves } from '../outline/transformCurves.ts';
import { ofPieces } from './pieceMarks.ts';
import { pieceAt, piecesIndex } from './piecesIndex.ts';

/**
 * What outlines enclose: the areas that have no way out, largest first. Gaps up to `gapMm` are taken for closed: the lines are made broader by half of it, and what they enclose then is grown back.
 * @returns one outline for each area, without what lies in it.
 */
export function enclosedCurves(library: PolygonLibrary, lines: readonly Curves[], gapMm: number): Curves {
  const whole = joinOverlaps(library, joinCurves(lines));
  const closed = gapMm > 0 ? offsetCurves(library, whole, gapMm / 2) : whole;
  const openings = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(closed); ring++) if (depthOf(closed, ring) % 2 === 1) openings.copy(closed, ring, -1);
  const rings = openings.build();
  if (ringCount(rings) === 0) return rings;
  // Openings run the other way round; joined with nothing they are outlines of their own, less the islands in them.
  const full = joinOverlaps(library, rings);
  const areas = gapMm > 0 ? offsetCurves(library, full, gapMm / 2) : full;
  return combineCurves(library, 'cutOut', areas, whole);
}

/** The enclosed areas around places, grown by a reach under the lines; places that nothing encloses are told. */
export function fillAt(library: PolygonLibrary, enclosed: Curves, places: readonly { readonly x: number; readonly y: number }[], reachMm: number): { readonly curves: Curves; readonly lost: number } {
  const { pieces } = piecesIndex(enclosed);
  const taken = new Set(places.map(({ x, y }) => pieceAt(enclosed, x, y)));
  const curves = ofPieces(
    enclosed,
    pieces.filter((_, k) => taken.has(k)),
  );
  const lost = places.filter(({ x, y }) => pieceAt(enclosed, x, y) < 0).length;
  return { curves: reachMm > 0 ? offsetCurves(library, curves, reachMm) : curves, lost };
}
