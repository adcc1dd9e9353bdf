import { endAt, freeEndAt, type End } from '../cubicFit.ts';
import { SideFit, type Ray } from '../sideFit.ts';
import type { ArcPoints } from './arcPoints.ts';
import type { CrackArcs } from './crackArcs.ts';

/** Points nearer than this to a node have a third tone in them, px; more where edges are wider, like the length below. */
const GAP_PX = 0.9;
/** Length of an arc that is read for its direction at a node, px. */
const SIDE_PX = 5;
/** A ray is never trusted more than one that is this far off, px. */
const LEAST_RMS = 0.04;
/** How far a node may lie from the corner of pixels at which its labels meet, px. */
const FURTHEST_PX = 1.6;
/** Weight of the corner of pixels itself, against that of a ray that is 1 px off: decides only where the rays do not. */
const ANCHOR = 0.5;

/** Where the arcs of a node meet and how each of them arrives there. */
export interface ArcEnds {
  /** For arc k, its end at the start (2k) and at the end (2k + 1), directions along its travel; undefined for closed arcs. */
  readonly ends: readonly (End | undefined)[];
}

interface Arrival extends Ray {
  readonly slot: number;
  readonly known: boolean;
}

/**
 * Places each node where its arcs, read without the pixels in which three tones mix, meet by least squares. Two of them that arrive in opposite directions are
 * one edge at which a third ends: they pass the node with one common direction.
 * @param smoothRad the largest turn with which an edge passes a node smoothly, radians.
 * @param placeOf where a node lies when that is known already.
 */
export function junctions(
  arcs: CrackArcs,
  points: readonly ArcPoints[],
  smoothRad: number,
  placeOf?: (node: number) => { x: number; y: number } | undefined,
): ArcEnds {
  const ends = new Array<End | undefined>(arcs.count * 2);
  const fit = new SideFit();
  for (const [node, slots] of slotsByNode(arcs)) {
    const row = Math.floor(node / arcs.stride);
    const x = node - row * arcs.stride - 1;
    const y = row - 1;
    const arrivals = slots.map((slot) => arrivalOf(fit, points[slot >> 1], slot, x, y));
    const place = placeOf?.(node) ?? meetingPlace(arrivals, x, y, arcs);
    for (const slot of slots) ends[slot] = freeEndAt(place.x, place.y);
    passSmoothly(arrivals, place, ends, smoothRad);
  }
  return { ends };
}

function slotsByNode(arcs: CrackArcs): Map<number, number[]> {
  const nodes = new Map<number, number[]>();
  const add = (node: number, slot: number): void => {
    if (node < 0) return;
    const slots = nodes.get(node);
    if (slots === undefined) nodes.set(node, [slot]);
    else slots.push(slot);
  };
  for (let k = 0; k < arcs.count; k++) {
    add(arcs.from[k], 2 * k);
    add(arcs.to[k], 2 * k + 1);
  }
  return nodes;
}

/** How an arc arrives at its node, from the points up to `SIDE_PX` away; its direction is towards the node. */
function arrivalOf(fit: SideFit, { ring, edgeWidthPx }: ArcPoints, slot: number, x: number, y: number): Arrival {
  const ray: Ray = { x, y, dx: 0, dy: 0, count: 0, rms: 0 };
  const { n } = ring;
  const atEnd = (slot & 1) === 1;
  fit.clear();
  let travelled = 0;
  let fromX = x;
  let fromY = y;
  for (let j = 0; j < n; j++) {
    const k = atEnd ? n - 1 - j : j;
    travelled += Math.sqrt((ring.x[k] - fromX) ** 2 + (ring.y[k] - fromY) ** 2);
    fromX = ring.x[k];
    fromY = ring.y[k];
    if (travelled > SIDE_PX * edgeWidthPx) break;
    // Near the other node its tones mix in.
    if (Math.min(j, n - 1 - j) < 1 && n > 4 && j > 0) break;
    if (travelled >= GAP_PX * edgeWidthPx && !fit.add(-travelled, fromX, fromY)) break;
  }
  const known = fit.solve(ray);
  return { ...ray, slot, known };
}

/** The place of a node; one on the picture's frame stays on it. */
function meetingPlace(arrivals: readonly Arrival[], x: number, y: number, { cells, stride }: CrackArcs): { x: number; y: number } {
  const width = stride - 2;
  const height = cells.length / stride - 2;
  let xx = ANCHOR;
  let xy = 0;
  let yy = ANCHOR;
  let rx = 0;
  let ry = 0;
  for (const { known, x: ax, y: ay, dx, dy, rms } of arrivals) {
    if (!known) continue;
    const weight = 1 / Math.max(LEAST_RMS, rms) ** 2;
    // Distance from the ray's line: its normal is (−dy, dx).
    const off = -dy * (ax - x) + dx * (ay - y);
    xx += weight * dy * dy;
    xy -= weight * dx * dy;
    yy += weight * dx * dx;
    rx -= weight * dy * off;
    ry += weight * dx * off;
  }
  const onSide = x === 0 || x === width;
  const onEnd = y === 0 || y === height;
  const det = xx * yy - xy * xy;
  const px = onSide ? 0 : onEnd ? rx / xx : (rx * yy - ry * xy) / det;
  const py = onEnd ? 0 : onSide ? ry / yy : (ry * xx - rx * xy) / det;
  const far = Math.hypot(px, py);
  const share = far > FURTHEST_PX ? FURTHEST_PX / far : 1;
  return { x: Math.max(0, Math.min(width, x + px * share)), y: Math.max(0, Math.min(height, y + py * share)) };
}

function passSmoothly(arrivals: readonly Arrival[], place: { x: number; y: number }, ends: (End | undefined)[], smoothRad: number): void {
  let best = Math.cos(smoothRad);
  let pair: readonly [Arrival, Arrival] | undefined;
  for (const [i, a] of arrivals.entries()) {
    for (const b of arrivals.slice(i + 1)) {
      const straight = -(a.dx * b.dx + a.dy * b.dy);
      if (!a.known || !b.known || straight <= best) continue;
      best = straight;
      pair = [a, b];
    }
  }
  if (pair === undefined) return;
  const [a, b] = pair;
  const dx = a.dx - b.dx;
  const dy = a.dy - b.dy;
  const length = Math.hypot(dx, dy);
  for (const [arrival, sign] of [
    [a, 1],
    [b, -1],
  ] as const) {
    // Towards the node is along the travel of an arc that ends here.
    const way = (arrival.slot & 1) === 1 ? sign : -sign;
    ends[arrival.slot] = endAt(place.x, place.y, (way * dx) / length, (way * dy) / length);
  }
}
