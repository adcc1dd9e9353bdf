/**
 * Stretches of the rows of a raster: those of row y are stretch rowFirst[y] to rowFirst[y + 1] (exclusive), each from `start` to `end` (exclusive) as flat
 * indices.
 */
export interface Stretches {
  readonly rowFirst: Int32Array;
  readonly start: Int32Array;
  readonly end: Int32Array;
}

/**
 * Places of a raster of labels where a cell differs from the one to its right or below it: those of row y are place rowFirst[y] to rowFirst[y + 1] (exclusive).
 */
export interface LabelEdges {
  readonly labels: Uint8Array;
  readonly width: number;
  readonly height: number;
  readonly rowFirst: Int32Array;
  readonly x: Int32Array;
}

export function labelEdges(labels: Uint8Array, width: number, height: number): LabelEdges {
  const rowFirst = new Int32Array(height + 1);
  const found: number[] = [];
  for (let y = 0; y < height; y++) {
    addEdges(labels, y * width, width, y < height - 1 ? width : 0, found);
    rowFirst[y + 1] = found.length;
  }
  return { labels, width, height, rowFirst, x: Int32Array.from(found) };
}

function addEdges(labels: Uint8Array, row: number, width: number, down: number, found: number[]): void {
  const last = row + width - 1;
  for (let i = row; i < last; i++) if (labels[i] !== labels[i + down] || labels[i] !== labels[i + 1]) found.push(i - row);
  if (labels[last] !== labels[last + down]) found.push(width - 1);
}

/**
 * Where a raster of labels is not plain: all cells within a square of `reachPx` to each side of a place where two labels meet. What lies outside has only cells
 * of its own label that near, so that filters with that reach leave it as it is. O(cells).
 * @param label only where this label meets others; all of them when absent.
 */
export function nearEdges(edges: LabelEdges, reachPx: number, label?: number): Stretches {
  const { width, height } = edges;
  const rowFirst = new Int32Array(height + 1);
  const start: number[] = [];
  const end: number[] = [];
  const counts = new Int32Array(width);
  for (let y = 0; y < Math.min(reachPx, height); y++) countRow(edges, counts, y, 1, reachPx, label);
  for (let y = 0; y < height; y++) {
    if (y + reachPx < height) countRow(edges, counts, y + reachPx, 1, reachPx, label);
    if (y - reachPx > 0) countRow(edges, counts, y - reachPx - 1, -1, reachPx, label);
    rowFirst[y] = start.length;
    addStretches(counts, y * width, start, end);
  }
  rowFirst[height] = start.length;
  return { rowFirst, start: Int32Array.from(start), end: Int32Array.from(end) };
}

/** Where the counts of a row are not 0. */
function addStretches(counts: Int32Array, row: number, start: number[], end: number[]): void {
  for (let x = 0; x < counts.length; x++) {
    if (counts[x] === 0) continue;
    start.push(row + x);
    while (x < counts.length && counts[x] !== 0) x++;
    end.push(row + x);
  }
}

/** Adds the cells of a row that lie within reach, to the left and the right, of an edge in it or below it to the counts of the columns, or takes them off. */
function countRow(
  { labels, width, height, rowFirst, x }: LabelEdges,
  counts: Int32Array,
  y: number,
  sign: 1 | -1,
  reach: number,
  label: number | undefined,
): void {
  const down = y < height - 1 ? width : 0;
  let done = 0;
  for (let k = rowFirst[y]; k < rowFirst[y + 1]; k++) {
    const at = x[k];
    const i = y * width + at;
    if (label !== undefined && !isEdgeOf(label, labels[i], labels[i + down], at === width - 1 ? labels[i] : labels[i + 1])) continue;
    const last = Math.min(width, at + reach + 2);
    for (let c = Math.max(done, at - reach); c < last; c++) counts[c] += sign;
    done = last;
  }
}

const isEdgeOf = (label: number, own: number, below: number, right: number): boolean =>
  (own === label) !== (below === label) || (own === label) !== (right === label);
