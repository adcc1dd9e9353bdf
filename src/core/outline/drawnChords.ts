import { boxOfPoints, isOpenRing, type Bounds, type Curves } from './curves.ts';
import { chordsByRow, ringChords, type RingChords, type RowChords } from './rowChords.ts';
import type { PixelBox, SharesWithin } from './sharesWithin.ts';

/** Closed rings no larger than this, px, are looked for by where they lie: what lies beside a box adds nothing to it. */
const SMALL_PX = 128;
/** Side of the squares by which they are looked for, px. */
const CELL_PX = 64;

/** Chords that were drawn of a ring and are no longer, those that took their place, and what they reach. */
interface Change extends Bounds {
  readonly ring: number;
  readonly before: readonly number[];
  readonly after: readonly number[];
}

/** Chords of all that is drawn of a picture, to be laid over the pixels of small boxes. */
export class DrawnChords {
  private readonly chords: RingChords;
  /** Chords of large and open rings by row. */
  private readonly rows: RowChords;
  /** First chord of each ring. */
  private readonly first: Int32Array;
  /** Small closed rings and what was changed, by the squares into which they reach. */
  private readonly small = new Squares<Bounds & { readonly ring: number }>();
  private readonly changes = new Squares<Change>();

  /** @param tolerancePx largest distance of the chords from the curves. @param height of the picture, px. */
  constructor(curves: Curves, tolerancePx: number, height: number) {
    this.chords = ringChords(curves, tolerancePx);
    const { from, ring } = this.chords;
    const count = curves.parent.length;
    this.first = new Int32Array(count + 1);
    for (const k of ring) this.first[k + 1]++;
    for (let k = 0; k < count; k++) this.first[k + 1] += this.first[k];
    const isLarge = new Uint8Array(count);
    for (let k = 0; k < count; k++) {
      const box = boxOfPoints(from, this.first[k], this.first[k + 1]);
      if (isOpenRing(curves, k) || box.right - box.left > SMALL_PX || box.bottom - box.top > SMALL_PX) isLarge[k] = 1;
      else this.small.add({ ...box, ring: k });
    }
    this.rows = chordsByRow(this.chords, height, (k) => isLarge[k] === 1);
  }

  /** Other chords of a ring take the place of some, x0, y0, x1, y1 of each: both begin and end at the same places, so that they differ only where they lie. */
  replace(ring: number, before: readonly number[], after: readonly number[]): void {
    const all = [...before, ...after];
    this.changes.add({ ...boxOfPoints(all, 0, all.length / 2), ring, before, after });
  }

  /** Adds what reaches into the box of some shares. @param stepOf what a chord of a ring changes, from its right to its left. */
  addTo(shares: SharesWithin, stepOf: (ring: number) => number): void {
    const { box } = shares;
    const { from, to, ring } = this.chords;
    for (let y = box.top; y < box.bottom; y++) {
      for (let i = this.rows.first[y]; i < this.rows.first[y + 1]; i++) {
        const k = this.rows.chords[i];
        shares.addInRow(y, from[2 * k], from[2 * k + 1], to[2 * k], to[2 * k + 1], stepOf(ring[k]));
      }
    }
    for (const { ring: small } of this.small.near(box)) {
      const step = stepOf(small);
      for (let k = this.first[small]; k < this.first[small + 1]; k++) shares.add(from[2 * k], from[2 * k + 1], to[2 * k], to[2 * k + 1], step);
    }
    for (const { ring: changed, before, after } of this.changes.near(box)) {
      const step = stepOf(changed);
      shares.addAll(before, -step);
      shares.addAll(after, step);
    }
  }
}

/** Things found by where they lie. */
class Squares<Thing extends Bounds> {
  private readonly rows = new Map<number, Map<number, Thing[]>>();

  add(thing: Thing): void {
    for (let y = squareOf(thing.top); y <= squareOf(thing.bottom); y++) {
      let row = this.rows.get(y);
      if (row === undefined) this.rows.set(y, (row = new Map<number, Thing[]>()));
      for (let x = squareOf(thing.left); x <= squareOf(thing.right); x++) {
        const things = row.get(x);
        if (things === undefined) row.set(x, [thing]);
        else things.push(thing);
      }
    }
  }

  /** What may reach into a box. */
  near(box: PixelBox): ReadonlySet<Thing> {
    const found = new Set<Thing>();
    for (let y = squareOf(box.top); y <= squareOf(box.bottom); y++)
      for (let x = squareOf(box.left); x <= squareOf(box.right); x++) for (const thing of this.rows.get(y)?.get(x) ?? []) if (overlaps(thing, box)) found.add(thing);
    return found;
  }
}

const squareOf = (value: number): number => Math.floor(value / CELL_PX);
const overlaps = (a: Bounds, b: PixelBox): boolean => a.left < b.right && a.right > b.left && a.top < b.bottom && a.bottom > b.top;
