/** The lowest label in a set, as its number. */
export const lowestOf = (set: number): number => 31 - Math.clz32(set & -set);

/**
 * The sets of labels (below 32) around a place, as bits. The columns of the rows around one row are each joined once, when a pixel first asks for them.
 */
export class SetsAround {
  private readonly columns: Int32Array;
  /** Row for which each column was joined. */
  private readonly joinedFor: Int32Array;
  private y = 0;

  /** @param counts not 0 for the pixels that count. @param reach px to each side. */
  constructor(
    private readonly labels: Uint8Array,
    private readonly counts: Uint8Array,
    private readonly width: number,
    private readonly height: number,
    private readonly reach: number,
  ) {
    this.columns = new Int32Array(width);
    this.joinedFor = new Int32Array(width).fill(-1);
  }

  toRow(y: number): void {
    this.y = y;
  }

  /** The labels in the square around a place of the row. */
  around(x: number): number {
    const { columns, joinedFor, reach, width, y } = this;
    let set = 0;
    for (let k = Math.max(0, x - reach), last = Math.min(width - 1, x + reach); k <= last; k++) {
      if (joinedFor[k] !== y) this.join(k);
      set |= columns[k];
    }
    return set;
  }

  private join(x: number): void {
    const { labels, counts, width, height, reach, y } = this;
    let set = 0;
    for (let i = Math.max(0, y - reach) * width + x, last = Math.min(height - 1, y + reach) * width + x; i <= last; i += width)
      if (counts[i] !== 0) set |= 1 << labels[i];
    this.columns[x] = set;
    this.joinedFor[x] = y;
  }
}
