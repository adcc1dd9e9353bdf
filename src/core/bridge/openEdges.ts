import type { Rings } from '../geometry/rings.ts';

/** Where a line first meets an edge. */
export interface Met {
  readonly distance: number;
  readonly ring: number;
  /** Cosine between the line and the edge's normal: 1 straight across. */
  readonly across: number;
}

const MOST_CELLS = 400_000;
/** Rings that are hardly there have cells all the same, in units of the coordinates. */
const LEAST_CELL = 1e-4;

/** The edges of rings by the cells of a grid, for asking what a line meets first and whether a place is in an opening. */
export class OpenEdges {
  private readonly left: number;
  private readonly top: number;
  private readonly cell: number;
  private readonly columns: number;
  private readonly rows: number;
  private readonly starts: Int32Array;
  private readonly members: Int32Array;
  private readonly ends: Int32Array;
  private readonly ringOf: Int32Array;
  private readonly seen: Int32Array;
  private asked = 0;

  constructor(private readonly rings: Rings) {
    const { points, starts } = rings;
    const count = points.length / 2;
    [this.ends, this.ringOf, this.seen] = [new Int32Array(count), new Int32Array(count), new Int32Array(count)];
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let ring = 0; ring + 1 < starts.length; ring++) {
      for (let i = starts[ring]; i < starts[ring + 1]; i++) {
        this.ends[i] = i + 1 === starts[ring + 1] ? starts[ring] : i + 1;
        this.ringOf[i] = ring;
        left = Math.min(left, points[2 * i]);
        right = Math.max(right, points[2 * i]);
        top = Math.min(top, points[2 * i + 1]);
        bottom = Math.max(bottom, points[2 * i + 1]);
      }
    }
    const [width, height] = count === 0 ? [1, 1] : [right - left, bottom - top];
    this.cell = Math.max(Math.sqrt((width * height) / Math.min(MOST_CELLS, Math.max(16, 2 * count))), Math.max(width, height) / 4000, LEAST_CELL);
    [this.left, this.top] = count === 0 ? [0, 0] : [left, top];
    [this.columns, this.rows] = [Math.floor(width / this.cell) + 1, Math.floor(height / this.cell) + 1];
    const counts = new Int32Array(this.columns * this.rows + 1);
    const visit = (each: (cell: number, i: number) => void): void => {
      for (let i = 0; i < count; i++) {
        const j = this.ends[i];
        const [x0, x1] = [this.columnOf(Math.min(points[2 * i], points[2 * j])), this.columnOf(Math.max(points[2 * i], points[2 * j]))];
        const [y0, y1] = [this.rowOf(Math.min(points[2 * i + 1], points[2 * j + 1])), this.rowOf(Math.max(points[2 * i + 1], points[2 * j + 1]))];
        for (let y = y0; y <= y1; y++) for (let x = x0; x <= x1; x++) each(y * this.columns + x, i);
      }
    };
    visit((cell) => counts[cell + 1]++);
    for (let k = 1; k < counts.length; k++) counts[k] += counts[k - 1];
    this.starts = counts.slice();
    this.members = new Int32Array(counts[counts.length - 1]);
    visit((cell, i) => (this.members[counts[cell]++] = i));
  }

  /** What a line from a place in a direction (of length 1) meets first, up to a distance; undefined for nothing. Edges nearer than `from` are passed. */
  meet(x: number, y: number, dx: number, dy: number, most: number, from = 1e-6): Met | undefined {
    const { points } = this.rings;
    this.asked++;
    let best: Met | undefined;
    // From outside it begins where it comes to the grid.
    const entry = this.entry(x, y, dx, dy);
    if (entry > most) return undefined;
    let column = Math.floor((x + dx * entry - this.left) / this.cell);
    let row = Math.floor((y + dy * entry - this.top) / this.cell);
    const [stepX, stepY] = [dx > 0 ? 1 : -1, dy > 0 ? 1 : -1];
    const perX = dx === 0 ? Infinity : this.cell / Math.abs(dx);
    const perY = dy === 0 ? Infinity : this.cell / Math.abs(dy);
    let nextX = dx === 0 ? Infinity : ((column + (dx > 0 ? 1 : 0)) * this.cell + this.left - x) / dx;
    let nextY = dy === 0 ? Infinity : ((row + (dy > 0 ? 1 : 0)) * this.cell + this.top - y) / dy;
    let along = entry;
    while (along <= most && (best === undefined || along <= best.distance)) {
      if (column >= 0 && row >= 0 && column < this.columns && row < this.rows) {
        const cell = row * this.columns + column;
        for (let k = this.starts[cell]; k < this.starts[cell + 1]; k++) {
          const i = this.members[k];
          if (this.seen[i] === this.asked) continue;
          this.seen[i] = this.asked;
          const j = this.ends[i];
          const [ex, ey] = [points[2 * j] - points[2 * i], points[2 * j + 1] - points[2 * i + 1]];
          const cross = dx * ey - dy * ex;
          if (cross === 0) continue;
          const [px, py] = [points[2 * i] - x, points[2 * i + 1] - y];
          const distance = (px * ey - py * ex) / cross;
          const t = (px * dy - py * dx) / cross;
          if (distance <= from || distance > most || t < 0 || t > 1 || (best !== undefined && distance >= best.distance)) continue;
          best = { distance, ring: this.ringOf[i], across: Math.abs(cross) / Math.hypot(ex, ey) };
        }
      }
      if (nextX < nextY) {
        along = nextX;
        nextX += perX;
        column += stepX;
      } else {
        along = nextY;
        nextY += perY;
        row += stepY;
      }
      if (!Number.isFinite(along)) break;
      // Beyond the last cell on its way there is nothing more.
      if ((stepX > 0 ? column >= this.columns : column < 0) || (stepY > 0 ? row >= this.rows : row < 0)) break;
    }
    return best;
  }

  /** How far along a line the grid begins; infinite when it passes by. */
  private entry(x: number, y: number, dx: number, dy: number): number {
    let [from, to] = [0, Infinity];
    for (const [at, way, low, cells] of [[x, dx, this.left, this.columns], [y, dy, this.top, this.rows]] as const) {
      const [near, far] = [low - at, low + cells * this.cell - at];
      if (way === 0) {
        if (near > 0 || far < 0) return Infinity;
        continue;
      }
      from = Math.max(from, Math.min(near / way, far / way));
      to = Math.min(to, Math.max(near / way, far / way));
    }
    return from > to ? Infinity : from;
  }

  /** Whether a place is inside of the rings, even-odd. */
  isInside(x: number, y: number): boolean {
    const { points } = this.rings;
    const row = Math.floor((y - this.top) / this.cell);
    if (row < 0 || row >= this.rows) return false;
    this.asked++;
    let isIn = false;
    for (let column = Math.max(0, Math.floor((x - this.left) / this.cell)); column < this.columns; column++) {
      const cell = row * this.columns + column;
      for (let k = this.starts[cell]; k < this.starts[cell + 1]; k++) {
        const i = this.members[k];
        if (this.seen[i] === this.asked) continue;
        this.seen[i] = this.asked;
        const j = this.ends[i];
        const [ay, by] = [points[2 * i + 1], points[2 * j + 1]];
        if (ay > y !== by > y && x < ((points[2 * j] - points[2 * i]) * (y - ay)) / (by - ay) + points[2 * i]) isIn = !isIn;
      }
    }
    return isIn;
  }

  private columnOf = (x: number): number => Math.min(this.columns - 1, Math.max(0, Math.floor((x - this.left) / this.cell)));
  private rowOf = (y: number): number => Math.min(this.rows - 1, Math.max(0, Math.floor((y - this.top) / this.cell)));
}
