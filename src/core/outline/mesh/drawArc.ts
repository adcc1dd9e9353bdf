import type { CorneredEdge } from '../cornerCheck.ts';
import { areaOf, type Corner } from '../corners.ts';
import { freeEndAt, type End } from '../cubicFit.ts';
import type { CurvesBuilder } from '../curves.ts';
import type { JointFinder } from '../joints.ts';
import { sectionWithin, type Section } from '../section.ts';
import { cornersOf, drawRing, drawSections, STRAIGHT_SHARE, TRIM_PX, type RingOptions } from '../traceOutline.ts';
import { STEPLESS } from '../withoutSteps.ts';
import type { MeshOptions } from './arcMesh.ts';
import type { ArcPoints } from './arcPoints.ts';
import { commonRoughness } from './commonRoughness.ts';
import type { CrackArcs } from './crackArcs.ts';

/** Several colours are followed a little closer than one, by this factor: their arcs are shorter and shared, so that it costs few nodes. */
const FOLLOWS = 5 / 6;
/**
 * An edge that compression or noise has roughened is followed no closer than this times its roughness: single points may stray as far, while the mean square
 * holds the curve to the middle of them. The latter is this share of what is to be followed, and of no weight where the edge is clean.
 */
const ROUGH_FOLLOWS = 6;
const ROUGH_RMS = 0.7;
/** From this roughness on it is calmed first, over so many times the roughness, but no wider than details are, px. */
const ROUGH_FROM_PX = 0.1;
const ROUGH_CALM = 10;
const MOST_CALM_PX = 3;

/** What an arc is drawn from and by. */
export interface ArcDrawing extends Omit<CorneredEdge, 'corners' | 'valueAt' | 'stepOf'> {
  readonly options: RingOptions;
}

/** What each arc is drawn from and by: how closely it is followed goes by how rough it is. @param ends of the arcs, two each; closed ones have none. */
export function arcDrawings(arcs: CrackArcs, points: readonly ArcPoints[], ends: readonly (End | undefined)[], options: MeshOptions): (arc: number) => ArcDrawing {
  const roughOf = commonRoughness(arcs, points);
  return (arc) => {
    const { ring, edgeWidthPx, stray, isStepped } = points[arc];
    const roughPx = roughOf(arc);
    const followPx = followOf(arcs, arc, options);
    const tolerancePx = Math.max(followPx, isStepped ? STEPLESS.followPx : 0, ROUGH_FOLLOWS * roughPx);
    const calmPx = Math.max(options.smoothPx ?? 0, roughPx > ROUGH_FROM_PX ? Math.min(MOST_CALM_PX, ROUGH_CALM * roughPx) : 0);
    const [from, to] = [ends[2 * arc], ends[2 * arc + 1]];
    return {
      ring,
      ...(from === undefined || to === undefined ? {} : { ends: [from, to] }),
      trimPx: TRIM_PX * edgeWidthPx,
      calmPx,
      edgeWidthPx,
      fit: { tolerancePx, straightPx: tolerancePx * STRAIGHT_SHARE, rmsPx: Math.max(followPx * ROUGH_RMS, isStepped ? STEPLESS.rmsPx : 0, 2 * roughPx) },
      stray: stray?.middle ?? 0,
      options: { ...options, followPx: Math.max(options.followPx, tolerancePx), edgeWidthPx, smoothPx: calmPx },
    };
  };
}

function followOf({ left, right }: CrackArcs, arc: number, { followPx: asOneColour, calm }: MeshOptions): number {
  const followPx = asOneColour * FOLLOWS;
  return calm !== undefined && calm.labels.includes(left[arc]) && calm.labels.includes(right[arc]) ? Math.max(followPx, calm.followPx) : followPx;
}

/** Draws an arc, closed or from one end to the other. @param known its corners, where they are known. @returns its corners. */
export function drawArc(builder: CurvesBuilder, drawing: ArcDrawing, finder: JointFinder, known?: readonly Corner[]): readonly Corner[] {
  const { ring, ends, options } = drawing;
  finder.follow(drawing.fit);
  if (ends === undefined) return drawRing(builder, ring, areaOf(ring), -1, options, finder, known);
  const corners = known ?? cornersOf(ring, options);
  drawSections(builder, sectionsOf(drawing, corners, ends), -1, finder);
  return corners;
}

function sectionsOf({ ring, trimPx, calmPx }: ArcDrawing, corners: readonly Corner[], [from, to]: readonly [End, End]): Section[] {
  const sections: Section[] = [];
  let start = from;
  let first = 0;
  for (const corner of corners) {
    const end = freeEndAt(corner.x, corner.y);
    sections.push(sectionWithin(ring, first, corner.index, start, end, trimPx, calmPx));
    start = end;
    first = corner.index;
  }
  sections.push(sectionWithin(ring, first, ring.n - 1, start, to, trimPx, calmPx));
  return sections;
}
