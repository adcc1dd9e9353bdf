import { fitQuadratic, quadraticAt } from '../../geometry/quadratic.ts';
import type { Planes, Three } from '../planes.ts';

/** Side of the cells in which the ground is averaged, px. */
const CELL_PX = 4;

/** What the ground would look like without the subject: colour and how far single pixels stray from it. */
export interface SmoothGround {
  readonly colour: Planes;
  /** Mean squared distance of ground pixels from the colour, levels², summed over the channels. */
  readonly spread: Float32Array;
}

interface Level {
  readonly columns: number;
  readonly rows: number;
  /** Sums of each quantity, and how many pixels they hold. */
  readonly sums: Float32Array[];
  readonly weight: Float32Array;
}

/**
 * Continues the ground smoothly under everything else: averages over cells, and where a cell holds no ground, those of the next coarser level that
 * does (push and pull; S. J. Gortler et al., "The lumigraph", SIGGRAPH 1996, doi:10.1145/237170.237200).
 * @param isGround 1 where the picture shows ground for certain; at least one pixel.
 */
export function smoothGround(colours: Planes, isGround: Uint8Array): SmoothGround {
  const { width, height } = colours;
  const trends = trendsOf(colours, isGround);
  const rest = colours.planes.map((plane, c) => plus(plane, trends[c], -1));
  const planes = filled(rest, isGround, width, height).map((plane, c) => plus(plane, trends[c], 1));
  const colour = { width, height, planes: planes as unknown as Three };
  const strays = new Float32Array(width * height);
  for (let c = 0; c < 3; c++) addSquares(strays, colours.planes[c], colour.planes[c]);
  const [spread] = filled([strays], isGround, width, height);
  return { colour, spread };
}

function plus(a: Float32Array, b: Float32Array, times: number): Float32Array {
  const out = new Float32Array(a.length);
  for (let i = 0; i < out.length; i++) out[i] = a[i] + times * b[i];
  return out;
}

/** Side of the cells from which the trend is taken, px. */
const TREND_CELL_PX = 16;

/** The even change of the light over the whole picture, which is continued where the ground is not seen: a quadratic surface for each channel. */
function trendsOf({ width, height, planes }: Planes, isGround: Uint8Array): Float32Array[] {
  const columns = Math.ceil(width / TREND_CELL_PX);
  const rows = Math.ceil(height / TREND_CELL_PX);
  const { sums, weight } = cellsOf(planes, isGround, width, height, TREND_CELL_PX);
  return sums.map((sum) => {
    const surface = fitQuadratic(columns, rows, (k) => sum[k] / weight[k], weight);
    const out = new Float32Array(width * height);
    for (let y = 0; y < height; y++) trendRow(out, surface, y * width, width, columns, (y + 0.5) / TREND_CELL_PX / rows - 0.5 / rows);
    return out;
  });
}

function trendRow(out: Float32Array, surface: Float64Array, row: number, width: number, columns: number, v: number): void {
  for (let x = 0; x < width; x++) out[row + x] = quadraticAt(surface, (x + 0.5) / TREND_CELL_PX / columns - 0.5 / columns, v);
}

function addSquares(out: Float32Array, a: Float32Array, b: Float32Array): void {
  for (let i = 0; i < out.length; i++) out[i] += (a[i] - b[i]) ** 2;
}

function filled(quantities: readonly Float32Array[], isGround: Uint8Array, width: number, height: number): Float32Array[] {
  const levels = [softened(cellsOf(quantities, isGround, width, height))];
  while (levels[0].columns > 1 || levels[0].rows > 1) levels.unshift(coarser(levels[0]));
  let means: Float32Array[] = levels[0].sums.map((sum) => Float32Array.from(sum, (value, k) => value / Math.max(1e-9, levels[0].weight[k])));
  for (let k = 1; k < levels.length; k++) means = pulled(levels[k], means, levels[k - 1]);
  const finest = levels[levels.length - 1];
  return means.map((mean) => spreadOut(mean, finest, width, height));
}

function cellsOf(quantities: readonly Float32Array[], isGround: Uint8Array, width: number, height: number, cellPx = CELL_PX): Level {
  const columns = Math.ceil(width / cellPx);
  const rows = Math.ceil(height / cellPx);
  const level = { columns, rows, sums: quantities.map(() => new Float32Array(columns * rows)), weight: new Float32Array(columns * rows) };
  for (let y = 0; y < height; y++) {
    const row = Math.floor(y / cellPx) * columns;
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (isGround[i] === 0) continue;
      const cell = row + ((x / cellPx) | 0);
      level.weight[cell]++;
      for (let q = 0; q < quantities.length; q++) level.sums[q][cell] += quantities[q][i];
    }
  }
  return level;
}

/** Each cell with a share of its neighbours, so that single pixels do not stand against themselves. */
function softened({ columns, rows, sums, weight }: Level): Level {
  const soften = (from: Float32Array): Float32Array => {
    const out = new Float32Array(from.length);
    for (let r = 0; r < rows; r++) {
      for (let c = 0; c < columns; c++) {
        let sum = 0;
        for (let rr = Math.max(0, r - 1); rr <= Math.min(rows - 1, r + 1); rr++) {
          for (let cc = Math.max(0, c - 1); cc <= Math.min(columns - 1, c + 1); cc++) sum += from[rr * columns + cc] * (rr === r ? 2 : 1) * (cc === c ? 2 : 1);
        }
        out[r * columns + c] = sum;
      }
    }
    return out;
  };
  return { columns, rows, sums: sums.map(soften), weight: soften(weight) };
}

function coarser({ columns, rows, sums, weight }: Level): Level {
  const half = { columns: Math.ceil(columns / 2), rows: Math.ceil(rows / 2) };
  const shrink = (from: Float32Array): Float32Array => {
    const out = new Float32Array(half.columns * half.rows);
    for (let r = 0; r < rows; r++) for (let c = 0; c < columns; c++) out[(r >> 1) * half.columns + (c >> 1)] += from[r * columns + c];
    return out;
  };
  return { ...half, sums: sums.map(shrink), weight: shrink(weight) };
}

/** Weight from which a cell is trusted by itself: a quarter of its pixels, as `softened` counts them. */
const TRUSTED = 64;

/** Means of a level: its own where it holds ground, else those of the coarser level, blended between. */
function pulled(level: Level, coarse: readonly Float32Array[], { columns: halfColumns, rows: halfRows }: Level): Float32Array[] {
  const { columns, rows, sums, weight } = level;
  return sums.map((sum, q) => {
    const out = new Float32Array(columns * rows);
    for (let r = 0; r < rows; r++) {
      for (let c = 0; c < columns; c++) {
        const k = r * columns + c;
        const below = bilinear(coarse[q], halfColumns, halfRows, (c - 0.5) / 2, (r - 0.5) / 2);
        const trust = Math.min(1, weight[k] / TRUSTED);
        out[k] = weight[k] === 0 ? below : below + (sum[k] / weight[k] - below) * trust;
      }
    }
    return out;
  });
}

function spreadOut(mean: Float32Array, { columns, rows }: Level, width: number, height: number): Float32Array {
  const out = new Float32Array(width * height);
  // Between two rows of cells first, then along each row of pixels.
  const between = new Float32Array(columns);
  for (let y = 0; y < height; y++) {
    const v = Math.max(0, Math.min(rows - 1, (y + 0.5) / CELL_PX - 0.5));
    const upper = (v | 0) * columns;
    const lower = Math.min(rows - 1, (v | 0) + 1) * columns;
    for (let c = 0; c < columns; c++) between[c] = mean[upper + c] + (mean[lower + c] - mean[upper + c]) * (v - (v | 0));
    spreadRow(between, out, y * width, width);
  }
  return out;
}

function spreadRow(cells: Float32Array, out: Float32Array, row: number, width: number): void {
  const last = cells.length - 1;
  for (let x = 0; x < width; x++) {
    const u = Math.max(0, Math.min(last, (x + 0.5) / CELL_PX - 0.5));
    const c = u | 0;
    out[row + x] = cells[c] + (cells[Math.min(last, c + 1)] - cells[c]) * (u - c);
  }
}

function bilinear(values: Float32Array, columns: number, rows: number, u: number, v: number): number {
  const c = Math.max(0, Math.min(columns - 1, u));
  const r = Math.max(0, Math.min(rows - 1, v));
  const c0 = c | 0;
  const r0 = r | 0;
  const c1 = Math.min(columns - 1, c0 + 1);
  const r1 = Math.min(rows - 1, r0 + 1);
  const top = values[r0 * columns + c0] + (values[r0 * columns + c1] - values[r0 * columns + c0]) * (c - c0);
  const bottom = values[r1 * columns + c0] + (values[r1 * columns + c1] - values[r1 * columns + c0]) * (c - c0);
  return top + (bottom - top) * (r - r0);
}
