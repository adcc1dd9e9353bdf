import { coordsOfVerb, ringCount, type Curves } from './curves.ts';

/** Nodes of a ring that follow each other, by the number of the first; they may run over the ring's start. */
export interface NodeRun {
  readonly ring: number;
  readonly from: number;
  readonly nodes: number;
}

export interface JaggedPlace extends NodeRun {
  readonly xMm: number;
  readonly yMm: number;
  /** How far its deepest tooth stands out, mm. */
  readonly depthMm: number;
}

/** A tooth turns at least so much, radians: 25°. */
const LEAST_TURN = (25 * Math.PI) / 180;
/** So many turns to one side and the other in a row make an edge jagged; a step in a drawing has two, a notch four. */
const LEAST_TEETH = 5;

/**
 * Edges that zigzag in teeth smaller than `mostMm`, as a knife would follow: runs of nodes that turn to one side and the other by turns, close together. For
 * each run its middle and its deepest tooth.
 * @param curves in mm.
 */
export function jaggedPlaces(curves: Curves, mostMm: number): JaggedPlace[] {
  const places: JaggedPlace[] = [];
  for (let ring = 0; ring < ringCount(curves); ring++) for (const place of jaggedRuns(nodesOf(curves, ring), mostMm)) places.push({ ring, ...place });
  return places;
}

interface Node {
  readonly x: number;
  readonly y: number;
  /** Turn of the outline at the node, radians, to the right above 0. */
  readonly turn: number;
}

function nodesOf({ verbs, coords, verbStart, coordStart }: Curves, ring: number): Node[] {
  const nodes: Node[] = [];
  const last = coordStart[ring + 1] - 2;
  // The last verb ends at the ring's first point, whose coordinates stand once more at the end.
  let at = coordStart[ring];
  let into = wayInto(coords, last - coordsOfVerb(verbs[verbStart[ring + 1] - 1]), last);
  for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
    const end = at + coordsOfVerb(verbs[v]);
    const { outX, outY } = wayFrom(coords, at, end);
    nodes.push({ x: coords[at], y: coords[at + 1], turn: Math.atan2(into.inX * outY - into.inY * outX, into.inX * outX + into.inY * outY) });
    into = wayInto(coords, at, end);
    at = end;
  }
  return nodes;
}

/** Direction in which a verb leaves its first point: to the first of its points that lies elsewhere. */
function wayFrom(coords: Float64Array, from: number, last: number): { outX: number; outY: number } {
  for (let i = from + 2; i <= last; i += 2)
    if (coords[i] !== coords[from] || coords[i + 1] !== coords[from + 1]) return { outX: coords[i] - coords[from], outY: coords[i + 1] - coords[from + 1] };
  return { outX: 0, outY: 0 };
}

/** Direction in which a verb comes to its last point. */
function wayInto(coords: Float64Array, from: number, last: number): { inX: number; inY: number } {
  for (let i = last - 2; i >= from; i -= 2)
    if (coords[i] !== coords[last] || coords[i + 1] !== coords[last + 1]) return { inX: coords[last] - coords[i], inY: coords[last + 1] - coords[i + 1] };
  return { inX: 0, inY: 0 };
}

function jaggedRuns(nodes: readonly Node[], mostMm: number): Omit<JaggedPlace, 'ring'>[] {
  const places: Omit<JaggedPlace, 'ring'>[] = [];
  const count = nodes.length;
  const goesOn = (k: number): boolean => {
    const [a, b] = [nodes[k % count], nodes[(k + 1) % count]];
    return Math.abs(a.turn) >= LEAST_TURN && Math.abs(b.turn) >= LEAST_TURN && a.turn * b.turn < 0 && Math.hypot(b.x - a.x, b.y - a.y) <= mostMm;
  };
  // Begins where a run cannot be under way, so that none is cut in two at the ring's first node.
  let begin = 0;
  while (begin < count && goesOn(begin)) begin++;
  for (let k = begin + 1; k < begin + count;) {
    let length = 1;
    while (length < count && goesOn(k + length - 1)) length++;
    if (length >= LEAST_TEETH) {
      const middle = nodes[(k + (length >> 1)) % count];
      places.push({ from: k % count, nodes: length, xMm: middle.x, yMm: middle.y, depthMm: deepest(nodes, k, length) });
    }
    k += length;
  }
  return places;
}

/** The largest distance of a node of the run from the line through its neighbours. */
function deepest(nodes: readonly Node[], from: number, length: number): number {
  let most = 0;
  for (let k = from + 1; k < from + length - 1; k++) {
    const [a, b, c] = [nodes[(k - 1) % nodes.length], nodes[k % nodes.length], nodes[(k + 1) % nodes.length]];
    const base = Math.hypot(c.x - a.x, c.y - a.y);
    if (base > 0) most = Math.max(most, Math.abs((c.x - a.x) * (a.y - b.y) - (a.x - b.x) * (c.y - a.y)) / base);
  }
  return most;
}
