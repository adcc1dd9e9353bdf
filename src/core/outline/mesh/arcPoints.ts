import { ringThrough, type Ring } from '../corners.ts';
import { STEPLESS, withoutSteps } from '../withoutSteps.ts';
import { leftCell, type CrackArcs } from './crackArcs.ts';

/** An arc with fewer points keeps every crossing, also those that place the edge poorly. */
const FEW_CLOSED = 12;
const FEW_OPEN = 4;
/** Along an edge that runs between pixels at most every other crack is not crossed. Where so many in a row say nothing, each is asked for its best guess. */
const LONGEST_SILENCE = 6;

/** Says where edges cross between pixels. */
export interface CrackPlaces {
  /** The labels between which edges are placed from now on. */
  between(left: number, right: number): void;
  /**
   * Where the edge crosses from the centre of cell `left` towards that of `left + across`, px; NaN where it runs nearly along the way between the two and is
   * better placed by others, unless `every` crossing is wanted.
   * @param along from a cell to the next one in the direction of travel.
   */
  crossing(left: number, across: number, along: number, every: boolean): number;
  /** Width over which the tones mix at the edges placed since, px. */
  edgeWidthPx(): number;
  /** How restless the tones are beside the edges placed since; undefined when it is not known. */
  stray(): Stray | undefined;
}

/** How far plain pixels beside an edge stray from their tone: by noise, or by what compression leaves around edges. */
export interface Stray {
  /** The middle one of them, as a share of the way between the edge's two tones. */
  readonly middle: number;
  /** How many pixels say so. */
  readonly count: number;
}

/** The points of an arc with what they say of its picture. */
export interface ArcPoints {
  readonly ring: Ring;
  /** Width over which its tones mix, px: 1 when only area sampling mixed them. */
  readonly edgeWidthPx: number;
  /** Whether none of its pixels was mixed: its points were led through the middle of their steps. */
  readonly isStepped: boolean;
  /** How far the points stray, px. */
  readonly roughPx: number;
  /** The same of neighbouring points alone, in which the shape of the edge hardly shows, and compression neither. */
  readonly finelyRoughPx: number;
  readonly stray: Stray | undefined;
}

/**
 * The points of one arc inside the pixels, in picture px: one for each crack that the edge crosses rather than runs along, since the others place it poorly.
 * A chord of an open arc to its nodes is not among them.
 */
export function arcPoints(arcs: CrackArcs, arc: number, places: CrackPlaces): ArcPoints {
  const from = arcs.starts[arc];
  const to = arcs.starts[arc + 1];
  const closed = arcs.from[arc] < 0;
  places.between(arcs.left[arc], arcs.right[arc]);
  const x = new Float64Array(to - from);
  const y = new Float64Array(to - from);
  let n = collect(arcs, from, to, places, false, x, y);
  if (n < (closed ? FEW_CLOSED : FEW_OPEN)) n = collect(arcs, from, to, places, true, x, y);
  const found = ringThrough(x.subarray(0, n), y.subarray(0, n), closed);
  const stepless = withoutSteps(found);
  const ring = stepless ?? found;
  return { ring, edgeWidthPx: stepless === undefined ? places.edgeWidthPx() : STEPLESS.widthPx, isStepped: stepless !== undefined, roughPx: roughness(ring, LAG), finelyRoughPx: roughness(ring, 1), stray: places.stray() };
}

function collect(arcs: CrackArcs, from: number, to: number, places: CrackPlaces, every: boolean, x: Float64Array, y: Float64Array): number {
  const { cracks, stride } = arcs;
  const ahead = [-stride, 1, stride, -1];
  let n = 0;
  let silent = 0;
  const add = (k: number, atAnyRate: boolean): boolean => {
    const v = cracks[k] >> 2;
    const direction = cracks[k] & 3;
    const left = leftCell(v, direction, stride);
    const across = ahead[(direction + 1) & 3];
    const at = places.crossing(left, across, ahead[direction], atAnyRate);
    if (Number.isNaN(at)) return false;
    const row = (left / stride) | 0;
    x[n] = left - row * stride - 0.5 + (across === 1 ? at : across === -1 ? -at : 0);
    y[n++] = row - 0.5 + (across === stride ? at : across === -stride ? -at : 0);
    return true;
  };
  const breakSilence = (end: number): void => {
    if (silent >= LONGEST_SILENCE) for (let k = end - silent; k < end; k++) add(k, true);
    silent = 0;
  };
  for (let k = from; k < to; k++) {
    silent++;
    if (!add(k, every)) continue;
    if (silent <= LONGEST_SILENCE) {
      silent = 0;
      continue;
    }
    // What was silent comes before the crossing that ended it.
    n--;
    silent--;
    breakSilence(k);
    add(k, every);
  }
  breakSilence(to);
  return n;
}

/** Points between those that are compared for roughness: compression errs alike over a few px. */
const LAG = 3;

/**
 * How far the points of an edge stray from a smooth line, px (standard deviation): from third differences, which a curve hardly has, by their median, which
 * corners do not move. @param lag points between those compared. 0 for edges too short to say.
 */
function roughness({ n, x, y, closed }: Ring, lag: number): number {
  const count = closed ? n : n - 3 * lag;
  if (n < 4 * LAG || count < 1) return 0;
  const off = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    const b = (k + lag) % n;
    const c = (k + 2 * lag) % n;
    const d = (k + 3 * lag) % n;
    const dx = x[d] - x[k];
    const dy = y[d] - y[k];
    const length = Math.sqrt(dx * dx + dy * dy);
    const ex = x[d] - 3 * x[c] + 3 * x[b] - x[k];
    const ey = y[d] - 3 * y[c] + 3 * y[b] - y[k];
    off[k] = length > 1e-9 ? Math.abs(ex * dy - ey * dx) / length : Math.hypot(ex, ey);
  }
  off.sort();
  // Third differences of white noise have twenty times its variance.
  return off[count >> 1] / (0.6745 * Math.sqrt(20));
}
