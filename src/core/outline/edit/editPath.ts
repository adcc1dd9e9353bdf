import { CurvesBuilder, isOpenRing, LINE, type Curves } from '../curves.ts';
import { nestRings } from '../nestRings.ts';

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A node of an outline with its handles where curves arrive and leave; without one the side there is straight, or the curve starts at the node itself. */
export interface EditNode extends Point {
  readonly in?: Point;
  readonly out?: Point;
}

/**
 * One outline for editing: objects, because it is handled a node at a time. Side k runs from node k to the next; of a closed one the last runs back to node 0.
 */
export interface EditPath {
  readonly closed: boolean;
  readonly nodes: readonly EditNode[];
}

/** A side with its ends: a line has no handles. */
export interface Side {
  readonly from: Point;
  readonly out?: Point;
  readonly in?: Point;
  readonly to: Point;
}

/** Places nearer than this are one node of neighbouring films, px: what is held by hand is kept to a millionth. */
export const NEAR_PX = 2e-5;

export const isNear = (a: Point, b: Point): boolean => Math.abs(a.x - b.x) < NEAR_PX && Math.abs(a.y - b.y) < NEAR_PX;

export const sideCount = ({ closed, nodes }: EditPath): number => (closed ? nodes.length : nodes.length - 1);

/** Whether a node is one of the two ends of an open outline. */
export const isEnd = ({ closed, nodes }: EditPath, k: number): boolean => !closed && (k === 0 || k === nodes.length - 1);

/** Node `k`, counted around a closed outline. */
export const nodeAt = ({ nodes }: EditPath, k: number): EditNode => nodes[((k % nodes.length) + nodes.length) % nodes.length];

export function sideAt(path: EditPath, k: number): Side {
  const from = nodeAt(path, k);
  const to = nodeAt(path, k + 1);
  return { from, to, ...(from.out === undefined ? {} : { out: from.out }), ...(to.in === undefined ? {} : { in: to.in }) };
}

export const isStraight = ({ out, in: arriving }: Side): boolean => out === undefined && arriving === undefined;

/** Control points of a side; of a straight one at thirds. */
export function controlsOf({ from, out, in: arriving, to }: Side): readonly [Point, Point, Point, Point] {
  if (out === undefined && arriving === undefined) return [from, between(from, to, 1 / 3), between(from, to, 2 / 3), to];
  return [from, out ?? from, arriving ?? to, to];
}

export const between = (a: Point, b: Point, t: number): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });

/** Place at t (0 to 1) of a side. */
export function placeOn(side: Side, t: number): Point {
  const [a, b, c, d] = controlsOf(side);
  const u = 1 - t;
  const [w0, w1, w2, w3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return { x: w0 * a.x + w1 * b.x + w2 * c.x + w3 * d.x, y: w0 * a.y + w1 * b.y + w2 * c.y + w3 * d.y };
}

/**
 * The rings of an outline as editable paths, in their order.
 * @param before as they were last made: those that are the same still are the same objects, so that an edit takes time by what it changes.
 */
export function pathsFromCurves(curves: Curves, before: readonly EditPath[] = []): EditPath[] {
  return Array.from(curves.parent.keys(), (ring) => (ring < before.length && isRing(before[ring], curves, ring) ? before[ring] : pathFromRing(curves, ring)));
}

/** Whether a path is a ring of an outline, node for node. */
function isRing(path: EditPath, curves: Curves, ring: number): boolean {
  const { verbs, coords, verbStart, coordStart } = curves;
  const sides = verbStart[ring + 1] - verbStart[ring];
  if (path.closed === isOpenRing(curves, ring) || sideCount(path) !== sides) return false;
  const { nodes } = path;
  for (let k = 0, at = coordStart[ring]; k < sides; k++) {
    const from = nodes[k];
    const to = nodes[k + 1 < nodes.length ? k + 1 : 0];
    const isLine = verbs[verbStart[ring] + k] === LINE;
    if (isLine !== (from.out === undefined && to.in === undefined) || !isAt(from, coords, at)) return false;
    if (!isLine && !(isAt(from.out ?? from, coords, at + 2) && isAt(to.in ?? to, coords, at + 4))) return false;
    at += isLine ? 2 : 6;
    if (!isAt(to, coords, at)) return false;
  }
  return true;
}

const isAt = (point: Point, coords: Float64Array, at: number): boolean => Math.abs(point.x - coords[at]) < NEAR_PX && Math.abs(point.y - coords[at + 1]) < NEAR_PX;

function pathFromRing(curves: Curves, ring: number): EditPath {
  const { verbs, coords, verbStart, coordStart } = curves;
  let at = coordStart[ring];
  const point = (k: number): Point => ({ x: coords[at + 2 * k], y: coords[at + 2 * k + 1] });
  const nodes: { x: number; y: number; in?: Point; out?: Point }[] = [point(0)];
  for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
    if (verbs[v] === LINE) {
      nodes.push(point(1));
      at += 2;
      continue;
    }
    nodes[nodes.length - 1].out = point(1);
    nodes.push({ ...point(3), in: point(2) });
    at += 6;
  }
  if (isOpenRing(curves, ring)) return { closed: false, nodes };
  const last = nodes.pop();
  if (last?.in !== undefined) nodes[0].in = last.in;
  return { closed: true, nodes };
}

/** Editable paths back to an outline, nested by how they lie. Paths without an extent are left out. */
export const curvesFromPaths = (paths: readonly EditPath[]): Curves => nestRings(ringsOf(paths));

/** Editable paths as rings in their order, without nesting. Those of a single node are left out. */
export function ringsOf(paths: readonly EditPath[]): Curves {
  const builder = new CurvesBuilder();
  for (const path of paths) {
    if (path.nodes.length < 2) continue;
    builder.start(path.nodes[0].x, path.nodes[0].y, -1);
    for (let k = 0; k < sideCount(path); k++) {
      const side = sideAt(path, k);
      if (isStraight(side)) builder.line(side.to.x, side.to.y);
      else {
        const [, b, c, d] = controlsOf(side);
        builder.cubic(b.x, b.y, c.x, c.y, d.x, d.y);
      }
    }
    builder.close();
  }
  return builder.build();
}

/** Turn at which the two handles of a node count as one line, radians: what an eye takes as smooth. */
const SMOOTH_RAD = 0.02;

/** Whether an outline passes a node without a corner. */
export function isSmooth(path: EditPath, k: number): boolean {
  if (isEnd(path, k)) return false;
  const node = nodeAt(path, k);
  const before = node.in ?? nodeAt(path, k - 1);
  const after = node.out ?? nodeAt(path, k + 1);
  if (node.in === undefined && node.out === undefined) return false;
  const ux = node.x - before.x;
  const uy = node.y - before.y;
  const vx = after.x - node.x;
  const vy = after.y - node.y;
  return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) < SMOOTH_RAD;
}
