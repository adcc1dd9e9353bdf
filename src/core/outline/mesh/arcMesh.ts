import type { Rgb } from '../../colour/oklab.ts';
import { signedArea } from '../../geometry/rings.ts';
import type { Art } from '../../raster/art.ts';
import type { LabelMap } from '../../raster/labelMap.ts';
import { finish, type Task } from '../../task/task.ts';
import { alignCorners } from '../alignCorners.ts';
import { findCorners, type Ring } from '../corners.ts';
import { freeEndAt, type End } from '../cubicFit.ts';
import { CurvesBuilder, type Curves } from '../curves.ts';
import { JointFinder } from '../joints.ts';
import { withParallels } from '../parallels.ts';
import { sectionWithin, type Section } from '../section.ts';
import { drawRing, drawSections, STRAIGHT_SHARE, TRIM_PX, type OutlineOptions } from '../traceOutline.ts';
import { arcPoints, type ArcPoints, type CrackPlaces } from './arcPoints.ts';
import { commonRoughness } from './commonRoughness.ts';
import { crackArcs, DOWN, UP, type CrackArcs } from './crackArcs.ts';
import { EdgePlaces } from './edgePlaces.ts';
import { drawHalf, startOfHalf } from './filmOutline.ts';
import { junctions } from './junctions.ts';
import { saddleRule } from './saddles.ts';

/**
 * The edges between all tones as a planar graph. Each arc is one curve, fitted once, which the tones on both of its sides use: neighbours have not a similar
 * edge but the same one. Coordinates are px of the art.
 */
export interface ArcMesh {
  readonly kind: 'arcMesh';
  readonly width: number;
  readonly height: number;
  /** Which labels and nodes the arcs lie between. */
  readonly arcs: CrackArcs;
  /** Curve of each arc in its direction of travel, as if each were a ring; only closed arcs end where they began. */
  readonly curves: Curves;
  /** Root mean square distance of the edges' points from the curves, px. */
  readonly strayPx: number;
}

export type MeshOptions = Pick<OutlineOptions, 'followPx' | 'cornerRad' | 'shapes' | 'smoothPx'> & {
  /** Edges between these two labels need be followed no closer than this, px: they were calmed over more than that before. */
  readonly calm?: { readonly labels: readonly [number, number]; readonly followPx: number };
};

/** Several colours are followed a little closer than one, by this factor: their arcs are shorter and shared, so that it costs few nodes. */
const FOLLOWS = 5 / 6;

/**
 * Traces the boundaries of a label map and fits each once.
 * @param tones colours of the labels, by which mixed pixels say where inside them an edge runs.
 * @throws AppError `tooIntricate` when there are more arcs than a drawing has.
 */
export function* traceMesh(art: Art, labels: LabelMap, tones: readonly Rgb[], options: MeshOptions): Task<ArcMesh> {
  const holder: { places?: EdgePlaces } = {};
  const arcs = crackArcs(labels, (cells, stride) => {
    holder.places = new EdgePlaces(art, tones, cells, stride);
    return saddleRule(holder.places, cells, stride);
  });
  yield 0.2;
  return yield* fitMesh(arcs, holder.places as EdgePlaces, labels.width, labels.height, options);
}

/** Curves of another mesh of the same lattice that stay as they are. */
export interface KeptCurves {
  readonly curves: Curves;
  /** Which of them an arc is: twice its number, one more when it runs against it; −1 for arcs that are fitted. */
  readonly halfOf: (arc: number) => number;
  /** Where that mesh has a node. */
  readonly placeOf: (node: number) => { x: number; y: number } | undefined;
}

/** Places the points of all arcs and fits each once, but for those that are kept. */
export function* fitMesh(arcs: CrackArcs, places: CrackPlaces, width: number, height: number, options: MeshOptions, kept?: KeptCurves): Task<ArcMesh> {
  const points: ArcPoints[] = [];
  for (let k = 0; k < arcs.count; k++) points.push(arcPoints(arcs, k, places));
  const roughOf = commonRoughness(arcs, points);
  yield 0.35;
  const { ends } = junctions(arcs, points, options.cornerRad, kept?.placeOf);
  const builder = new CurvesBuilder();
  const finder = new JointFinder({ tolerancePx: options.followPx, straightPx: options.followPx * STRAIGHT_SHARE });
  let sincePause = 0;
  for (const [k, { ring, edgeWidthPx }] of points.entries()) {
    const half = kept?.halfOf(k) ?? -1;
    if (kept !== undefined && half >= 0) {
      const start = startOfHalf(kept.curves, half);
      builder.start(start.x, start.y, -1);
      drawHalf(builder, kept.curves, half);
      builder.close();
      continue;
    }
    const roughPx = roughOf(k);
    const followPx = followOf(arcs, k, options);
    const tolerancePx = Math.max(followPx, ROUGH_FOLLOWS * roughPx);
    finder.follow({ tolerancePx, straightPx: tolerancePx * STRAIGHT_SHARE, rmsPx: Math.max(followPx * ROUGH_RMS, 2 * roughPx) });
    const [from, to] = [ends[2 * k], ends[2 * k + 1]];
    if (from !== undefined && to !== undefined && runsAlongFrame(arcs, k)) {
      builder.start(from.x, from.y, -1);
      builder.line(to.x, to.y);
      builder.close();
      continue;
    }
    const smoothPx = Math.max(options.smoothPx ?? 0, roughPx > ROUGH_FROM_PX ? Math.min(MOST_CALM_PX, ROUGH_CALM * roughPx) : 0);
    drawArc(builder, ring, from, to, { ...options, followPx: Math.max(options.followPx, tolerancePx), edgeWidthPx, smoothPx }, finder);
    sincePause += ring.n;
    if (sincePause < 4000) continue;
    sincePause = 0;
    yield 0.4 + (0.6 * k) / points.length;
  }
  const curves = builder.build();
  // What is kept was made parallel where it is; what is new must go on meeting it.
  return {
    kind: 'arcMesh',
    width,
    height,
    arcs,
    curves: options.shapes && kept === undefined ? withParallels(curves, options.followPx, { width, height }) : curves,
    strayPx: finder.strayPx(),
  };
}

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

function followOf({ left, right }: CrackArcs, arc: number, { followPx: asOneColour, calm }: MeshOptions): number {
  const followPx = asOneColour * FOLLOWS;
  return calm !== undefined && calm.labels.includes(left[arc]) && calm.labels.includes(right[arc]) ? Math.max(followPx, calm.followPx) : followPx;
}

/** `traceMesh` in one go. */
export const meshOf = (art: Art, labels: LabelMap, tones: readonly Rgb[], options: MeshOptions): ArcMesh => finish(traceMesh(art, labels, tones, options));

/** Whether an arc lies on the picture's frame: then all of it does, along one side. */
function runsAlongFrame({ cells, cracks, starts, stride }: CrackArcs, arc: number): boolean {
  const v = cracks[starts[arc]] >> 2;
  const direction = cracks[starts[arc]] & 3;
  const column = v % stride;
  return direction === UP || direction === DOWN ? column === 1 || column === stride - 1 : v < 2 * stride || v >= cells.length - stride;
}

type ArcOptions = MeshOptions & { readonly edgeWidthPx: number };

function drawArc(builder: CurvesBuilder, ring: Ring, from: End | undefined, to: End | undefined, options: ArcOptions, finder: JointFinder): void {
  if (from === undefined || to === undefined) {
    const points = new Float64Array(ring.n * 2);
    for (let k = 0; k < ring.n; k++) points.set([ring.x[k], ring.y[k]], 2 * k);
    drawRing(builder, ring, signedArea(points, 0, ring.n), -1, options, finder);
    return;
  }
  drawSections(builder, sectionsOf(ring, from, to, options), -1, finder);
}

function sectionsOf(ring: Ring, from: End, to: End, options: ArcOptions): Section[] {
  const trimPx = TRIM_PX * options.edgeWidthPx;
  const corners = alignCorners(
    ring,
    findCorners(ring, { leastTurnRad: options.cornerRad, edgeWidthPx: options.edgeWidthPx }),
    options.followPx * STRAIGHT_SHARE,
    trimPx,
  );
  const sections: Section[] = [];
  let start = from;
  let first = 0;
  for (const corner of corners) {
    const end = freeEndAt(corner.x, corner.y);
    sections.push(sectionWithin(ring, first, corner.index, start, end, trimPx, options.smoothPx));
    start = end;
    first = corner.index;
  }
  sections.push(sectionWithin(ring, first, ring.n - 1, start, to, trimPx, options.smoothPx));
  return sections;
}
