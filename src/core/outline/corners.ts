import { SideFit, type Ray } from './sideFit.ts';

/** One ring of isoline points as it is fitted: separate coordinates and the distance along it. */
export interface Ring {
  readonly n: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Distance along the ring from point 0 to point k, px; along[n] is the whole length. */
  readonly along: Float64Array;
}

/** A true corner of the art: the ring's point nearest to it and where its two sides meet. */
export interface Corner {
  readonly index: number;
  readonly x: number;
  readonly y: number;
  /** How far the direction turns, radians, 0 to π. */
  readonly turnRad: number;
}

export interface CornerOptions {
  /** Smallest turn that counts as a corner, radians. */
  readonly leastTurnRad: number;
  /** How wide the picture's edges are, px: 1 for area-sampled art, more when it is blurred. A corner is rounded off over about this length. */
  readonly edgeWidthPx: number;
}

/** Half a pixel's diagonal: what area sampling rounds off a corner, per px of edge width. */
const ROUNDED = 0.7;
/** Length of side that is read for its direction, px. */
const SIDE_PX = 5;
/** Candidates nearer than this to a stronger one are the same corner, px. */
const APART_PX = 1.6;

/**
 * Finds the corners that sampling has rounded off: places where the sides before and after, read without the stretch that is rounded, meet at
 * an angle and meet close to the ring. A small arc turns as far but its sides, read with their bend, arrive in the same direction, or meet far outside.
 */
export function findCorners(ring: Ring, options: CornerOptions): Corner[] {
  const { n } = ring;
  if (n < 8) return [];
  const gap = ROUNDED * options.edgeWidthPx;
  const turn = new Float64Array(n);
  const meetX = new Float64Array(n);
  const meetY = new Float64Array(n);
  const sides = new Sides(ring, gap);
  const reach = Math.min(SIDE_PX, ring.along[n] / 4);
  for (let i = 0; i < n; i++) {
    if (!turnsNear(ring, i, options.leastTurnRad * 0.6)) continue;
    const found = sides.meet(i, reach, reach);
    if (found === undefined || found.turnRad < options.leastTurnRad) continue;
    if (found.gapPx > allowedGap(found.turnRad, options.edgeWidthPx)) continue;
    turn[i] = found.turnRad - 0.25 * found.gapPx;
    meetX[i] = found.x;
    meetY[i] = found.y;
  }
  const kept = strongest(ring, turn);
  return refine(ring, kept, sides, reach, { turn, meetX, meetY });
}

/** How far outside the ring a corner may lie: the rounding of a pixel, more for sharp corners, of which it takes more. */
function allowedGap(turnRad: number, edgeWidthPx: number): number {
  return edgeWidthPx * Math.min(1.8, 0.25 + 0.35 / Math.cos(Math.min(turnRad, 2.9) / 2));
}

/** Cheap first look: does the ring turn at all between a few px before and after this point? */
function turnsNear(ring: Ring, i: number, least: number): boolean {
  const { n, x, y } = ring;
  const a = (i + n - 3) % n;
  const b = (i + 3) % n;
  const ux = x[i] - x[a];
  const uy = y[i] - y[a];
  const vx = x[b] - x[i];
  const vy = y[b] - y[i];
  return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) > least;
}

function strongest(ring: Ring, turn: Float64Array): number[] {
  const { n, along } = ring;
  const total = along[n];
  const candidates: number[] = [];
  for (let i = 0; i < n; i++) if (turn[i] > 0) candidates.push(i);
  candidates.sort((a, b) => turn[b] - turn[a]);
  const kept: number[] = [];
  for (const i of candidates) {
    const near = kept.some((k) => {
      const d = Math.abs(along[i] - along[k]);
      return Math.min(d, total - d) < APART_PX;
    });
    if (!near) kept.push(i);
  }
  return kept.sort((a, b) => a - b);
}

/** Reads the sides once more, now each only as far as the next corner, and places the corner where they meet. */
function refine(ring: Ring, kept: number[], sides: Sides, reach: number, first: { turn: Float64Array; meetX: Float64Array; meetY: Float64Array }): Corner[] {
  const total = ring.along[ring.n];
  return kept.map((index, k) => {
    const before = kept[(k + kept.length - 1) % kept.length];
    const after = kept[(k + 1) % kept.length];
    const back = kept.length === 1 ? total : (ring.along[index] - ring.along[before] + total) % total;
    const on = kept.length === 1 ? total : (ring.along[after] - ring.along[index] + total) % total;
    const limitBack = Math.min(reach + 2, back - sides.gap);
    const limitOn = Math.min(reach + 2, on - sides.gap);
    const again = sides.meet(index, limitBack, limitOn);
    if (again !== undefined && again.gapPx < 2.5) return { index, x: again.x, y: again.y, turnRad: again.turnRad };
    return { index, x: first.meetX[index], y: first.meetY[index], turnRad: first.turn[index] };
  });
}

interface Meeting {
  readonly x: number;
  readonly y: number;
  readonly turnRad: number;
  readonly gapPx: number;
}

class Sides {
  private readonly fit = new SideFit();
  private readonly before: Ray = { x: 0, y: 0, dx: 0, dy: 0, count: 0 };
  private readonly after: Ray = { x: 0, y: 0, dx: 0, dy: 0, count: 0 };

  constructor(
    private readonly ring: Ring,
    readonly gap: number,
  ) {}

  /** Where the sides of point i meet when they are read from the gap to the given lengths. */
  meet(i: number, backPx: number, onPx: number): Meeting | undefined {
    if (!this.read(i, -1, backPx, this.before) || !this.read(i, 1, onPx, this.after)) return undefined;
    const { before: a, after: b } = this;
    const cross = a.dx * b.dy - a.dy * b.dx;
    const turnRad = Math.abs(Math.atan2(cross, a.dx * b.dx + a.dy * b.dy));
    if (Math.abs(cross) < 0.05) return undefined;
    const along = ((b.x - a.x) * b.dy - (b.y - a.y) * b.dx) / cross;
    const x = a.x + along * a.dx;
    const y = a.y + along * a.dy;
    return { x, y, turnRad, gapPx: this.distanceToRing(i, x, y) };
  }

  private read(i: number, step: 1 | -1, lengthPx: number, out: Ray): boolean {
    const { n, x, y, along } = this.ring;
    const total = along[n];
    this.fit.clear();
    let k = i;
    let travelled = 0;
    for (let guard = 0; guard < n; guard++) {
      const next = (k + step + n) % n;
      travelled += step > 0 ? (along[k + 1] - along[k]) : (along[next + 1] - along[next]);
      k = next;
      if (travelled > lengthPx || travelled > total / 2) break;
      if (travelled >= this.gap && !this.fit.add(step * travelled, x[k], y[k])) break;
    }
    return this.fit.solve(out);
  }

  private distanceToRing(i: number, px: number, py: number): number {
    const { n, x, y } = this.ring;
    let best = Infinity;
    for (let k = -2; k < 2; k++) {
      const a = (i + k + n) % n;
      const b = (a + 1) % n;
      const dx = x[b] - x[a];
      const dy = y[b] - y[a];
      const length2 = dx * dx + dy * dy;
      const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((px - x[a]) * dx + (py - y[a]) * dy) / length2));
      best = Math.min(best, Math.hypot(px - x[a] - t * dx, py - y[a] - t * dy));
    }
    return best;
  }
}
