import type { Ring } from './corners.ts';

export interface Circle {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** Handle length of a quarter circle in radii with equal area error inside and out (off by 2·10⁻⁴ radii at most). */
export const QUARTER = 0.5519150244935106;

/** Root mean square distance that a circle's points may have, as a share of the tolerance. */
const WHOLE_SHARE = 0.3;

/**
 * The circle through a ring's points by least squares of the algebraic distance (Kåsa, "A circle fitting procedure and its error analysis", IEEE Trans.
 * Instrum. Meas. 25(1), 1976, doi:10.1109/TIM.1976.6312298: unbiased enough on whole circles), or undefined when a point is
 * further than `tolerancePx` from it or the points are not near it as a whole: their noise changes sign from one to the next, a shape's does not.
 */
export function circleOf(ring: Ring, tolerancePx: number): Circle | undefined {
  const { n, x, y } = ring;
  let mx = 0;
  let my = 0;
  for (let k = 0; k < n; k++) {
    mx += x[k];
    my += y[k];
  }
  mx /= n;
  my /= n;
  let xx = 0;
  let yy = 0;
  let xy = 0;
  let xz = 0;
  let yz = 0;
  let zz = 0;
  for (let k = 0; k < n; k++) {
    const px = x[k] - mx;
    const py = y[k] - my;
    const z = px * px + py * py;
    xx += px * px;
    yy += py * py;
    xy += px * py;
    xz += px * z;
    yz += py * z;
    zz += z;
  }
  const det = xx * yy - xy * xy;
  if (!(det > 1e-9 * xx * xx)) return undefined;
  const cx = (xz * yy - yz * xy) / (2 * det);
  const cy = (yz * xx - xz * xy) / (2 * det);
  const radius = Math.sqrt(zz / n + cx * cx + cy * cy);
  let sum2 = 0;
  for (let k = 0; k < n; k++) {
    const off = Math.hypot(x[k] - mx - cx, y[k] - my - cy) - radius;
    if (Math.abs(off) > tolerancePx) return undefined;
    sum2 += off * off;
  }
  if (sum2 / n > (WHOLE_SHARE * tolerancePx) ** 2) return undefined;
  return { x: mx + cx, y: my + cy, radius };
}
