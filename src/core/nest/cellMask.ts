import type { NestShape } from './nestShape.ts';

/** A turned shape on a grid: in each column the runs of cells that it touches. */
export interface CellMask {
  readonly columns: number;
  readonly rows: number;
  /** Runs of column k are spans[2 * spanStart[k]] up to spans[2 * spanStart[k] + 1] (exclusive), and so on. */
  readonly spans: Int32Array;
  readonly spanStart: Int32Array;
  /** Upper left of its box before it is moved to the grid's corner, mm. */
  readonly left: number;
  readonly top: number;
}

const TOUCH = 1e-6;

/** @param angle radians. @param cellMm side of a cell. */
export function cellMask({ points, starts }: NestShape, angle: number, cellMm: number): CellMask {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const turned = new Float64Array(points.length);
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i += 2) {
    turned[i] = cos * points[i] - sin * points[i + 1];
    turned[i + 1] = sin * points[i] + cos * points[i + 1];
    left = Math.min(left, turned[i]);
    right = Math.max(right, turned[i]);
    top = Math.min(top, turned[i + 1]);
    bottom = Math.max(bottom, turned[i + 1]);
  }
  const columns = Math.max(1, Math.ceil((right - left) / cellMm - TOUCH));
  const rows = Math.max(1, Math.ceil((bottom - top) / cellMm - TOUCH));
  const cells = new Uint8Array(columns * rows);
  const crossings: number[][] = Array.from({ length: columns }, () => []);
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    let j = starts[ring + 1] - 1;
    for (let i = starts[ring]; i < starts[ring + 1]; j = i++) {
      const a = { x: (turned[2 * j] - left) / cellMm, y: (turned[2 * j + 1] - top) / cellMm };
      const b = { x: (turned[2 * i] - left) / cellMm, y: (turned[2 * i + 1] - top) / cellMm };
      touchCells(cells, columns, rows, a, b, crossings);
    }
  }
  // Between the crossings of a column's middle lies the inside.
  for (const [column, ys] of crossings.entries()) {
    ys.sort((p, q) => p - q);
    for (let k = 0; k + 1 < ys.length; k += 2) cells.fill(1, column * rows + Math.max(0, Math.floor(ys[k])), column * rows + Math.min(rows, Math.ceil(ys[k + 1])));
  }
  return { columns, rows, left, top, ...spansOf(cells, columns, rows) };
}

interface At {
  readonly x: number;
  readonly y: number;
}

/** Marks what an edge touches, in cells, and notes where it crosses the middles of columns. */
function touchCells(cells: Uint8Array, columns: number, rows: number, a: At, b: At, crossings: number[][]): void {
  const [from, to] = a.x <= b.x ? [a, b] : [b, a];
  const slope = to.x > from.x ? (to.y - from.y) / (to.x - from.x) : 0;
  const last = Math.min(columns - 1, Math.max(0, Math.ceil(to.x - TOUCH) - 1));
  for (let column = Math.min(columns - 1, Math.max(0, Math.floor(from.x + TOUCH))); column <= last; column++) {
    const [x0, x1] = [Math.max(from.x, column), Math.min(to.x, column + 1)];
    const [y0, y1] = to.x > from.x ? [from.y + (x0 - from.x) * slope, from.y + (x1 - from.x) * slope] : [from.y, to.y];
    const [low, high] = y0 < y1 ? [y0, y1] : [y1, y0];
    const first = Math.min(rows - 1, Math.max(0, Math.floor(low + TOUCH)));
    cells.fill(1, column * rows + first, column * rows + Math.min(rows, Math.max(first + 1, Math.ceil(high - TOUCH))));
    const middle = column + 0.5;
    if (from.x <= middle && middle < to.x) crossings[column].push(from.y + (middle - from.x) * slope);
  }
}

function spansOf(cells: Uint8Array, columns: number, rows: number): { spans: Int32Array; spanStart: Int32Array } {
  const spans: number[] = [];
  const spanStart = new Int32Array(columns + 1);
  for (let column = 0; column < columns; column++) {
    for (let row = 0; row < rows; row++) {
      if (cells[column * rows + row] === 0) continue;
      const from = row;
      while (row < rows && cells[column * rows + row] === 1) row++;
      spans.push(from, row);
    }
    spanStart[column + 1] = spans.length / 2;
  }
  return { spans: Int32Array.from(spans), spanStart };
}
