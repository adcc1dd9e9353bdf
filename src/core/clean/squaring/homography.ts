import { solveLinear } from '../../geometry/solve.ts';

/** Eight numbers of a projective map of the plane, row by row; the ninth is 1. */
export type Homography = Float64Array;

/** Where the map takes a point; written into `out`. */
export function project(h: Homography, x: number, y: number, out: Float64Array): void {
  const w = h[6] * x + h[7] * y + 1;
  out[0] = (h[0] * x + h[1] * y + h[2]) / w;
  out[1] = (h[3] * x + h[4] * y + h[5]) / w;
}

/**
 * The map that takes each point of `from` to the one of `to`, in the least squares of the linear equations (R. Hartley & A. Zisserman, Multiple View Geometry,
 * 2nd ed., 2004, 4.1). Coordinates should be of the order of 1.
 * @param from x, y pairs, at least four. @returns undefined when the points do not determine it.
 */
export function homographyFrom(from: ArrayLike<number>, to: ArrayLike<number>): Homography | undefined {
  const normal = new Float64Array(72);
  const row = new Float64Array(9);
  const add = (): void => {
    for (let i = 0; i < 8; i++) for (let j = 0; j < 9; j++) normal[i * 9 + j] += row[i] * row[j];
  };
  for (let k = 0; k + 1 < from.length; k += 2) {
    const [x, y, u, v] = [from[k], from[k + 1], to[k], to[k + 1]];
    row.set([x, y, 1, 0, 0, 0, -u * x, -u * y, u]);
    add();
    row.set([0, 0, 0, x, y, 1, -v * x, -v * y, v]);
    add();
  }
  return solveLinear(normal, 8);
}
