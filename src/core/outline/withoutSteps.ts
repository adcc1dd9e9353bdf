import { ringThrough, type Ring } from './corners.ts';

/** Over so much, px, the middle of steps is taken: rounding to whole pixels strays by 0.3 px, what some ten roundings have in common by 0.1. Else over less. */
const SIGMAS_PX = [3.5, 2];
/** Rounding to whole pixels moves an edge by half of one, compression a little more, px. */
const FURTHEST_PX = 0.6;
/** How an edge is drawn whose steps were taken out: its corners as if its pixels had been mixed over so much, px, and followed no closer than that, px. */
export const STEPLESS = { widthPx: 2, followPx: 0.4, rmsPx: 0.2 } as const;
/** Of steps at least this share of the points is led further than this, px. */
const MOVED_PX = 0.1;
const MOVED_SHARE = 0.15;
/**
 * A point lies half-way between two pixels, of which neither is mixed, when it is no further from there than this, px: compression moves it so far. An edge is
 * stepped when nearly all of at least so many points beside its turns lie so; of one with mixed pixels two in five would, by chance.
 */
const HALF_WAY_PX = 0.2;
const STEPPED_SHARE = 0.85;
const FEWEST = 16;
/**
 * A round shape repeats a few places all around, which lie half-way together by chance: either most lie half-way exactly, px, as where nothing was compressed, or
 * there must be so many others, told apart by this, px. Eight do so by chance on one edge in a thousand.
 */
const EXACT_PX = 0.01;
const EXACT_SHARE = 0.6;
const FEWEST_APART = 8;
const APART_PX = 0.004;
/** Of two runs that meet at a right angle both are this long at a corner of the drawing, points; of the steps of a line or a round one always is shorter. */
const LONG_RUN = 3;

/**
 * An edge of art whose pixels are of one tone or another each, never mixed, runs in steps around where it was drawn: its points are led through the middle of
 * them, from one right-angled corner to the next. Undefined for any other edge.
 */
export function withoutSteps(ring: Ring): Ring | undefined {
  const runs = runsOf(ring);
  if (!isStepped(ring, runs)) return undefined;
  const { n, closed } = ring;
  const corners = cornersAmong(ring, runs);
  const x = new Float64Array(n);
  const y = new Float64Array(n);
  const lead = (from: number, to: number, isRound: boolean): void => {
    const middle = ledStretch(ring, from, to, isRound);
    for (let k = from; k < to; k++) {
      x[k % n] = middle.x[k - from];
      y[k % n] = middle.y[k - from];
    }
  };
  if (corners.length === 0) lead(0, n, closed);
  else {
    if (!closed) lead(0, corners[0], false);
    for (const [k, from] of corners.entries()) lead(from, corners[k + 1] ?? (closed ? corners[0] + n : n), false);
  }
  // What is all level and upright, with corners between, stays so.
  return hasMoved(ring, x, y) ? ringThrough(x, y, closed) : undefined;
}

/** Whether a good part of a ring's points lie elsewhere now. */
function hasMoved(ring: Ring, x: Float64Array, y: Float64Array): boolean {
  let moved = 0;
  for (let k = 0; k < ring.n; k++) if (Math.abs(x[k] - ring.x[k]) + Math.abs(y[k] - ring.y[k]) > MOVED_PX) moved++;
  return moved >= MOVED_SHARE * ring.n;
}

/** The points of a ring from one on up to another, over its start too, each in the middle of its steps. @param isRound whether they go all the way around. */
function ledStretch({ n, x, y }: Ring, from: number, to: number, isRound: boolean): { x: Float64Array; y: Float64Array } {
  // All the way around the first point is the last one too.
  const count = to - from + (isRound ? 1 : 0);
  const [atX, atY, along] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)];
  for (let k = 0; k < count; k++) {
    atX[k] = x[(from + k) % n];
    atY[k] = y[(from + k) % n];
    if (k > 0) along[k] = along[k - 1] + Math.hypot(atX[k] - atX[k - 1], atY[k] - atY[k - 1]);
  }
  return ledThrough(atX, atY, along, isRound);
}

/** Weighted sums of powers of the distance along an edge, and of its places times them: what a parabola through them follows from. */
class Sums {
  private readonly powers = new Float64Array(5);
  private readonly xs = new Float64Array(3);
  private readonly ys = new Float64Array(3);

  clear(): void {
    this.powers.fill(0);
    this.xs.fill(0);
    this.ys.fill(0);
  }

  add(x: number, y: number, offPx: number, sigmaPx: number): void {
    let weight = Math.exp((-offPx * offPx) / (2 * sigmaPx * sigmaPx));
    for (let power = 0; power < 5; power++, weight *= offPx) {
      this.powers[power] += weight;
      if (power > 2) continue;
      this.xs[power] += weight * x;
      this.ys[power] += weight * y;
    }
  }

  /** Where the parabola is at distance 0; undefined where too few places say. */
  middle(): { x: number; y: number } | undefined {
    const [s0, s1, s2, s3, s4] = this.powers;
    // The first row of the inverse of the normal equations, times their determinant.
    const row = [s2 * s4 - s3 * s3, s2 * s3 - s1 * s4, s1 * s3 - s2 * s2];
    const determinant = s0 * row[0] + s1 * row[1] + s2 * row[2];
    if (!(determinant > 1e-9 * s0 * s2 * s4)) return undefined;
    const at = (sums: Float64Array): number => (row[0] * sums[0] + row[1] * sums[1] + row[2] * sums[2]) / determinant;
    return { x: at(this.xs), y: at(this.ys) };
  }
}

/**
 * Leads each point to where a parabola runs that is fitted to those around it by least squares, near ones weighing more: a mean would draw rounds in, and
 * could not be taken at an end (W. S. Cleveland, "Robust locally weighted regression and smoothing scatterplots", JASA 74, 1979,
 * doi:10.1080/01621459.1979.10481038, without its robust weights). Where that would lead it further than rounding can, as around a small detail, the parabola is
 * fitted to fewer, or else the point stays.
 * @param isRound whether the first point is the last one too.
 */
function ledThrough(x: Float64Array, y: Float64Array, along: Float64Array, isRound: boolean): { x: Float64Array; y: Float64Array } {
  const led = { x: x.slice(), y: y.slice() };
  const sums = new Sums();
  for (let k = 0; k < x.length; k++) {
    for (const sigmaPx of SIGMAS_PX) {
      sums.clear();
      addAround(sums, { x, y, along, isRound }, k, sigmaPx);
      const middle = sums.middle();
      if (middle === undefined || Math.hypot(middle.x - x[k], middle.y - y[k]) > FURTHEST_PX) continue;
      led.x[k] = middle.x;
      led.y[k] = middle.y;
      break;
    }
  }
  return led;
}

interface Stretch {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly along: Float64Array;
  readonly isRound: boolean;
}

/** Adds what lies within three sigmas of a point of a stretch. */
function addAround(sums: Sums, { x, y, along, isRound }: Stretch, k: number, sigmaPx: number): void {
  const n = x.length;
  const span = isRound ? n - 1 : n;
  const total = along[n - 1];
  sums.add(x[k], y[k], 0, sigmaPx);
  for (const step of [-1, 1]) {
    for (let j = k + step; isRound ? Math.abs(j - k) <= span / 2 : j >= 0 && j < n; j += step) {
      const i = j < 0 ? j + span : j >= n ? j - span : j;
      const off = along[i] - along[k] + (j < 0 ? -total : j >= n ? total : 0);
      if (Math.abs(off) > 3 * sigmaPx) break;
      sums.add(x[i], y[i], off, sigmaPx);
    }
  }
}

/** Points in a row beside pixels of one row or column. */
interface Run {
  /** Number of the first, and of the first after them; those of a closed edge go on over its start. */
  readonly from: number;
  readonly to: number;
  readonly isAcross: boolean;
}

function runsOf({ n, x, y, closed }: Ring): Run[] {
  // A point lies between two pixels of a column, whose middle it shares, or of a row.
  const isAcross = (k: number): boolean => x[k] % 1 === 0.5;
  const goesOn = (k: number): boolean => {
    const [a, b] = [(k + n - 1) % n, k % n];
    return isAcross(a) === isAcross(b) && (isAcross(a) ? Math.round(y[a]) === Math.round(y[b]) : Math.round(x[a]) === Math.round(x[b]));
  };
  let start = 0;
  while (closed && start < n && goesOn(start)) start++;
  const runs: Run[] = [];
  for (let from = start; from < start + n;) {
    let to = from + 1;
    while (to < start + n && goesOn(to)) to++;
    runs.push({ from, to, isAcross: isAcross(from % n) });
    from = to;
  }
  return runs;
}

/** Whether nearly all points at the ends of runs lie half-way between two pixels: those of an edge with mixed pixels lie anywhere. */
function isStepped({ n, x, y }: Ring, runs: readonly Run[]): boolean {
  const off: number[] = [];
  for (const { from, to, isAcross } of runs) {
    const places = isAcross ? y : x;
    for (const k of to > from + 1 ? [from % n, (to - 1) % n] : [from % n]) off.push(Math.abs(places[k] - Math.round(places[k])));
  }
  const halfWay = off.filter((offPx) => offPx <= HALF_WAY_PX);
  if (off.length < FEWEST || halfWay.length < STEPPED_SHARE * off.length) return false;
  const exact = halfWay.filter((offPx) => offPx <= EXACT_PX).length;
  return exact >= EXACT_SHARE * off.length || new Set(halfWay.map((offPx) => Math.round(offPx / APART_PX))).size >= FEWEST_APART;
}

/**
 * The first points of runs at the right-angled corners of the drawing, in order: where two long ones meet, and at both sides of the end of a bar, which lies
 * between two that go opposite ways and are longer still.
 */
function cornersAmong({ x, y, n, closed }: Ring, runs: readonly Run[]): number[] {
  const at = (k: number): Run | undefined => (closed ? runs[(k + runs.length) % runs.length] : runs[k]);
  const length = (run: Run | undefined): number => (run === undefined ? 0 : run.to - run.from);
  const way = ({ from, to, isAcross }: Run): number => (isAcross ? Math.sign(x[(to - 1) % n] - x[from % n]) : Math.sign(y[(to - 1) % n] - y[from % n]));
  const isEnd = (k: number): boolean => {
    const [before, after] = [at(k - 1), at(k + 1)];
    return before !== undefined && after !== undefined && Math.min(length(before), length(after)) > LONG_RUN && before.isAcross === after.isAcross && way(before) === -way(after);
  };
  const isCorner = (run: Run, k: number): boolean => {
    const before = at(k - 1);
    if (before === undefined || before.isAcross === run.isAcross) return false;
    return Math.min(length(before), length(run)) >= LONG_RUN || isEnd(k) || isEnd(k - 1);
  };
  return runs.filter(isCorner).map(({ from }) => from);
}
