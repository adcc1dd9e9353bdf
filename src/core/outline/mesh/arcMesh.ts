import type { Rgb } from '../../colour/oklab.ts';
import type { Art } from '../../raster/art.ts';
import type { LabelMap } from '../../raster/labelMap.ts';
import { finish, within, type Task } from '../../task/task.ts';
import { CurvesBuilder, type Curves } from '../curves.ts';
import { JointFinder } from '../joints.ts';
import { withParallels } from '../parallels.ts';
import { settleCorners, type DrawnEdge } from '../settleCorners.ts';
import { STRAIGHT_SHARE, type OutlineOptions } from '../traceOutline.ts';
import { arcPoints, type ArcPoints, type CrackPlaces } from './arcPoints.ts';
import { crackArcs, DOWN, UP, type CrackArcs } from './crackArcs.ts';
import { arcDrawings, drawArc } from './drawArc.ts';
import { EdgePlaces } from './edgePlaces.ts';
import { drawHalf, startOfHalf } from './filmOutline.ts';
import { junctions } from './junctions.ts';
import { saddleRule } from './saddles.ts';
import { ToneValues } from './toneValues.ts';

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

/**
 * Traces the boundaries of a label map and fits each once.
 * @param tones colours of the labels, by which mixed pixels say where inside them an edge runs.
 * @throws AppError `tooIntricate` when there are more arcs than a drawing has.
 */
export function* traceMesh(art: Art, labels: LabelMap, tones: readonly Rgb[], options: MeshOptions): Task<ArcMesh> {
  const holder: { places?: EdgePlaces } = {};
  const arcs = yield* within(
    crackArcs(labels, (cells, stride) => {
    holder.places = new EdgePlaces(art, tones, cells, stride);
    return saddleRule(holder.places, cells, stride);
  }),
    0,
    0.2,
  );
  const drawn = fitMesh(arcs, holder.places as EdgePlaces, labels.width, labels.height, options, undefined, new ToneValues(art, tones));
  return yield* within(drawn, 0.2, 1);
}

/** Curves of another mesh of the same lattice that stay as they are. */
export interface KeptCurves {
  readonly curves: Curves;
  /** Which of them an arc is: twice its number, one more when it runs against it; −1 for arcs that are fitted. */
  readonly halfOf: (arc: number) => number;
  /** Where that mesh has a node. */
  readonly placeOf: (node: number) => { x: number; y: number } | undefined;
}

/** So many cracks are placed before others have their turn. */
const CRACKS_PER_TURN = 10_000;

/** Places the points of all arcs and fits each once, but for those that are kept. @param seen what the picture shows, against which corners are held. */
export function* fitMesh(
  arcs: CrackArcs,
  places: CrackPlaces,
  width: number,
  height: number,
  options: MeshOptions,
  kept?: KeptCurves,
  seen?: ToneValues,
): Task<ArcMesh> {
  const points: ArcPoints[] = [];
  for (let k = 0, cracks = 0; k < arcs.count; k++) {
    points.push(arcPoints(arcs, k, places));
    cracks += arcs.starts[k + 1] - arcs.starts[k];
    if (cracks < CRACKS_PER_TURN) continue;
    cracks = 0;
    yield (0.2 * k) / arcs.count;
  }
  yield 0.2;
  const drawingOf = arcDrawings(arcs, points, junctions(arcs, points, options.cornerRad, kept?.placeOf).ends, options);
  yield 0.35;
  const cornered = new Map<number, DrawnEdge>();
  const builder = new CurvesBuilder();
  const finder = new JointFinder({ tolerancePx: options.followPx, straightPx: options.followPx * STRAIGHT_SHARE });
  let sincePause = 0;
  for (let k = 0; k < arcs.count; k++) {
    const half = kept?.halfOf(k) ?? -1;
    if (kept !== undefined && half >= 0) {
      const start = startOfHalf(kept.curves, half);
      builder.start(start.x, start.y, -1);
      drawHalf(builder, kept.curves, half);
      builder.close();
      continue;
    }
    const drawing = drawingOf(k);
    if (drawing.ends !== undefined && runsAlongFrame(arcs, k)) {
      const [from, to] = drawing.ends;
      builder.start(from.x, from.y, -1);
      builder.line(to.x, to.y);
      builder.close();
      continue;
    }
    const corners = drawArc(builder, drawing, finder);
    if (seen !== undefined && corners.length > 0)
      cornered.set(k, {
        edge: () => ({ ...drawing, corners, ...seen.alongEdge(arcs, k) }),
        draw: (to, others) => void drawArc(to, drawing, finder, others),
      });
    sincePause += drawing.ring.n;
    if (sincePause < 4000) continue;
    sincePause = 0;
    yield 0.4 + (0.5 * k) / arcs.count;
  }
  const strayPx = finder.strayPx();
  const curves = yield* within(settleCorners(builder.build(), cornered, width, height), 0.9, 1);
  // What is kept was made parallel where it is; what is new must go on meeting it.
  const parallel = options.shapes && kept === undefined ? withParallels(curves, options.followPx, { width, height }) : curves;
  return { kind: 'arcMesh', width, height, arcs, curves: parallel, strayPx };
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
