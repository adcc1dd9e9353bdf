import { signedArea } from '../geometry/rings.ts';
import { Bends } from './bends.ts';
import { SideFit, type Ray } from './sideFit.ts';

/**
 * The points of an edge as it is fitted: separate coordinates and the distance along it. A closed one is a ring; an open one ends at junctions, beyond its
 * points.
 */
export interface Ring {
  readonly n: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Distance along the edge from point 0 to point k, px; along[n] is the whole length, of a closed one with the way back to point 0. */
  readonly along: Float64Array;
  readonly closed: boolean;
}

/** The edge through points, with the distance along it. */
export function ringThrough(x: Float64Array, y: Float64Array, closed: boolean): Ring {
  const n = x.length;
  const along = new Float64Array(n + 1);
  for (let k = 1; k < n; k++) along[k] = along[k - 1] + Math.sqrt((x[k] - x[k - 1]) ** 2 + (y[k] - y[k - 1]) ** 2);
  if (n > 0) along[n] = along[n - 1] + (closed ? Math.sqrt((x[0] - x[n - 1]) ** 2 + (y[0] - y[n - 1]) ** 2) : 0);
  return { n, x, y, along, closed };
}

/** The area inside of a closed edge, signed as its sense, px². */
export function areaOf({ n, x, y }: Ring): number {
  const points = new Float64Array(n * 2);
  for (let k = 0; k < n; k++) points.set([x[k], y[k]], 2 * k);
  return signedArea(points, 0, n);
}

/** The point after or before one; −1 beyond the end of an open edge. */
export function neighbour(ring: Ring, k: number, step: 1 | -1): number {
  const next = k + step;
  if (next >= 0 && next < ring.n) return next;
  return ring.closed ? (next + ring.n) % ring.n : -1;
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
/** Length of side that is read for its direction, px. Longer ones see more of the next feature, shorter ones more of the noise. */
const SIDE_PX = 4.4;
/** Radians of turn that a px of roughness of the sides outweighs: beside a corner a side runs around it and fits badly. */
const ROUGH_COST = 3;
/**
 * Straight sides that turn back by more than this but would meet too far out are those of a strip with a blunt end, whose two corners are only seen on a strip
 * broader than this.
 */
const BLUNT_RAD = 2.95;
const BLUNT_RMS_PX = 0.2;
const BLUNT_WIDTH_PX = 2.4;
/** Two corners are never nearer than this, px: what is between them could not be seen. */
const APART_PX = 1.2;

/**
 * Finds the corners that sampling has rounded off: places where the sides before and after, read without the stretch that is rounded, meet at
 * an angle and meet close to the ring. A small arc turns as far but its sides, read with their bend, arrive in the same direction, or meet far outside.
 *
 * Candidates are taken strongest first; each further one must still be a corner when its sides are read only as far as the corners taken before. So a
 * point beside a corner, whose side is that corner's other side, drops out, while the two corners of a narrow bar both stay.
 */
export function findCorners(ring: Ring, options: CornerOptions): Corner[] {
  const { n } = ring;
  if (n < 8) return [];
  const sides = new Sides(ring, ROUNDED * options.edgeWidthPx);
  const bends = new Bends(ring, sides.gap);
  const reach = Math.min(SIDE_PX + 2 * (sides.gap - ROUNDED), ring.along[n] / 4);
  const strength = new Float64Array(n);
  const candidates: number[] = [];
  for (let i = 0; i < n; i++) {
    if (!turnsNear(ring, i, options.leastTurnRad * 0.6)) continue;
    const found = sides.meet(i, reach, reach);
    if (found === undefined || !isCorner(found, options)) continue;
    strength[i] = found.turnRad - 0.25 * found.gapPx - ROUGH_COST * found.rmsPx;
    candidates.push(i);
  }
  candidates.sort((a, b) => strength[b] - strength[a] || a - b);
  const taken = new Uint8Array(n);
  const meetings = new Map<number, Meeting>();
  for (const i of candidates) {
    const back = freeLength(ring, taken, i, -1, reach + APART_PX);
    const on = freeLength(ring, taken, i, 1, reach + APART_PX);
    if (Math.min(back, on) < APART_PX) continue;
    const again = sides.meet(i, Math.min(reach, back - sides.gap), Math.min(reach, on - sides.gap));
    if (again !== undefined && isCorner(again, options) && !bends.isArc(i, reach, reach)) {
      taken[i] = 1;
      meetings.set(i, again);
    }
  }
  return placed(ring, taken, meetings, sides, reach, options);
}

const isCorner = (found: Meeting, options: CornerOptions): boolean =>
  found.turnRad >= options.leastTurnRad && found.gapPx <= allowedGap(found.turnRad, options.edgeWidthPx);

/** How far outside the ring a corner may lie: the rounding of a pixel, more for sharp corners, of which it takes more. */
function allowedGap(turnRad: number, edgeWidthPx: number): number {
  return edgeWidthPx * Math.min(3.2, 0.3 + 0.43 / Math.cos(Math.min(turnRad, 3.05) / 2));
}

/** Cheap first look: does the ring turn at all between a few px before and after this point? */
function turnsNear(ring: Ring, i: number, least: number): boolean {
  const { n, x, y, closed } = ring;
  const a = closed ? (i + n - 3) % n : Math.max(0, i - 3);
  const b = closed ? (i + 3) % n : Math.min(n - 1, i + 3);
  const ux = x[i] - x[a];
  const uy = y[i] - y[a];
  const vx = x[b] - x[i];
  const vy = y[b] - y[i];
  return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) > least;
}

/** Distance along the ring to the next corner taken, at most `limit`. */
function freeLength(ring: Ring, taken: Uint8Array, i: number, step: 1 | -1, limit: number): number {
  const { n, along } = ring;
  let travelled = 0;
  let k = i;
  for (let guard = 1; guard < n; guard++) {
    const next = neighbour(ring, k, step);
    // An open edge ends at a corner of its own.
    if (next < 0) return travelled;
    travelled += step > 0 ? along[k + 1] - along[k] : along[next + 1] - along[next];
    k = next;
    if (travelled >= limit) return limit;
    if (taken[k] === 1) return travelled;
  }
  return limit;
}

/** Reads the sides once more, now knowing all corners, and places each corner where its sides meet; where so read they make none, where they met before. */
function placed(ring: Ring, taken: Uint8Array, meetings: ReadonlyMap<number, Meeting>, sides: Sides, reach: number, options: CornerOptions): Corner[] {
  const corners: Corner[] = [];
  for (let i = 0; i < ring.n; i++) {
    if (taken[i] === 0) continue;
    const back = freeLength(ring, taken, i, -1, reach + sides.gap + 2);
    const on = freeLength(ring, taken, i, 1, reach + sides.gap + 2);
    const anew = sides.meet(i, back - sides.gap, on - sides.gap);
    const found = anew !== undefined && isCorner(anew, options) ? anew : (meetings.get(i) as Meeting);
    const [last, next] = [neighbour(ring, i, -1), neighbour(ring, i, 1)];
    if (found.end !== undefined && last >= 0 && next >= 0) {
      // The point at the tip lies between the two corners, on neither side.
      corners.push({ index: last, ...found.end[0], turnRad: Math.PI / 2 }, { index: next, ...found.end[1], turnRad: Math.PI / 2 });
    } else corners.push({ index: i, x: found.x, y: found.y, turnRad: found.turnRad });
  }
  return corners.sort((a, b) => a.index - b.index);
}

interface Place {
  readonly x: number;
  readonly y: number;
}

interface Meeting {
  readonly x: number;
  readonly y: number;
  readonly turnRad: number;
  readonly gapPx: number;
  /** How far the points of both sides lie from their fits. */
  readonly rmsPx: number;
  /** The two corners where a strip ends that is too thin to show them apart. */
  readonly end?: readonly [Place, Place];
}

class Sides {
  private readonly fit = new SideFit();
  private readonly before: Ray = { x: 0, y: 0, dx: 0, dy: 0, count: 0, rms: 0 };
  private readonly after: Ray = { x: 0, y: 0, dx: 0, dy: 0, count: 0, rms: 0 };

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
    const rmsPx = a.rms + b.rms;
    const along = ((b.x - a.x) * b.dy - (b.y - a.y) * b.dx) / cross;
    const x = a.x + along * a.dx;
    const y = a.y + along * a.dy;
    const gapPx = Math.abs(cross) < 0.05 ? Infinity : this.distanceToRing(i, x, y);
    const allowedPx = allowedGap(turnRad, this.gap / ROUNDED);
    const end = turnRad > BLUNT_RAD && gapPx > allowedPx && rmsPx < BLUNT_RMS_PX && Math.min(backPx, onPx) >= SIDE_PX ? this.bluntEnd(i) : undefined;
    if (end !== undefined) return { ...end[0], turnRad, gapPx: allowedPx, rmsPx, end };
    return gapPx === Infinity ? undefined : { x, y, turnRad, gapPx, rmsPx };
  }

  /** The two corners at the end of a strip between the sides last read; undefined where it is broad enough to show how it ends. */
  private bluntEnd(i: number): readonly [Place, Place] | undefined {
    const { before: a, after: b, ring } = this;
    const [dx, dy] = [a.dx - b.dx, a.dy - b.dy];
    const length = Math.hypot(dx, dy);
    const [ux, uy] = [dx / length, dy / length];
    if (Math.abs((b.x - a.x) * uy - (b.y - a.y) * ux) > BLUNT_WIDTH_PX) return undefined;
    let reach = -Infinity;
    for (let k = -2; k <= 2; k++) {
      const j = ring.closed ? (i + k + ring.n) % ring.n : i + k;
      if (j >= 0 && j < ring.n) reach = Math.max(reach, ring.x[j] * ux + ring.y[j] * uy);
    }
    const onto = ({ x, y, dx: sx, dy: sy }: Ray): Place => {
      const t = (reach - x * ux - y * uy) / (sx * ux + sy * uy);
      return { x: x + t * sx, y: y + t * sy };
    };
    return [onto(a), onto(b)];
  }

  private read(i: number, step: 1 | -1, lengthPx: number, out: Ray): boolean {
    const { n, x, y, along, closed } = this.ring;
    const total = along[n];
    this.fit.clear();
    let k = i;
    let travelled = 0;
    for (let guard = 0; guard < n; guard++) {
      const next = neighbour(this.ring, k, step);
      if (next < 0) break;
      travelled += step > 0 ? along[k + 1] - along[k] : along[next + 1] - along[next];
      k = next;
      if (travelled > lengthPx || (closed && travelled > total / 2)) break;
      if (travelled >= this.gap && !this.fit.add(step * travelled, x[k], y[k])) break;
    }
    return this.fit.solve(out);
  }

  private distanceToRing(i: number, px: number, py: number): number {
    const { n, x, y, closed } = this.ring;
    let best = Infinity;
    for (let k = -2; k < 2; k++) {
      if (!closed && (i + k < 0 || i + k + 1 >= n)) continue;
      const a = (i + k + n) % n;
      const b = (a + 1) % n;
      const dx = x[b] - x[a];
      const dy = y[b] - y[a];
      const length2 = dx * dx + dy * dy;
      const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((px - x[a]) * dx + (py - y[a]) * dy) / length2));
      best = Math.min(best, (px - x[a] - t * dx) ** 2 + (py - y[a] - t * dy) ** 2);
    }
    return Math.sqrt(best);
  }
}
