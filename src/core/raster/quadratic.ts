/** Terms of the surface 1, x, y, x², xy, y² at a place from 0 to 1. */
export const quadraticAt = (s: Float64Array, x: number, y: number): number => s[0] + s[1] * x + s[2] * y + s[3] * x * x + s[4] * x * y + s[5] * y * y;

/**
 * The surface that comes nearest to the values of a grid, by weighted least squares for its six terms (Gaussian elimination of the normal equations).
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
  for (let i = 0; i < 6; i++) {
    let pivot = i;
    for (let r = i + 1; r < 6; r++) if (Math.abs(m[r * 7 + i]) > Math.abs(m[pivot * 7 + i])) pivot = r;
    for (let c = 0; c < 7; c++) [m[i * 7 + c], m[pivot * 7 + c]] = [m[pivot * 7 + c], m[i * 7 + c]];
    for (let r = 0; r < 6; r++) {
      if (r === i) continue;
      const factor = m[r * 7 + i] / m[i * 7 + i];
      for (let c = i; c < 7; c++) m[r * 7 + c] -= factor * m[i * 7 + c];
    }
  }
  return Float64Array.from({ length: 6 }, (_, i) => m[i * 7 + 6] / m[i * 7 + i]);
}
