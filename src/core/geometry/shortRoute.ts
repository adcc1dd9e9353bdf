/** Places that are looked at as the next one of each. */
const NEIGHBOURS = 10;
/** More places than this are taken in rows, which is nearly as short when there are so many. */
const MOST_PLACES = 20_000;
const MOST_ROUNDS = 60;
/** Places that are moved together at most. */
const LONGEST_MOVED = 3;
/** Less is rounding. */
const LEAST_SAVED = 1e-9;

/**
 * An order of places in which the way from a start through all of them is short: by the nearest place first, then improved by turning stretches around and by moving short ones elsewhere until neither helps (2-opt and Or-opt;
 * G. A. Croes, Operations Research 6(6), 1958, doi:10.1287/opre.6.6.791; I. Or, 1976), looking at near places alone (J. L. Bentley, ORSA Journal on Computing 4(4), 1992, doi:10.1287/ijoc.4.4.387). The way ends at the last one.
 * @returns numbers of places, each once.
 */
export function shortRoute(x: ArrayLike<number>, y: ArrayLike<number>, startX: number, startY: number): Int32Array {
  const count = x.length;
  if (count < 2) return Int32Array.from({ length: count }, (_, k) => k);
  const grid = new PlaceGrid(x, y);
  if (count > MOST_PLACES) return grid.inRows();
  const order = grid.nearestFirst(startX, startY);
  if (count > 3) improve(order, x, y, { x: startX, y: startY }, grid.neighbours());
  return order;
}

/** Length of a way from a start through places in an order. */
export function routeLength(order: ArrayLike<number>, x: ArrayLike<number>, y: ArrayLike<number>, startX: number, startY: number): number {
  let [length, px, py] = [0, startX, startY];
  for (let k = 0; k < order.length; k++) {
    length += Math.hypot(x[order[k]] - px, y[order[k]] - py);
    [px, py] = [x[order[k]], y[order[k]]];
  }
  return length;
}

function improve(order: Int32Array, x: ArrayLike<number>, y: ArrayLike<number>, start: { x: number; y: number }, near: Int32Array): void {
  const way = new Way(order, x, y, start, near);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    let helped = false;
    for (let place = 0; place < order.length; place++) while (way.turned(place) || way.moved(place)) helped = true;
    if (!helped) return;
  }
}

/** A way through places that is made shorter bit by bit. */
class Way {
  /** Where in the order each place is. */
  private readonly at: Int32Array;

  constructor(
    private readonly order: Int32Array,
    private readonly x: ArrayLike<number>,
    private readonly y: ArrayLike<number>,
    private readonly start: { readonly x: number; readonly y: number },
    private readonly near: Int32Array,
  ) {
    this.at = new Int32Array(order.length);
    for (let k = 0; k < order.length; k++) this.at[order[k]] = k;
  }

  /** Turns a stretch around so that a place and one near to it follow each other, if that is shorter. */
  turned(place: number): boolean {
    const { at, near } = this;
    for (let n = 0; n < NEIGHBOURS; n++) {
      const other = near[place * NEIGHBOURS + n];
      if (other < 0) return false;
      const [i, j] = at[place] < at[other] ? [at[place], at[other]] : [at[other], at[place]];
      // After i comes j: what lay between is turned around; or before j comes i.
      const after = this.gap(i, j) + this.gap(i + 1, j + 1) < this.gap(i, i + 1) + this.gap(j, j + 1) - LEAST_SAVED;
      if (after) this.turnAround(i + 1, j);
      else if (this.gap(i - 1, j - 1) + this.gap(i, j) < this.gap(i - 1, i) + this.gap(j - 1, j) - LEAST_SAVED) this.turnAround(i, j - 1);
      else continue;
      return true;
    }
    return false;
  }

  /** Moves a place and at most two that follow it behind one that is near, if that is shorter. */
  moved(place: number): boolean {
    const { at, near, order } = this;
    for (let length = 1; length <= LONGEST_MOVED; length++) {
      const from = at[place];
      const to = from + length - 1;
      if (to >= order.length) return false;
      const saved = this.gap(from - 1, from) + this.gap(to, to + 1) - this.gap(from - 1, to + 1);
      if (saved <= LEAST_SAVED) continue;
      for (let n = 0; n < NEIGHBOURS; n++) {
        const other = near[place * NEIGHBOURS + n];
        if (other < 0) break;
        const k = at[other];
        if ((k >= from - 1 && k <= to) || this.gap(k, from) + this.gap(to, k + 1) - this.gap(k, k + 1) >= saved - LEAST_SAVED) continue;
        this.move(from, to, k + 1);
        return true;
      }
    }
    return false;
  }

  /** From one place of the order to another; −1 is the start, beyond the end there is nothing. */
  private gap(a: number, b: number): number {
    const { order, x, y, start } = this;
    if (a >= order.length || b >= order.length) return 0;
    return Math.hypot((a < 0 ? start.x : x[order[a]]) - x[order[b]], (a < 0 ? start.y : y[order[a]]) - y[order[b]]);
  }

  private turnAround(from: number, to: number): void {
    const { order, at } = this;
    for (let a = from, b = to; a < b; a++, b--) [order[a], order[b]] = [order[b], order[a]];
    for (let k = from; k <= to; k++) at[order[k]] = k;
  }

  /** Moves a stretch so that it begins at another place of the order. */
  private move(from: number, to: number, before: number): void {
    if (before > to) {
      this.turnAround(from, to);
      this.turnAround(to + 1, before - 1);
      this.turnAround(from, before - 1);
    } else {
      this.turnAround(before, from - 1);
      this.turnAround(from, to);
      this.turnAround(before, to);
    }
  }
}

/** Places by the cells of a grid. */
class PlaceGrid {
  private readonly cell: number;
  private readonly columns: number;
  private readonly rows: number;
  private readonly left: number;
  private readonly top: number;
  private readonly starts: Int32Array;
  private readonly members: Int32Array;

  constructor(private readonly x: ArrayLike<number>, private readonly y: ArrayLike<number>) {
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let k = 0; k < x.length; k++) {
      left = Math.min(left, x[k]);
      right = Math.max(right, x[k]);
      top = Math.min(top, y[k]);
      bottom = Math.max(bottom, y[k]);
    }
    [this.left, this.top] = [left, top];
    this.cell = Math.max(Math.sqrt(((right - left) * (bottom - top)) / x.length), Math.max(right - left, bottom - top) / x.length, 1e-9);
    this.columns = Math.floor((right - left) / this.cell) + 1;
    this.rows = Math.floor((bottom - top) / this.cell) + 1;
    const counts = new Int32Array(this.columns * this.rows + 1);
    for (let k = 0; k < x.length; k++) counts[this.cellOf(k) + 1]++;
    for (let k = 1; k < counts.length; k++) counts[k] += counts[k - 1];
    this.starts = counts.slice();
    this.members = new Int32Array(x.length);
    for (let k = 0; k < x.length; k++) this.members[counts[this.cellOf(k)]++] = k;
  }

  /** From a start to the nearest place that was not yet taken, and so on. */
  nearestFirst(startX: number, startY: number): Int32Array {
    const isTaken = new Uint8Array(this.x.length);
    const order = new Int32Array(this.x.length);
    let [px, py] = [startX, startY];
    for (let k = 0; k < order.length; k++) {
      const [next] = this.nearest(px, py, 1, (place) => isTaken[place] === 0);
      order[k] = next;
      isTaken[next] = 1;
      [px, py] = [this.x[next], this.y[next]];
    }
    return order;
  }

  /** The nearest other places of each, −1 where there are no more. */
  neighbours(): Int32Array {
    const near = new Int32Array(this.x.length * NEIGHBOURS).fill(-1);
    for (let k = 0; k < this.x.length; k++) near.set(this.nearest(this.x[k], this.y[k], NEIGHBOURS, (place) => place !== k), k * NEIGHBOURS);
    return near;
  }

  /** Row by row, there and back. */
  inRows(): Int32Array {
    const row = (k: number): number => Math.floor((this.y[k] - this.top) / this.cell);
    return Int32Array.from(Array.from({ length: this.x.length }, (_, k) => k).sort((a, b) => row(a) - row(b) || (row(a) % 2 === 0 ? this.x[a] - this.x[b] : this.x[b] - this.x[a])));
  }

  private nearest(px: number, py: number, count: number, isWanted: (place: number) => boolean): number[] {
    const { x, y, cell, columns, rows } = this;
    // From outside of the grid the cell that is nearest: what is further from it is further away too.
    const column = Math.max(0, Math.min(columns - 1, Math.floor((px - this.left) / cell)));
    const row = Math.max(0, Math.min(rows - 1, Math.floor((py - this.top) / cell)));
    const found: { place: number; away: number }[] = [];
    const most = Math.max(columns, rows);
    for (let reach = 0; reach <= most; reach++) {
      // What lies in further cells is further away than this.
      if (found.length >= count && found[count - 1].away <= (reach - 1) * cell) break;
      for (let r = Math.max(0, row - reach); r <= Math.min(rows - 1, row + reach); r++) {
        const isEdge = r === row - reach || r === row + reach;
        for (let c = isEdge ? Math.max(0, column - reach) : column - reach; c <= column + reach && c < columns; c += isEdge ? 1 : Math.max(1, 2 * reach)) {
          if (c < 0) continue;
          for (let i = this.starts[r * columns + c]; i < this.starts[r * columns + c + 1]; i++) {
            const place = this.members[i];
            if (isWanted(place)) found.push({ place, away: Math.hypot(x[place] - px, y[place] - py) });
          }
        }
      }
      found.sort((a, b) => a.away - b.away || a.place - b.place);
    }
    return found.slice(0, count).map(({ place }) => place);
  }

  private cellOf(k: number): number {
    return Math.floor((this.y[k] - this.top) / this.cell) * this.columns + Math.floor((this.x[k] - this.left) / this.cell);
  }
}
