import type { Rings } from '../geometry/rings.ts';

/** Two sides bound a strip when they run within about 30° of each other: cosine of the angle between the normals into the film, at most this. */
export const OPPOSED = -0.86;
/** Cells of the grid at most, and side by side. */
const MOST_CELLS = 2_000_000;
const MOST_ACROSS = 20_000;

/** Cells that chords come near to: those of cell c are chords[from[c]] to chords[from[c + 1]]. */
interface ChordCells {
  readonly from: Int32Array;
  readonly chords: Int32Array;
}

/**
 * Gives all stretches of chords that have another one running against them within a distance on their inner side, some more than once, and some that are a little too long: what can be a side of something narrow.
 * Chords are looked for through a grid, so most of them are never compared.
 * @param sign 1 when film lies to the right of the rings as they run, −1 to their left. @param visit the chord by the number of its first point, and from where to where along it.
 */
export function facingChords({ points, starts }: Rings, reach: number, sign: number, visit: (chord: number, from: number, to: number) => void): void {
  const after = followers(starts, points.length / 2);
  const { from, chords } = chordCells(points, after, reach);
  const [length, ux, uy] = [new Float64Array(after.length), new Float64Array(after.length), new Float64Array(after.length)];
  for (let i = 0; i < after.length; i++) {
    const [dx, dy] = [points[2 * after[i]] - points[2 * i], points[2 * after[i] + 1] - points[2 * i + 1]];
    length[i] = Math.hypot(dx, dy);
    ux[i] = dx / length[i];
    uy[i] = dy / length[i];
  }
  for (let cell = 0; cell + 1 < from.length; cell++) {
    const end = from[cell + 1];
    for (let p = from[cell]; p + 1 < end; p++) {
      const a = chords[p];
      const [ax, ay, wayX, wayY] = [points[2 * a], points[2 * a + 1], ux[a], uy[a]];
      for (let q = p + 1; q < end; q++) {
        const b = chords[q];
        if (wayX * ux[b] + wayY * uy[b] > OPPOSED) continue;
        const [fromX, fromY] = [points[2 * b] - ax, points[2 * b + 1] - ay];
        const [toX, toY] = [fromX + ux[b] * length[b], fromY + uy[b] * length[b]];
        // How far the other one is on the inner side, and from where to where it is beside this one.
        const [d0, d1] = [sign * (wayX * fromY - wayY * fromX), sign * (wayX * toY - wayY * toX)];
        if ((d0 < 0 && d1 < 0) || (d0 > reach && d1 > reach)) continue;
        const [t0, t1] = [wayX * fromX + wayY * fromY, wayX * toX + wayY * toY];
        const [low, high] = [Math.max(0, Math.min(t0, t1) - reach), Math.min(length[a], Math.max(t0, t1) + reach)];
        if (low > high) continue;
        visit(a, low, high);
        const [s0, s1] = [-(ux[b] * fromX + uy[b] * fromY), ux[b] * (wayX * length[a] - fromX) + uy[b] * (wayY * length[a] - fromY)];
        visit(b, Math.max(0, Math.min(s0, s1) - reach), Math.min(length[b], Math.max(s0, s1) + reach));
      }
    }
  }
}

/** The point after each one on its ring. */
function followers(starts: Int32Array, count: number): Int32Array {
  const after = new Int32Array(count);
  for (let r = 0; r + 1 < starts.length; r++) for (let i = starts[r]; i < starts[r + 1]; i++) after[i] = i + 1 === starts[r + 1] ? starts[r] : i + 1;
  return after;
}

/** Each chord in all cells that are within half of the reach of it: two that are within it of each other have one in common. */
function chordCells(points: Float64Array, after: Int32Array, reach: number): ChordCells {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let k = 0; k < points.length; k += 2) {
    if (points[k] < left) left = points[k];
    if (points[k] > right) right = points[k];
    if (points[k + 1] < top) top = points[k + 1];
    if (points[k + 1] > bottom) bottom = points[k + 1];
  }
  if (after.length === 0) return { from: new Int32Array(1), chords: new Int32Array(0) };
  const half = reach / 2;
  const cell = Math.max(4 * reach, Math.sqrt(((right - left + 1) * (bottom - top + 1)) / MOST_CELLS), (right - left) / MOST_ACROSS, (bottom - top) / MOST_ACROSS);
  [left, top] = [left - half, top - half];
  const columns = Math.floor((right + half - left) / cell) + 1;
  const rows = Math.floor((bottom + half - top) / cell) + 1;
  const from = new Int32Array(columns * rows + 1);
  // Which cell and which chord, as they are met.
  let met = new Int32Array(8 * after.length);
  let count = 0;
  for (let i = 0; i < after.length; i++) {
    const j = after[i];
    const isDown = points[2 * i + 1] <= points[2 * j + 1];
    const [upper, lower] = isDown ? [i, j] : [j, i];
    const [x0, y0, x1, y1] = [points[2 * upper], points[2 * upper + 1], points[2 * lower], points[2 * lower + 1]];
    if (x0 === x1 && y0 === y1) continue;
    const slope = y1 > y0 ? (x1 - x0) / (y1 - y0) : 0;
    const last = Math.floor((y1 + half - top) / cell);
    for (let row = Math.floor((y0 - half - top) / cell); row <= last; row++) {
      // The part of the chord that is within half of the reach of the row's band.
      const low = Math.max(y0, top + row * cell - half);
      const high = Math.min(y1, top + (row + 1) * cell + half);
      const xa = y1 > y0 ? x0 + slope * (low - y0) : x0;
      const xb = y1 > y0 ? x0 + slope * (high - y0) : x1;
      const end = Math.floor((Math.max(xa, xb) + half - left) / cell);
      for (let column = Math.floor((Math.min(xa, xb) - half - left) / cell); column <= end; column++) {
        if (count + 2 > met.length) met = grown(met);
        const own = row * columns + column;
        from[own]++;
        met[count++] = own;
        met[count++] = i;
      }
    }
  }
  for (let k = 1; k < from.length; k++) from[k] += from[k - 1];
  const chords = new Int32Array(count / 2);
  // From where each cell ends back to where it begins.
  for (let k = count - 2; k >= 0; k -= 2) chords[--from[met[k]]] = met[k + 1];
  return { from, chords };
}

function grown(array: Int32Array<ArrayBuffer>): Int32Array<ArrayBuffer> {
  const larger = new Int32Array(array.length * 2);
  larger.set(array);
  return larger;
}
