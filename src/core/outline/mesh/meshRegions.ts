import { labelRegions, rootOf } from '../../raster/labelRegions.ts';
import type { ArcMesh } from './arcMesh.ts';
import { leftCell, rightCell } from './crackArcs.ts';

/** The connected regions between the arcs of a mesh, the outside among them. */
export interface MeshRegions {
  readonly count: number;
  /** Region to the left and to the right of each arc. */
  readonly left: Int32Array;
  readonly right: Int32Array;
  /** Label of each region. */
  readonly label: Uint8Array;
  readonly areaPx2: Float64Array;
  /** A cell of each region, counted in the picture: its first in reading order; −1 where that lies outside. */
  readonly firstPixel: Int32Array;
  /**
   * The cells of the mesh's lattice in runs of one region: from where, up to where, and which. A row of the lattice has `stride` cells, one of them outside on
   * either side of the picture.
   */
  readonly runs: { readonly start: Int32Array; readonly end: Int32Array; readonly region: Int32Array };
  readonly stride: number;
  readonly cells: number;
}

/** Finds the regions; what touches at a corner only belongs together where the arcs pass on either side of it. */
export function meshRegions({ arcs, width }: Pick<ArcMesh, 'arcs' | 'width'>): MeshRegions {
  const { cells, stride, joins } = arcs;
  const { runStart, runEnd, regionOfRun, count: parts, area } = labelRegions(cells, stride, cells.length / stride, 'each', false);
  const partOf = (cell: number): number => regionOfRun[runAt(runStart, cell)];
  const parent = Int32Array.from({ length: parts }, (_, k) => k);
  for (let k = 0; k < joins.length; k += 2) {
    const a = rootOf(parent, partOf(joins[k]));
    const b = rootOf(parent, partOf(joins[k + 1]));
    parent[Math.max(a, b)] = Math.min(a, b);
  }
  const number = new Int32Array(parts).fill(-1);
  let count = 0;
  for (let k = 0; k < parts; k++) if (parent[k] === k) number[k] = count++;
  const label = new Uint8Array(count);
  const areaPx2 = new Float64Array(count);
  const firstPixel = new Int32Array(count).fill(-2);
  for (let k = 0; k < parts; k++) areaPx2[number[rootOf(parent, k)]] += area[k];
  for (let run = 0; run < runStart.length; run++) {
    const region = number[rootOf(parent, regionOfRun[run])];
    label[region] = cells[runStart[run]];
    if (firstPixel[region] === -2) firstPixel[region] = pixelOf(runStart[run], stride, width);
  }
  const regionOf = (cell: number): number => number[rootOf(parent, partOf(cell))];
  const left = new Int32Array(arcs.count);
  const right = new Int32Array(arcs.count);
  for (let k = 0; k < arcs.count; k++) {
    const crack = arcs.cracks[arcs.starts[k]];
    left[k] = regionOf(leftCell(crack >> 2, crack & 3, stride));
    right[k] = regionOf(rightCell(crack >> 2, crack & 3, stride));
  }
  const region = Int32Array.from(regionOfRun, (part) => number[rootOf(parent, part)]);
  return { count, left, right, label, areaPx2, firstPixel, runs: { start: runStart, end: runEnd, region }, stride, cells: cells.length };
}

/** The region at a pixel of the picture, counted as whole numbers from the upper left; −1 outside. */
export function regionAt({ runs, stride, cells }: MeshRegions, x: number, y: number): number {
  if (x < 0 || y < 0 || x >= stride - 2 || y >= cells / stride - 2) return -1;
  return runs.region[runAt(runs.start, (y + 1) * stride + x + 1)];
}

/** Middle of each region, px of the picture: x at 2k, y at 2k + 1. */
export function regionMiddles({ count, areaPx2, runs: { start, end, region }, stride }: MeshRegions): Float64Array {
  const sums = new Float64Array(2 * count);
  for (let run = 0; run < start.length; run++) {
    const length = end[run] - start[run];
    const row = Math.floor(start[run] / stride);
    sums[2 * region[run]] += length * ((start[run] + end[run]) / 2 - row * stride - 1);
    sums[2 * region[run] + 1] += length * (row - 0.5);
  }
  return sums.map((sum, k) => sum / areaPx2[k >> 1]);
}

/** For each cell of the mesh's lattice what `of` says of its region. */
export function spreadOverCells({ runs: { start, end, region }, cells }: MeshRegions, of: ArrayLike<number>): Int16Array {
  const out = new Int16Array(cells);
  for (let run = 0; run < start.length; run++) out.fill(of[region[run]], start[run], end[run]);
  return out;
}

function pixelOf(cell: number, stride: number, width: number): number {
  const row = Math.floor(cell / stride);
  const column = cell - row * stride;
  return row === 0 || column === 0 || column > width ? -1 : (row - 1) * width + column - 1;
}

/** The run that holds a cell. */
function runAt(runStart: Int32Array, cell: number): number {
  let low = 0;
  let high = runStart.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (runStart[middle] <= cell) low = middle;
    else high = middle - 1;
  }
  return low;
}
