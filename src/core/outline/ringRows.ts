import type { Rings } from '../geometry/rings.ts';
import { insideRing } from './checkCurves.ts';

/** Rings of fewer points are looked through whole. */
const FEW = 200;
/** Sides on one row at the average. */
const ON_ROW = 4;

/** Tells whether points lie inside of a ring of many points: its sides are sorted by the rows that they cross. */
export class RingRows {
  private readonly from: number;
  private readonly to: number;
  private readonly rows: number;
  private top = Infinity;
  private height = 1;
  private first = new Int32Array(0);
  private sides = new Int32Array(0);

  constructor(
    private readonly rings: Rings,
    private readonly ring: number,
  ) {
    this.from = rings.starts[ring];
    this.to = rings.starts[ring + 1];
    const count = this.to - this.from;
    this.rows = count < FEW ? 0 : Math.ceil(count / ON_ROW);
    if (this.rows > 0) this.sort();
  }

  holds(x: number, y: number): boolean {
    if (this.rows === 0) return insideRing(this.rings, this.ring, x, y);
    const row = Math.floor((y - this.top) / this.height);
    if (row < 0 || row >= this.rows) return false;
    const { points } = this.rings;
    let inside = false;
    for (let k = this.first[row]; k < this.first[row + 1]; k++) {
      const i = this.sides[k];
      const j = i === this.from ? this.to - 1 : i - 1;
      const [yi, yj] = [points[2 * i + 1], points[2 * j + 1]];
      if (yi > y !== yj > y && x < ((points[2 * j] - points[2 * i]) * (y - yi)) / (yj - yi) + points[2 * i]) inside = !inside;
    }
    return inside;
  }

  /** Sides by rows; each is known by its later end. */
  private sort(): void {
    const { points } = this.rings;
    let bottom = -Infinity;
    for (let i = this.from; i < this.to; i++) {
      this.top = Math.min(this.top, points[2 * i + 1]);
      bottom = Math.max(bottom, points[2 * i + 1]);
    }
    this.height = (bottom - this.top) / this.rows || 1;
    const rowOf = (y: number): number => Math.max(0, Math.min(this.rows - 1, Math.floor((y - this.top) / this.height)));
    const spans = (i: number): readonly [number, number] => {
      const [a, b] = [points[2 * i + 1], points[2 * (i === this.from ? this.to - 1 : i - 1) + 1]];
      return [rowOf(Math.min(a, b)), rowOf(Math.max(a, b))];
    };
    this.first = new Int32Array(this.rows + 1);
    for (let i = this.from; i < this.to; i++) {
      const [low, high] = spans(i);
      for (let row = low; row <= high; row++) this.first[row + 1]++;
    }
    for (let row = 0; row < this.rows; row++) this.first[row + 1] += this.first[row];
    this.sides = new Int32Array(this.first[this.rows]);
    const at = this.first.slice();
    for (let i = this.from; i < this.to; i++) {
      const [low, high] = spans(i);
      for (let row = low; row <= high; row++) this.sides[at[row]++] = i;
    }
  }
}
