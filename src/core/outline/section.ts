import { calmed } from './calm.ts';
import { endAt, freeEndAt, type End } from './cubicFit.ts';
import type { Ring } from './corners.ts';

/**
 * A smooth stretch of a ring between two corners, or a whole ring without any: its points in order with, for each, the smoothed place and
 * direction that a joint there would have. Index 0 and n − 1 are the ends.
 */
export interface Section {
  readonly n: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly along: Float64Array;
  readonly joint: (k: number) => End;
  /** Whether it is a whole ring, whose first and last point are the same smooth place. */
  readonly closed: boolean;
}

/** Half-length of the stretch from which a joint takes its place and direction, px. */
const SMOOTH_PX = 3.2;

interface Place {
  readonly x: number;
  readonly y: number;
}

/** The stretch of a ring between two corners. Points nearer than `trimPx` to a corner are left out: they lie on the rounding. */
export function sectionBetween(ring: Ring, fromIndex: number, toIndex: number, from: Place, to: Place, trimPx: number, calmPx = 0): Section {
  const { n, x, y, along } = ring;
  const total = along[n];
  const last = toIndex > fromIndex ? toIndex : toIndex + n;
  const xs = new Float64Array(last - fromIndex + 3);
  const ys = new Float64Array(last - fromIndex + 3);
  xs[0] = from.x;
  ys[0] = from.y;
  let count = 1;
  const start = along[fromIndex];
  const length = (along[toIndex] - start + total) % total || total;
  for (let k = fromIndex; k <= last; k++) {
    const i = k < n ? k : k - n;
    const s = along[i] - start + (k < n ? 0 : total);
    if (s < trimPx || s > length - trimPx) continue;
    xs[count] = x[i];
    ys[count++] = y[i];
  }
  xs[count] = to.x;
  ys[count++] = to.y;
  const kept = withinEnds(xs, ys, count);
  return makeSection(kept.x, kept.y, calmPx, [freeEndAt(from.x, from.y), freeEndAt(to.x, to.y)]);
}

/**
 * The stretch of an open edge from point `fromIndex` to `toIndex` (inclusive) between two ends, which are corners or junctions. Points nearer than `trimPx` to
 * an end are left out: they lie on its rounding, or a third tone has a part in them.
 */
export function sectionWithin(ring: Ring, fromIndex: number, toIndex: number, from: End, to: End, trimPx: number, calmPx = 0): Section {
  const xs = new Float64Array(toIndex - fromIndex + 3);
  const ys = new Float64Array(toIndex - fromIndex + 3);
  xs[0] = from.x;
  ys[0] = from.y;
  let count = 1;
  const nearFrom2 = trimAt(ring, fromIndex, from, trimPx) ** 2;
  const nearTo2 = trimAt(ring, toIndex, to, trimPx) ** 2;
  for (let k = fromIndex; k <= toIndex; k++) {
    const x = ring.x[k];
    const y = ring.y[k];
    if ((x - from.x) ** 2 + (y - from.y) ** 2 < nearFrom2 || (x - to.x) ** 2 + (y - to.y) ** 2 < nearTo2) continue;
    xs[count] = x;
    ys[count++] = y;
  }
  xs[count] = to.x;
  ys[count++] = to.y;
  const kept = withinEnds(xs, ys, count);
  return makeSection(kept.x, kept.y, calmPx, [from, to]);
}

/** A point that lies past an end, by no more than this and no further to the side, px, belongs to what is beyond the corner. */
const PAST_PX = 4;
const ASIDE_PX = 1.2;
/** Past is where the way on to the end turns back: its cosine is below this. */
const BACK = -0.3;
/** Points nearer than this lie in one place, px. */
const SAME_PX = 0.3;

/** The points of an open section, of which so many are there, without those past its first and last: a curve through them would have a hook. */
function withinEnds(x: Float64Array, y: Float64Array, count: number): { readonly x: Float64Array; readonly y: Float64Array } {
  let first = 0;
  let last = count - 1;
  while (last - first > 1 && isPast(x, y, first, last - 1, last)) {
    x[last - 1] = x[last];
    y[last - 1] = y[last];
    last--;
  }
  while (last - first > 1 && isPast(x, y, last, first + 1, first)) {
    x[first + 1] = x[first];
    y[first + 1] = y[first];
    first++;
  }
  return { x: x.subarray(first, last + 1), y: y.subarray(first, last + 1) };
}

/** Whether a point lies past an end, seen from the last one before it that lies elsewhere. @param other end of the stretch. */
function isPast(x: Float64Array, y: Float64Array, other: number, at: number, end: number): boolean {
  const step = Math.sign(other - end);
  let before = at + step;
  while (before !== other && Math.abs(x[before] - x[at]) + Math.abs(y[before] - y[at]) < SAME_PX) before += step;
  const [dx, dy] = [x[at] - x[before], y[at] - y[before]];
  const [ex, ey] = [x[end] - x[at], y[end] - y[at]];
  const [length, past] = [Math.sqrt(dx * dx + dy * dy), Math.sqrt(ex * ex + ey * ey)];
  return past > 0 && past <= PAST_PX && dx * ex + dy * ey < BACK * length * past && Math.abs(dx * ey - dy * ex) <= ASIDE_PX * length;
}

/** Beyond the point of a corner that is nearest to it, so much of the trim lies on its rounding. */
const ROUNDING = 0.6;
/** Points on either side of a corner's own among which the nearest is looked for. */
const BESIDE = 2;

/** How far from an end its rounding reaches, px: a sharp tip lies further outside of its points, which then are on neither of its sides. */
function trimAt({ n, x, y }: Ring, index: number, { x: ex, y: ey }: Place, trimPx: number): number {
  let nearest2 = Infinity;
  for (let k = Math.max(0, index - BESIDE); k <= Math.min(n - 1, index + BESIDE); k++) nearest2 = Math.min(nearest2, (x[k] - ex) ** 2 + (y[k] - ey) ** 2);
  return nearest2 === Infinity ? trimPx : Math.max(trimPx, Math.sqrt(nearest2) + ROUNDING * trimPx);
}

/** A whole ring without corners, opened at point `start`, which is both first and last. */
export function closedSection(ring: Ring, start: number, calmPx = 0): Section {
  const { n, x, y } = ring;
  const xs = new Float64Array(n + 1);
  const ys = new Float64Array(n + 1);
  for (let k = 0; k <= n; k++) {
    xs[k] = x[(start + k) % n];
    ys[k] = y[(start + k) % n];
  }
  return makeSection(xs, ys, calmPx);
}

/** @param calmPx width over which the points are calmed. @param ends of an open section; a closed one has none. */
function makeSection(roughX: Float64Array, roughY: Float64Array, calmPx: number, ends?: readonly [End, End]): Section {
  const n = roughX.length;
  const closed = ends === undefined;
  const { x, y } = calmPx > 0 ? calmed(roughX, roughY, lengthsAlong(roughX, roughY), closed, calmPx) : { x: roughX, y: roughY };
  const along = lengthsAlong(x, y);
  const known: (End | undefined)[] = new Array<End | undefined>(n);
  const joint = (k: number): End => {
    const kept = known[k];
    if (kept !== undefined) return kept;
    const end = ends !== undefined && (k === 0 || k === n - 1) ? ends[k === 0 ? 0 : 1] : smoothed(x, y, along, k, closed);
    known[k] = end;
    if (closed && k === 0) known[n - 1] = end;
    if (closed && k === n - 1) known[0] = end;
    return end;
  };
  return { n, x, y, along, joint, closed };
}

function lengthsAlong(x: Float64Array, y: Float64Array): Float64Array {
  const along = new Float64Array(x.length);
  for (let k = 1; k < x.length; k++) along[k] = along[k - 1] + Math.sqrt((x[k] - x[k - 1]) ** 2 + (y[k] - y[k - 1]) ** 2);
  return along;
}

/** Place and direction at point k from a parabola through the points within the smoothing length, weighted down towards its ends. */
function smoothed(x: Float64Array, y: Float64Array, along: Float64Array, k: number, closed: boolean): End {
  const n = x.length;
  const total = along[n - 1];
  // Not further to one side than to the other, so that the ends of a section do not tilt the joint.
  const room = closed ? total / 4 : Math.min(along[k], total - along[k]);
  const half = Math.max(0.9, Math.min(SMOOTH_PX, room));
  const reach = half * 1.05;
  const span = closed ? n - 1 : n;
  let first = k;
  while (first > (closed ? k - n + 1 : 0) && alongAt(along, k, span, total) - alongAt(along, first - 1, span, total) <= half) first--;
  let last = k;
  while (last < (closed ? k + n - 1 : n - 1) && alongAt(along, last + 1, span, total) - alongAt(along, k, span, total) <= half) last++;
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let s4 = 0;
  let x0 = 0;
  let x1 = 0;
  let x2 = 0;
  let y0 = 0;
  let y1 = 0;
  let y2 = 0;
  for (let j = first; j <= last; j++) {
    const i = j < 0 ? j + span : j >= n ? j - span : j;
    const t = alongAt(along, j, span, total) - along[k];
    const share = t / reach;
    const w = 1 - share * share;
    const wt = w * t;
    const wt2 = wt * t;
    const px = x[i] - x[k];
    const py = y[i] - y[k];
    s0 += w;
    s1 += wt;
    s2 += wt2;
    s3 += wt2 * t;
    s4 += wt2 * t * t;
    x0 += w * px;
    x1 += wt * px;
    x2 += wt2 * px;
    y0 += w * py;
    y1 += wt * py;
    y2 += wt2 * py;
  }
  // The normal equations' first two unknowns, place and direction, by cofactors.
  const c00 = s2 * s4 - s3 * s3;
  const c01 = s2 * s3 - s1 * s4;
  const c02 = s1 * s3 - s2 * s2;
  const c11 = s0 * s4 - s2 * s2;
  const c12 = s1 * s2 - s0 * s3;
  const det = s0 * c00 + s1 * c01 + s2 * c02;
  if (Math.abs(det) < 1e-9) return plain(x, y, k, closed);
  const dx = (x0 * c01 + x1 * c11 + x2 * c12) / det;
  const dy = (y0 * c01 + y1 * c11 + y2 * c12) / det;
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length < 1e-9) return plain(x, y, k, closed);
  return endAt(x[k] + (x0 * c00 + x1 * c01 + x2 * c02) / det, y[k] + (y0 * c00 + y1 * c01 + y2 * c02) / det, dx / length, dy / length);
}

/** Distance along at point `j`, which may lie up to one turn of `span` points before or after a closed section's own. */
const alongAt = (along: Float64Array, j: number, span: number, total: number): number =>
  j < 0 ? along[j + span] - total : j >= along.length ? along[j - span] + total : along[j];

function plain(x: Float64Array, y: Float64Array, k: number, closed: boolean): End {
  const n = x.length;
  const a = k > 0 ? k - 1 : closed ? n - 2 : 0;
  const b = k < n - 1 ? k + 1 : closed ? 1 : n - 1;
  const dx = x[b] - x[a];
  const dy = y[b] - y[a];
  const length = Math.hypot(dx, dy) || 1;
  return endAt(x[k], y[k], dx / length, dy / length);
}
