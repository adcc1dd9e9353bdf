import { joinOverlaps } from '../combine/combineCurves.ts';
import { offsetCurves, strokeCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { AppError } from '../errors/appError.ts';
import { signedArea, type Rings } from '../geometry/rings.ts';
import { simplifyRings } from '../geometry/simplifyRings.ts';
import { CUBIC, CurvesBuilder, isOpenRing, ringCount, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { joinCurves } from '../outline/transformCurves.ts';
import { nestShape, type NestShape } from './nestShape.ts';

/** Outlines may lie so far inside of their own room, mm: what is meant to touch may touch. */
const TOUCH_MM = 0.0005;
/** Points that a straight-edged part may have without being simplified. */
const FEW_POINTS = 64;
/** How far a simplified outline may lie outside of the true one, as a share of the part's size and in mm. */
const TOLERANCE_SHARE = 0.0012;
const LEAST_TOLERANCE_MM = 0.01;
const MOST_TOLERANCE_MM = 0.4;
/** Room around a line that is cut open, mm. */
const LINE_MM = 0.1;

export interface NestPart {
  readonly shape: NestShape;
  /** Area of film that it is, mm². */
  readonly areaMm2: number;
}

/**
 * A part as nesting sees it: its outlines half the gap further out and with fewer points, none of which lies nearer than that; openings stay open where another part might lie in them.
 * @param curves of the part, mm. Open lines get a little room around them. @param leastOpeningMm2 smaller openings are closed.
 * @throws AppError `nothingToCut` when nothing in it has a size.
 */
export function nestPart(library: PolygonLibrary, curves: Curves, gapMm: number, leastOpeningMm2: number): NestPart {
  const [closed, open] = [new CurvesBuilder(), new CurvesBuilder()];
  for (let ring = 0; ring < ringCount(curves); ring++) (isOpenRing(curves, ring) ? open : closed).copy(curves, ring, -1);
  const lines = open.build();
  const solid = joinOverlaps(library, closed.build());
  const whole = ringCount(lines) === 0 ? solid : joinOverlaps(library, joinCurves([solid, strokeCurves(library, lines, LINE_MM)]));
  const exact = flatten(whole, LEAST_TOLERANCE_MM / 2);
  const areaMm2 = areaOf(flatten(solid, LEAST_TOLERANCE_MM / 4));
  if (exact.points.length === 0) throw new AppError('nothingToCut');
  const isPlain = exact.points.length / 2 <= FEW_POINTS && !whole.verbs.includes(CUBIC);
  const toleranceMm = isPlain ? 0 : Math.min(MOST_TOLERANCE_MM, Math.max(LEAST_TOLERANCE_MM, TOLERANCE_SHARE * Math.sqrt(areaOf(exact))));
  const roomMm = gapMm / 2 + toleranceMm - TOUCH_MM;
  const around = isPlain && gapMm === 0 ? exact : simplifyRings(flatten(offsetCurves(library, whole, roomMm + LEAST_TOLERANCE_MM / 4), LEAST_TOLERANCE_MM / 4), Math.max(toleranceMm, LEAST_TOLERANCE_MM / 2));
  return { shape: nestShape(withoutOpenings(around, leastOpeningMm2)), areaMm2 };
}

function areaOf({ points, starts }: Rings): number {
  let sum = 0;
  for (let ring = 0; ring + 1 < starts.length; ring++) sum += signedArea(points, starts[ring], starts[ring + 1]);
  return Math.abs(sum);
}

/** Without the openings that are smaller than an area; what lay in them is inside of the part then. */
function withoutOpenings({ points, starts }: Rings, leastMm2: number): Rings {
  const kept: number[] = [];
  const ends = [0];
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    const area = signedArea(points, starts[ring], starts[ring + 1]);
    if (area < 0 && -area < leastMm2) continue;
    for (let i = 2 * starts[ring]; i < 2 * starts[ring + 1]; i++) kept.push(points[i]);
    ends.push(kept.length / 2);
  }
  return { kind: 'rings', points: Float64Array.from(kept), starts: Int32Array.from(ends) };
}
