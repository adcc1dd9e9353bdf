/**
 * Solves n linear equations in n unknowns by Gaussian elimination with partial pivoting. O(n³).
 * @param m n rows of n + 1 numbers, the right side last; changed.
 * @returns the unknowns, or undefined when the equations do not determine them.
 */
export function solveLinear(m: Float64Array, n: number): Float64Array<ArrayBuffer> | undefined {
  const w = n + 1;
  for (let i = 0; i < n; i++) {
    let pivot = i;
    for (let r = i + 1; r < n; r++) if (Math.abs(m[r * w + i]) > Math.abs(m[pivot * w + i])) pivot = r;
    if (Math.abs(m[pivot * w + i]) < 1e-14) return undefined;
    if (pivot !== i) for (let c = i; c < w; c++) [m[i * w + c], m[pivot * w + c]] = [m[pivot * w + c], m[i * w + c]];
    for (let r = 0; r < n; r++) {
      if (r === i) continue;
      const factor = m[r * w + i] / m[i * w + i];
      if (factor !== 0) for (let c = i; c < w; c++) m[r * w + c] -= factor * m[i * w + c];
    }
  }
  return Float64Array.from({ length: n }, (_, i) => m[i * w + n] / m[i * w + i]);
}
