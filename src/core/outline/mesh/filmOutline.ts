import { coordsOfVerb, CurvesBuilder, LINE, type Curves } from '../curves.ts';
import type { Crossings } from '../isoline.ts';
import { parentRings } from '../nesting.ts';
import type { ArcMesh } from './arcMesh.ts';
import { DOWN, UP, type CrackArcs } from './crackArcs.ts';

/** Which sides of the arcs belong to a film: 1 or 0 for arc k on its left (2k) and on its right (2k + 1). */
export type FilmSides = Uint8Array;

/** The sides whose label belongs to a film. */
export function sidesOfLabels(arcs: CrackArcs, isOf: (label: number) => boolean): FilmSides {
  const sides = new Uint8Array(arcs.count * 2);
  for (let k = 0; k < arcs.count; k++) {
    sides[2 * k] = isOf(arcs.left[k]) ? 1 : 0;
    sides[2 * k + 1] = isOf(arcs.right[k]) ? 1 : 0;
  }
  return sides;
}

/**
 * The outline of a film: all arcs with the film on one side only, put together to rings, outer ones clockwise on screen, holes the other way, each with the
 * ring around it. Curves are copied, never fitted anew, so films that meet have the very same edge. Where the film touches itself only at a node, it is two
 * pieces.
 */
export function filmOutline(mesh: ArcMesh, sides: FilmSides): Curves {
  const halves = halvesOf(mesh.arcs, sides);
  const rings = ringsOf(mesh.arcs, halves);
  const crossings = crossingsOf(mesh.arcs, rings);
  const isHole = rings.map((ring) => latticeArea(mesh.arcs, ring) < 0);
  const parents = parentRings(crossings, rings.length, (ring) => isHole[ring]);
  const builder = new CurvesBuilder();
  const order = parentsFirst(parents);
  const place = new Int32Array(rings.length);
  for (const [at, ring] of order.entries()) place[ring] = at;
  for (const ring of order) drawHalves(builder, mesh.curves, rings[ring], parents[ring] < 0 ? -1 : place[parents[ring]]);
  return builder.build();
}

/** An arc in the direction in which the film lies to the right: 2k along its travel, 2k + 1 against it. −1 where it is no edge of the film. */
function halvesOf(arcs: CrackArcs, sides: FilmSides): Int32Array {
  const halves = new Int32Array(arcs.count).fill(-1);
  for (let k = 0; k < arcs.count; k++) if (sides[2 * k] !== sides[2 * k + 1]) halves[k] = sides[2 * k + 1] === 1 ? 2 * k : 2 * k + 1;
  return halves;
}

function ringsOf(arcs: CrackArcs, halves: Int32Array): number[][] {
  const leaving = new Map<number, number[]>();
  for (const half of halves) {
    if (half < 0) continue;
    const node = startOf(arcs, half);
    if (node < 0) continue;
    const list = leaving.get(node);
    if (list === undefined) leaving.set(node, [half]);
    else list.push(half);
  }
  const used = new Uint8Array(arcs.count);
  const rings: number[][] = [];
  for (const first of halves) {
    if (first < 0 || used[first >> 1] !== 0) continue;
    const ring: number[] = [];
    let half = first;
    do {
      used[half >> 1] = 1;
      ring.push(half);
      half = arcs.from[half >> 1] < 0 ? first : nextHalf(arcs, leaving, half);
    } while (half !== first);
    rings.push(ring);
  }
  return rings;
}

/** At a node the ring goes on with the arc furthest to the right, so that it stays with its piece. */
function nextHalf(arcs: CrackArcs, leaving: Map<number, number[]>, half: number): number {
  const node = (half & 1) === 0 ? arcs.to[half >> 1] : arcs.from[half >> 1];
  const heading = headingAtEnd(arcs, half);
  let best = -1;
  let least = 4;
  for (const other of leaving.get(node) ?? []) {
    const turn = (headingAtStart(arcs, other) - heading + 4) & 3;
    // Right is 1, on is 0, left is 3.
    const rank = turn === 1 ? 0 : turn === 0 ? 1 : turn === 3 ? 2 : 3;
    if (rank >= least) continue;
    least = rank;
    best = other;
  }
  if (best < 0) throw new RangeError(`no arc of the film leaves node ${node}`);
  return best;
}

const startOf = (arcs: CrackArcs, half: number): number => ((half & 1) === 0 ? arcs.from[half >> 1] : arcs.to[half >> 1]);

function headingAtStart(arcs: CrackArcs, half: number): number {
  const k = half >> 1;
  return (half & 1) === 0 ? arcs.cracks[arcs.starts[k]] & 3 : ((arcs.cracks[arcs.starts[k + 1] - 1] & 3) + 2) & 3;
}

function headingAtEnd(arcs: CrackArcs, half: number): number {
  const k = half >> 1;
  return (half & 1) === 0 ? arcs.cracks[arcs.starts[k + 1] - 1] & 3 : ((arcs.cracks[arcs.starts[k]] & 3) + 2) & 3;
}

/** Signed area inside a ring's cracks, px²: above 0 for outer rings. */
function latticeArea(arcs: CrackArcs, ring: readonly number[]): number {
  let area = 0;
  for (const half of ring) {
    const k = half >> 1;
    let sum = 0;
    for (let c = arcs.starts[k]; c < arcs.starts[k + 1]; c++) {
      const direction = arcs.cracks[c] & 3;
      if (direction !== UP && direction !== DOWN) continue;
      const column = (arcs.cracks[c] >> 2) % arcs.stride;
      sum += direction === DOWN ? column : -column;
    }
    area += (half & 1) === 0 ? sum : -sum;
  }
  return area;
}

/** Where the rings cross the rows of pixel centres: at their upright cracks. */
function crossingsOf(arcs: CrackArcs, rings: readonly (readonly number[])[]): Crossings {
  let most = 0;
  for (const ring of rings) for (const half of ring) most += arcs.starts[(half >> 1) + 1] - arcs.starts[half >> 1];
  const row = new Int32Array(most);
  const x = new Float64Array(most);
  const ring = new Int32Array(most);
  const inkRight = new Uint8Array(most);
  let count = 0;
  for (const [number, halves] of rings.entries()) {
    for (const half of halves) {
      const along = (half & 1) === 0;
      for (let c = arcs.starts[half >> 1]; c < arcs.starts[(half >> 1) + 1]; c++) {
        const direction = arcs.cracks[c] & 3;
        if (direction !== UP && direction !== DOWN) continue;
        const v = arcs.cracks[c] >> 2;
        const vertexRow = Math.floor(v / arcs.stride);
        row[count] = direction === UP ? vertexRow - 1 : vertexRow;
        x[count] = v - vertexRow * arcs.stride;
        ring[count] = number;
        // The film is to the right of travel: of the crack going up, that is to its right.
        inkRight[count++] = (direction === UP) === along ? 1 : 0;
      }
    }
  }
  return { count, row: row.subarray(0, count), x: x.subarray(0, count), ring: ring.subarray(0, count), inkRight: inkRight.subarray(0, count) };
}

function parentsFirst(parents: Int32Array): number[] {
  const depth = (ring: number): number => (parents[ring] < 0 ? 0 : 1 + depth(parents[ring]));
  const depths = Array.from(parents, (_, ring) => depth(ring));
  return Array.from(parents.keys()).sort((a, b) => depths[a] - depths[b] || a - b);
}

function drawHalves(builder: CurvesBuilder, curves: Curves, ring: readonly number[], parent: number): void {
  const first = startOfHalf(curves, ring[0]);
  builder.start(first.x, first.y, parent);
  for (const half of ring) drawHalf(builder, curves, half);
  builder.close();
}

/** Goes on with the curve of an arc, along its travel (2k) or against it (2k + 1), from where the ring has come to. */
export function drawHalf(builder: CurvesBuilder, curves: Curves, half: number): void {
  if ((half & 1) === 0) drawAlong(builder, curves, half >> 1);
  else drawAgainst(builder, curves, half >> 1);
}

/** Where the curve of an arc begins when it is drawn along its travel (2k) or against it (2k + 1). */
export function startOfHalf({ coords, coordStart }: Curves, half: number): { x: number; y: number } {
  const at = (half & 1) === 0 ? coordStart[half >> 1] : coordStart[(half >> 1) + 1] - 2;
  return { x: coords[at], y: coords[at + 1] };
}

function drawAlong(builder: CurvesBuilder, { verbs, coords, verbStart, coordStart }: Curves, arc: number): void {
  let at = coordStart[arc] + 2;
  for (let v = verbStart[arc]; v < verbStart[arc + 1]; v++) {
    if (verbs[v] === LINE) builder.line(coords[at], coords[at + 1]);
    else builder.cubic(coords[at], coords[at + 1], coords[at + 2], coords[at + 3], coords[at + 4], coords[at + 5]);
    at += coordsOfVerb(verbs[v]);
  }
}

function drawAgainst(builder: CurvesBuilder, { verbs, coords, verbStart, coordStart }: Curves, arc: number): void {
  let at = coordStart[arc + 1] - 2;
  for (let v = verbStart[arc + 1] - 1; v >= verbStart[arc]; v--) {
    const before = at - coordsOfVerb(verbs[v]);
    if (verbs[v] === LINE) builder.line(coords[before], coords[before + 1]);
    else builder.cubic(coords[at - 2], coords[at - 1], coords[at - 4], coords[at - 3], coords[before], coords[before + 1]);
    at = before;
  }
}
