import { paintJoint, type Joint } from './drawJoints.ts';
import type { LineEnd } from './lineEnds.ts';

/** Ends that look past each other by more than this are not joined, radians: one of them, and both together. */
const MOST_TURN_RAD = 1.35;
const MOST_TURNS_RAD = 1.9;
/** Sine of the least angle at which two lines meet in a corner: nearly parallel ones meet anywhere. */
const LEAST_CROSSING = 0.5;
/** A line whose other side is so many times as wide is another line. */
const MOST_WIDTH_RATIO = 2.6;

interface Proposal {
  readonly from: number;
  /** The other end, −1 when it is the side of something. */
  readonly to: number;
  readonly cost: number;
  readonly joint: Joint;
}

/**
 * Which ends of lines are joined, to each other, to the side of other ink, and to a joint: each end once.
 * @param lettering 1 on ink that no line is carried on to. @param mostPx longest gap between the ink on both sides, px.
 */
export function findJoints(ends: readonly LineEnd[], ink: Uint8Array, lettering: Uint8Array, width: number, height: number, mostPx: number): Joint[] {
  const proposals: Proposal[] = [];
  const byPlace = new Map<string, number[]>();
  const reach = Math.max(8, mostPx);
  const cell = (x: number, y: number): string => `${Math.floor(x / reach)},${Math.floor(y / reach)}`;
  for (const [k, end] of ends.entries()) byPlace.set(cell(end.xPx, end.yPx), [...(byPlace.get(cell(end.xPx, end.yPx)) ?? []), k]);
  for (const [k, end] of ends.entries()) {
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        for (const other of byPlace.get(cell(end.xPx + dx * reach, end.yPx + dy * reach)) ?? []) {
          if (other <= k) continue;
          const proposal = betweenEnds(ends, k, other, mostPx);
          if (proposal !== undefined) proposals.push(proposal);
        }
      }
    }
    const onwards = toTheSide(ends, k, ink, lettering, width, height, mostPx);
    if (onwards !== undefined) proposals.push(onwards);
  }
  // Two ends that face each other are surer than any side.
  proposals.sort((a, b) => Number(a.to < 0) - Number(b.to < 0) || a.cost - b.cost);
  const used = new Set<number>();
  const joints: Joint[] = [];
  for (const { from, to, joint } of proposals) {
    if (used.has(from) || used.has(to)) continue;
    used.add(from);
    if (to >= 0) used.add(to);
    joints.push(joint);
  }
  return [...joints, ...ontoJoints(ends, used, joints, ink, width, height, mostPx)];
}

/** Where three lines meet two are joined, and the third is carried on to their joint. */
function ontoJoints(
  ends: readonly LineEnd[],
  used: ReadonlySet<number>,
  joints: readonly Joint[],
  ink: Uint8Array,
  width: number,
  height: number,
  mostPx: number,
): Joint[] {
  const mended = ink.slice();
  for (const joint of joints) {
    const cover = new Map<number, number>();
    paintJoint(joint, width, height, cover);
    for (const [i, covered] of cover) if (covered >= 128) mended[i] = 1;
  }
  const onwards: Joint[] = [];
  for (const k of ends.keys()) {
    if (used.has(k)) continue;
    const joint = ontoNewInk(ends[k], ink, mended, width, height, mostPx);
    if (joint !== undefined) onwards.push(joint);
  }
  return onwards;
}

const turnBetween = (ax: number, ay: number, bx: number, by: number): number => Math.acos(Math.max(-1, Math.min(1, ax * bx + ay * by)));

function betweenEnds(ends: readonly LineEnd[], from: number, to: number, mostPx: number): Proposal | undefined {
  const [a, b] = [ends[from], ends[to]];
  const dx = b.xPx - a.xPx;
  const dy = b.yPx - a.yPx;
  const distance = Math.hypot(dx, dy);
  if (distance > mostPx || distance < 0.5) return undefined;
  if (Math.max(a.halfWidthPx, b.halfWidthPx) > MOST_WIDTH_RATIO * Math.min(a.halfWidthPx, b.halfWidthPx)) return undefined;
  const out = turnBetween(a.dx, a.dy, dx / distance, dy / distance);
  const into = turnBetween(b.dx, b.dy, -dx / distance, -dy / distance);
  const isPlain = out <= MOST_TURN_RAD && into <= MOST_TURN_RAD && out + into <= MOST_TURNS_RAD;
  const points = isPlain ? bend(a, b, distance) : corner(a, b, mostPx);
  if (points === undefined) return undefined;
  return {
    from,
    to,
    cost: Math.max(1, distance) * (1 + out + into),
    joint: { points, fromHalfWidthPx: a.halfWidthPx, toHalfWidthPx: b.halfWidthPx, gapPx: distance },
  };
}

/**
 * Two ends that turn towards each other too sharply for a bend, by the point ahead of both in which their lines meet; undefined when there is none near enough.
 */
function corner(a: LineEnd, b: LineEnd, mostPx: number): number[] | undefined {
  const cross = a.dx * b.dy - a.dy * b.dx;
  if (Math.abs(cross) < LEAST_CROSSING) return undefined;
  const [x, y] = [b.xPx - a.xPx, b.yPx - a.yPx];
  const s = (x * b.dy - y * b.dx) / cross;
  const t = (x * a.dy - y * a.dx) / cross;
  if (s < 0 || t < 0 || s > mostPx || t > mostPx) return undefined;
  return [a.xPx, a.yPx, a.xPx + a.dx * s, a.yPx + a.dy * s, b.xPx, b.yPx];
}

/** A cubic in the direction of both ends, as points about a px apart. */
function bend(a: LineEnd, b: LineEnd, distance: number): number[] {
  const third = distance / 3;
  const [x1, y1, x2, y2] = [a.xPx + a.dx * third, a.yPx + a.dy * third, b.xPx + b.dx * third, b.yPx + b.dy * third];
  const points: number[] = [];
  const count = Math.max(2, Math.ceil(distance));
  for (let k = 0; k <= count; k++) {
    const t = k / count;
    const s = 1 - t;
    points.push(
      s * s * s * a.xPx + 3 * s * s * t * x1 + 3 * s * t * t * x2 + t * t * t * b.xPx,
      s * s * s * a.yPx + 3 * s * s * t * y1 + 3 * s * t * t * y2 + t * t * t * b.yPx,
    );
  }
  return points;
}

/** Carries an end straight on until it meets ink beyond a gap. */
function toTheSide(
  ends: readonly LineEnd[],
  from: number,
  ink: Uint8Array,
  lettering: Uint8Array,
  width: number,
  height: number,
  mostPx: number,
): Proposal | undefined {
  const end = ends[from];
  // The first two px are the mixed rim of its own end.
  for (let s = 2; s <= mostPx; s += 0.5) {
    const x = end.xPx + end.dx * s;
    const y = end.yPx + end.dy * s;
    if (x < 0 || y < 0 || x >= width || y >= height) return undefined;
    const i = Math.floor(y) * width + Math.floor(x);
    if (ink[i] === 0) continue;
    if (lettering[i] === 1 || !isOpenAcross(end, s / 2, ink, width)) return undefined;
    return { from, to: -1, cost: s, joint: straightOn(end, s) };
  }
  return undefined;
}

/** Carries an end on to a joint before it meets other ink; it may lie so near that the rims touch. */
function ontoNewInk(end: LineEnd, ink: Uint8Array, mended: Uint8Array, width: number, height: number, mostPx: number): Joint | undefined {
  for (let s = 0; s <= mostPx; s += 0.5) {
    const x = end.xPx + end.dx * s;
    const y = end.yPx + end.dy * s;
    if (x < 0 || y < 0 || x >= width || y >= height) return undefined;
    const i = Math.floor(y) * width + Math.floor(x);
    if (s >= 2 && ink[i] !== 0) return undefined;
    if (mended[i] !== 0 && ink[i] === 0) return straightOn(end, s);
  }
  return undefined;
}

/** The joint that carries an end on by a distance, and on into what it meets there. */
function straightOn({ xPx, yPx, dx, dy, halfWidthPx }: LineEnd, s: number): Joint {
  const on = s + halfWidthPx;
  return { points: [xPx, yPx, xPx + dx * on, yPx + dy * on], fromHalfWidthPx: halfWidthPx, toHalfWidthPx: halfWidthPx, gapPx: s };
}

/** Whether the gap is open over the whole width of the line at a distance from its end; beside a bent end it runs along its own ink. */
function isOpenAcross(end: LineEnd, s: number, ink: Uint8Array, width: number): boolean {
  for (const side of [-0.8, 0, 0.8]) {
    const x = Math.floor(end.xPx + end.dx * s - end.dy * side * end.halfWidthPx);
    const y = Math.floor(end.yPx + end.dy * s + end.dx * side * end.halfWidthPx);
    if (ink[y * width + x] === 1) return false;
  }
  return true;
}
