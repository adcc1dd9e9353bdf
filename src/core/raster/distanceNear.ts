import { lowerEnvelope, makeLine, type Line } from './distance.ts';
import type { Stretches } from './nearEdges.ts';

/** So far away nothing is looked for, px. */
const FAR = 1e5;

/**
 * Distance of every cell of some stretches to the nearest cell whose being 0 is `isZero`, centre to centre, px; `FAR` elsewhere. Exact as far as cells outside
 * the stretches are like all cells around them: there only the nearest one to each side counts. Costs what the stretches hold, whatever the raster.
 * @param out as many values as cells.
 */
export function distanceNear(cells: Uint8Array, isZero: boolean, where: Stretches, width: number, height: number, out: Float32Array): Float32Array {
  const sought = isZero ? 0 : 1;
  const { rowFirst, start, end } = where;
  out.fill(FAR);
  for (let y = 0; y < height; y++) for (let s = rowFirst[y]; s < rowFirst[y + 1]; s++) goDown(cells, sought, out, start[s], end[s], y === 0 ? 0 : width);
  for (let y = height - 2; y >= 0; y--) for (let s = rowFirst[y]; s < rowFirst[y + 1]; s++) goUp(cells, sought, out, start[s], end[s], width);
  const line = makeLine(width + 2);
  for (let y = 0; y < height; y++)
    for (let s = rowFirst[y]; s < rowFirst[y + 1]; s++) goAcross(cells, sought, out, start[s], end[s], y * width, (y + 1) * width, line);
  return out;
}

const isSought = (cell: number, sought: 0 | 1): boolean => (cell === 0 ? 0 : 1) === sought;

/** @param above how far back the row above lies; 0 where there is none. */
function goDown(cells: Uint8Array, sought: 0 | 1, out: Float32Array, from: number, to: number, above: number): void {
  for (let i = from; i < to; i++) {
    if (isSought(cells[i], sought)) out[i] = 0;
    else if (above !== 0) out[i] = isSought(cells[i - above], sought) ? 1 : out[i - above] + 1;
  }
}

function goUp(cells: Uint8Array, sought: 0 | 1, out: Float32Array, from: number, to: number, below: number): void {
  for (let i = from; i < to; i++) {
    const next = isSought(cells[i + below], sought) ? 1 : out[i + below] + 1;
    if (next < out[i]) out[i] = next;
  }
}

/** Along a stretch of the row from `rowFrom` to `rowTo`, with the cell to each side of it. */
function goAcross(cells: Uint8Array, sought: 0 | 1, out: Float32Array, from: number, to: number, rowFrom: number, rowTo: number, line: Line): void {
  const { f, d } = line;
  const count = to - from;
  f[0] = from > rowFrom && isSought(cells[from - 1], sought) ? 0 : FAR * FAR;
  f[count + 1] = to < rowTo && isSought(cells[to], sought) ? 0 : FAR * FAR;
  for (let k = 0; k < count; k++) f[k + 1] = out[from + k] ** 2;
  lowerEnvelope(line, count + 2);
  for (let k = 0; k < count; k++) out[from + k] = Math.sqrt(d[k + 1]);
}
