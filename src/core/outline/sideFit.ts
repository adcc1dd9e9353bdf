/** How one side of a point runs towards it: where it would arrive and in which direction (unit vector, in the direction of travel). */
export interface Ray {
  x: number;
  y: number;
  dx: number;
  dy: number;
  /** Points that were read. */
  count: number;
  /** Root mean square distance of the points from the fit, px. */
  rms: number;
}

/** The quadratic is believed over the line when it leaves less than this share of the line's squared residual. */
const CURVED = 0.25;

/**
 * Fits a line, or a parabola where the side is clearly curved, to the points at t (signed distance along the ring from the point in question)
 * and reads it at t = 0. Least squares; needs two points for a line, five for a parabola.
 */
export class SideFit {
  private readonly t = new Float64Array(32);
  private readonly x = new Float64Array(32);
  private readonly y = new Float64Array(32);
  private count = 0;

  clear(): void {
    this.count = 0;
  }

  add(t: number, x: number, y: number): boolean {
    if (this.count === this.t.length) return false;
    this.t[this.count] = t;
    this.x[this.count] = x;
    this.y[this.count++] = y;
    return true;
  }

  /** Writes the ray to `out`; false when the points do not make one. */
  solve(out: Ray): boolean {
    const n = this.count;
    out.count = n;
    if (n < 2) return false;
    let st = 0;
    let sx = 0;
    let sy = 0;
    for (let k = 0; k < n; k++) {
      st += this.t[k];
      sx += this.x[k];
      sy += this.y[k];
    }
    const mt = st / n;
    const mx = sx / n;
    const my = sy / n;
    let tt = 0;
    let ttt = 0;
    let tttt = 0;
    let tx = 0;
    let ty = 0;
    let ttx = 0;
    let tty = 0;
    for (let k = 0; k < n; k++) {
      const t = this.t[k] - mt;
      const x = this.x[k] - mx;
      const y = this.y[k] - my;
      const t2 = t * t;
      tt += t2;
      ttt += t2 * t;
      tttt += t2 * t2;
      tx += t * x;
      ty += t * y;
      ttx += t2 * x;
      tty += t2 * y;
    }
    if (tt < 1e-9) return false;
    const plain = this.residual(mt, mx, my, tx / tt, ty / tt);
    let residual = plain;
    let slopeX = tx / tt;
    let slopeY = ty / tt;
    let atX = mx - slopeX * mt;
    let atY = my - slopeY * mt;
    const spread = tttt - (tt * tt) / n - (ttt * ttt) / tt;
    if (n >= 5 && spread > 1e-9) {
      const bendX = (ttx - (ttt * tx) / tt) / spread;
      const bendY = (tty - (ttt * ty) / tt) / spread;
      const explained = (bendX * bendX + bendY * bendY) * spread;
      if (plain - explained < CURVED * plain) {
        residual = Math.max(0, plain - explained);
        slopeX -= (bendX * ttt) / tt;
        slopeY -= (bendY * ttt) / tt;
        atX = mx - slopeX * mt + bendX * (mt * mt - tt / n);
        atY = my - slopeY * mt + bendY * (mt * mt - tt / n);
        slopeX -= 2 * bendX * mt;
        slopeY -= 2 * bendY * mt;
      }
    }
    const length = Math.hypot(slopeX, slopeY);
    if (length < 1e-9) return false;
    out.x = atX;
    out.y = atY;
    out.dx = slopeX / length;
    out.dy = slopeY / length;
    out.rms = Math.sqrt(residual / n);
    return true;
  }

  private residual(mt: number, mx: number, my: number, slopeX: number, slopeY: number): number {
    let sum = 0;
    for (let k = 0; k < this.count; k++) {
      const t = this.t[k] - mt;
      const ex = this.x[k] - mx - slopeX * t;
      const ey = this.y[k] - my - slopeY * t;
      sum += ex * ex + ey * ey;
    }
    return sum;
  }
}
