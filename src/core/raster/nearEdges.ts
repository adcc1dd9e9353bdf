/** Stretches of the rows of a raster: those of row y are stretch rowFirst[y] to rowFirst[y + 1] (exclusive), each from `start` to `end` (exclusive) as flat indices. */
export interface Stretches {
  readonly rowFirst: Int32Array;
  readonly start: Int32Array;
  readonly end: Int32Array;
}

/**
 * Where a raster of labels is not plain: all cells within a square of `reachPx` to each side of a place where two labels meet. What lies outside has only cells
 * of its own label that near, so that filters with that reach leave it as it is. O(cells).
 */
export function nearEdges(labels: Uint8Array, width: number, height: number, reachPx: number): Stretches {
  const rowFirst = new Int32Array(height + 1);
  const start: number[] = [];
  const end: number[] = [];
  const counts = new Int32Array(width);
  const rows = new EdgeRows(labels, width, height, reachPx);
  for (let y = 0; y < Math.min(reachPx, height); y++) rows.add(counts, y, 1);
  for (let y = 0; y < height; y++) {
    if (y + reachPx < height) rows.add(counts, y + reachPx, 1);
    if (y - reachPx > 0) rows.add(counts, y - reachPx - 1, -1);
    rowFirst[y] = start.length;
    for (let x = 0; x < width; x++) {
      if (counts[x] === 0) continue;
      const from = x;
      while (x < width && counts[x] !== 0) x++;
      start.push(y * width + from);
      end.push(y * width + x);
    }
  }
  rowFirst[height] = start.length;
  return { rowFirst, start: Int32Array.from(start), end: Int32Array.from(end) };
}

/** The cells of a row that lie within reach, to the left and the right, of an edge in it or below it. */
class EdgeRows {
  constructor(
    private readonly labels: Uint8Array,
    private readonly width: number,
    private readonly height: number,
    private readonly reach: number,
  ) {}

  /** Adds to the counts of the columns, or takes off. */
  add(counts: Int32Array, y: number, sign: 1 | -1): void {
    const { labels, width, height, reach } = this;
    const down = y < height - 1 ? width : 0;
    let done = 0;
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (labels[i] === labels[i + down] && (x === width - 1 || labels[i] === labels[i + 1])) continue;
      const last = Math.min(width, x + reach + 2);
      for (let k = Math.max(done, x - reach); k < last; k++) counts[k] += sign;
      done = last;
    }
  }
}
