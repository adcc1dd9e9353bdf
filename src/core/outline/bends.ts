import { neighbour, type Ring } from './corners.ts';

/** Most points of a window that are read. */
const MOST = 64;
/** A window is read as an arc when a circle lies this near to its points (root mean square, px), or this much nearer than two lines. */
const NEAR_PX = 0.06;
const NEARER = 1.3;
/** Two sides of twice the length that are this straight (root mean square, px) make a corner of the place, whatever its middle looks like. */
const STRAIGHT_PX = 0.1;

/**
 * Tells a small arc from a corner of the same turn. Read over a few pixels the two look alike: the sides of a place on an arc are fitted by lines nearly as
 * well as those of a corner. Compared are a circle through both sides and a line for each, without what sampling rounds off; where the sides go on straight for
 * twice the length, it is a corner. One instance holds the scratch space of one ring.
 */
export class Bends {
  private readonly x = new Float64Array(MOST);
  private readonly y = new Float64Array(MOST);
  private count = 0;
  /** How many of the points lie before the place. */
  private before = 0;

  constructor(
    private readonly ring: Ring,
    private readonly gap: number,
  ) {}

  /** @param backPx, onPx how far its sides may be read. */
  isArc(i: number, backPx: number, onPx: number): boolean {
    this.read(i, backPx, onPx);
    if (this.before < 3 || this.count - this.before < 3) return false;
    const lines = this.linesRms();
    if (this.circleRms() > Math.max(NEAR_PX, NEARER * lines)) return false;
    this.read(i, 2 * backPx, 2 * onPx);
    const longLines = this.linesRms();
    return !(longLines < STRAIGHT_PX && NEARER * longLines < this.circleRms());
  }

  private read(i: number, backPx: number, onPx: number): void {
    this.count = 0;
    this.side(i, -1, backPx);
    this.before = this.count;
    this.side(i, 1, onPx);
  }

  private side(i: number, step: 1 | -1, lengthPx: number): void {
    const { ring, gap } = this;
    const { along, n } = ring;
    const limit = ring.closed ? Math.min(lengthPx, along[n] / 2) : lengthPx;
    let travelled = 0;
    for (let k = i, guard = 0; guard < n && this.count < MOST; guard++) {
      const next = neighbour(ring, k, step);
      if (next < 0) return;
      travelled += step > 0 ? along[k + 1] - along[k] : along[next + 1] - along[next];
      if (travelled > limit) return;
      k = next;
      if (travelled < gap) continue;
      this.x[this.count] = ring.x[k];
      this.y[this.count++] = ring.y[k];
    }
  }

  /** Root mean square distance of the points of each side from a line of its own (total least squares). */
  private linesRms(): number {
    return Math.sqrt((this.offLine(0, this.before) + this.offLine(this.before, this.count)) / this.count);
  }

  private offLine(from: number, to: number): number {
    const { xx, yy, xy } = this.moments(from, to);
    // The smaller eigenvalue of the scatter matrix is the sum of the squared distances.
    return Math.max(0, (xx + yy) / 2 - Math.hypot((xx - yy) / 2, xy));
  }

  private moments(from: number, to: number): { mx: number; my: number; xx: number; yy: number; xy: number } {
    const { x, y } = this;
    let mx = 0;
    let my = 0;
    for (let k = from; k < to; k++) {
      mx += x[k] / (to - from);
      my += y[k] / (to - from);
    }
    let xx = 0;
    let yy = 0;
    let xy = 0;
    for (let k = from; k < to; k++) {
      xx += (x[k] - mx) ** 2;
      yy += (y[k] - my) ** 2;
      xy += (x[k] - mx) * (y[k] - my);
    }
    return { mx, my, xx, yy, xy };
  }

  /** The same for one circle through all points (Kåsa's algebraic fit, see `circleOf`). */
  private circleRms(): number {
    const { x, y, count } = this;
    const { mx, my, xx, yy, xy } = this.moments(0, count);
    let xz = 0;
    let yz = 0;
    for (let k = 0; k < count; k++) {
      const z = (x[k] - mx) ** 2 + (y[k] - my) ** 2;
      xz += (x[k] - mx) * z;
      yz += (y[k] - my) * z;
    }
    const det = xx * yy - xy * xy;
    if (!(det > 1e-9 * xx * yy)) return Infinity;
    const cx = (xz * yy - yz * xy) / (2 * det);
    const cy = (yz * xx - xz * xy) / (2 * det);
    const radius = Math.sqrt((xx + yy) / count + cx * cx + cy * cy);
    let sum = 0;
    for (let k = 0; k < count; k++) sum += (Math.hypot(x[k] - mx - cx, y[k] - my - cy) - radius) ** 2;
    return Math.sqrt(sum / count);
  }
}
