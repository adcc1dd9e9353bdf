/** An end of a stretch to be fitted: where it is and, unless it is a corner, in which direction (unit vector of travel) the curve must pass. */
export interface End {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  /** At a corner the direction is not given: it comes out of the fit. */
  readonly free: boolean;
}

/** Makes an end: always in this order, so that all ends are of one shape. */
export const endAt = (x: number, y: number, dx: number, dy: number): End => ({ x, y, dx, dy, free: false });
/** An end whose direction comes out of the fit. */
export const freeEndAt = (x: number, y: number): End => ({ x, y, dx: 0, dy: 0, free: true });

/** Result of a fit: control points of the cubic and how far the points lie from it. */
export interface FittedCubic {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  /** Largest squared distance of a point, px². */
  worst2: number;
  /** Sum of the squared distances, px². */
  sum2: number;
}

const FIRST_FREE = 1;
const SECOND_FREE = 2;
const ROUNDS = 4;
/** A trial that only compares places for a joint is near enough after two. */
const TRIAL_ROUNDS = 2;
/** A trial reads at most about this many points of a long stretch: they lie a pixel apart, and a cubic has no more to say. */
const TRIAL_POINTS = 28;
/** A round that makes the worst distance (squared) better by less than this share is the last. */
const WORTH = 0.97;

/**
 * Least-squares cubic Bézier through given ends (Philip J. Schneider, "An algorithm for automatically fitting digitized curves", Graphics Gems,
 * 1990), with his Newton step for the parameters. Departs from him in leaving the direction free at corners, where each control point then has two unknowns.
 * One instance holds the scratch space of one thread of work.
 */
export class CubicFit {
  private u = new Float64Array(256);
  // Plain numbers in arrays: objects of several shapes would make the engine compile these loops again and again, and the first picture waits for that.
  /** The ends: x, y, dx, dy of the first, then of the second. */
  private readonly ends = new Float64Array(8);
  /** x1, y1, x2, y2, worst2, sum2 of the round. */
  private readonly found = new Float64Array(6);
  private readonly best = new Float64Array(6);

  /**
   * Fits the points from to to (inclusive) of x, y between two ends.
   * @param along distance along the points, for the first parameters.
   * @param enough2 stops improving once the worst squared distance is below, px²; 0 improves to the last round, in a trial to the second.
   * @param limit2 gives up early when the worst squared distance is hopelessly above, px².
   * @param trial reads a long stretch only at some of its points.
   */
  fit(
    x: Float64Array,
    y: Float64Array,
    along: Float64Array,
    from: number,
    to: number,
    a: End,
    b: End,
    enough2: number,
    limit2: number,
    trial: boolean,
    out: FittedCubic,
  ): void {
    this.hold(a, b);
    this.improve(x, y, along, from, to, (a.free ? FIRST_FREE : 0) + (b.free ? SECOND_FREE : 0), enough2, limit2, trial);
    const { found } = this;
    out.x1 = found[0];
    out.y1 = found[1];
    out.x2 = found[2];
    out.y2 = found[3];
    out.worst2 = found[4];
    out.sum2 = found[5];
  }

  private hold(a: End, b: End): void {
    const { ends } = this;
    ends[0] = a.x;
    ends[1] = a.y;
    ends[2] = a.dx;
    ends[3] = a.dy;
    ends[4] = b.x;
    ends[5] = b.y;
    ends[6] = b.dx;
    ends[7] = b.dy;
  }

  private improve(
    x: Float64Array,
    y: Float64Array,
    along: Float64Array,
    from: number,
    to: number,
    free: number,
    enough2: number,
    limit2: number,
    trial: boolean,
  ): void {
    const { ends, found, best } = this;
    const count = to - from + 1;
    if (this.u.length < count) this.u = new Float64Array(count * 2);
    const step = trial ? Math.max(1, Math.floor(count / TRIAL_POINTS)) : 1;
    this.firstParameters(x, y, along, from, to);
    const most = along[to] - along[from] + distance(ends[4] - ends[0], ends[5] - ends[1]);
    const rounds = trial && enough2 === 0 ? TRIAL_ROUNDS : ROUNDS;
    let before = Infinity;
    for (let round = 0; round < rounds; round++) {
      this.solve(x, y, from, to, step, free);
      holdHandle(found, 0, ends[0], ends[1], most);
      holdHandle(found, 2, ends[4], ends[5], most);
      this.measure(x, y, from, to, step);
      const worst2 = found[4];
      // A round may leave the curve further off than the one before it: the better one is what was found.
      if (worst2 > before) found.set(best);
      if (worst2 <= enough2 || worst2 > limit2 * (round === 0 ? 100 : 9) || worst2 > before * WORTH) return;
      before = worst2;
      if (round < rounds - 1) best.set(found);
    }
  }

  private firstParameters(x: Float64Array, y: Float64Array, along: Float64Array, from: number, to: number): void {
    const { u, ends } = this;
    const lead = from <= to ? distance(x[from] - ends[0], y[from] - ends[1]) : 0;
    const tail = from <= to ? distance(ends[4] - x[to], ends[5] - y[to]) : 0;
    const start = along[from];
    const whole = lead + along[to] - start + tail;
    for (let k = from; k <= to; k++) u[k - from] = whole > 0 ? (lead + along[k] - start) / whole : 0;
  }

  private solve(x: Float64Array, y: Float64Array, from: number, to: number, step: number, free: number): void {
    const { u, ends, found } = this;
    const ax = ends[0];
    const ay = ends[1];
    const bx = ends[4];
    const by = ends[5];
    let c11 = 0;
    let c12 = 0;
    let c22 = 0;
    let x1 = 0;
    let y1 = 0;
    let x2 = 0;
    let y2 = 0;
    for (let k = from; k <= to; k += step) {
      const t = u[k - from];
      const v = 1 - t;
      const b1 = 3 * v * v * t;
      const b2 = 3 * v * t * t;
      const near = v * v * v + b1;
      const far = t * t * t + b2;
      const rx = x[k] - ax * near - bx * far;
      const ry = y[k] - ay * near - by * far;
      c11 += b1 * b1;
      c12 += b1 * b2;
      c22 += b2 * b2;
      x1 += b1 * rx;
      y1 += b1 * ry;
      x2 += b2 * rx;
      y2 += b2 * ry;
    }
    // A little pull towards thirds keeps stretches with few points from swinging out; it is far below the data's own weight.
    const pull = 1e-4 + (to - from < 4 ? 0.02 : 0);
    const third = distance(bx - ax, by - ay) / 3;
    const gx = (bx - ax) / 3;
    const gy = (by - ay) / 3;
    const adx = ends[2];
    const ady = ends[3];
    const bdx = ends[6];
    const bdy = ends[7];
    c11 += pull;
    c22 += pull;
    if (free === FIRST_FREE + SECOND_FREE) {
      const det = c11 * c22 - c12 * c12;
      const px = x1 + pull * gx;
      const py = y1 + pull * gy;
      const qx = x2 - pull * gx;
      const qy = y2 - pull * gy;
      found[0] = ax + (px * c22 - qx * c12) / det;
      found[1] = ay + (py * c22 - qy * c12) / det;
      found[2] = bx + (qx * c11 - px * c12) / det;
      found[3] = by + (qy * c11 - py * c12) / det;
    } else if (free === FIRST_FREE) {
      // Unknown: d1 (two), β. Eliminating d1 leaves one equation for β.
      const px = x1 + pull * gx;
      const py = y1 + pull * gy;
      const q = -(x2 * bdx + y2 * bdy) + pull * third;
      const beta = positive((q * c11 + c12 * (px * bdx + py * bdy)) / (c11 * c22 - c12 * c12), third);
      found[2] = bx - beta * bdx;
      found[3] = by - beta * bdy;
      found[0] = ax + (px + c12 * beta * bdx) / c11;
      found[1] = ay + (py + c12 * beta * bdy) / c11;
    } else if (free === SECOND_FREE) {
      const qx = x2 - pull * gx;
      const qy = y2 - pull * gy;
      const p = x1 * adx + y1 * ady + pull * third;
      const alpha = positive((p * c22 - c12 * (qx * adx + qy * ady)) / (c11 * c22 - c12 * c12), third);
      found[0] = ax + alpha * adx;
      found[1] = ay + alpha * ady;
      found[2] = bx + (qx - c12 * alpha * adx) / c22;
      found[3] = by + (qy - c12 * alpha * ady) / c22;
    } else {
      const dot = -(adx * bdx + ady * bdy);
      const p = x1 * adx + y1 * ady + pull * third;
      const q = -(x2 * bdx + y2 * bdy) + pull * third;
      const cross = c12 * dot;
      const det = c11 * c22 - cross * cross;
      const alpha = positive((p * c22 - q * cross) / det, third);
      const beta = positive((q * c11 - p * cross) / det, third);
      found[0] = ax + alpha * adx;
      found[1] = ay + alpha * ady;
      found[2] = bx - beta * bdx;
      found[3] = by - beta * bdy;
    }
  }

  /** Moves each parameter by one Newton step to the nearest point of the curve and measures the distance there. */
  private measure(x: Float64Array, y: Float64Array, from: number, to: number, step: number): void {
    const { u, ends, found } = this;
    const x0 = ends[0];
    const y0 = ends[1];
    const ax = 3 * (found[0] - x0);
    const ay = 3 * (found[1] - y0);
    const bx = 3 * (found[2] - found[0]) - ax;
    const by = 3 * (found[3] - found[1]) - ay;
    const cx = ends[4] - x0 - ax - bx;
    const cy = ends[5] - y0 - ay - by;
    let worst2 = 0;
    let sum2 = 0;
    for (let k = from; k <= to; k += step) {
      let t = u[k - from];
      let ex = ((cx * t + bx) * t + ax) * t + x0 - x[k];
      let ey = ((cy * t + by) * t + ay) * t + y0 - y[k];
      const vx = (3 * cx * t + 2 * bx) * t + ax;
      const vy = (3 * cy * t + 2 * by) * t + ay;
      const wx = 6 * cx * t + 2 * bx;
      const wy = 6 * cy * t + 2 * by;
      const slope = vx * vx + vy * vy + ex * wx + ey * wy;
      if (slope > 1e-12) {
        t = Math.max(0, Math.min(1, t - (ex * vx + ey * vy) / slope));
        u[k - from] = t;
        ex = ((cx * t + bx) * t + ax) * t + x0 - x[k];
        ey = ((cy * t + by) * t + ay) * t + y0 - y[k];
      }
      const d2 = ex * ex + ey * ey;
      sum2 += d2;
      if (d2 > worst2) worst2 = d2;
    }
    found[4] = worst2;
    found[5] = sum2 * step;
  }
}

/** Keeps a handle from swinging out further than the stretch is long: few or noisy points may ask for it, a curve never needs it. */
function holdHandle(found: Float64Array, at: number, x: number, y: number, most: number): void {
  const length = distance(found[at] - x, found[at + 1] - y);
  if (length <= most) return;
  found[at] = x + ((found[at] - x) * most) / length;
  found[at + 1] = y + ((found[at + 1] - y) * most) / length;
}

/** Handles that came out backwards or as nothing are set to a third of the chord, as Schneider does. */
const positive = (length: number, third: number): number => (length > 1e-6 ? length : third);

/** Plain root of squares: coordinates of a picture do not overflow, and the guarded form is ten times as slow. */
const distance = (dx: number, dy: number): number => Math.sqrt(dx * dx + dy * dy);
