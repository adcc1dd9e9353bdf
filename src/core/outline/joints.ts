import { bulges } from './bulges.ts';
import { CubicFit, type End, type FittedCubic } from './cubicFit.ts';
import { directedEnds, doublesBack } from './doublesBack.ts';
import type { Section } from './section.ts';

/** One line or cubic of a fitted section, from joint to joint. */
export interface Segment {
  readonly from: number;
  readonly to: number;
  readonly straight: boolean;
  readonly cubic: FittedCubic;
}

export interface FitOptions {
  /** Largest distance of a point of the isoline from the curve, px. */
  readonly tolerancePx: number;
  /** Largest root mean square distance of the points from the curve, px; absent where the largest distance says enough. */
  readonly rmsPx?: number;
  /** Largest distance of a point from a chord that is drawn as a straight line, px. */
  readonly straightPx: number;
}

/** A cubic whose worst point is further off than this times the tolerance (squared) was never fitted: two points are taken for one curve unseen. */
const MOST_OVER2 = 4;

/** Places that are tried for each joint within the stretch where it may lie. */
const CHOICES = 5;

/**
 * Divides a section into as few cubics as its tolerance allows and among those divisions takes the one nearest to the points.
 *
 * How far one cubic carries from the start, then from there, and so on, gives the fewest segments and the last place for each joint; the same from the
 * end gives the first place. Between the two, a few places for each joint are weighed against each other by dynamic programming over the sum of
 * squared distances (the scheme of Bellman, "On the approximation of curves by line segments using dynamic programming", CACM 4(6), 1961,
 * doi:10.1145/366573.366611, on the few joints that can matter).
 */
export class JointFinder {
  private readonly fitter = new CubicFit();

  private limit2 = 0;
  private mean2 = Infinity;
  /** Sum of squared distances of the points from the segments drawn so far, px², and how many points those are. */
  private drawn2 = 0;
  private drawnPoints = 0;

  constructor(private options: FitOptions) {
    this.follow(options);
  }

  /** Fits from now on as closely as this. */
  follow(options: FitOptions): void {
    this.options = options;
    this.limit2 = options.tolerancePx ** 2;
    this.mean2 = options.rmsPx === undefined ? Infinity : options.rmsPx ** 2;
  }

  /** Root mean square distance of the edges' points from what was drawn so far, px. */
  strayPx(): number {
    return this.drawnPoints === 0 ? 0 : Math.sqrt(this.drawn2 / this.drawnPoints);
  }

  divide(section: Section): Segment[] {
    const last = section.n - 1;
    if (chordSum2(section, 0, last, this.options.straightPx) <= this.mean2 * (last + 1)) return this.segment(section, 0, last);
    const forward = this.march(section, 0, last);
    if (forward.length === 0) return this.segment(section, 0, last);
    const backward = this.marchBack(section, last, forward.length);
    return this.choose(section, forward, backward);
  }

  /** Joints of the greedy division from the front; none when one cubic does. */
  private march(section: Section, start: number, last: number): number[] {
    const joints: number[] = [];
    let at = start;
    let stride = 16;
    while (at < last) {
      const reached = this.furthest(section, at, last, stride, 1);
      stride = Math.max(4, reached - at);
      at = reached;
      if (at < last) joints.push(at);
    }
    return joints;
  }

  /** The same from the back; undefined when it needs more segments, so that its joints do not pair up with the others. */
  private marchBack(section: Section, last: number, count: number): number[] | undefined {
    const joints: number[] = [];
    let at = last;
    let stride = 16;
    while (at > 0) {
      const reached = this.furthest(section, at, 0, stride, -1);
      stride = Math.max(4, at - reached);
      at = reached;
      if (at > 0) joints.push(at);
      if (joints.length > count) return undefined;
    }
    return joints.length === count ? joints.reverse() : undefined;
  }

  /**
   * The furthest point that one cubic reaches from `at` in the given direction: by doubling, then halving down to a sixteenth, on the premise that longer is
   * harder.
   */
  private furthest(section: Section, at: number, limit: number, stride: number, sign: 1 | -1): number {
    const room = Math.abs(limit - at);
    let good = Math.min(room, 2);
    let bad = room + 1;
    let probe = Math.min(room, Math.max(3, stride));
    while (good + Math.max(1, good >> 4) < bad) {
      if (this.holds(section, at, at + sign * probe)) {
        good = probe;
        probe = bad > room ? Math.min(room, probe * 2) : (good + bad) >> 1;
        if (good === room) break;
      } else {
        bad = probe;
        probe = (good + bad) >> 1;
      }
    }
    return at + sign * good;
  }

  private readonly trial: FittedCubic = { x1: 0, y1: 0, x2: 0, y2: 0, worst2: 0, sum2: 0 };

  private holds(section: Section, a: number, b: number): boolean {
    const from = Math.min(a, b);
    const to = Math.max(a, b);
    if (section.closed && from === 0 && to === section.n - 1) return false;
    this.cubic(section, from, to, this.limit2, true, this.trial);
    return this.trial.worst2 <= this.limit2 && this.trial.sum2 <= this.mean2 * (to - from + 1);
  }

  private cubic(section: Section, from: number, to: number, enough2: number, trial: boolean, out: FittedCubic): void {
    this.fitter.fit(section.x, section.y, section.along, from, to, section.joint(from), section.joint(to), enough2, this.limit2, trial, out);
  }

  /** The same between ends of which the direction is given. */
  private cubicBetween(section: Section, from: number, to: number, [a, b]: readonly [End, End], out: FittedCubic): void {
    this.fitter.fit(section.x, section.y, section.along, from, to, a, b, 0, this.limit2, false, out);
  }

  private choose(section: Section, forward: number[], backward: number[] | undefined): Segment[] {
    const last = section.n - 1;
    const places: number[][] = [[0], ...forward.map((late, k) => spread(Math.min(backward?.[k] ?? late, late), late)), [last]];
    let costs = [0];
    const from: number[][] = [];
    for (let k = 1; k < places.length; k++) {
      const next: number[] = [];
      const best: number[] = [];
      for (const b of places[k]) {
        let cost = Infinity;
        let via = 0;
        for (const [i, a] of places[k - 1].entries()) {
          if (a >= b || costs[i] >= cost) continue;
          this.cubic(section, a, b, 0, true, this.trial);
          const over = Math.max(0, this.trial.worst2 - this.limit2);
          const total = costs[i] + this.trial.sum2 + 1000 * over;
          if (total < cost) {
            cost = total;
            via = i;
          }
        }
        next.push(cost);
        best.push(via);
      }
      costs = next;
      from.push(best);
    }
    const joints: number[] = [last];
    let at = 0;
    for (let k = places.length - 1; k > 0; k--) {
      at = from[k - 1][at];
      joints.push(places[k - 1][at]);
    }
    joints.reverse();
    return joints.slice(1).flatMap((to, k) => this.segment(section, joints[k], to));
  }

  /** The line or cubic between two joints. A cubic that swings away from its points, or leaves them, is divided, at last into the points themselves. */
  private segment(section: Section, from: number, to: number): Segment[] {
    const cubic: FittedCubic = { x1: 0, y1: 0, x2: 0, y2: 0, worst2: 0, sum2: 0 };
    const chord2 = chordSum2(section, from, to, this.options.straightPx);
    const straight = chord2 <= this.mean2 * (to - from + 1);
    if (!straight) {
      this.cubic(section, from, to, 0, false, cubic);
      const hooks = doublesBack(section, from, to, cubic);
      if (hooks) this.cubicBetween(section, from, to, directedEnds(section, from, to), cubic);
      if (cubic.worst2 > (hooks ? 1 : MOST_OVER2) * this.limit2 || bulges(section, from, to, cubic, this.options.tolerancePx)) {
        if (to - from > 1) {
          const middle = (from + to) >> 1;
          return [...this.segment(section, from, middle), ...this.segment(section, middle, to)];
        }
        this.drawnPoints++;
        return [{ from, to, straight: true, cubic }];
      }
    }
    this.drawn2 += straight ? chord2 : cubic.sum2;
    this.drawnPoints += to - from;
    return [{ from, to, straight, cubic }];
  }
}

function spread(from: number, to: number): number[] {
  const count = Math.min(CHOICES, to - from + 1);
  const places = new Set<number>();
  for (let k = 0; k < count; k++) places.add(count === 1 ? to : Math.round(from + ((to - from) * k) / (count - 1)));
  return [...places];
}

/**
 * Sum of the squared distances of the points from the chord between two joints, px²; NaN, which is less than nothing, when one is further than `tolerancePx`
 * from it, or there is no chord.
 */
function chordSum2(section: Section, from: number, to: number, tolerancePx: number): number {
  const a = section.joint(from);
  const b = section.joint(to);
  const { x: xs, y: ys } = section;
  const ax = a.x;
  const ay = a.y;
  const dx = b.x - ax;
  const dy = b.y - ay;
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length < 1e-9) return NaN;
  let sum2 = 0;
  for (let k = from + 1; k < to; k++) {
    const px = xs[k] - ax;
    const py = ys[k] - ay;
    const off = (px * dy - py * dx) / length;
    const along = (px * dx + py * dy) / length;
    if (Math.abs(off) > tolerancePx || along < -tolerancePx || along > length + tolerancePx) return NaN;
    sum2 += off * off;
  }
  return sum2;
}
