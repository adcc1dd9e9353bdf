import { cubicAt, CUBIC, coordsOfVerb, isOpenRing, type Curves } from './curves.ts';

/** A ring, or an open line, of straight sides and arcs of circles. */
export interface ArcRing {
  readonly open: boolean;
  /** Nodes: x, y and the bulge of the side to the next one, the tangent of a quarter of its turn: above 0 where y turns towards x, as angles grow in the frame of the coordinates. The last of an open line has none. */
  readonly nodes: Float64Array;
}

/** Values of a node. */
export const OF_ARC_NODE = 3;
/** A cubic is halved at most so often: each time its arcs stray by an eighth. */
const MOST_DEEP = 12;
/** Where a cubic is looked at for how far it strays. */
const LOOKS = 12;
/** An arc that bulges by less of its chord is straight. */
const STRAIGHT = 1e-7;

interface Point {
  readonly x: number;
  readonly y: number;
}

/**
 * Rings as sides and arcs that stray no further than a tolerance (same unit as the coordinates): each cubic as pairs of arcs that share its directions at both ends, halved where they stray further.
 * The joint of a pair is where its handles are alike (D. S. Meek, D. J. Walton, "Approximation of discrete data by G1 arc splines", Computer-Aided Design 24, 1992, doi:10.1016/0010-4485(92)90047-E).
 */
export function arcsOf(curves: Curves, tolerance: number): ArcRing[] {
  const { verbs, coords, verbStart, coordStart, parent } = curves;
  return Array.from(parent, (_, ring): ArcRing => {
    const nodes: number[] = [];
    let at = coordStart[ring];
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      if (verbs[v] === CUBIC) drawCubic(nodes, coords.subarray(at, at + 8), tolerance, 0);
      else nodes.push(coords[at], coords[at + 1], 0);
      at += coordsOfVerb(verbs[v]);
    }
    const open = isOpenRing(curves, ring);
    if (open) nodes.push(coords[at], coords[at + 1], 0);
    return { open, nodes: Float64Array.from(nodes) };
  });
}

function drawCubic(nodes: number[], c: Float64Array, tolerance: number, deep: number): void {
  const arcs = pairOf(c);
  if (arcs !== undefined && (deep >= MOST_DEEP || strays(c, arcs) <= tolerance)) {
    for (const { from, bulge } of arcs) nodes.push(from.x, from.y, bulge);
    return;
  }
  if (deep >= MOST_DEEP) {
    nodes.push(c[0], c[1], 0);
    return;
  }
  const [first, second] = halves(c);
  drawCubic(nodes, first, tolerance, deep + 1);
  drawCubic(nodes, second, tolerance, deep + 1);
}

interface Arc {
  readonly from: Point;
  readonly to: Point;
  readonly bulge: number;
}

/** Two arcs with the directions of a cubic at its ends; undefined where it has none, or they do not meet. */
function pairOf(c: Float64Array): readonly Arc[] | undefined {
  const from = { x: c[0], y: c[1] };
  const to = { x: c[6], y: c[7] };
  const out = direction(c, [2, 4, 6], from, 1);
  const into = direction(c, [4, 2, 0], to, -1);
  if (out === undefined || into === undefined) return undefined;
  const [vx, vy] = [to.x - from.x, to.y - from.y];
  const [tx, ty] = [out.x + into.x, out.y + into.y];
  const dot = vx * tx + vy * ty;
  const open = 2 * (1 - out.x * into.x - out.y * into.y);
  const square = vx * vx + vy * vy;
  if (square === 0) return undefined;
  const reach = open < 1e-9 ? square / (2 * dot) : (-dot + Math.sqrt(dot * dot + open * square)) / open;
  if (!(reach > 0) || reach > 1e3 * Math.sqrt(square)) return undefined;
  const joint = { x: (from.x + to.x + reach * (out.x - into.x)) / 2, y: (from.y + to.y + reach * (out.y - into.y)) / 2 };
  return [
    { from, to: joint, bulge: bulgeOf(out, { x: joint.x - from.x, y: joint.y - from.y }) },
    { from: joint, to, bulge: bulgeOf({ x: to.x - joint.x, y: to.y - joint.y }, into) },
  ];
}

/** Half of the turn of an arc lies between its direction at an end and its chord. */
function bulgeOf(a: Point, b: Point): number {
  const bulge = Math.tan(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y) / 2);
  return Math.abs(bulge) < STRAIGHT ? 0 : bulge;
}

/** To the first control point that does not lie on the end. */
function direction(c: Float64Array, controls: readonly number[], { x, y }: Point, sign: number): Point | undefined {
  for (const k of controls) {
    const [dx, dy] = [sign * (c[k] - x), sign * (c[k + 1] - y)];
    const length = Math.hypot(dx, dy);
    if (length > 1e-9) return { x: dx / length, y: dy / length };
  }
  return undefined;
}

/** How far places of a cubic lie from its arcs, at most. */
function strays(c: Float64Array, arcs: readonly Arc[]): number {
  let most = 0;
  for (let k = 1; k < LOOKS; k++) {
    const [x, y] = [cubicAt(c, 0, k / LOOKS), cubicAt(c, 1, k / LOOKS)];
    most = Math.max(most, Math.min(...arcs.map((arc) => awayFromArc(arc, x, y))));
  }
  return most;
}

function awayFromArc({ from, to, bulge }: Arc, x: number, y: number): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const square = dx * dx + dy * dy;
  const ends = Math.min(Math.hypot(x - from.x, y - from.y), Math.hypot(x - to.x, y - to.y));
  const along = square === 0 ? -1 : ((x - from.x) * dx + (y - from.y) * dy) / square;
  if (bulge === 0) return along < 0 || along > 1 ? ends : Math.abs((x - from.x) * dy - (y - from.y) * dx) / Math.sqrt(square);
  const off = (1 - bulge * bulge) / (4 * bulge);
  const [cx, cy] = [(from.x + to.x) / 2 - off * dy, (from.y + to.y) / 2 + off * dx];
  const turn = 4 * Math.atan(bulge);
  const start = Math.atan2(from.y - cy, from.x - cx);
  const own = Math.atan2(y - cy, x - cx) - start;
  const gone = turn > 0 ? positive(own) : positive(-own);
  return gone > Math.abs(turn) ? ends : Math.abs(Math.hypot(x - cx, y - cy) - Math.hypot(from.x - cx, from.y - cy));
}

const positive = (angle: number): number => ((angle % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);

/** De Casteljau's halves. */
function halves(c: Float64Array): [Float64Array, Float64Array] {
  const [first, second] = [new Float64Array(8), new Float64Array(8)];
  for (const axis of [0, 1]) {
    const [a, b, d, e] = [c[axis], c[axis + 2], c[axis + 4], c[axis + 6]];
    const [ab, bd, de] = [(a + b) / 2, (b + d) / 2, (d + e) / 2];
    const [abd, bde] = [(ab + bd) / 2, (bd + de) / 2];
    const middle = (abd + bde) / 2;
    [a, ab, abd, middle].forEach((value, k) => void (first[2 * k + axis] = value));
    [middle, bde, de, e].forEach((value, k) => void (second[2 * k + axis] = value));
  }
  return [first, second];
}
