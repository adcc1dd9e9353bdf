import type { Ring } from './corners.ts';

export interface Ellipse {
  readonly x: number;
  readonly y: number;
  /** Half axes, the longer first. */
  readonly a: number;
  readonly b: number;
  /** Direction of the longer one, radians. */
  readonly turnRad: number;
}

/** Root mean square distance that an ellipse's points may have, as a share of the tolerance: that of circles. */
const WHOLE_SHARE = 0.3;
/** Longer than this many times their width they are bars with round ends rather than ellipses. */
const LONGEST = 12;

/**
 * The ellipse through a ring's points by direct least squares (A. Fitzgibbon, M. Pilu & R. B. Fisher, "Direct least square fitting of ellipses", IEEE PAMI
 * 21(5), 1999, doi:10.1109/34.765658, in the stable form of R. Halíř & J. Flusser, WSCG 1998), or undefined when a point is further than `tolerancePx` from it,
 * by the first-order distance of P. D. Sampson (1982), or the points are not near it as a whole.
 */
export function ellipseOf(ring: Ring, tolerancePx: number): Ellipse | undefined {
  const { n, x, y } = ring;
  if (n < 12) return undefined;
  const { mx, my, scale } = frameOf(ring);
  const conic = conicOf(x, y, n, mx, my, scale);
  if (conic === undefined) return undefined;
  const [A, B, C, D, E, F] = conic;
  let sum2 = 0;
  for (let k = 0; k < n; k++) {
    const px = (x[k] - mx) / scale;
    const py = (y[k] - my) / scale;
    const value = A * px * px + B * px * py + C * py * py + D * px + E * py + F;
    const slope = Math.hypot(2 * A * px + B * py + D, B * px + 2 * C * py + E);
    const off = (slope > 1e-12 ? Math.abs(value) / slope : Infinity) * scale;
    if (off > tolerancePx) return undefined;
    sum2 += off * off;
  }
  if (sum2 / n > (WHOLE_SHARE * tolerancePx) ** 2) return undefined;
  const found = axesOf(conic);
  return found === undefined || found.a > LONGEST * found.b
    ? undefined
    : { x: mx + found.x * scale, y: my + found.y * scale, a: found.a * scale, b: found.b * scale, turnRad: found.turnRad };
}

/** Middle and mean distance from it: numbers near 1 keep the sums of fourth powers exact. */
function frameOf({ n, x, y }: Ring): { mx: number; my: number; scale: number } {
  let mx = 0;
  let my = 0;
  for (let k = 0; k < n; k++) {
    mx += x[k] / n;
    my += y[k] / n;
  }
  let scale = 0;
  for (let k = 0; k < n; k++) scale += Math.hypot(x[k] - mx, y[k] - my) / n;
  return { mx, my, scale: scale || 1 };
}

type Conic = readonly [number, number, number, number, number, number];
type Matrix = readonly [number, number, number, number, number, number, number, number, number];

function conicOf(x: Float64Array, y: Float64Array, n: number, mx: number, my: number, scale: number): Conic | undefined {
  // Sums of x and y to the powers in their names; those of the fourth degree end in the quadratic part's own, the others in what it has with the linear part.
  let [x1, y1, x2, xy, y2, x3, x2y, xy2, y3, x4, x3y, x2y2, xy3, y4] = new Float64Array(14);
  for (let k = 0; k < n; k++) {
    const u = (x[k] - mx) / scale;
    const v = (y[k] - my) / scale;
    const uu = u * u;
    const uv = u * v;
    const vv = v * v;
    x1 += u;
    y1 += v;
    x2 += uu;
    xy += uv;
    y2 += vv;
    x3 += uu * u;
    x2y += uu * v;
    xy2 += u * vv;
    y3 += vv * v;
    x4 += uu * uu;
    x3y += uu * uv;
    x2y2 += uv * uv;
    xy3 += uv * vv;
    y4 += vv * vv;
  }
  // The quadratic part with itself (S1), with the linear part (S2), and the linear part (S3), row by row.
  const s1 = [x4, x3y, x2y2, x3y, x2y2, xy3, x2y2, xy3, y4];
  const s2 = [x3, x2y, x2, x2y, xy2, xy, xy2, y3, y2];
  const s3 = [x2, xy, x1, xy, y2, y1, x1, y1, n];
  const inverse = inverted(s3);
  if (inverse === undefined) return undefined;
  // T = −S3⁻¹ S2ᵀ gives the linear part from the quadratic one; M = C1⁻¹ (S1 + S2 T).
  const t = times(inverse, transposed(s2)).map((value) => -value);
  const reduced = times(s2, t).map((value, k) => value + s1[k]);
  const m = [...reduced.slice(6, 9).map((v) => v / 2), ...reduced.slice(3, 6).map((v) => -v), ...reduced.slice(0, 3).map((v) => v / 2)];
  const quadratic = ellipticVector(m);
  if (quadratic === undefined) return undefined;
  const linear = [0, 1, 2].map((i) => t[3 * i] * quadratic[0] + t[3 * i + 1] * quadratic[1] + t[3 * i + 2] * quadratic[2]);
  return [quadratic[0], quadratic[1], quadratic[2], linear[0], linear[1], linear[2]];
}

/** The eigenvector of a 3 × 3 matrix that satisfies 4ac − b² > 0. */
function ellipticVector(m: readonly number[]): readonly [number, number, number] | undefined {
  for (const value of realRoots(m)) {
    const [a, b, c, d, e, f, g, h, i] = [m[0] - value, m[1], m[2], m[3], m[4] - value, m[5], m[6], m[7], m[8] - value];
    // The null vector stands upright on two rows: the longest of the three cross products is the surest.
    const crosses = [
      [b * f - c * e, c * d - a * f, a * e - b * d],
      [b * i - c * h, c * g - a * i, a * h - b * g],
      [e * i - f * h, f * g - d * i, d * h - e * g],
    ] as const;
    const [v] = [...crosses].sort((p, q) => Math.hypot(...q) - Math.hypot(...p));
    const length = Math.hypot(...v);
    if (length < 1e-14) continue;
    if (4 * v[0] * v[2] - v[1] * v[1] > 0) return [v[0] / length, v[1] / length, v[2] / length];
  }
  return undefined;
}

/** Real eigenvalues of a 3 × 3 matrix, from its characteristic cubic. */
function realRoots(m: readonly number[]): number[] {
  const trace = m[0] + m[4] + m[8];
  const minors = m[0] * m[4] - m[1] * m[3] + m[0] * m[8] - m[2] * m[6] + m[4] * m[8] - m[5] * m[7];
  const det = m[0] * (m[4] * m[8] - m[5] * m[7]) - m[1] * (m[3] * m[8] - m[5] * m[6]) + m[2] * (m[3] * m[7] - m[4] * m[6]);
  // λ³ − trace λ² + minors λ − det = 0, depressed by λ = z + trace / 3.
  const shift = trace / 3;
  const p = minors - (trace * trace) / 3;
  const q = (-2 * trace ** 3) / 27 + (trace * minors) / 3 - det;
  const inner = (q / 2) ** 2 + (p / 3) ** 3;
  if (inner > 0) return [shift + Math.cbrt(-q / 2 + Math.sqrt(inner)) + Math.cbrt(-q / 2 - Math.sqrt(inner))];
  const radius = 2 * Math.sqrt(Math.max(0, -p / 3));
  const angle = Math.acos(Math.max(-1, Math.min(1, radius === 0 ? 0 : (3 * q) / (p * radius))));
  return [0, 1, 2].map((k) => shift + radius * Math.cos((angle - 2 * Math.PI * k) / 3));
}

function axesOf([A, B, C, D, E, F]: Conic): Ellipse | undefined {
  const det = 4 * A * C - B * B;
  if (!(det > 0)) return undefined;
  const x = (B * E - 2 * C * D) / det;
  const y = (B * D - 2 * A * E) / det;
  const level = -(A * x * x + B * x * y + C * y * y + D * x + E * y + F);
  const mean = (A + C) / 2;
  const spread = Math.hypot((A - C) / 2, B / 2);
  const [r1, r2] = [level / (mean - spread), level / (mean + spread)];
  if (!(r1 > 0) || !(r2 > 0)) return undefined;
  const [low, high] = [Math.sqrt(Math.max(r1, r2)), Math.sqrt(Math.min(r1, r2))];
  // Along the longer axis the form is smallest; with the other sign of the conic the two change places.
  const along = 0.5 * Math.atan2(B, A - C) + (r1 > r2 ? Math.PI / 2 : 0);
  return { x, y, a: low, b: high, turnRad: along };
}

const transposed = (m: ArrayLike<number>): number[] => [m[0], m[3], m[6], m[1], m[4], m[7], m[2], m[5], m[8]];
const times = (a: ArrayLike<number>, b: ArrayLike<number>): number[] =>
  Array.from(
    { length: 9 },
    (_, k) => a[3 * Math.floor(k / 3)] * b[k % 3] + a[3 * Math.floor(k / 3) + 1] * b[3 + (k % 3)] + a[3 * Math.floor(k / 3) + 2] * b[6 + (k % 3)],
  );

function inverted(m: ArrayLike<number>): Matrix | undefined {
  const [a, b, c, d, e, f, g, h, i] = [m[0], m[1], m[2], m[3], m[4], m[5], m[6], m[7], m[8]];
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  if (Math.abs(det) < 1e-12) return undefined;
  return [
    (e * i - f * h) / det,
    (c * h - b * i) / det,
    (b * f - c * e) / det,
    (f * g - d * i) / det,
    (a * i - c * g) / det,
    (c * d - a * f) / det,
    (d * h - e * g) / det,
    (b * g - a * h) / det,
    (a * e - b * d) / det,
  ];
}
