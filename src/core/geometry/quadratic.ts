import { solveLinear } from './solve.ts';

/** Terms of the surface 1, x, y, x², xy, y² at a place from 0 to 1. */
export const quadraticAt = (s: Float64Array, x: number, y: number): number => s[0] + s[1] * x + s[2] * y + s[3] * x * x + s[4] * x * y + s[5] * y * y;

/**
 * The surface that comes nearest to the values of a grid, by weighted least squares for its six terms.
 * @param valueAt value of cell k, row by row; cells that give NaN or have no weight do not count.
 */
export function fitQuadratic(columns: number, rows: number, valueAt: (k: number) => number, weight: ArrayLike<number>): Float64Array<ArrayBuffer> {
  const m = new Float64Array(42);
  const term = new Float64Array(6);
  for (let k = 0; k < columns * rows; k++) {
    if (weight[k] === 0) continue;
    const value = valueAt(k);
    if (Number.isNaN(value)) continue;
    const x = (k % columns) / columns;
    const y = Math.floor(k / columns) / rows;
    term.set([1, x, y, x * x, x * y, y * y]);
    for (let i = 0; i < 6; i++) {
      for (let j = 0; j < 6; j++) m[i * 7 + j] += weight[k] * term[i] * term[j];
      m[i * 7 + 6] += weight[k] * term[i] * value;
    }
  }
  for (let i = 0; i < 6; i++) m[i * 7 + i] += 1e-6;
  return solveLinear(m, 6) ?? new Float64Array(6);
}
