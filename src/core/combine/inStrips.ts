import type { MarkedRings } from './polygonLibrary.ts';

/** Steps of the library's lattice on a mm: what is cut at a seam is cut on it. */
export const STEPS_ON_MM = 10_000;
/** Fewer points than this are combined in one go: a sweep over them is quick. */
const LEAST_POINTS = 20_000;
/** Points in a strip, and strips at most. */
const POINTS_A_STRIP = 12_000;
const MOST_STRIPS = 24;
/** A seam is looked for among so many gaps between points; one this broad is taken at once, none narrower than this at all, steps. What is cut nearer to a node could be taken for a bit of what begins there. */
const MOST_TRIES = 2000;
const ENOUGH = 60;
const LEAST_GAP = 20;
/** What ends at a seam goes on no further along it than this, steps: crossings next to a seam are rounded. */
const MOST_ASTRAY = 12;

/**
 * Combines rings strip by strip and sews the strips together: a sweep line's work grows with the edges that it crosses at once, which a strip has fewer of.
 * @param operands rings on the lattice of the library once rounded. @param run combines some of them.
 * @returns what `run` gives for all of them at once; the points at the seams have no mark.
 */
export function inStrips(operands: readonly MarkedRings[], run: (parts: readonly MarkedRings[]) => MarkedRings): MarkedRings {
  const total = operands.reduce((sum, { marks }) => sum + marks.length, 0);
  const seams = total < LEAST_POINTS ? [] : seamsFor(operands, Math.min(MOST_STRIPS, Math.floor(total / POINTS_A_STRIP)));
  if (seams.length === 0) return run(operands);
  const strips = [-Infinity, ...seams].map((from, k) => run(operands.map((rings) => within(rings, from, seams[k] ?? Infinity))));
  // Where rounding has moved something over a seam its two sides do not meet: then it is done in one go after all.
  return sewn(strips, seams) ?? run(operands);
}

/** Uprights, in steps, that part the points evenly and keep off all of them: each is the middle of the broadest of some gaps. */
function seamsFor(operands: readonly MarkedRings[], strips: number): number[] {
  const xs = Float64Array.from(operands.flatMap(({ points }) => Array.from({ length: points.length >> 1 }, (_, k) => Math.round(points[2 * k] * STEPS_ON_MM)))).sort();
  const seams: number[] = [];
  for (let k = 1; k < strips; k++) {
    const from = Math.floor((k * xs.length) / strips);
    let [at, gap] = [from, 0];
    for (let next = from; next + 1 < Math.min(xs.length, from + MOST_TRIES) && gap < ENOUGH; next++) if (xs[next + 1] - xs[next] > gap) [at, gap] = [next, xs[next + 1] - xs[next]];
    const seam = Math.floor((xs[at] + xs[at + 1]) / 2);
    if (gap >= LEAST_GAP && seam > (seams[seams.length - 1] ?? -Infinity)) seams.push(seam);
  }
  return seams;
}

/** The rings cut to a strip between two uprights, in mm; those wholly inside as they are (I. Sutherland, G. Hodgman, "Reentrant polygon clipping", CACM 17, 1974, doi:10.1145/360767.360802). */
function within({ points, marks, starts }: MarkedRings, from: number, to: number): MarkedRings {
  const out = new RingList();
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    let [least, most] = [Infinity, -Infinity];
    for (let k = starts[ring]; k < starts[ring + 1]; k++) {
      const x = points[2 * k] * STEPS_ON_MM;
      if (x < least) least = x;
      if (x > most) most = x;
    }
    // Half a step on both sides: points are rounded.
    if (most < from - 0.5 || least > to + 0.5) continue;
    let own = ringOf(points, marks, starts[ring], starts[ring + 1]);
    if (least < from + 0.5) own = cutAt(own, from, 1);
    if (most > to - 0.5) own = cutAt(own, to, -1);
    if (own.marks.length > 2) out.add(own);
  }
  return out.rings();
}

/** A ring in steps of the lattice. */
interface Ring {
  readonly x: number[];
  readonly y: number[];
  readonly marks: number[];
}

function ringOf(points: Float64Array, marks: Int32Array, from: number, to: number): Ring {
  const ring: Ring = { x: [], y: [], marks: [] };
  for (let k = from; k < to; k++) push(ring, Math.round(points[2 * k] * STEPS_ON_MM), Math.round(points[2 * k + 1] * STEPS_ON_MM), marks[k]);
  return ring;
}

function push(ring: Ring, x: number, y: number, mark: number): void {
  ring.x.push(x);
  ring.y.push(y);
  ring.marks.push(mark);
}

/** What of a ring lies on one side of an upright that goes through none of its points: to the right of it for 1, to the left for −1. */
function cutAt({ x, y, marks }: Ring, seam: number, side: 1 | -1): Ring {
  const kept: Ring = { x: [], y: [], marks: [] };
  for (let k = 0; k < x.length; k++) {
    const next = k + 1 < x.length ? k + 1 : 0;
    const [isIn, staysIn] = [(x[k] - seam) * side > 0, (x[next] - seam) * side > 0];
    if (isIn) push(kept, x[k], y[k], marks[k]);
    if (isIn !== staysIn) push(kept, seam, crossingAt(x[k], y[k], x[next], y[next], seam), 0);
  }
  return kept;
}

/** Where an edge crosses an upright: the same whichever way the edge runs, so that both sides of a seam, and edges on each other, have it in the same place. */
function crossingAt(x0: number, y0: number, x1: number, y1: number, seam: number): number {
  const [ax, ay, bx, by] = x0 < x1 ? [x0, y0, x1, y1] : [x1, y1, x0, y0];
  return Math.round(ay + ((by - ay) * (seam - ax)) / (bx - ax));
}

class RingList {
  private readonly points: number[] = [];
  private readonly marks: number[] = [];
  private readonly starts = [0];

  add({ x, y, marks }: Ring): void {
    for (let k = 0; k < marks.length; k++) this.points.push(x[k] / STEPS_ON_MM, y[k] / STEPS_ON_MM);
    for (const mark of marks) this.marks.push(mark);
    this.starts.push(this.marks.length);
  }

  rings(): MarkedRings {
    return { points: Float64Array.from(this.points), marks: Int32Array.from(this.marks), starts: Int32Array.from(this.starts) };
  }
}

/** A piece of an edge from seam to seam. */
interface Chain extends Ring {
  readonly strip: number;
  isUsed: boolean;
}

/** Strips side by side as one: what runs along seams goes, what ends at them goes on beyond. Undefined where ends do not meet. */
function sewn(strips: readonly MarkedRings[], seams: readonly number[]): MarkedRings | undefined {
  const out = new RingList();
  const isSeam = new Set(seams);
  const chains: Chain[] = [];
  for (const [strip, { points, marks, starts }] of strips.entries()) {
    for (let ring = 0; ring + 1 < starts.length; ring++) addChains(ringOf(points, marks, starts[ring], starts[ring + 1]), strip, isSeam, out, chains);
  }
  const after = followers(chains);
  if (after === undefined) return undefined;
  for (const first of chains) {
    if (first.isUsed) continue;
    const ring: Ring = { x: [], y: [], marks: [] };
    for (let chain = first; !chain.isUsed; chain = after.get(chain) as Chain) {
      chain.isUsed = true;
      for (let k = 0; k + 1 < chain.x.length; k++) push(ring, chain.x[k], chain.y[k], chain.marks[k]);
    }
    if (ring.marks.length > 2) out.add(ring);
  }
  return out.rings();
}

/** Which chain goes on where each one ends: one that begins in the same place, else the nearest that is left, on the same seam; undefined where one is left over. */
function followers(chains: readonly Chain[]): Map<Chain, Chain> | undefined {
  const after = new Map<Chain, Chain>();
  const beginning = new Map<string, Chain[]>();
  for (const chain of chains) {
    const key = `${chain.x[0]} ${chain.y[0]}`;
    const known = beginning.get(key);
    if (known === undefined) beginning.set(key, [chain]);
    else known.push(chain);
  }
  const left = new Set(chains);
  const astray: Chain[] = [];
  for (const chain of chains) {
    const last = chain.x.length - 1;
    const open = (beginning.get(`${chain.x[last]} ${chain.y[last]}`) ?? []).filter((each) => left.has(each));
    const next = open.find(({ strip }) => strip !== chain.strip) ?? open[0];
    if (next === undefined) astray.push(chain);
    else {
      after.set(chain, next);
      left.delete(next);
    }
  }
  for (const chain of astray) {
    const last = chain.x.length - 1;
    let [nearest, away] = [undefined as Chain | undefined, MOST_ASTRAY + 1];
    for (const each of left) {
      const off = each.x[0] === chain.x[last] ? Math.abs(each.y[0] - chain.y[last]) : Infinity;
      if (off < away) [nearest, away] = [each, off];
    }
    if (nearest === undefined) return undefined;
    after.set(chain, nearest);
    left.delete(nearest);
  }
  return after;
}

/** Parts a ring at the seams; one that reaches none is whole. */
function addChains(ring: Ring, strip: number, isSeam: ReadonlySet<number>, out: RingList, chains: Chain[]): void {
  const { x, y, marks } = ring;
  const count = marks.length;
  const start = x.findIndex((at) => isSeam.has(at));
  if (start < 0) {
    out.add(ring);
    return;
  }
  let chain: Chain = { x: [], y: [], marks: [], strip, isUsed: false };
  for (let step = 0; step <= count; step++) {
    const k = (start + step) % count;
    push(chain, x[k], y[k], marks[k]);
    if (step === 0 || !isSeam.has(x[k])) continue;
    const runsAlong = chain.x.length === 2 && chain.x[0] === x[k];
    if (!runsAlong) chains.push(chain);
    chain = { x: [x[k]], y: [y[k]], marks: [marks[k]], strip, isUsed: false };
  }
}
