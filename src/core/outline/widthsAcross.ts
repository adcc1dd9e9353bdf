import type { EdgeSamples } from './edgeSamples.ts';
import { OPPOSED } from './facingChords.ts';

/** The other side lies straight across: cosine between the normal and the way to it, at least this. */
const ACROSS = 0.8;
/** The way along the outline from one side of a strip to the other is at least so many least widths: less is the pointed or blunt end of something. */
const LEAST_WAY_AROUND = 6;
/** Cells of the grid at most, and side by side. */
const MOST_CELLS = 4_000_000;
const MOST_ACROSS = 20_000;

/** For each sample the width of the film there and the sample on the other side, −1 where it is wider than `leastMm`. Pairs that face each other across film are looked for through a grid. */
export function widthsAcross({ x, y, nx, ny, ring, along, around, spacing }: EdgeSamples, leastMm: number): { width: Float64Array; partner: Int32Array } {
  const grid = sampleCells(x, y, leastMm);
  const { members, from: cellStarts, columns, cells } = grid;
  const leastAround = (LEAST_WAY_AROUND * leastMm) / spacing;
  const width = new Float64Array(x.length).fill(Infinity);
  const partner = new Int32Array(x.length).fill(-1);
  // In the order of the cells, in which what is near lies together in memory.
  const [sx, sy, snx, sny] = [x, y, nx, ny].map((all) => gathered(all, members));
  for (let m = 0; m < members.length; m++) {
    const k = members[m];
    const [px, py, ax, ay, own, middle] = [sx[m], sy[m], snx[m], sny[m], ring[k], cells[k]];
    let nearest = leastMm;
    let found = -1;
    for (let row = middle - columns; row <= middle + columns; row += columns) {
      const end = cellStarts[row + 2];
      for (let i = cellStarts[row - 1]; i < end; i++) {
        const [vx, vy] = [sx[i] - px, sy[i] - py];
        // What lies behind the edge, or further along it than the film is wide, is most of what is near.
        const across = vx * ax + vy * ay;
        if (across <= 0 || across >= nearest || ax * snx[i] + ay * sny[i] > OPPOSED) continue;
        const distance = Math.sqrt(vx * vx + vy * vy);
        if (distance >= nearest || across < ACROSS * distance) continue;
        const q = members[i];
        if (ring[q] === own) {
          // The two sides of the end of something are near each other along the outline.
          const way = Math.abs(along[k] - along[q]);
          if (Math.min(way, around[own] - way) < leastAround) continue;
        }
        nearest = distance;
        found = q;
      }
    }
    if (found < 0) continue;
    width[k] = nearest;
    partner[k] = found;
  }
  return { width, partner };
}

function gathered(all: Float64Array, order: Int32Array): Float64Array {
  const own = new Float64Array(order.length);
  for (let k = 0; k < order.length; k++) own[k] = all[order[k]];
  return own;
}

/** Samples by the cells of a grid, in rows: those of three cells side by side follow each other in `members`, those of cell c from `from[c]` on. There is a free cell all around. */
interface SampleCells {
  readonly members: Int32Array;
  readonly from: Int32Array;
  readonly columns: number;
  /** The cell of each sample. */
  readonly cells: Int32Array;
}

function sampleCells(x: Float64Array, y: Float64Array, leastCell: number): SampleCells {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let k = 0; k < x.length; k++) {
    if (x[k] < left) left = x[k];
    if (x[k] > right) right = x[k];
    if (y[k] < top) top = y[k];
    if (y[k] > bottom) bottom = y[k];
  }
  const area = Math.max(0, right - left) * Math.max(0, bottom - top);
  const cell = Math.max(leastCell, Math.sqrt(area / MOST_CELLS), (right - left) / MOST_ACROSS, (bottom - top) / MOST_ACROSS);
  const columns = x.length === 0 ? 3 : Math.floor((right - left) / cell) + 3;
  const rows = x.length === 0 ? 3 : Math.floor((bottom - top) / cell) + 3;
  const from = new Int32Array(columns * rows + 1);
  const cells = new Int32Array(x.length);
  for (let k = 0; k < x.length; k++) {
    const own = (Math.floor((y[k] - top) / cell) + 1) * columns + Math.floor((x[k] - left) / cell) + 1;
    cells[k] = own;
    from[own]++;
  }
  // Where each cell ends; filled from the back, so that it is where it begins in the end.
  for (let k = 1; k < from.length; k++) from[k] += from[k - 1];
  const members = new Int32Array(x.length);
  for (let k = x.length - 1; k >= 0; k--) members[--from[cells[k]]] = k;
  return { members, from, columns, cells };
}
