import type { ArcMesh } from '../outline/mesh/arcMesh.ts';
import type { FilmSides } from '../outline/mesh/filmOutline.ts';
import type { MeshRegions } from '../outline/mesh/meshRegions.ts';

/** Neighbouring regions and how much edge they share: nodes of the curves between them. */
interface Borders {
  /** Neighbours of region r: of[starts[r]] to of[starts[r + 1]] (exclusive), each as often as they share an arc. */
  readonly starts: Int32Array;
  readonly of: Int32Array;
  readonly nodes: Int32Array;
}

/** Orders of more films than this are not all tried: neighbours change places as long as that helps. */
const ROUNDS = 12;

/**
 * The order in which films lie over each other with the least edge and the least film on any spot: as a film runs on under those above it, an edge is cut once
 * for each film between its two sides. `ranks` gives each film a place from 0 (lowest); what is no film has none and lies below all.
 * @param filmOf film of each region, −1 for none. @param films how many there are.
 */
export function stackOrder(mesh: ArcMesh, regions: MeshRegions, filmOf: Int32Array, films: number): Int32Array {
  const between = new Float64Array((films + 1) * (films + 1));
  const area = new Float64Array(films);
  for (let r = 0; r < regions.count; r++) if (filmOf[r] >= 0) area[filmOf[r]] += regions.areaPx2[r];
  for (let k = 0; k < mesh.arcs.count; k++) {
    const a = filmOf[regions.left[k]] + 1;
    const b = filmOf[regions.right[k]] + 1;
    if (a === b) continue;
    const nodes = mesh.curves.verbStart[k + 1] - mesh.curves.verbStart[k];
    between[a * (films + 1) + b] += nodes;
    between[b * (films + 1) + a] += nodes;
  }
  // Large and low first, then better by exchange.
  let order = Array.from({ length: films }, (_, k) => k).sort((a, b) => area[b] - area[a] || a - b);
  let cost = costOf(order, between, films);
  for (let round = 0; round < ROUNDS; round++) {
    let better = false;
    for (let from = 0; from < films; from++) {
      for (let to = 0; to < films; to++) {
        if (from === to) continue;
        const moved = [...order];
        moved.splice(to, 0, ...moved.splice(from, 1));
        const next = costOf(moved, between, films);
        if (next >= cost - 1e-9) continue;
        cost = next;
        order = moved;
        better = true;
      }
    }
    if (!better) break;
  }
  const ranks = new Int32Array(films);
  for (const [rank, film] of order.entries()) ranks[film] = rank;
  return ranks;
}

function costOf(order: readonly number[], between: Float64Array, films: number): number {
  const rank = new Int32Array(films + 1);
  for (const [at, film] of order.entries()) rank[film + 1] = at + 1;
  let cost = 0;
  for (let a = 0; a <= films; a++) for (let b = a + 1; b <= films; b++) cost += between[a * (films + 1) + b] * Math.abs(rank[a] - rank[b]);
  return cost;
}

/**
 * For each film the regions that it covers: its own, and those of films that lie whole on it, as far as they keep its edges away from what is seen. Every such
 * region that touches one of its own is covered whole; others only where that saves edge.
 * @param runsUnder whether a film runs on under the whole of another. @returns for film k 1 at each region it covers, at k × regions.count.
 */
export function coveredRegions(
  mesh: ArcMesh,
  regions: MeshRegions,
  filmOf: Int32Array,
  films: number,
  runsUnder: (film: number, other: number) => boolean,
): Uint8Array {
  const borders = bordersOf(mesh, regions);
  const { count } = regions;
  const covered = new Uint8Array(films * count);
  for (let film = 0; film < films; film++)
    coverFilm(covered.subarray(film * count, (film + 1) * count), borders, filmOf, film, (other) => runsUnder(film, other));
  return covered;
}

/** 1 own, then 2 while above and touching, 3 while above and free to be left out; in the end all that is not 0 is 1. */
function coverFilm(state: Uint8Array, borders: Borders, filmOf: Int32Array, film: number, runsUnder: (other: number) => boolean): void {
  const queue: number[] = [];
  for (let r = 0; r < state.length; r++) {
    if (filmOf[r] !== film) continue;
    state[r] = 1;
    queue.push(r);
  }
  const isAbove = (r: number): boolean => filmOf[r] >= 0 && filmOf[r] !== film && runsUnder(filmOf[r]);
  for (let head = 0; head < queue.length; head++) {
    const r = queue[head];
    for (let k = borders.starts[r]; k < borders.starts[r + 1]; k++) {
      const other = borders.of[k];
      if (!isAbove(other)) continue;
      if (state[other] === 0) queue.push(other);
      if (state[r] === 1) state[other] = 2;
      else if (state[other] === 0) state[other] = 3;
    }
  }
  leaveOut(state, borders, queue);
  for (const r of queue) if (state[r] !== 0) state[r] = 1;
}

function leaveOut(state: Uint8Array, borders: Borders, queue: readonly number[]): void {
  for (let changed = true; changed;) {
    changed = false;
    for (let k = queue.length - 1; k >= 0; k--) {
      const r = queue[k];
      if (state[r] !== 3) continue;
      let gain = 0;
      for (let b = borders.starts[r]; b < borders.starts[r + 1]; b++) gain += state[borders.of[b]] === 0 ? borders.nodes[b] : -borders.nodes[b];
      if (gain < 0) continue;
      state[r] = 0;
      changed = true;
    }
  }
}

function bordersOf({ arcs, curves }: ArcMesh, { count, left, right }: MeshRegions): Borders {
  const starts = new Int32Array(count + 1);
  for (let k = 0; k < arcs.count; k++) {
    starts[left[k] + 1]++;
    starts[right[k] + 1]++;
  }
  for (let r = 0; r < count; r++) starts[r + 1] += starts[r];
  const next = starts.slice();
  const of = new Int32Array(arcs.count * 2);
  const nodes = new Int32Array(arcs.count * 2);
  for (let k = 0; k < arcs.count; k++) {
    const edge = curves.verbStart[k + 1] - curves.verbStart[k];
    of[next[left[k]]] = right[k];
    nodes[next[left[k]]++] = edge;
    of[next[right[k]]] = left[k];
    nodes[next[right[k]]++] = edge;
  }
  return { starts, of, nodes };
}

/** The sides of the arcs that belong to a film which covers the given regions. */
export function sidesOfRegions(regions: MeshRegions, covers: Uint8Array): FilmSides {
  const { left, right } = regions;
  const sides = new Uint8Array(left.length * 2);
  for (let k = 0; k < left.length; k++) {
    sides[2 * k] = covers[left[k]];
    sides[2 * k + 1] = covers[right[k]];
  }
  return sides;
}
