/** A box of whole pixels; right and bottom are exclusive. */
export interface PixelBox {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/**
 * What the pixels of a box show of areas whose edges are given as chords: each the exact mean of what lies in it. A chord adds to its rows what changes at it,
 * times the area that it cuts off; sums along the rows give the pixels (the accumulation buffer of R. Levien's font-rs, 2016). Chords left of the box count as
 * well, those right of it do not matter.
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
    if (y0 === y1) return;
    const { left, right, top: first } = this.box;
    const slope = (x1 - x0) / (y1 - y0);
    const top = Math.max(y, Math.min(y0, y1));
    const bottom = Math.min(y + 1, Math.max(y0, y1));
    const xTop = x0 + (top - y0) * slope;
    const xBottom = x0 + (bottom - y0) * slope;
    const rise = (y1 > y0 ? step : -step) * (bottom - top);
    let a = Math.min(xTop, xBottom) - left;
    const b = Math.max(xTop, xBottom) - left;
    const width = right - left;
    const row = (y - first) * this.stride;
    if (a >= width) return;
    const perPx = b - a < 1e-9 ? 0 : rise / (b - a);
    if (a < 0) {
      this.changes[row] += b <= 0 ? rise : -a * perPx;
      if (b <= 0) return;
      a = 0;
    }
    if (perPx === 0) {
      this.span(row, a, a, rise);
      return;
    }
    for (const end = Math.min(b, width); a < end; ) {
      const next = Math.min(end, Math.floor(a) + 1);
      this.span(row, a, next, perPx * (next - a));
      a = next;
    }
  }

  private span(row: number, a: number, b: number, rise: number): void {
    const x = Math.floor(a);
    const after = rise * ((a + b) / 2 - x);
    this.changes[row + x] += rise - after;
    this.changes[row + x + 1] += after;
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
