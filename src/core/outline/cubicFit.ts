/** An end of a stretch to be fitted: where it is and, unless it is a corner, in which direction (unit vector of travel) the curve must pass. */
export interface End {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  /** At a corner the direction is not given: it comes out of the fit. */
  readonly free: boolean;
}

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
  private readonly best: FittedCubic = { x1: 0, y1: 0, x2: 0, y2: 0, worst2: 0, sum2: 0 };

  /**
   * Fits the points from to to (inclusive) of x, y between two ends.
   * @param along distance along the points, for the first parameters.
   * @param enough2 stops improving once the worst squared distance is below, px²; 0 improves to the last round, in a trial to the second.
   * @param limit2 gives up early when the worst squared distance is hopelessly above, px².
   * @param trial reads a long stretch only at some of its points.
   */
  fit(x: Float64Array, y: Float64Array, along: Float64Array, from: number, to: number, a: End, b: End, enough2: number, limit2: number, trial: boolean, out: FittedCubic): void {
    const count = to - from + 1;
    if (this.u.length < count) this.u = new Float64Array(count * 2);
    const step = trial ? Math.max(1, Math.floor(count / TRIAL_POINTS)) : 1;
    this.firstParameters(x, y, along, from, to, a, b);
    const most = along[to] - along[from] + distance(b.x - a.x, b.y - a.y);
    const rounds = trial && enough2 === 0 ? TRIAL_ROUNDS : ROUNDS;
    let before = Infinity;
    for (let round = 0; round < rounds; round++) {
      this.solve(x, y, from, to, step, a, b, out);
      holdHandles(a, b, most, out);
      this.measure(x, y, from, to, step, a, b, out);
      out.sum2 *= step;
      const worst2 = out.worst2;
      // A round may leave the curve further off than the one before it: the better one is what was found.
      if (worst2 > before) Object.assign(out, this.best);
      if (worst2 <= enough2 || worst2 > limit2 * (round === 0 ? 100 : 9) || worst2 > before * WORTH) return;
      before = worst2;
      if (round < rounds - 1) Object.assign(this.best, out);
    }
  }

  private firstParameters(x: Float64Array, y: Float64Array, along: Float64Array, from: number, to: number, a: End, b: End): void {
    const lead = from <= to ? distance(x[from] - a.x, y[from] - a.y) : 0;
    const tail = from <= to ? distance(b.x - x[to], b.y - y[to]) : 0;
    const whole = lead + along[to] - along[from] + tail;
    for (let k = from; k <= to; k++) this.u[k - from] = whole > 0 ? (lead + along[k] - along[from]) / whole : 0;
  }

  private solve(x: Float64Array, y: Float64Array, from: number, to: number, step: number, a: End, b: End, out: FittedCubic): void {
    const { u } = this;
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
      const rx = x[k] - a.x * near - b.x * far;
      const ry = y[k] - a.y * near - b.y * far;
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
    const chord = distance(b.x - a.x, b.y - a.y);
    const third = chord / 3;
    const gx = (b.x - a.x) / 3;
    const gy = (b.y - a.y) / 3;
    c11 += pull;
    c22 += pull;
    if (a.free && b.free) {
      const det = c11 * c22 - c12 * c12;
      const px = x1 + pull * gx;
      const py = y1 + pull * gy;
      const qx = x2 - pull * gx;
      const qy = y2 - pull * gy;
      out.x1 = a.x + (px * c22 - qx * c12) / det;
      out.y1 = a.y + (py * c22 - qy * c12) / det;
      out.x2 = b.x + (qx * c11 - px * c12) / det;
      out.y2 = b.y + (qy * c11 - py * c12) / det;
      return;
    }
    if (a.free) {
      // Unknown: d1 (two), β. Eliminating d1 leaves one equation for β.
      const px = x1 + pull * gx;
      const py = y1 + pull * gy;
      const q = -(x2 * b.dx + y2 * b.dy) + pull * third;
      const beta = positive((q * c11 + c12 * (px * b.dx + py * b.dy)) / (c11 * c22 - c12 * c12), third);
      out.x2 = b.x - beta * b.dx;
      out.y2 = b.y - beta * b.dy;
      out.x1 = a.x + (px + c12 * beta * b.dx) / c11;
      out.y1 = a.y + (py + c12 * beta * b.dy) / c11;
      return;
    }
    if (b.free) {
      const qx = x2 - pull * gx;
      const qy = y2 - pull * gy;
      const p = x1 * a.dx + y1 * a.dy + pull * third;
      const alpha = positive((p * c22 - c12 * (qx * a.dx + qy * a.dy)) / (c11 * c22 - c12 * c12), third);
      out.x1 = a.x + alpha * a.dx;
      out.y1 = a.y + alpha * a.dy;
      out.x2 = b.x + (qx - c12 * alpha * a.dx) / c22;
      out.y2 = b.y + (qy - c12 * alpha * a.dy) / c22;
      return;
    }
    const dot = -(a.dx * b.dx + a.dy * b.dy);
    const p = x1 * a.dx + y1 * a.dy + pull * third;
    const q = -(x2 * b.dx + y2 * b.dy) + pull * third;
    const cross = c12 * dot;
    const det = c11 * c22 - cross * cross;
    const alpha = positive((p * c22 - q * cross) / det, third);
    const beta = positive((q * c11 - p * cross) / det, third);
    out.x1 = a.x + alpha * a.dx;
    out.y1 = a.y + alpha * a.dy;
    out.x2 = b.x - beta * b.dx;
    out.y2 = b.y - beta * b.dy;
  }

  /** Moves each parameter by one Newton step to the nearest point of the curve and measures the distance there. */
  private measure(x: Float64Array, y: Float64Array, from: number, to: number, step: number, a: End, b: End, out: FittedCubic): void {
    const { u } = this;
    const ax = 3 * (out.x1 - a.x);
    const ay = 3 * (out.y1 - a.y);
    const bx = 3 * (out.x2 - out.x1) - ax;
    const by = 3 * (out.y2 - out.y1) - ay;
    const cx = b.x - a.x - ax - bx;
    const cy = b.y - a.y - ay - by;
    let worst2 = 0;
    let sum2 = 0;
    for (let k = from; k <= to; k += step) {
      let t = u[k - from];
      let ex = ((cx * t + bx) * t + ax) * t + a.x - x[k];
      let ey = ((cy * t + by) * t + ay) * t + a.y - y[k];
      const vx = (3 * cx * t + 2 * bx) * t + ax;
      const vy = (3 * cy * t + 2 * by) * t + ay;
      const wx = 6 * cx * t + 2 * bx;
      const wy = 6 * cy * t + 2 * by;
      const slope = vx * vx + vy * vy + ex * wx + ey * wy;
      if (slope > 1e-12) {
        t = Math.max(0, Math.min(1, t - (ex * vx + ey * vy) / slope));
        u[k - from] = t;
        ex = ((cx * t + bx) * t + ax) * t + a.x - x[k];
        ey = ((cy * t + by) * t + ay) * t + a.y - y[k];
      }
      const d2 = ex * ex + ey * ey;
      sum2 += d2;
      if (d2 > worst2) worst2 = d2;
    }
    out.worst2 = worst2;
    out.sum2 = sum2;
  }
}

/** Keeps handles from swinging out further than the stretch is long: few or noisy points may ask for it, a curve never needs it. */
function holdHandles(a: End, b: End, most: number, out: FittedCubic): void {
  const first = distance(out.x1 - a.x, out.y1 - a.y);
  if (first > most) {
    out.x1 = a.x + ((out.x1 - a.x) * most) / first;
    out.y1 = a.y + ((out.y1 - a.y) * most) / first;
  }
  const second = distance(out.x2 - b.x, out.y2 - b.y);
  if (second > most) {
    out.x2 = b.x + ((out.x2 - b.x) * most) / second;
    out.y2 = b.y + ((out.y2 - b.y) * most) / second;
  }
}

/** Handles that came out backwards or as nothing are set to a third of the chord, as Schneider does. */
const positive = (length: number, third: number): number => (length > 1e-6 ? length : third);

/** Plain root of squares: coordinates of a picture do not overflow, and the guarded form is ten times as slow. */
const distance = (dx: number, dy: number): number => Math.sqrt(dx * dx + dy * dy);
