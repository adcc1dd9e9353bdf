import { between, SHORT_MM, type Cubic, type Point } from '../combine/sides.ts';
import { crowdedNodes } from '../outline/crowdedNodes.ts';
import { CurvesBuilder, isOpenRing, nodePlaces, ringCount, type Curves } from '../outline/curves.ts';
import { jaggedPlaces, type NodeRun } from '../outline/jaggedPlaces.ts';
import { nestBySense } from '../outline/nestBySense.ts';
import { fitted, sampled, type Samples } from './fitStretch.ts';

/** Crowded nodes are replaced by curves within this share of how near they are: less than a plotter's step. */
const OF_CLOSE = 0.4;
/** The line through the middle of teeth is followed within this share of their depth. */
const OF_DEPTH = 0.25;
/** Finer than this no line is followed, mm. */
const FINEST_MM = 0.005;

/** What is smoothed; lengths in the mm of the outlines. */
export interface SmoothSettings {
  /** Teeth with sides no longer than this. */
  readonly teethMm: number;
  /** Twelve nodes or more in a row that are nearer than this. */
  readonly closeMm: number;
  /** Whether a stretch with its middle there is meant; all are when absent. */
  readonly isMeant?: (xMm: number, yMm: number) => boolean;
}

/** Outlines whose teeth are drawn as the line through their middle, and whose crowded nodes as the curves that they follow; all else keeps its nodes. */
export function smoothRuns(curves: Curves, { teethMm, closeMm, isMeant = () => true }: SmoothSettings): Curves {
  const meant = ({ xMm, yMm }: { readonly xMm: number; readonly yMm: number }): boolean => isMeant(xMm, yMm);
  const even = redrawn(curves, jaggedPlaces(curves, teethMm).filter(meant), (run) => ({ middle: true, withinMm: Math.max(FINEST_MM, run.depthMm * OF_DEPTH) }));
  const smooth = redrawn(even, crowdedNodes(even, closeMm).filter(meant), () => ({ middle: false, withinMm: closeMm * OF_CLOSE }));
  return smooth === curves ? curves : nestBySense(smooth);
}

interface Drawn {
  /** Whether the line runs through the middles of the sides, and not through the nodes. */
  readonly middle: boolean;
  readonly withinMm: number;
}

function redrawn<Run extends NodeRun>(curves: Curves, runs: readonly Run[], how: (run: Run) => Drawn): Curves {
  const drawable = runs.filter(({ ring }) => !isOpenRing(curves, ring));
  if (drawable.length === 0) return curves;
  const builder = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) {
    const own = drawable.filter((run) => run.ring === ring);
    if (own.length === 0) builder.copy(curves, ring, -1);
    else drawRing(builder, curves, ring, own, how);
  }
  return builder.build();
}

function drawRing<Run extends NodeRun>(builder: CurvesBuilder, curves: Curves, ring: number, runs: readonly Run[], how: (run: Run) => Drawn): void {
  const { coords, verbStart } = curves;
  const starts = nodePlaces(curves, ring);
  const count = starts.length;
  const node = (k: number): Point => ({ x: coords[starts[k % count]], y: coords[starts[k % count] + 1] });
  const ofNode = new Map(runs.map((run) => [run.from, run]));
  // Begins where a run does: none is parted by the ring's start.
  const first = runs[0].from;
  let isBegun = false;
  for (let k = first; k < first + count;) {
    const run = ofNode.get(k % count);
    const verbsOfRun = run === undefined ? 1 : Math.min(run.nodes - 1, first + count - k);
    if (!isBegun) builder.start(node(k).x, node(k).y, -1);
    isBegun = true;
    if (run !== undefined && verbsOfRun > 1) {
      const points = Array.from({ length: verbsOfRun + 1 }, (_, step) => node(k + step));
      drawThrough(builder, points, how(run));
    } else {
      builder.verb(curves, verbStart[ring] + (k % count), starts[k % count]);
    }
    k += verbsOfRun;
  }
  builder.close();
}

/** Draws lines and curves from the first to the last of some points, within a distance of the others or of the line through the middles between them. */
function drawThrough(builder: CurvesBuilder, points: readonly Point[], { middle, withinMm }: Drawn): void {
  const line = middle ? [points[0], ...points.slice(1).map((point, k) => between(points[k], point, 0.5)), points[points.length - 1]] : points;
  const sides = line.slice(1).flatMap((point, k): Cubic[] => (Math.hypot(point.x - line[k].x, point.y - line[k].y) < SHORT_MM ? [] : [[line[k], between(line[k], point, 1 / 3), between(line[k], point, 2 / 3), point]]));
  const { x: endX, y: endY } = line[line.length - 1];
  if (sides.length === 0) return builder.line(endX, endY);
  const samples = withWays(sampled(sides, withinMm));
  const verbs = fitted(samples, 1, false);
  for (const [k, verb] of verbs.entries()) {
    const own = verb.map((value) => value * withinMm);
    if (k === verbs.length - 1) own.splice(own.length - 2, 2, endX, endY);
    if (own.length === 2) builder.line(own[0], own[1]);
    else builder.cubic(own[0], own[1], own[2], own[3], own[4], own[5]);
  }
}

/** Samples so far to both sides tell the direction. */
const WAY_OVER = 4;

/** Samples of a line with corners, with the directions that it has on the whole. */
function withWays(samples: Samples): Samples {
  const { n, x, y } = samples;
  const [dx, dy] = [new Float64Array(n), new Float64Array(n)];
  for (let k = 0; k < n; k++) {
    const [a, b] = [Math.max(0, k - WAY_OVER), Math.min(n - 1, k + WAY_OVER)];
    const length = Math.hypot(x[b] - x[a], y[b] - y[a]);
    dx[k] = length > 0 ? (x[b] - x[a]) / length : samples.dx[k];
    dy[k] = length > 0 ? (y[b] - y[a]) / length : samples.dy[k];
  }
  return { ...samples, dx, dy };
}
