import type { ChordMap } from './chordMap.ts';

/** A chord that passes a point, and how far along it that is, 0 to 1. */
export interface OnChord {
  readonly chord: number;
  readonly along: number;
}

/** Finds chords that pass near a point, by a grid of the cells that each chord's box covers. */
export class ChordsNear {
  private readonly left: number;
  private readonly top: number;
  private readonly cell: number;
  private readonly columns: number;
  private readonly rows: number;
  private readonly first: Int32Array;
  private readonly chords: Int32Array;

  /** @param reachMm how far off a chord a point may lie. */
  constructor(
    private readonly map: ChordMap,
    private readonly reachMm: number,
  ) {
    const { x, y } = map;
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let k = 0; k < x.length; k++) {
      left = Math.min(left, x[k]);
      right = Math.max(right, x[k]);
      top = Math.min(top, y[k]);
      bottom = Math.max(bottom, y[k]);
    }
    this.left = left;
    this.top = top;
    this.cell = Math.max((right - left) / Math.sqrt(x.length + 1), (bottom - top) / Math.sqrt(x.length + 1), 4 * reachMm);
    this.columns = Math.floor((right - left) / this.cell) + 1;
    this.rows = Math.floor((bottom - top) / this.cell) + 1;
    this.first = new Int32Array(this.columns * this.rows + 1);
    for (let chord = 0; chord < x.length; chord++) this.eachCell(chord, (cell) => this.first[cell + 1]++);
    for (let cell = 0; cell < this.columns * this.rows; cell++) this.first[cell + 1] += this.first[cell];
    this.chords = new Int32Array(this.first[this.columns * this.rows]);
    const at = this.first.slice();
    for (let chord = 0; chord < x.length; chord++) this.eachCell(chord, (cell) => (this.chords[at[cell]++] = chord));
  }

  at(px: number, py: number): OnChord[] {
    const { x, y, next } = this.map;
    const cell = this.row(py) * this.columns + this.column(px);
    const found: OnChord[] = [];
    for (let k = this.first[cell]; k < this.first[cell + 1]; k++) {
      const chord = this.chords[k];
      const to = next[chord];
      const [dx, dy] = [x[to] - x[chord], y[to] - y[chord]];
      const length2 = dx * dx + dy * dy;
      const along = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((px - x[chord]) * dx + (py - y[chord]) * dy) / length2));
      if (Math.hypot(px - x[chord] - along * dx, py - y[chord] - along * dy) <= this.reachMm) found.push({ chord, along });
    }
    return found;
  }

  private eachCell(chord: number, visit: (cell: number) => void): void {
    const { x, y, next } = this.map;
    const to = next[chord];
    const reach = this.reachMm;
    const [fromColumn, toColumn] = [this.column(Math.min(x[chord], x[to]) - reach), this.column(Math.max(x[chord], x[to]) + reach)];
    const [fromRow, toRow] = [this.row(Math.min(y[chord], y[to]) - reach), this.row(Math.max(y[chord], y[to]) + reach)];
    for (let row = fromRow; row <= toRow; row++) for (let column = fromColumn; column <= toColumn; column++) visit(row * this.columns + column);
  }

  private column(x: number): number {
    return Math.max(0, Math.min(this.columns - 1, Math.floor((x - this.left) / this.cell)));
  }

  private row(y: number): number {
    return Math.max(0, Math.min(this.rows - 1, Math.floor((y - this.top) / this.cell)));
  }
}
