import type { Rgb } from '../../colour/oklab.ts';
import { signedArea } from '../../geometry/rings.ts';
import type { Art } from '../../raster/art.ts';
import type { LabelMap } from '../../raster/labelMap.ts';
import { finish, type Task } from '../../task/task.ts';
import { findCorners, type Ring } from '../corners.ts';
import type { End } from '../cubicFit.ts';
import { CurvesBuilder, type Curves } from '../curves.ts';
import { JointFinder } from '../joints.ts';
import { sectionWithin, type Section } from '../section.ts';
import { drawRing, drawSections, STRAIGHT_SHARE, TRIM_PX, type OutlineOptions } from '../traceOutline.ts';
import { arcPoints } from './arcPoints.ts';
import { crackArcs, type CrackArcs } from './crackArcs.ts';
import { EdgePlaces } from './edgePlaces.ts';
import { junctions } from './junctions.ts';
import { saddleRule } from './saddles.ts';

/**
 * The edges between all tones as a planar graph. Each arc is one curve, fitted once, which the tones on both of its sides use: neighbours have not a similar edge
 * but the same one. Coordinates are px of the art.
 */
export interface ArcMesh {
  readonly kind: 'arcMesh';
  readonly width: number;
  readonly height: number;
  /** Which labels and nodes the arcs lie between. */
  readonly arcs: CrackArcs;
  /** Curve of each arc in its direction of travel, as if each were a ring; only closed arcs end where they began. */
  readonly curves: Curves;
}

export type MeshOptions = Pick<OutlineOptions, 'followPx' | 'cornerRad' | 'circles'>;

/**
 * Traces the boundaries of a label map and fits each once.
 * @param tones colours of the labels, by which mixed pixels say where inside them an edge runs.
 * @throws AppError `tooIntricate` when there are more arcs than a drawing has.
 */
export function* traceMesh(art: Art, labels: LabelMap, tones: readonly Rgb[], options: MeshOptions): Task<ArcMesh> {
  let places: EdgePlaces | undefined;
  const arcs = crackArcs(labels, (cells, stride) => {
    places = new EdgePlaces(art, tones, cells, stride);
    return saddleRule(places, cells, stride);
  });
  yield 0.2;
  const rings: Ring[] = [];
  if (places !== undefined) for (let k = 0; k < arcs.count; k++) rings.push(arcPoints(arcs, k, places));
  yield 0.35;
  const { ends } = junctions(arcs, rings, options.cornerRad);
  const builder = new CurvesBuilder();
  const finder = new JointFinder({ tolerancePx: options.followPx, straightPx: options.followPx * STRAIGHT_SHARE });
  let sincePause = 0;
  for (const [k, ring] of rings.entries()) {
    drawArc(builder, ring, ends[2 * k], ends[2 * k + 1], options, finder);
    sincePause += ring.n;
    if (sincePause < 4000) continue;
    sincePause = 0;
    yield 0.4 + (0.6 * k) / rings.length;
  }
  return { kind: 'arcMesh', width: labels.width, height: labels.height, arcs, curves: builder.build() };
}

/** `traceMesh` in one go. */
export const meshOf = (art: Art, labels: LabelMap, tones: readonly Rgb[], options: MeshOptions): ArcMesh => finish(traceMesh(art, labels, tones, options));

function drawArc(builder: CurvesBuilder, ring: Ring, from: End | undefined, to: End | undefined, options: MeshOptions, finder: JointFinder): void {
  if (from === undefined || to === undefined) {
    const points = new Float64Array(ring.n * 2);
    for (let k = 0; k < ring.n; k++) points.set([ring.x[k], ring.y[k]], 2 * k);
    drawRing(builder, ring, signedArea(points, 0, ring.n), -1, options, finder);
    return;
  }
  drawSections(builder, sectionsOf(ring, from, to, options), -1, finder);
}

function sectionsOf(ring: Ring, from: End, to: End, options: MeshOptions): Section[] {
  const corners = findCorners(ring, { leastTurnRad: options.cornerRad, edgeWidthPx: 1 });
  const sections: Section[] = [];
  let start = from;
  let first = 0;
  for (const corner of corners) {
    const end: End = { x: corner.x, y: corner.y, dx: 0, dy: 0, free: true };
    sections.push(sectionWithin(ring, first, corner.index, start, end, TRIM_PX));
    start = end;
    first = corner.index;
  }
  sections.push(sectionWithin(ring, first, ring.n - 1, start, to, TRIM_PX));
  return sections;
}
