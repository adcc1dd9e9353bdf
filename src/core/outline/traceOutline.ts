import { AppError } from '../errors/appError.ts';
import { signedArea } from '../geometry/rings.ts';
import type { ShareMap } from '../raster/raster.ts';
import { finish, within, type Task } from '../task/task.ts';
import { alignCorners } from './alignCorners.ts';
import { circleOf, QUARTER } from './circle.ts';
import type { CorneredEdge } from './cornerCheck.ts';
import { findCorners, ringThrough, type Corner, type Ring } from './corners.ts';
import { CurvesBuilder, type Curves } from './curves.ts';
import { ellipseOf, type Ellipse } from './ellipse.ts';
import { goesAround } from './goesAround.ts';
import { isolines } from './isoline.ts';
import { JointFinder, type FitOptions } from './joints.ts';
import { parentRings } from './nesting.ts';
import { withParallels } from './parallels.ts';
import { closedSection, sectionBetween, type Section } from './section.ts';
import { settleCorners, type DrawnEdge } from './settleCorners.ts';
import { STEPLESS, withoutSteps } from './withoutSteps.ts';

export interface OutlineOptions {
  /** How closely the curves follow the edge: largest distance, px. Range 0.05 to 5. */
  readonly followPx: number;
  /** Smallest turn that stays a sharp corner, radians. Range 0.1 to π. */
  readonly cornerRad: number;
  /** Pieces and holes smaller than this, px², are left out. */
  readonly leastAreaPx2: number;
  /** Draw rings that are circles or ellipses within the tolerance as such, and edges that are all but parallel as parallel. */
  readonly shapes: boolean;
  /** Width over which edges are calmed between their corners before they are followed, px; nothing when absent. Range 0 to 10. */
  readonly smoothPx?: number;
}

export const DEFAULT_OUTLINE: OutlineOptions = { followPx: 0.3, cornerRad: 0.42, leastAreaPx2: 2, shapes: true };

/** A straight line may differ from the points by this share of the tolerance: lines are preferred, but not at any price. */
export const STRAIGHT_SHARE = 0.75;

/**
 * Outlines a share map: half-way lines, corners, and between them the fewest cubics within the tolerance. Coordinates are px of the map.
 * @throws AppError `tooIntricate` when there are more outlines than a drawing has.
 */
export function* traceOutline(share: ShareMap, options: OutlineOptions = DEFAULT_OUTLINE): Task<Curves> {
  const { rings, crossings } = isolines(share);
  yield 0.3;
  const { points, starts } = rings;
  const count = starts.length - 1;
  const area = new Float64Array(count);
  for (let k = 0; k < count; k++) area[k] = signedArea(points, starts[k], starts[k + 1]);
  const parent = parentRings(crossings, count, (k) => area[k] < 0);
  const { keep, renumbered } = keptRings(area, parent, options.leastAreaPx2);
  const builder = new CurvesBuilder();
  const finder = new JointFinder(fitOf(options.followPx));
  const cornered = new Map<number, DrawnEdge>();
  let sincePause = 0;
  for (const [done, k] of keep.entries()) {
    const { ring, own, fit } = drawingOf(ringOf(points, starts[k], starts[k + 1]), options);
    const draw = (to: CurvesBuilder, known?: readonly Corner[]): readonly Corner[] => {
      finder.follow(fit);
      return drawRing(to, ring, area[k], renumbered[k], own, finder, known);
    };
    const corners = draw(builder);
    if (corners.length > 0) cornered.set(done, inShares(share, { ring, corners, fit, calmPx: options.smoothPx ?? 0, edgeWidthPx: own.edgeWidthPx ?? 1 }, draw));
    sincePause += ring.n;
    if (sincePause > 4000) {
      sincePause = 0;
      yield 0.3 + (0.6 * done) / keep.length;
    }
  }
  const drawn = yield* within(settleCorners(builder.build(), cornered, share.width, share.height), 0.9, 1);
  return options.shapes ? withParallels(drawn, options.followPx) : drawn;
}

const fitOf = (followPx: number, rmsPx?: number): FitOptions => ({ tolerancePx: followPx, straightPx: followPx * STRAIGHT_SHARE, ...(rmsPx === undefined ? {} : { rmsPx }) });

/** What a half-way line is drawn from and by: one that runs in steps is led through their middle. */
function drawingOf(found: Ring, options: OutlineOptions): { ring: Ring; own: RingOptions; fit: FitOptions } {
  const ring = withoutSteps(found);
  if (ring === undefined) return { ring: found, own: options, fit: fitOf(options.followPx) };
  const followPx = Math.max(options.followPx, STEPLESS.followPx);
  return { ring, own: { ...options, followPx, edgeWidthPx: STEPLESS.widthPx }, fit: fitOf(followPx, STEPLESS.rmsPx) };
}

/** A ring of a share map with its corners: inside of it, on the right of travel, there is all, outside nothing. */
function inShares({ data, width }: ShareMap, own: Pick<CorneredEdge, 'ring' | 'corners' | 'fit' | 'calmPx' | 'edgeWidthPx'>, draw: DrawnEdge['draw']): DrawnEdge {
  const valueAt = (x: number, y: number): number => data[y * width + x] / 255;
  return { edge: () => ({ ...own, trimPx: TRIM_PX * own.edgeWidthPx, stray: 0, valueAt, stepOf: () => -1 }), draw };
}

/** `traceOutline` in one go. */
export const outlineOf = (share: ShareMap, options?: OutlineOptions): Curves => finish(traceOutline(share, options));

/** Leaves out rings below the least area with everything inside them. Gives the kept ones, parents first, and their parents' new numbers. */
function keptRings(area: Float64Array, parent: Int32Array, leastAreaPx2: number): { keep: number[]; renumbered: Int32Array } {
  const order = Array.from(area.keys()).sort((a, b) => Math.abs(area[b]) - Math.abs(area[a]));
  const number = new Int32Array(area.length).fill(-1);
  const renumbered = new Int32Array(area.length).fill(-1);
  const keep: number[] = [];
  for (const k of order) {
    if (Math.abs(area[k]) < leastAreaPx2) continue;
    if (parent[k] >= 0 && number[parent[k]] < 0) continue;
    if (parent[k] >= 0) renumbered[k] = number[parent[k]];
    number[k] = keep.length;
    keep.push(k);
  }
  if (keep.length > 20_000) throw new AppError('tooIntricate', { count: keep.length, limit: 20_000 });
  return { keep, renumbered };
}

function ringOf(points: Float64Array, from: number, to: number): Ring {
  const x = new Float64Array(to - from);
  const y = new Float64Array(to - from);
  for (let k = 0; k < to - from; k++) {
    x[k] = points[2 * (from + k)];
    y[k] = points[2 * (from + k) + 1];
  }
  return ringThrough(x, y, true);
}

/** What drawing one ring goes by; `edgeWidthPx` is the width over which its tones mix, 1 where only area sampling mixed them. */
export type RingOptions = Pick<OutlineOptions, 'followPx' | 'cornerRad' | 'shapes' | 'smoothPx'> & { readonly edgeWidthPx?: number };

/** The circle, or else the ellipse, that a ring is within a tolerance. */
function roundOf(ring: Ring, tolerancePx: number): Ellipse | undefined {
  const circle = circleOf(ring, tolerancePx);
  const round = circle === undefined ? ellipseOf(ring, tolerancePx) : { x: circle.x, y: circle.y, a: circle.radius, b: circle.radius, turnRad: 0 };
  return round !== undefined && goesAround(ring, round, tolerancePx) ? round : undefined;
}

/**
 * Draws a closed ring: as a round, or corner to corner, or as one smooth round.
 * @param known its corners, where they are known. @returns its corners; a round has none.
 */
export function drawRing(
  builder: CurvesBuilder,
  ring: Ring,
  area: number,
  parent: number,
  options: RingOptions,
  finder: JointFinder,
  known?: readonly Corner[],
): readonly Corner[] {
  const round = options.shapes && known === undefined ? roundOf(ring, options.followPx) : undefined;
  if (round !== undefined) {
    drawEllipse(builder, round, area > 0, parent);
    return [];
  }
  const corners = known ?? cornersOf(ring, options);
  const trimPx = TRIM_PX * (options.edgeWidthPx ?? 1);
  const sections =
    corners.length === 0 ? [closedSection(ring, calmestPoint(ring), options.smoothPx)] : sectionsBetween(ring, corners, trimPx, options.smoothPx);
  drawSections(builder, sections, parent, finder);
  return corners;
}

/** The corners of an edge, on the straight sides that end at them. */
export function cornersOf(ring: Ring, { cornerRad, followPx, edgeWidthPx = 1 }: RingOptions): Corner[] {
  return alignCorners(ring, findCorners(ring, { leastTurnRad: cornerRad, edgeWidthPx }), followPx * STRAIGHT_SHARE, TRIM_PX * edgeWidthPx);
}

/** Points within this length of a corner lie on its rounding, px. */
export const TRIM_PX = 0.9;

function sectionsBetween(ring: Ring, corners: readonly Corner[], trimPx: number, calmPx: number | undefined): Section[] {
  return corners.map((corner, k) => {
    const next = corners[(k + 1) % corners.length];
    return sectionBetween(ring, corner.index, next.index, corner, next, trimPx, calmPx);
  });
}

export function drawSections(builder: CurvesBuilder, sections: Section[], parent: number, finder: JointFinder): void {
  const first = sections[0].joint(0);
  builder.start(first.x, first.y, parent);
  for (const section of sections) {
    for (const segment of finder.divide(section)) {
      const end = section.joint(segment.to);
      const { x1, y1, x2, y2 } = segment.cubic;
      if (segment.straight) builder.line(end.x, end.y);
      else builder.cubic(x1, y1, x2, y2, end.x, end.y);
    }
  }
  builder.close();
}

/** A good place to open a ring without corners: in the middle of its straightest stretch, where a joint costs least. */
function calmestPoint(ring: Ring): number {
  const { n, x, y } = ring;
  let best = 0;
  let least = Infinity;
  const reach = Math.max(1, Math.min(6, n >> 3));
  for (let k = 0; k < n; k++) {
    const a = (k + n - reach) % n;
    const b = (k + reach) % n;
    const cross = (x[k] - x[a]) * (y[b] - y[k]) - (y[k] - y[a]) * (x[b] - x[k]);
    const bend = Math.abs(cross) / (Math.hypot(x[b] - x[a], y[b] - y[a]) + 1e-9);
    if (bend < least) {
      least = bend;
      best = k;
    }
  }
  return best;
}

function drawEllipse(builder: CurvesBuilder, { x, y, a, b, turnRad }: Ellipse, clockwise: boolean, parent: number): void {
  const [cos, sin] = [Math.cos(turnRad), Math.sin(turnRad)];
  const s = clockwise ? 1 : -1;
  const at = (u: number, v: number): [number, number] => [x + u * a * cos - s * v * b * sin, y + u * a * sin + s * v * b * cos];
  builder.start(...at(1, 0), parent);
  builder.cubic(...at(1, QUARTER), ...at(QUARTER, 1), ...at(0, 1));
  builder.cubic(...at(-QUARTER, 1), ...at(-1, QUARTER), ...at(-1, 0));
  builder.cubic(...at(-1, -QUARTER), ...at(-QUARTER, -1), ...at(0, -1));
  builder.cubic(...at(QUARTER, -1), ...at(1, -QUARTER), ...at(1, 0));
  builder.close();
}
