/**
 * Connected regions of equal cells, by runs and union-find (He, Chao & Suzuki, "A run-based two-scan labeling algorithm", IEEE TIP 17(5),
 * 2008, doi:10.1109/TIP.2008.919369). Runs, not pixels, are what is joined, so plain areas cost next to nothing.
 */
export interface Regions {
  /** Run k covers cells runStart[k] to runEnd[k] (exclusive) as flat pixel indices; runs are in raster order. */
  readonly runStart: Int32Array;
  readonly runEnd: Int32Array;
  /** Region of each run, 0 to count − 1. */
  readonly regionOfRun: Int32Array;
  readonly count: number;
  /** Pixels in each region. */
  readonly area: Float64Array;
  /** 1 when a region touches the border of the raster. */
  readonly touchesBorder: Uint8Array;
}

/**
 * Labels the cells with `cells[i] === wanted`, or with `each` all cells, where only equal ones belong together.
 * @param diagonal join over corners too (8 neighbours instead of 4).
 */
export function labelRegions(cells: Uint8Array, width: number, height: number, wanted: number | 'each', diagonal: boolean): Regions {
  const { starts, ends, rowFirst } = collectRuns(cells, width, height, wanted);
  const parent = joinRuns(cells, { starts, ends, rowFirst }, width, height, diagonal ? 1 : 0);
  const regionOfRun = new Int32Array(starts.length);
  let count = 0;
  for (let k = 0; k < starts.length; k++) {
    if (parent[k] === k) regionOfRun[k] = count++;
    else regionOfRun[k] = regionOfRun[rootOf(parent, k)];
  }
  const area = new Float64Array(count);
  const touchesBorder = new Uint8Array(count);
  const lastRow = (height - 1) * width;
  for (let k = 0; k < starts.length; k++) {
    const region = regionOfRun[k];
    const start = starts[k];
    const end = ends[k];
    area[region] += end - start;
    if (start < width || start >= lastRow || start % width === 0 || end % width === 0) touchesBorder[region] = 1;
  }
  return { runStart: starts, runEnd: ends, regionOfRun, count, area, touchesBorder };
}

/** The runs of each region: those of region k are runs[first[k]] to runs[first[k + 1]] (exclusive), in raster order. */
export function runsByRegion({ regionOfRun, count }: Pick<Regions, 'regionOfRun' | 'count'>): { readonly first: Int32Array; readonly runs: Int32Array } {
  const first = new Int32Array(count + 1);
  for (let run = 0; run < regionOfRun.length; run++) first[regionOfRun[run] + 1]++;
  for (let k = 0; k < count; k++) first[k + 1] += first[k];
  const next = first.slice();
  const runs = new Int32Array(regionOfRun.length);
  for (let run = 0; run < regionOfRun.length; run++) runs[next[regionOfRun[run]]++] = run;
  return { first, runs };
}

/** The region with the most pixels, −1 when there is none. */
export function largestRegion({ area }: Pick<Regions, 'area'>): number {
  let largest = area.length - 1;
  for (let k = largest; k >= 0; k--) if (area[k] >= area[largest]) largest = k;
  return largest;
}

/** Sets the pixels of the chosen regions to 1. @param chosen other than 0 for those. @param into of the raster's size. */
export function fillRegions({ runStart, runEnd, regionOfRun }: Regions, chosen: ArrayLike<number>, into: Uint8Array): Uint8Array {
  for (let run = 0; run < runStart.length; run++) if (chosen[regionOfRun[run]] !== 0) into.fill(1, runStart[run], runEnd[run]);
  return into;
}

interface Runs {
  readonly starts: Int32Array;
  readonly ends: Int32Array;
  /** First run of each row, and the count after the last. */
  readonly rowFirst: Int32Array;
}

function collectRuns(cells: Uint8Array, width: number, height: number, wanted: number | 'each'): Runs {
  let capacity = Math.max(1024, height * 4);
  let starts = new Int32Array(capacity);
  let ends = new Int32Array(capacity);
  const rowFirst = new Int32Array(height + 1);
  let count = 0;
  for (let y = 0, i = 0; y < height; y++) {
    rowFirst[y] = count;
    const rowEnd = i + width;
    while (i < rowEnd) {
      if (wanted !== 'each') while (i < rowEnd && cells[i] !== wanted) i++;
      if (i === rowEnd) break;
      if (count === capacity) {
        capacity *= 2;
        starts = grown(starts, capacity);
        ends = grown(ends, capacity);
      }
      starts[count] = i;
      const value = cells[i];
      while (i < rowEnd && cells[i] === value) i++;
      ends[count++] = i;
    }
  }
  rowFirst[height] = count;
  return { starts: starts.subarray(0, count), ends: ends.subarray(0, count), rowFirst };
}

function grown(array: Int32Array<ArrayBuffer>, capacity: number): Int32Array<ArrayBuffer> {
  const larger = new Int32Array(capacity);
  larger.set(array);
  return larger;
}

/** Union of the runs that touch in neighbouring rows. The smaller run number is always the root. */
function joinRuns(cells: Uint8Array, { starts, ends, rowFirst }: Runs, width: number, height: number, slack: 0 | 1): Int32Array {
  const parent = new Int32Array(starts.length);
  for (let k = 0; k < parent.length; k++) parent[k] = k;
  for (let y = 1; y < height; y++) {
    let above = rowFirst[y - 1];
    let below = rowFirst[y];
    const aboveEnd = below;
    const belowEnd = rowFirst[y + 1];
    while (above < aboveEnd && below < belowEnd) {
      const aboveFrom = starts[above] + width;
      const aboveTo = ends[above] + width;
      if (aboveFrom < ends[below] + slack && starts[below] < aboveTo + slack && cells[starts[above]] === cells[starts[below]]) unite(parent, above, below);
      if (aboveTo < ends[below]) above++;
      else below++;
    }
  }
  return parent;
}

/** The root of a cell's set, the way to it made shorter. */
export function rootOf(parent: Int32Array, k: number): number {
  while (parent[k] !== k) {
    parent[k] = parent[parent[k]];
    k = parent[k];
  }
  return k;
}

function unite(parent: Int32Array, a: number, b: number): void {
  const rootA = rootOf(parent, a);
  const rootB = rootOf(parent, b);
  if (rootA < rootB) parent[rootB] = rootA;
  else parent[rootA] = rootB;
}
