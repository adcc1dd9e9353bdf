import type { Rings } from '../geometry/rings.ts';

/** More samples than this are taken further apart. */
const MOST_SAMPLES = 300_000;
/** Two sides bound a strip when they run within about 30° of each other: cosine of the angle between the outward normals, at most this. */
const OPPOSED = -0.86;
/** The other side lies straight across: cosine between the normal and the way to it, at least this. */
const ACROSS = 0.8;
/** The way along the outline from one side of a strip to the other is at least so many least widths: less is the pointed or blunt end of something. */
const LEAST_WAY_AROUND = 6;
/** Cells of the grid at most, and side by side. */
const MOST_CELLS = 4_000_000;
const MOST_ACROSS = 20_000;

/** Places along outlines, evenly apart, ring by ring. */
export interface EdgeSamples {
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Unit normals into the film. */
  readonly nx: Float64Array;
  readonly ny: Float64Array;
  /** First sample of each ring, and the count after the last. */
  readonly starts: Int32Array;
  readonly ring: Int32Array;
  readonly spacing: number;
}

/** @param wanted how far apart, in units of the coordinates. @param side which side of the outlines is film. */
export function edgeSamples({ points, starts }: Rings, wanted: number, side: 'inside' | 'outside' = 'inside'): EdgeSamples {
  const sign = side === 'inside' ? 1 : -1;
  let total = 0;
  for (let r = 0; r + 1 < starts.length; r++) for (let i = starts[r]; i < starts[r + 1]; i++) total += chord(points, i, next(starts, r, i));
  const spacing = Math.max(wanted, total / MOST_SAMPLES);
  const x: number[] = [];
  const y: number[] = [];
  const nx: number[] = [];
  const ny: number[] = [];
  const first = [0];
  for (let r = 0; r + 1 < starts.length; r++) {
    let carried = 0;
    for (let i = starts[r]; i < starts[r + 1]; i++) {
      const j = next(starts, r, i);
      const length = chord(points, i, j);
      const [dx, dy] = [(points[2 * j] - points[2 * i]) / length, (points[2 * j + 1] - points[2 * i + 1]) / length];
      let at = carried;
      for (; at < length; at += spacing) {
        x.push(points[2 * i] + dx * at);
        y.push(points[2 * i + 1] + dy * at);
        // Outer rings run clockwise on screen: film lies to their right.
        nx.push(-dy * sign);
        ny.push(dx * sign);
      }
      carried = at - length;
    }
    first.push(x.length);
  }
  const ring = new Int32Array(x.length);
  for (let r = 0; r + 1 < first.length; r++) ring.fill(r, first[r], first[r + 1]);
  return {
    ring,
    x: Float64Array.from(x),
    y: Float64Array.from(y),
    nx: Float64Array.from(nx),
    ny: Float64Array.from(ny),
    starts: Int32Array.from(first),
    spacing,
  };
}

const next = (starts: Int32Array, ring: number, i: number): number => (i + 1 === starts[ring + 1] ? starts[ring] : i + 1);
const chord = (points: Float64Array, i: number, j: number): number => Math.hypot(points[2 * j] - points[2 * i], points[2 * j + 1] - points[2 * i + 1]);

/** For each sample the width of the film there and the sample on the other side, −1 where it is wider than `leastMm`. Pairs that face each other across film are looked for through a grid. */
export function widthsAcross({ x, y, nx, ny, ring, starts, spacing }: EdgeSamples, leastMm: number): { width: Float64Array; partner: Int32Array } {
  const cells = new SampleCells(x, y, leastMm);
  const leastAround = (LEAST_WAY_AROUND * leastMm) / spacing;
  const isEnd = (k: number, q: number): boolean => {
    if (ring[k] !== ring[q]) return false;
    const way = Math.abs(k - q);
    return Math.min(way, starts[ring[k] + 1] - starts[ring[k]] - way) < leastAround;
  };
  const width = new Float64Array(x.length).fill(Infinity);
  const partner = new Int32Array(x.length).fill(-1);
  for (let k = 0; k < x.length; k++) {
    const [px, py, ax, ay] = [x[k], y[k], nx[k], ny[k]];
    let nearest = leastMm;
    let found = -1;
    cells.each(px, py, (from, to) => {
      for (let i = from; i < to; i++) {
        const q = cells.members[i];
        const [vx, vy] = [x[q] - px, y[q] - py];
        // What lies behind the edge, or further along it than the film is wide, is most of what is near.
        const across = vx * ax + vy * ay;
        if (across <= 0 || across >= nearest || ax * nx[q] + ay * ny[q] > OPPOSED) continue;
        const distance = Math.sqrt(vx * vx + vy * vy);
        if (distance >= nearest || across < ACROSS * distance || isEnd(k, q)) continue;
        nearest = distance;
        found = q;
      }
    });
    if (found < 0) continue;
    width[k] = nearest;
    partner[k] = found;
  }
  return { width, partner };
}

/** Samples by the cells of a grid, in rows: those of three cells side by side follow each other. */
class SampleCells {
  readonly members: Int32Array;
  private readonly starts: Int32Array;
  private readonly left: number;
  private readonly top: number;
  private readonly columns: number;
  private readonly rows: number;
  private readonly cell: number;

  constructor(x: Float64Array, y: Float64Array, leastCell: number) {
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let k = 0; k < x.length; k++) {
      if (x[k] < left) left = x[k];
      if (x[k] > right) right = x[k];
      if (y[k] < top) top = y[k];
      if (y[k] > bottom) bottom = y[k];
    }
    const area = Math.max(0, right - left) * Math.max(0, bottom - top);
    this.cell = Math.max(leastCell, Math.sqrt(area / MOST_CELLS), (right - left) / MOST_ACROSS, (bottom - top) / MOST_ACROSS);
    // A free cell all around, so that a look at the neighbours needs no check.
    [this.left, this.top] = [left - this.cell, top - this.cell];
    this.columns = x.length === 0 ? 3 : Math.floor((right - left) / this.cell) + 3;
    this.rows = x.length === 0 ? 3 : Math.floor((bottom - top) / this.cell) + 3;
    const counts = new Int32Array(this.columns * this.rows + 1);
    for (let k = 0; k < x.length; k++) counts[this.cellOf(x[k], y[k]) + 1]++;
    for (let k = 1; k < counts.length; k++) counts[k] += counts[k - 1];
    this.starts = counts.slice();
    this.members = new Int32Array(x.length);
    for (let k = 0; k < x.length; k++) this.members[counts[this.cellOf(x[k], y[k])]++] = k;
  }

  /** Gives the members of the nine cells around a sample as three stretches. */
  each(x: number, y: number, visit: (from: number, to: number) => void): void {
    const { starts, columns } = this;
    const middle = this.cellOf(x, y);
    for (const row of [middle - columns, middle, middle + columns]) if (starts[row - 1] < starts[row + 2]) visit(starts[row - 1], starts[row + 2]);
  }

  private cellOf(x: number, y: number): number {
    return Math.floor((y - this.top) / this.cell) * this.columns + Math.floor((x - this.left) / this.cell);
  }
}
