import { alongRow } from './rowChords.ts';

/** A box of whole pixels; right and bottom are exclusive. */
export interface PixelBox {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/**
 * What the pixels of a box show of areas whose edges are given as chords: each the exact mean of what lies in it. A chord adds to its rows what changes at it,
 * times the area that it cuts off; sums along the rows give the pixels. Chords left of the box count as well, those right of it do not matter.
 */
export class SharesWithin {
  private readonly changes: Float64Array;
  private readonly stride: number;

  constructor(readonly box: PixelBox) {
    this.stride = box.right - box.left + 2;
    this.changes = new Float64Array(this.stride * (box.bottom - box.top));
  }

  /** The same with some chords more, which count so many times. */
  with(chords: readonly number[], step: number): SharesWithin {
    const copy = new SharesWithin(this.box);
    copy.changes.set(this.changes);
    copy.addAll(chords, step);
    return copy;
  }

  /** Chords as x0, y0, x1, y1 of each. */
  addAll(chords: readonly number[], step: number): void {
    for (let k = 0; k < chords.length; k += 4) this.add(chords[k], chords[k + 1], chords[k + 2], chords[k + 3], step);
  }

  /** A chord in all its rows. @param step what a chord that goes down changes, from its left on the picture to its right. */
  add(x0: number, y0: number, x1: number, y1: number, step: number): void {
    const from = Math.max(this.box.top, Math.floor(Math.min(y0, y1)));
    const to = Math.min(this.box.bottom, Math.ceil(Math.max(y0, y1)));
    for (let y = from; y < to; y++) this.addInRow(y, x0, y0, x1, y1, step);
  }

  /** The part of a chord that lies in one row of the box. */
  addInRow(y: number, x0: number, y0: number, x1: number, y1: number, step: number): void {
    const { left, right, top } = this.box;
    const row = (y - top) * this.stride;
    alongRow(y, x0, y0, x1, y1, left, right - left, (x, here, next) => {
      this.changes[row + x] += step * here;
      this.changes[row + x + 1] += step * next;
    });
  }

  /** The pixels row by row. @param blur share of each neighbour, above, below, left and right, that a pixel takes of them. */
  pixels(blur: number): Float64Array {
    const { stride, changes } = this;
    const { left, right, top, bottom } = this.box;
    const [width, height] = [right - left, bottom - top];
    const out = new Float64Array(width * height);
    for (let y = 0, i = 0; y < height; y++) {
      let sum = 0;
      for (let x = 0, k = y * stride; x < width; x++, i++, k++) {
        sum += changes[k];
        out[i] = sum;
      }
    }
    if (blur >= LEAST_BLUR) {
      for (let y = 0; y < height; y++) blurLine(out, y * width, 1, width, blur);
      for (let x = 0; x < width; x++) blurLine(out, x, width, height, blur);
    }
    return out;
  }
}

/** A blur that takes less of a neighbour than this does not show. */
const LEAST_BLUR = 0.02;

function blurLine(values: Float64Array, from: number, step: number, count: number, blur: number): void {
  let before = values[from];
  for (let k = 0, i = from; k < count; k++, i += step) {
    const own = values[i];
    values[i] = own + blur * (before + (k + 1 < count ? values[i + step] : own) - 2 * own);
    before = own;
  }
}
