import type { Segments } from './chordMap.ts';

/** A cell has room for a segment, and is so many reaches broad at least. */
const LEAST_CELL = 8;
/** Segments are parted until their boxes are no longer than so many cells. */
const CELLS_LONG = 0.5;
/** A segment is in so many parts at most. */
const MOST_HALVINGS = 12;
/** Sides that meet more sharply than this are near each other beyond their common place, radians. */
const SHARP_RAD = 0.3;
/** Handles that turn more than this may bring a curve near to itself, radians. */
const MOST_TURN_RAD = 2;
/** Cells of the grid at most. */
const MOST_CELLS = 4_000_000;

/** Boxes of parts of segments, four numbers each, and which segment each is of. */
interface Parts {
  readonly boxes: Float64Array;
  readonly of: Int32Array;
}

/**
 * Which segments have no other one within a distance, but for those that they are joined to and part from clearly: chords that lie no further off cross nothing then, however coarse they are.
 * @param before the segment that ends where each begins, in its ring; the segment itself where there is none. @param reachMm the distance.
 * @returns 1 for each that is alone.
 */
export function aloneSegments(segments: Segments, before: Int32Array, reachMm: number): Uint8Array {
  const count = segments.at.length;
  const alone = new Uint8Array(count).fill(1);
  if (count === 0) return alone;
  const after = new Int32Array(count);
  for (let s = 0; s < count; s++) after[before[s]] = s;
  for (let s = 0; s < count; s++) {
    if (turnsBack(segments, s)) alone[s] = 0;
    if (before[s] !== s && meetsSharply(segments, before[s], s)) alone[s] = alone[before[s]] = 0;
  }
  const bounds = boundsOfAll(segments);
  const cell = Math.max(LEAST_CELL * reachMm, Math.sqrt(((bounds[2] - bounds[0]) * (bounds[3] - bounds[1])) / count));
  const parts = partsOf(segments, CELLS_LONG * cell, reachMm / 2);
  const grid = new Grid(parts, bounds, cell);
  grid.eachPair((p, q) => {
    const [s, t] = [parts.of[p], parts.of[q]];
    if (s === t || (alone[s] === 0 && alone[t] === 0) || after[s] === t || before[s] === t) return;
    const { boxes } = parts;
    const [i, j] = [4 * p, 4 * q];
    if (boxes[i] <= boxes[j + 2] && boxes[j] <= boxes[i + 2] && boxes[i + 1] <= boxes[j + 3] && boxes[j + 1] <= boxes[i + 3]) alone[s] = alone[t] = 0;
  });
  return alone;
}

function boundsOfAll({ coords, at, isCubic }: Segments): [number, number, number, number] {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let s = 0; s < at.length; s++) {
    for (let k = at[s]; k <= at[s] + (isCubic[s] === 1 ? 6 : 2); k += 2) {
      [left, right] = [Math.min(left, coords[k]), Math.max(right, coords[k])];
      [top, bottom] = [Math.min(top, coords[k + 1]), Math.max(bottom, coords[k + 1])];
    }
  }
  return [left, top, right, bottom];
}

/** Whether the handles of a curve turn so far that it may come near to itself. */
function turnsBack({ coords, at, isCubic }: Segments, s: number): boolean {
  if (isCubic[s] === 0) return false;
  const i = at[s];
  let turn = 0;
  let [px, py] = [0, 0];
  for (let k = i; k < i + 6; k += 2) {
    const [dx, dy] = [coords[k + 2] - coords[k], coords[k + 3] - coords[k + 1]];
    if (dx === 0 && dy === 0) continue;
    if (px !== 0 || py !== 0) turn += Math.abs(Math.atan2(px * dy - py * dx, px * dx + py * dy));
    [px, py] = [dx, dy];
  }
  return turn > MOST_TURN_RAD;
}

/** Whether a segment leaves the place where another one ends nearly the way that one came. */
function meetsSharply({ coords, at, isCubic }: Segments, first: number, second: number): boolean {
  const [from, to] = [at[first], at[first] + (isCubic[first] === 1 ? 6 : 2)];
  const start = at[second];
  const last = start + (isCubic[second] === 1 ? 6 : 2);
  const [x, y] = [coords[start], coords[start + 1]];
  let [ax, ay, bx, by] = [0, 0, 0, 0];
  for (let k = to - 2; k >= from && ax === 0 && ay === 0; k -= 2) [ax, ay] = [coords[k] - x, coords[k + 1] - y];
  for (let k = start + 2; k <= last && bx === 0 && by === 0; k += 2) [bx, by] = [coords[k] - x, coords[k + 1] - y];
  return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by)) < SHARP_RAD;
}

function partsOf({ coords, at, isCubic }: Segments, longest: number, grown: number): Parts {
  const boxes: number[] = [];
  const of: number[] = [];
  const add = (s: number, p: readonly number[], halvings: number): void => {
    const [left, right, top, bottom] = [Math.min(p[0], p[2], p[4], p[6]), Math.max(p[0], p[2], p[4], p[6]), Math.min(p[1], p[3], p[5], p[7]), Math.max(p[1], p[3], p[5], p[7])];
    if (halvings === MOST_HALVINGS || Math.max(right - left, bottom - top) <= longest) {
      boxes.push(left - grown, top - grown, right + grown, bottom + grown);
      of.push(s);
      return;
    }
    const [abx, aby, bcx, bcy, cdx, cdy] = [(p[0] + p[2]) / 2, (p[1] + p[3]) / 2, (p[2] + p[4]) / 2, (p[3] + p[5]) / 2, (p[4] + p[6]) / 2, (p[5] + p[7]) / 2];
    const [lx, ly, rx, ry] = [(abx + bcx) / 2, (aby + bcy) / 2, (bcx + cdx) / 2, (bcy + cdy) / 2];
    const [mx, my] = [(lx + rx) / 2, (ly + ry) / 2];
    add(s, [p[0], p[1], abx, aby, lx, ly, mx, my], halvings + 1);
    add(s, [mx, my, rx, ry, cdx, cdy, p[6], p[7]], halvings + 1);
  };
  for (let s = 0; s < at.length; s++) {
    const i = at[s];
    if (isCubic[s] === 1) add(s, [coords[i], coords[i + 1], coords[i + 2], coords[i + 3], coords[i + 4], coords[i + 5], coords[i + 6], coords[i + 7]], 0);
    else {
      const [x0, y0, x1, y1] = [coords[i], coords[i + 1], coords[i + 2], coords[i + 3]];
      add(s, [x0, y0, (2 * x0 + x1) / 3, (2 * y0 + y1) / 3, (x0 + 2 * x1) / 3, (y0 + 2 * y1) / 3, x1, y1], 0);
    }
  }
  return { boxes: Float64Array.from(boxes), of: Int32Array.from(of) };
}

/** Boxes by the cells that they reach. */
class Grid {
  private readonly columns: number;
  private readonly rows: number;
  private readonly cell: number;
  private readonly starts: Int32Array;
  private readonly members: Int32Array;

  constructor({ boxes, of }: Parts, private readonly bounds: readonly [number, number, number, number], wanted: number) {
    const [left, top, right, bottom] = bounds;
    this.cell = Math.max(wanted, Math.sqrt(((right - left) * (bottom - top)) / MOST_CELLS));
    this.columns = Math.max(1, Math.ceil((right - left) / this.cell));
    this.rows = Math.max(1, Math.ceil((bottom - top) / this.cell));
    const counts = new Int32Array(this.columns * this.rows + 1);
    for (let p = 0; p < of.length; p++) this.eachCell(boxes, p, (cell) => counts[cell + 1]++);
    for (let k = 1; k < counts.length; k++) counts[k] += counts[k - 1];
    this.starts = counts.slice();
    this.members = new Int32Array(counts[counts.length - 1]);
    for (let p = 0; p < of.length; p++) this.eachCell(boxes, p, (cell) => (this.members[counts[cell]++] = p));
  }

  /** Boxes that share a cell; a pair comes once for each cell that it shares. */
  eachPair(visit: (p: number, q: number) => void): void {
    const { starts, members } = this;
    for (let cell = 0; cell + 1 < starts.length; cell++) {
      for (let a = starts[cell]; a < starts[cell + 1]; a++) for (let b = a + 1; b < starts[cell + 1]; b++) visit(members[a], members[b]);
    }
  }

  private eachCell(boxes: Float64Array, p: number, visit: (cell: number) => void): void {
    const [left, top] = this.bounds;
    const clamp = (value: number, most: number): number => Math.max(0, Math.min(most - 1, Math.floor(value / this.cell)));
    const [x0, x1] = [clamp(boxes[4 * p] - left, this.columns), clamp(boxes[4 * p + 2] - left, this.columns)];
    const [y0, y1] = [clamp(boxes[4 * p + 1] - top, this.rows), clamp(boxes[4 * p + 3] - top, this.rows)];
    for (let y = y0; y <= y1; y++) for (let x = x0; x <= x1; x++) visit(y * this.columns + x);
  }
}
