import { CellGrid } from './cellGrid.ts';
import { cellMask, type CellMask } from './cellMask.ts';
import { flatTurn } from './flatTurn.ts';
import type { NestShape } from './nestShape.ts';
import type { Pose } from './strip.ts';
import { firstTurns, type Turns } from './turns.ts';

/** Cells across a sheet: enough that a cell is a small share of a part. */
const MOST_ROWS = 512;
const LEAST_ROWS = 64;
const CELLS_OF_PART = 24;

export interface LaidPart {
  /** Of the shapes that were handed in. */
  readonly part: number;
  readonly pose: Pose;
}

interface Sheet {
  readonly grid: CellGrid;
  readonly laid: LaidPart[];
  /** For each mask, the column before which it does not fit any more. */
  readonly from: Map<CellMask, number>;
}

/**
 * Lays parts one after the other, the largest first, each as far to the start of the first sheet on which it fits as it goes at any of its turns, also into openings and bays of those that lie (bottom-left fill on a grid of cells;
 * E. K. Burke, R. Hellier, G. Kendall & G. Whitwell, "A new bottom-left-fill heuristic algorithm for the two-dimensional irregular packing problem", Operations Research 54(3), 2006, doi:10.1287/opre.1060.0293).
 * @param lengthMm of a sheet. @param taken shapes that lie on every sheet already.
 * @returns what lies on each sheet; parts that no sheet takes are left out.
 */
export function layFirst(shapes: readonly NestShape[], widthMm: number, lengthMm: number, turns: Turns, taken: readonly NestShape[] = []): LaidPart[][] {
  const sizes = shapes.map(({ hullAreaMm2 }) => Math.sqrt(hullAreaMm2));
  const typical = sizes.length === 0 ? widthMm : [...sizes].sort((a, b) => a - b)[Math.floor(sizes.length / 4)];
  const rows = Math.round(Math.min(MOST_ROWS, Math.max(LEAST_ROWS, (CELLS_OF_PART * widthMm) / typical)));
  const cellMm = widthMm / rows;
  const columns = Math.floor(lengthMm / cellMm + 1e-6);
  const masks = new Map<NestShape, { angle: number; mask: CellMask }[]>();
  const masksOf = (shape: NestShape): { angle: number; mask: CellMask }[] => {
    const known = masks.get(shape);
    if (known !== undefined) return known;
    const made = firstTurns(turns, [flatTurn(shape), Math.PI / 4]).map((angle) => ({ angle, mask: cellMask(shape, angle, cellMm) }));
    masks.set(shape, made);
    return made;
  };
  const sheets: Sheet[] = [];
  const newSheet = (): Sheet => {
    const grid = new CellGrid(columns, rows);
    for (const shape of taken) takeAround(grid, cellMask(shape, 0, cellMm), shape, cellMm);
    return { grid, laid: [], from: new Map() };
  };
  const order = shapes.map((_, k) => k).sort((a, b) => shapes[b].hullAreaMm2 * shapes[b].radiusMm - shapes[a].hullAreaMm2 * shapes[a].radiusMm || a - b);
  for (const part of order) {
    const choices = masksOf(shapes[part]);
    const isLaid = sheets.some((sheet) => layOn(sheet, part, choices, cellMm));
    if (isLaid) continue;
    const sheet = newSheet();
    if (layOn(sheet, part, choices, cellMm)) sheets.push(sheet);
  }
  return sheets.map(({ laid }) => laid);
}

function layOn({ grid, laid, from }: Sheet, part: number, choices: readonly { angle: number; mask: CellMask }[], cellMm: number): boolean {
  let best: { angle: number; mask: CellMask; column: number; row: number } | undefined;
  for (const { angle, mask } of choices) {
    const start = from.get(mask) ?? 0;
    if (best !== undefined && start + mask.columns > best.column + best.mask.columns) continue;
    const place = grid.firstFree(mask, start);
    from.set(mask, place?.column ?? grid.columns);
    if (place === undefined) continue;
    const [end, bestEnd] = [place.column + mask.columns, best === undefined ? Infinity : best.column + best.mask.columns];
    if (end < bestEnd || (end === bestEnd && place.column < (best?.column ?? Infinity))) best = { angle, mask, ...place };
  }
  if (best === undefined) return false;
  const { angle, mask, column, row } = best;
  grid.take(mask, column, row);
  laid.push({ part, pose: { x: column * cellMm - mask.left, y: row * cellMm - mask.top, angle } });
  return true;
}

/** Takes the cells that a shape covers where it lies, as far as they are on the grid. */
function takeAround(grid: CellGrid, mask: CellMask, { middle }: NestShape, cellMm: number): void {
  const [x, y] = [(middle.x + mask.left) / cellMm, (middle.y + mask.top) / cellMm];
  // It lies between cells: what it touches is taken at both roundings.
  for (const column of [Math.floor(x), Math.ceil(x)]) for (const row of [Math.floor(y), Math.ceil(y)]) grid.take(clipped(mask, grid, column, row), Math.max(0, column), 0);
}

/** The part of a mask that is on the grid, its rows counted from the grid's edge. */
function clipped({ columns, spans, spanStart, left, top }: CellMask, grid: CellGrid, column: number, row: number): CellMask {
  const first = Math.max(0, -column);
  const last = Math.max(first, Math.min(columns, grid.columns - column));
  const kept: number[] = [];
  const starts = [0];
  for (let k = first; k < last; k++) {
    for (let s = spanStart[k]; s < spanStart[k + 1]; s++) {
      const [from, to] = [Math.max(0, spans[2 * s] + row), Math.min(grid.rows, spans[2 * s + 1] + row)];
      if (to > from) kept.push(from, to);
    }
    starts.push(kept.length / 2);
  }
  return { columns: last - first, rows: grid.rows, spans: Int32Array.from(kept), spanStart: Int32Array.from(starts), left, top };
}
