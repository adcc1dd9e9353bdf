/**
 * Cheapest cut between *source* and *sink* on a grid whose pixels are joined to their four neighbours, by augmenting paths from two search trees that are kept
 * (Y. Boykov & V. Kolmogorov, "An experimental comparison of min-cut/max-flow algorithms for energy minimization in vision", IEEE TPAMI 26(9), 2004,
 * doi:10.1109/TPAMI.2004.60).
 */
export interface GridCut {
  readonly width: number;
  readonly height: number;
  /** What it costs to leave a pixel on the sink's side (above 0) or on the source's (below 0). Changed by the cut. */
  readonly terminal: Float32Array;
  /** What it costs to part a pixel from its right and its lower neighbour, at least 0. */
  readonly right: Float32Array;
  readonly down: Float32Array;
}

/** Directions 0 right, 1 left, 2 down, 3 up; the opposite one is `d ^ 1`. */
const FREE = 0;
const SOURCE = 1;
const SINK = 2;
/** Parents that are not a direction. */
const ROOT = 4;
const ORPHAN = 5;
const NONE = 6;

/** Smallest rest that still counts: costs are sums of single-precision numbers. */
const LEAST = 1e-6;

/** 1 for the pixels on the source's side. O(pixels) for typical pictures, more where the two sides are hard to tell apart. */
export function minCut(grid: GridCut): Uint8Array {
  const search = new TwoTrees(grid);
  while (search.grow()) search.augment();
  return search.sourceSide();
}

class TwoTrees {
  private readonly n: number;
  private readonly capacity: readonly [Float32Array, Float32Array, Float32Array, Float32Array];
  private readonly terminal: Float32Array;
  private readonly tree: Uint8Array;
  private readonly parent: Uint8Array;
  private readonly stamp: Int32Array;
  private readonly depth: Int32Array;
  private readonly queue: Int32Array;
  private readonly queued: Uint8Array;
  private head = 0;
  private length = 0;
  private time = 0;
  private orphans: number[] = [];
  /** The edge on which the trees met: a pixel of the source's tree and the direction from it. */
  private meet = -1;
  private meetDirection = 0;
  private current = -1;

  constructor(private readonly grid: GridCut) {
    const { width, height, right, down } = grid;
    this.n = width * height;
    const left = new Float32Array(this.n);
    const up = new Float32Array(this.n);
    for (let i = 0; i < this.n; i++) {
      if (i % width > 0) left[i] = right[i - 1];
      if (i >= width) up[i] = down[i - width];
    }
    const rightOut = right.slice();
    for (let i = width - 1; i < this.n; i += width) rightOut[i] = 0;
    const downOut = down.slice();
    downOut.fill(0, this.n - width);
    this.capacity = [rightOut, left, downOut, up];
    this.terminal = grid.terminal;
    this.tree = new Uint8Array(this.n);
    this.parent = new Uint8Array(this.n).fill(NONE);
    this.stamp = new Int32Array(this.n);
    this.depth = new Int32Array(this.n);
    this.queue = new Int32Array(this.n);
    this.queued = new Uint8Array(this.n);
    for (let i = 0; i < this.n; i++) {
      if (Math.abs(this.terminal[i]) <= LEAST) continue;
      this.tree[i] = this.terminal[i] > 0 ? SOURCE : SINK;
      this.parent[i] = ROOT;
      this.depth[i] = 1;
      this.push(i);
    }
  }

  private push(i: number): void {
    if (this.queued[i] !== 0) return;
    this.queued[i] = 1;
    this.queue[(this.head + this.length++) % this.n] = i;
  }

  /** Pixel in a direction; the capacities at the border are 0, so that none outside is ever reached. */
  private step(i: number, d: number): number {
    return d === 0 ? i + 1 : d === 1 ? i - 1 : d === 2 ? i + this.grid.width : i - this.grid.width;
  }

  /** Whether the tree of `i` can grow over the edge in direction `d`: with what is left along the flow's own direction. */
  private open(i: number, d: number, j: number, tree: number): boolean {
    return (tree === SOURCE ? this.capacity[d][i] : this.capacity[d ^ 1][j]) > LEAST;
  }

  private inside(i: number, d: number): boolean {
    const { width } = this.grid;
    if (d === 0) return i % width !== width - 1;
    if (d === 1) return i % width !== 0;
    return d === 2 ? i + width < this.n : i >= width;
  }

  /** Grows the trees until they meet. False when they never do: the flow is greatest. */
  grow(): boolean {
    const { tree } = this;
    while (this.current >= 0 || this.length > 0) {
      if (this.current < 0) {
        this.current = this.queue[this.head];
        this.head = (this.head + 1) % this.n;
        this.length--;
        this.queued[this.current] = 0;
      }
      const i = this.current;
      if (tree[i] !== FREE && this.growFrom(i)) return true;
      this.current = -1;
    }
    return false;
  }

  private growFrom(i: number): boolean {
    const { tree, parent, depth, stamp } = this;
    const own = tree[i];
    for (let d = 0; d < 4; d++) {
      if (!this.inside(i, d)) continue;
      const j = this.step(i, d);
      if (!this.open(i, d, j, own)) continue;
      if (tree[j] === FREE) {
        tree[j] = own;
        parent[j] = d ^ 1;
        depth[j] = depth[i] + 1;
        stamp[j] = stamp[i];
        this.push(j);
      } else if (tree[j] !== own) {
        this.meet = own === SOURCE ? i : j;
        this.meetDirection = own === SOURCE ? d : d ^ 1;
        return true;
      } else if (stamp[j] <= stamp[i] && depth[j] > depth[i] + 1) {
        parent[j] = d ^ 1;
        depth[j] = depth[i] + 1;
        stamp[j] = stamp[i];
      }
    }
    return false;
  }

  /** Sends as much as fits along the path that was found, and finds new parents for what it cut off. */
  augment(): void {
    const from = this.meet;
    const to = this.step(from, this.meetDirection);
    const amount = Math.min(this.capacity[this.meetDirection][from], this.rest(from, SOURCE), this.rest(to, SINK));
    this.capacity[this.meetDirection][from] -= amount;
    this.capacity[this.meetDirection ^ 1][to] += amount;
    this.send(from, SOURCE, amount);
    this.send(to, SINK, amount);
    this.time++;
    for (let k = 0; k < this.orphans.length; k++) this.adopt(this.orphans[k]);
    this.orphans = [];
  }

  private rest(start: number, tree: number): number {
    let least = Infinity;
    let i = start;
    while (this.parent[i] !== ROOT) {
      const d = this.parent[i];
      const j = this.step(i, d);
      least = Math.min(least, tree === SOURCE ? this.capacity[d ^ 1][j] : this.capacity[d][i]);
      i = j;
    }
    return Math.min(least, Math.abs(this.terminal[i]));
  }

  private send(start: number, tree: number, amount: number): void {
    let i = start;
    while (this.parent[i] !== ROOT) {
      const d = this.parent[i];
      const j = this.step(i, d);
      const [a, b, along] = tree === SOURCE ? [j, i, d ^ 1] : [i, j, d];
      this.capacity[along][a] -= amount;
      this.capacity[along ^ 1][b] += amount;
      if (this.capacity[along][a] <= LEAST) this.orphan(i);
      i = j;
    }
    this.terminal[i] -= tree === SOURCE ? amount : -amount;
    if (Math.abs(this.terminal[i]) <= LEAST) {
      this.terminal[i] = 0;
      this.orphan(i);
    }
  }

  private orphan(i: number): void {
    this.parent[i] = ORPHAN;
    this.orphans.push(i);
  }

  /** Gives an orphan the nearest parent of its tree that still leads to a terminal, or sets it and its children free. */
  private adopt(i: number): void {
    const { tree, parent, depth, stamp } = this;
    const own = tree[i];
    let best = -1;
    let nearest = Infinity;
    for (let d = 0; d < 4; d++) {
      if (!this.inside(i, d)) continue;
      const j = this.step(i, d);
      if (tree[j] !== own || !this.open(j, d ^ 1, i, own)) continue;
      const far = this.distance(j);
      if (far < nearest) {
        nearest = far;
        best = d;
      }
    }
    if (best >= 0) {
      parent[i] = best;
      depth[i] = nearest + 1;
      stamp[i] = this.time;
      return;
    }
    for (let d = 0; d < 4; d++) {
      if (!this.inside(i, d)) continue;
      const j = this.step(i, d);
      if (tree[j] !== own) continue;
      if (this.open(j, d ^ 1, i, own)) this.push(j);
      if (parent[j] === (d ^ 1)) this.orphan(j);
    }
    tree[i] = FREE;
    parent[i] = NONE;
  }

  /** Steps from a pixel to its terminal, Infinity when it does not lead to one; remembers it for all on the way. */
  private distance(start: number): number {
    const { parent, stamp, depth } = this;
    let steps = 0;
    let i = start;
    while (stamp[i] !== this.time) {
      if (parent[i] >= ORPHAN) return Infinity;
      if (parent[i] === ROOT) {
        stamp[i] = this.time;
        depth[i] = 1;
        break;
      }
      i = this.step(i, parent[i]);
      steps++;
    }
    const total = steps + depth[i];
    let left = total;
    for (let k = start; stamp[k] !== this.time; k = this.step(k, parent[k])) {
      stamp[k] = this.time;
      depth[k] = left--;
    }
    return total;
  }

  sourceSide(): Uint8Array {
    return this.tree.map((tree) => (tree === SOURCE ? 1 : 0));
  }
}
