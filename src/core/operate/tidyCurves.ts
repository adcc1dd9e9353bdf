import { combineCurves, joinOverlaps } from '../combine/combineCurves.ts';
import { offsetCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { directionAt, sidesOf, type Cubic, type Point } from '../combine/sides.ts';
import { circleOf, QUARTER } from '../outline/circle.ts';
import { CurvesBuilder, isOpenRing, ringArea, ringCount, type Curves } from '../outline/curves.ts';
import { nestBySense } from '../outline/nestBySense.ts';
import { withoutSmallRings } from '../outline/withoutSmallRings.ts';
import { piecesOf } from '../outline/pieces.ts';
import { evenStrokes } from './evenStrokes.ts';
import { fitted, sampled } from './fitStretch.ts';
import { ofPieces } from './pieceMarks.ts';
import { rightAngles } from './rightAngles.ts';

export interface TidyOptions {
  /** How far the new outline may lie from the old one. */
  readonly withinMm: number;
  /** Smaller pieces and openings go. */
  readonly leastMm2: number;
  /** Gaps up to this width are closed. */
  readonly gapMm: number;
  /** Whether what is straight or round within the tolerance becomes so. */
  readonly straight: boolean;
  /** Whether corners that are nearly square become so. */
  readonly square?: boolean | undefined;
  /** Strokes up to this width become as broad everywhere as they usually are; none at 0. */
  readonly strokesMm?: number | undefined;
}

/** Sampled this often on the tolerance: then the fit's own units are about a sample. */
const SAMPLE = 2;
/** Turns from this on stay corners, radians. */
const CORNER_RAD = 0.5;
/** What a closed gap takes, in squares of its width: inner corners that are only rounded take less. */
const GAP_AREA = 0.25;
/** New bits lie so far over the old outline that nothing is left between them, mm. */
const OVER_MM = 0.01;

/** Outlines with fewer nodes, none further off than the tolerance; a ring that gains nothing stays as it is. @param curves mm. */
export function tidyCurves(library: PolygonLibrary, curves: Curves, { withinMm, leastMm2, gapMm, straight, square = false, strokesMm = 0 }: TidyOptions): Curves {
  const closed = gapMm > 0 ? withoutGaps(library, curves, gapMm) : curves;
  const even = strokesMm > 0 ? evenStrokes(closed, strokesMm) : closed;
  const left = leastMm2 > 0 ? withoutSmallRings(even, leastMm2) : even;
  const builder = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(left); ring++) {
    if (isOpenRing(left, ring) || !drawTidied(builder, left, ring, withinMm, straight)) builder.copy(left, ring, -1);
  }
  return nestBySense(square ? rightAngles(builder.build()) : builder.build());
}

/** Gaps narrower than a width filled; everything else keeps its nodes. */
function withoutGaps(library: PolygonLibrary, curves: Curves, gapMm: number): Curves {
  const grown = offsetCurves(library, offsetCurves(library, joinOverlaps(library, curves), gapMm / 2), -gapMm / 2);
  const bits = combineCurves(library, 'cutOut', grown, curves);
  const gaps = piecesOf(bits).filter(({ area }) => area > GAP_AREA * gapMm ** 2);
  return gaps.length === 0 ? curves : combineCurves(library, 'join', curves, offsetCurves(library, ofPieces(bits, gaps), OVER_MM));
}

/** Draws a ring anew; false where that takes no fewer nodes. */
function drawTidied(builder: CurvesBuilder, curves: Curves, ring: number, withinMm: number, straight: boolean): boolean {
  const sides = sidesOf(curves, ring).map(({ cubic }) => cubic);
  if (sides.length < 3) return false;
  const unit = withinMm * SAMPLE;
  const corners = sides.flatMap((side, k) => (isCorner(sides[(k + sides.length - 1) % sides.length], side) ? [k] : []));
  const verbs: (readonly number[])[] = [];
  if (straight && corners.length === 0 && asCircle(builder, curves, ring, sides, unit)) return true;
  const starts = corners.length === 0 ? [0] : corners;
  for (const [k, from] of starts.entries()) {
    const to = starts[(k + 1) % starts.length];
    const count = (to - from + sides.length) % sides.length || sides.length;
    const samples = sampled(Array.from({ length: count }, (_, step) => sides[(from + step) % sides.length]), unit);
    verbs.push(...fitted(samples, 1 / SAMPLE, straight));
  }
  if (verbs.length >= sides.length) return false;
  const [x, y] = [sides[starts[0]][0].x, sides[starts[0]][0].y];
  builder.start(x, y, -1);
  for (const [k, verb] of verbs.entries()) {
    const own = verb.map((value) => value * unit);
    // The last comes back to the first place, to the last digit.
    if (k === verbs.length - 1) own.splice(own.length - 2, 2, x, y);
    if (own.length === 2) builder.line(own[0], own[1]);
    else builder.cubic(own[0], own[1], own[2], own[3], own[4], own[5]);
  }
  builder.close();
  return true;
}

function isCorner(before: Cubic, after: Cubic): boolean {
  const [from, to] = [directionAt(before, 1) as Point, directionAt(after, 0) as Point];
  return Math.abs(Math.atan2(from.x * to.y - from.y * to.x, from.x * to.x + from.y * to.y)) >= CORNER_RAD;
}

/** Draws a ring that is a circle within the tolerance as one. */
function asCircle(builder: CurvesBuilder, curves: Curves, ring: number, sides: readonly Cubic[], unit: number): boolean {
  const samples = sampled(sides, unit);
  const circle = circleOf({ ...samples, n: samples.n - 1, closed: true }, 1 / SAMPLE);
  if (circle === undefined) return false;
  const [cx, cy, r] = [circle.x * unit, circle.y * unit, circle.radius * unit];
  const way = ringArea(curves, ring) > 0 ? 1 : -1;
  const handle = QUARTER * r;
  builder.start(cx + r, cy, -1);
  builder.cubic(cx + r, cy + way * handle, cx + handle, cy + way * r, cx, cy + way * r);
  builder.cubic(cx - handle, cy + way * r, cx - r, cy + way * handle, cx - r, cy);
  builder.cubic(cx - r, cy - way * handle, cx - handle, cy - way * r, cx, cy - way * r);
  builder.cubic(cx + handle, cy - way * r, cx + r, cy - way * handle, cx + r, cy);
  builder.close();
  return true;
}
