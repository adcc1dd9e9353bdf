import { CubicFit, endAt, type FittedCubic } from '../cubicFit.ts';
import { between, controlsOf, isNear, isStraight, nodeAt, placeOn, sideAt, sideCount, type EditNode, type EditPath, type Point, type Side } from './editPath.ts';
import { mayReach } from './pathBox.ts';

/** Consecutive sides of one outline and what stands in their place: what neighbours that share them take over. */
export interface Replacement {
  readonly from: readonly Side[];
  readonly to: readonly Side[];
}

/** A side in two at t (de Casteljau). */
export function splitSide(side: Side, t: number): readonly [Side, Side] {
  const at = placeOn(side, t);
  if (isStraight(side))
    return [
      { from: side.from, to: at },
      { from: at, to: side.to },
    ];
  const [a, b, c, d] = controlsOf(side);
  const [ab, bc, cd] = [between(a, b, t), between(b, c, t), between(c, d, t)];
  return [
    { from: a, out: ab, in: between(ab, bc, t), to: at },
    { from: at, out: between(bc, cd, t), in: cd, to: d },
  ];
}

/** A new node on a side; the curve stays as it is. */
export const nodeAdded = (path: EditPath, side: number, t: number): Replacement => ({ from: [sideAt(path, side)], to: splitSide(sideAt(path, side), t) });

/** One side in place of the two at a node: a line where both are straight, else the cubic nearest to them. */
export function nodeRemoved(path: EditPath, node: number): Replacement {
  const from = [sideAt(path, node - 1), sideAt(path, node)];
  return { from, to: [joined(from)] };
}

/** A line in place of the sides from one node to another. */
export function straightened(path: EditPath, first: number, count: number): Replacement {
  const from = Array.from({ length: count }, (_, k) => sideAt(path, first + k));
  return { from, to: [{ from: from[0].from, to: from[count - 1].to }] };
}

/** A node whose handles point to its neighbours, a third of the way. */
export function cornered(path: EditPath, k: number): EditNode {
  const node = nodeAt(path, k);
  const toward = (other: Point): Point => between(node, other, 1 / 3);
  return {
    x: node.x,
    y: node.y,
    ...(node.in === undefined ? {} : { in: toward(nodeAt(path, k - 1)) }),
    ...(node.out === undefined ? {} : { out: toward(nodeAt(path, k + 1)) }),
  };
}

/**
 * A node that the outline passes smoothly: along a straight side where there is one, else along the line that halves its turn. Two straight sides become
 * curves.
 */
export function smoothed(path: EditPath, k: number): EditNode {
  const node = nodeAt(path, k);
  const before = nodeAt(path, k - 1);
  const after = nodeAt(path, k + 1);
  const bothStraight = node.in === undefined && node.out === undefined;
  const arriving = unit(node.in ?? before, node);
  const leaving = unit(node, node.out ?? after);
  const direction =
    bothStraight || (node.in !== undefined && node.out !== undefined) ? bisector(arriving, leaving) : node.in === undefined ? arriving : leaving;
  const along = (length: number): Point => ({ x: node.x + direction.x * length, y: node.y + direction.y * length });
  const inLength = node.in === undefined ? distance(before, node) / 3 : distance(node.in, node);
  const outLength = node.out === undefined ? distance(node, after) / 3 : distance(node, node.out);
  return {
    x: node.x,
    y: node.y,
    ...(node.in !== undefined || bothStraight ? { in: along(-inLength) } : {}),
    ...(node.out !== undefined || bothStraight ? { out: along(outLength) } : {}),
  };
}

/** A node with one handle elsewhere. @param smooth whether the other handle turns with it, at its own length. */
export function handleMoved(node: EditNode, which: 'in' | 'out', to: Point, smooth: boolean): EditNode {
  const other = which === 'in' ? node.out : node.in;
  if (!smooth || other === undefined) return { ...node, [which]: to };
  const length = distance(node, other);
  const away = unit(to, node);
  return { ...node, [which]: to, [which === 'in' ? 'out' : 'in']: { x: node.x + away.x * length, y: node.y + away.y * length } };
}

/** The path with one node in another shape. */
export const withNode = (path: EditPath, k: number, node: EditNode): EditPath => ({ ...path, nodes: path.nodes.map((old, at) => (at === k ? node : old)) });

/** What changed of a path whose nodes have stayed: one replacement a side. */
export function sideChanges(before: EditPath, after: EditPath): Replacement[] {
  const changes: Replacement[] = [];
  for (let k = 0; k < sideCount(before); k++) {
    const [from, to] = [sideAt(before, k), sideAt(after, k)];
    if (!sameSide(from, to)) changes.push({ from: [from], to: [to] });
  }
  return changes;
}

const sameHandle = (a: Point | undefined, b: Point | undefined): boolean => (a === undefined || b === undefined ? a === b : isNear(a, b));

/** Whether two sides are the same line or curve in the same direction. */
export const sameSide = (a: Side, b: Side): boolean => isNear(a.from, b.from) && isNear(a.to, b.to) && sameHandle(a.out, b.out) && sameHandle(a.in, b.in);

export const turnedSide = (side: Side): Side => ({
  from: side.to,
  to: side.from,
  ...(side.in === undefined ? {} : { out: side.in }),
  ...(side.out === undefined ? {} : { in: side.out }),
});

/** The path with a run of sides replaced wherever it has them, in either direction; the path itself when it has not. */
export function withReplaced(path: EditPath, { from, to }: Replacement): EditPath {
  if (!mayReach(path, from[0].from) || !mayReach(path, from[0].to)) return path;
  const forward = runAt(path, from);
  if (forward >= 0) return replacedAt(path, forward, from.length, to);
  const turned = [...from].reverse().map(turnedSide);
  const backward = runAt(path, turned);
  return backward < 0 ? path : replacedAt(path, backward, from.length, [...to].reverse().map(turnedSide));
}

function runAt(path: EditPath, run: readonly Side[]): number {
  const sides = sideCount(path);
  if (run.length > sides) return -1;
  const last = path.closed ? sides : sides - run.length + 1;
  for (let k = 0; k < last; k++) if (isNear(nodeAt(path, k), run[0].from) && run.every((side, j) => sameSide(sideAt(path, k + j), side))) return k;
  return -1;
}

function replacedAt({ closed, nodes }: EditPath, first: number, count: number, to: readonly Side[]): EditPath {
  // A closed outline is opened where the run starts, so that the run never wraps around.
  const turned = closed ? [...nodes.slice(first), ...nodes.slice(0, first)] : nodes;
  const start = closed ? 0 : first;
  const inner = to
    .slice(1)
    .map((side, k): EditNode => ({
      ...plain(side.from),
      ...(to[k].in === undefined ? {} : { in: to[k].in }),
      ...(side.out === undefined ? {} : { out: side.out }),
    }));
  const whole = closed && count === turned.length;
  const startNode = withHandle(turned[start], 'out', to[0].out);
  if (whole) return { closed, nodes: [withHandle(startNode, 'in', to[to.length - 1].in), ...inner] };
  const endNode = withHandle(turned[start + count], 'in', to[to.length - 1].in);
  return { closed, nodes: [...turned.slice(0, start), startNode, ...inner, endNode, ...turned.slice(start + count + 1)] };
}

function withHandle(node: EditNode, which: 'in' | 'out', to: Point | undefined): EditNode {
  const { [which]: _old, ...rest } = node;
  return to === undefined ? rest : { ...rest, [which]: to };
}

const plain = ({ x, y }: Point): Point => ({ x, y });
export const distance = (a: Point, b: Point): number => Math.hypot(b.x - a.x, b.y - a.y);

function unit(from: Point, to: Point): Point {
  const length = distance(from, to) || 1;
  return { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
}

function bisector(a: Point, b: Point): Point {
  const sum = { x: a.x + b.x, y: a.y + b.y };
  const length = Math.hypot(sum.x, sum.y);
  // Straight back: across it.
  return length < 1e-9 ? { x: -a.y, y: a.x } : { x: sum.x / length, y: sum.y / length };
}

/** Points at which a side is read when it is fitted anew. */
const READ = 16;

function joined([a, b]: readonly Side[]): Side {
  if (isStraight(a) && isStraight(b)) return { from: a.from, to: b.to };
  const places = [a, b].flatMap((side, s) => Array.from({ length: READ }, (_, k) => placeOn(side, (k + 1 - (s === 0 ? 0 : 0.5)) / READ)));
  places.length -= 1;
  const x = Float64Array.from(places, (at) => at.x);
  const y = Float64Array.from(places, (at) => at.y);
  const along = new Float64Array(x.length);
  for (let k = 1; k < x.length; k++) along[k] = along[k - 1] + Math.hypot(x[k] - x[k - 1], y[k] - y[k - 1]);
  const start = unit(a.from, controlsOf(a)[1]);
  const end = unit(controlsOf(b)[2], b.to);
  const out: FittedCubic = { x1: 0, y1: 0, x2: 0, y2: 0, worst2: 0, sum2: 0 };
  const fit = new CubicFit();
  fit.fit(x, y, along, 0, x.length - 1, endAt(a.from.x, a.from.y, start.x, start.y), endAt(b.to.x, b.to.y, end.x, end.y), 0, Infinity, false, out);
  return { from: a.from, out: { x: out.x1, y: out.y1 }, in: { x: out.x2, y: out.y2 }, to: b.to };
}
