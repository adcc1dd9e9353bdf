import type { End } from './cubicFit.ts';
import type { Ring } from './corners.ts';

/**
 * A smooth stretch of a ring between two corners, or a whole ring without any: its points in order with, for each, the smoothed place and
 * direction that a joint there would have. Index 0 and n − 1 are the ends.
 */
export interface Section {
  readonly n: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly along: Float64Array;
  readonly joint: (k: number) => End;
  /** Whether it is a whole ring, whose first and last point are the same smooth place. */
  readonly closed: boolean;
}

/** Half-length of the stretch from which a joint takes its place and direction, px. */
const SMOOTH_PX = 3.2;

/** Points nearer than this to a corner are left out: they lie on the rounding. */
export function sectionBetween(ring: Ring, fromIndex: number, toIndex: number, from: { x: number; y: number }, to: { x: number; y: number }, trimPx: number): Section {
  const { n, x, y, along } = ring;
  const total = along[n];
  const last = toIndex > fromIndex ? toIndex : toIndex + n;
  const xs: number[] = [from.x];
  const ys: number[] = [from.y];
  const start = along[fromIndex];
  const length = (along[toIndex] - start + total) % total || total;
  for (let k = fromIndex; k <= last; k++) {
    const i = k % n;
    const s = (along[i] - start + (k >= n ? total : 0));
    if (s < trimPx || s > length - trimPx) continue;
    xs.push(x[i]);
    ys.push(y[i]);
  }
  xs.push(to.x);
  ys.push(to.y);
  return makeSection(Float64Array.from(xs), Float64Array.from(ys), false);
}

/** A whole ring without corners, opened at point `start`, which is both first and last. */
export function closedSection(ring: Ring, start: number): Section {
  const { n, x, y } = ring;
  const xs = new Float64Array(n + 1);
  const ys = new Float64Array(n + 1);
  for (let k = 0; k <= n; k++) {
    xs[k] = x[(start + k) % n];
    ys[k] = y[(start + k) % n];
  }
  return makeSection(xs, ys, true);
}

function makeSection(x: Float64Array, y: Float64Array, closed: boolean): Section {
  const n = x.length;
  const along = new Float64Array(n);
  for (let k = 1; k < n; k++) along[k] = along[k - 1] + Math.hypot(x[k] - x[k - 1], y[k] - y[k - 1]);
  const known: (End | undefined)[] = new Array<End | undefined>(n);
  const joint = (k: number): End => {
    const kept = known[k];
    if (kept !== undefined) return kept;
    const end = !closed && (k === 0 || k === n - 1) ? { x: x[k], y: y[k], dx: 0, dy: 0, free: true } : smoothed(x, y, along, k, closed);
    known[k] = end;
    if (closed && k === 0) known[n - 1] = end;
    if (closed && k === n - 1) known[0] = end;
    return end;
  };
  return { n, x, y, along, joint, closed };
}

/** Place and direction at point k from a parabola through the points within the smoothing length, weighted down towards its ends. */
function smoothed(x: Float64Array, y: Float64Array, along: Float64Array, k: number, closed: boolean): End {
  const n = x.length;
  const total = along[n - 1];
  // Not further to one side than to the other, so that the ends of a section do not tilt the joint.
  const room = closed ? total / 4 : Math.min(along[k], total - along[k]);
  const half = Math.max(0.9, Math.min(SMOOTH_PX, room));
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let s4 = 0;
  let x0 = 0;
  let x1 = 0;
  let x2 = 0;
  let y0 = 0;
  let y1 = 0;
  let y2 = 0;
  const take = (i: number, t: number): void => {
    const w = 1 - (t / (half * 1.05)) ** 2;
    if (w <= 0) return;
    const t2 = t * t;
    const px = x[i] - x[k];
    const py = y[i] - y[k];
    s0 += w;
    s1 += w * t;
    s2 += w * t2;
    s3 += w * t2 * t;
    s4 += w * t2 * t2;
    x0 += w * px;
    x1 += w * t * px;
    x2 += w * t2 * px;
    y0 += w * py;
    y1 += w * t * py;
    y2 += w * t2 * py;
  };
  take(k, 0);
  const span = closed ? n - 1 : n;
  for (let step = 1; step < n; step++) {
    let i = k + step;
    let t = 0;
    if (i >= n) {
      if (!closed) break;
      i -= span;
      t = total;
    }
    t += along[i] - along[k];
    if (t > half) break;
    take(i, t);
  }
  for (let step = 1; step < n; step++) {
    let i = k - step;
    let t = 0;
    if (i < 0) {
      if (!closed) break;
      i += span;
      t = -total;
    }
    t += along[i] - along[k];
    if (t < -half) break;
    take(i, t);
  }
  const det = s0 * (s2 * s4 - s3 * s3) - s1 * (s1 * s4 - s2 * s3) + s2 * (s1 * s3 - s2 * s2);
  if (Math.abs(det) < 1e-9) return plain(x, y, k, closed);
  const solve = (m0: number, m1: number, m2: number): [number, number] => [
    (m0 * (s2 * s4 - s3 * s3) - s1 * (m1 * s4 - s3 * m2) + s2 * (m1 * s3 - s2 * m2)) / det,
    (s0 * (m1 * s4 - m2 * s3) - m0 * (s1 * s4 - s2 * s3) + s2 * (s1 * m2 - s2 * m1)) / det,
  ];
  const [ax, bx] = solve(x0, x1, x2);
  const [ay, by] = solve(y0, y1, y2);
  const length = Math.hypot(bx, by);
  if (length < 1e-9) return plain(x, y, k, closed);
  return { x: x[k] + ax, y: y[k] + ay, dx: bx / length, dy: by / length, free: false };
}

function plain(x: Float64Array, y: Float64Array, k: number, closed: boolean): End {
  const n = x.length;
  const a = k > 0 ? k - 1 : closed ? n - 2 : 0;
  const b = k < n - 1 ? k + 1 : closed ? 1 : n - 1;
  const dx = x[b] - x[a];
  const dy = y[b] - y[a];
  const length = Math.hypot(dx, dy) || 1;
  return { x: x[k], y: y[k], dx: dx / length, dy: dy / length, free: false };
}
