import type { CellMask } from './cellMask.ts';

const BITS = 32;

/**
 * What is taken of a sheet, as cells: a row of bits across the sheet for each column along it. For each column it also knows what is taken within the next 2, 4, 8, … cells, so that where a mask fits is
 * told for all places of a column at once, a word of bits at a time.
 */
export class CellGrid {
  private readonly words: number;
  private readonly levels: number;
  /** [column][level][word] */
  private readonly taken: Uint32Array;
  private readonly clash: Uint32Array;

  constructor(readonly columns: number, readonly rows: number) {
    this.words = Math.ceil(rows / BITS);
    this.levels = 1;
    while (1 << this.levels <= rows) this.levels++;
    this.taken = new Uint32Array(columns * this.levels * this.words);
    this.clash = new Uint32Array(this.words);
  }

  /** The first place along the grid, not before a column, where a mask lies free; of a column the first row. */
  firstFree(mask: CellMask, from: number): { column: number; row: number } | undefined {
    if (mask.rows > this.rows) return undefined;
    for (let column = from; column + mask.columns <= this.columns; column++) {
      const row = this.freeRow(mask, column);
      if (row >= 0) return { column, row };
    }
    return undefined;
  }

  /** Takes what a mask covers. */
  take({ columns, spans, spanStart }: CellMask, column: number, row: number): void {
    const { words, levels, taken } = this;
    for (let k = 0; k < columns; k++) {
      const at = (column + k) * levels * words;
      for (let s = spanStart[k]; s < spanStart[k + 1]; s++) {
        for (let bit = spans[2 * s] + row; bit < spans[2 * s + 1] + row; bit++) taken[at + (bit >>> 5)] |= 1 << (bit & 31);
      }
      for (let level = 1; level < levels; level++) {
        const [below, to] = [at + (level - 1) * words, at + level * words];
        taken.copyWithin(to, below, below + words);
        this.orShifted(taken, to, below, 1 << (level - 1));
      }
    }
  }

  private freeRow(mask: CellMask, column: number): number {
    const { words, levels, taken, clash } = this;
    const { spans, spanStart } = mask;
    clash.fill(0);
    for (let k = 0; k < mask.columns; k++) {
      const at = (column + k) * levels * words;
      for (let s = spanStart[k]; s < spanStart[k + 1]; s++) {
        const from = spans[2 * s];
        const length = spans[2 * s + 1] - from;
        const level = BITS - 1 - Math.clz32(length);
        this.orShifted(clash, 0, at + level * words, from, taken);
        const rest = length - (1 << level);
        if (rest > 0) this.orShifted(clash, 0, at + level * words, from + rest, taken);
      }
    }
    const most = this.rows - mask.rows;
    for (let word = 0; word <= most >>> 5; word++) {
      let free = ~clash[word];
      if (word === most >>> 5 && (most & 31) < 31) free &= (2 << (most & 31)) - 1;
      if (free !== 0) return word * BITS + (BITS - 1 - Math.clz32(free & -free));
    }
    return -1;
  }

  /** to |= bits of `of` moved down by a number of places. */
  private orShifted(to: Uint32Array, toAt: number, ofAt: number, by: number, of: Uint32Array = to): void {
    const { words } = this;
    const [whole, bits] = [by >>> 5, by & 31];
    for (let w = 0; w + whole < words; w++) {
      let value = of[ofAt + w + whole] >>> bits;
      if (bits > 0 && w + whole + 1 < words) value |= of[ofAt + w + whole + 1] << (BITS - bits);
      to[toAt + w] |= value;
    }
  }
}
