import { directionAt, hullLength, placeOf, speedOf, type Cubic, type Point } from '../combine/sides.ts';
import { CubicFit, endAt, type End, type FittedCubic } from '../outline/cubicFit.ts';

const MOST_SAMPLES = 20_000;
/** A straight stretch is drawn so where it is this share of the curve that would reach further. */
const STRAIGHT_SHARE = 0.5;

/** Places along a stretch of outline, in a unit of their own. */
export interface Samples {
  readonly n: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly along: Float64Array;
  /** Directions of travel, unit. */
  readonly dx: Float64Array;
  readonly dy: Float64Array;
}

/** Points along sides about a unit apart, in that unit. */
export function sampled(sides: readonly Cubic[], unit: number): Samples {
  const [x, y, dx, dy] = [[] as number[], [] as number[], [] as number[], [] as number[]];
  const total = sides.reduce((sum, side) => sum + hullLength(side), 0);
  const step = Math.max(unit, total / MOST_SAMPLES);
  const add = (side: Cubic, t: number): void => {
    const point = placeOf(side, t);
    const speed = speedOf(side, t);
    const length = Math.hypot(speed.x, speed.y);
    const way = length > 1e-9 ? { x: speed.x / length, y: speed.y / length } : (directionAt(side, t < 0.5 ? 0 : 1) as Point);
    x.push(point.x / unit);
    y.push(point.y / unit);
    dx.push(way.x);
    dy.push(way.y);
  };
  for (const side of sides) {
    const count = Math.max(2, Math.ceil(hullLength(side) / step));
    for (let k = 0; k < count; k++) add(side, k / count);
  }
  add(sides[sides.length - 1], 1);
  const along = new Float64Array(x.length);
  for (let k = 1; k < x.length; k++) along[k] = along[k - 1] + Math.hypot(x[k] - x[k - 1], y[k] - y[k - 1]);
  return { n: x.length, x: Float64Array.from(x), y: Float64Array.from(y), along, dx: Float64Array.from(dx), dy: Float64Array.from(dy) };
}

/** Lines and cubics, each as far as it may go, as their coordinates without the first place. */
export function fitted(samples: Samples, tolerance: number, straight: boolean): number[][] {
  const fit = new CubicFit();
  const out: FittedCubic = { x1: 0, y1: 0, x2: 0, y2: 0, worst2: 0, sum2: 0 };
  const { n, x, y, along, dx, dy } = samples;
  const limit2 = tolerance ** 2;
  const end = (k: number): End => endAt(x[k], y[k], dx[k], dy[k]);
  const curveTo = (from: number, to: number): boolean => {
    if (to - from < 3) return true;
    fit.fit(x, y, along, from + 1, to - 1, end(from), end(to), limit2, limit2, false, out);
    return out.worst2 <= limit2;
  };
  const verbs: number[][] = [];
  for (let from = 0; from < n - 1; ) {
    const line = furthest(from, n - 1, (to) => isStraight(samples, from, to, tolerance));
    const curve = furthest(from, n - 1, (to) => curveTo(from, to));
    const enough = straight ? STRAIGHT_SHARE * (along[curve] - along[from]) : along[curve] - along[from];
    if (along[line] - along[from] >= enough) {
      verbs.push([x[line], y[line]]);
      from = line;
      continue;
    }
    fit.fit(x, y, along, from + 1, curve - 1, end(from), end(curve), 0, limit2, false, out);
    verbs.push([out.x1, out.y1, out.x2, out.y2, x[curve], y[curve]]);
    from = curve;
  }
  return verbs;
}

/** The last place up to which something holds: in doubled steps, then by halves. */
function furthest(from: number, last: number, holds: (to: number) => boolean): number {
  let good = from + 1;
  let step = 2;
  while (good < last && holds(Math.min(last, from + step))) {
    good = Math.min(last, from + step);
    step *= 2;
  }
  let bad = Math.min(last + 1, from + step);
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    if (holds(middle)) good = middle;
    else bad = middle;
  }
  return good;
}

function isStraight({ x, y }: Samples, from: number, to: number, tolerance: number): boolean {
  const [ux, uy] = [x[to] - x[from], y[to] - y[from]];
  const length = Math.hypot(ux, uy);
  if (length === 0) return false;
  for (let k = from + 1; k < to; k++) if (Math.abs((x[k] - x[from]) * uy - (y[k] - y[from]) * ux) > tolerance * length) return false;
  return true;
}
