import type { Rgba8 } from '../../raster/raster.ts';
import type { Task } from '../../task/task.ts';

/** Colours of a window that differ less than this are one: the square of it, over the window's pixels, keeps the fit of plain windows steady. Levels of 255. */
const STEADY_LEVELS = 2.5;
const MOST_ROUNDS = 120;
/** Solved when the rest has fallen to this share of what it was. */
const GOOD_ENOUGH = 2e-3;
const ROUNDS_PER_TURN = 4;
const WINDOW = 9;

/** Alpha of the unknown pixels, and for each the straight line from colour to alpha that holds around it: alpha = a · rgb + b. */
export interface ClosedForm {
  readonly alpha: Float32Array;
  /** a for red, green and blue, then b, for every pixel; 0 for those that were known. */
  readonly lines: Float32Array;
}

/**
 * Alpha where it is not known, from where it is: in every window of 3 × 3 pixels alpha is taken for a straight function of colour, and the alpha that bends
 * these the least is solved for (A. Levin, D. Lischinski & Y. Weiss, "A closed-form solution to natural image matting", IEEE TPAMI 30(2), 2008,
 * doi:10.1109/TPAMI.2007.1177), by conjugate gradients with the matrix never written down (K. He, J. Sun & X. Tang, "Fast matting using large kernel matting
 * Laplacian matrices", CVPR 2010, doi:10.1109/CVPR.2010.5539896). About 1 µs a pixel and round.
 * @param start alpha, 0 to 1: what is known, and a first guess elsewhere. @param unknown 1 where alpha is wanted; not on the outermost two rows and columns.
 */
export function* closedForm(picture: Rgba8, start: Float32Array, unknown: Uint8Array): Task<ClosedForm> {
  const system = new Laplacian(picture, unknown);
  const alpha = start.slice();
  const { cells } = system;
  const rest = new Float64Array(cells.length);
  system.apply(alpha, rest);
  for (let k = 0; k < rest.length; k++) rest[k] = -rest[k];
  const way = new Float32Array(alpha.length);
  const scaled = new Float64Array(cells.length);
  const moved = new Float64Array(cells.length);
  let power = precondition(system.diagonal, rest, scaled);
  for (let k = 0; k < cells.length; k++) way[cells[k]] = scaled[k];
  const enough = power * GOOD_ENOUGH ** 2;
  for (let round = 0; round < MOST_ROUNDS && power > enough && power > 0; round++) {
    system.apply(way, moved);
    let along = 0;
    for (let k = 0; k < cells.length; k++) along += way[cells[k]] * moved[k];
    if (!(along > 0)) break;
    const step = power / along;
    for (let k = 0; k < cells.length; k++) {
      alpha[cells[k]] += step * way[cells[k]];
      rest[k] -= step * moved[k];
    }
    const before = power;
    power = precondition(system.diagonal, rest, scaled);
    const share = power / before;
    for (let k = 0; k < cells.length; k++) way[cells[k]] = scaled[k] + share * way[cells[k]];
    if (round % ROUNDS_PER_TURN === ROUNDS_PER_TURN - 1) yield round / MOST_ROUNDS;
  }
  const lines = system.lines(alpha);
  for (const i of cells) alpha[i] = Math.max(0, Math.min(1, alpha[i]));
  return { alpha, lines };
}

/** Scales what is left by the diagonal; gives its power. */
function precondition(diagonal: Float64Array, rest: Float64Array, scaled: Float64Array): number {
  let power = 0;
  for (let k = 0; k < rest.length; k++) {
    scaled[k] = rest[k] / diagonal[k];
    power += rest[k] * scaled[k];
  }
  return power;
}

/** The matting Laplacian of the windows that touch an unknown pixel. */
class Laplacian {
  /** The unknown pixels. */
  readonly cells: Int32Array;
  readonly diagonal: Float64Array;
  private readonly width: number;
  private readonly data: Rgba8['data'];
  /** Middles of the windows, and the number of the window around each pixel, −1 for none. */
  private readonly windows: Int32Array;
  private readonly windowAt: Int32Array;
  /** Mean colour of each window and the inverse of its steadied covariance (rr, rg, rb, gg, gb, bb). */
  private readonly means: Float32Array;
  private readonly inverses: Float32Array;
  /** The line of each window for the alpha that was looked at last: a and b. */
  private readonly fits: Float64Array;

  constructor({ data, width }: Rgba8, unknown: Uint8Array) {
    this.width = width;
    this.data = data;
    this.cells = Int32Array.from(indices(unknown));
    this.windowAt = new Int32Array(unknown.length).fill(-1);
    const middles: number[] = [];
    for (const i of this.cells) {
      for (let dy = -width; dy <= width; dy += width) {
        for (let j = i + dy - 1; j <= i + dy + 1; j++) {
          if (this.windowAt[j] >= 0) continue;
          this.windowAt[j] = middles.length;
          middles.push(j);
        }
      }
    }
    this.windows = Int32Array.from(middles);
    this.means = new Float32Array(3 * middles.length);
    this.inverses = new Float32Array(6 * middles.length);
    this.fits = new Float64Array(4 * middles.length);
    for (let w = 0; w < middles.length; w++) this.measure(w);
    this.diagonal = Float64Array.from(this.cells, (i) => this.diagonalAt(i));
  }

  /** Mean and inverse covariance of a window's colours. */
  private measure(w: number): void {
    const { data, width, windows, means, inverses } = this;
    const sums = new Float64Array(9);
    for (let dy = -width; dy <= width; dy += width) {
      for (let j = windows[w] + dy - 1; j <= windows[w] + dy + 1; j++) {
        const [r, g, b] = [data[4 * j], data[4 * j + 1], data[4 * j + 2]];
        for (const [k, value] of [r, g, b, r * r, r * g, r * b, g * g, g * b, b * b].entries()) sums[k] += value / WINDOW;
      }
    }
    const [mr, mg, mb] = sums;
    const steady = (STEADY_LEVELS * STEADY_LEVELS) / WINDOW;
    const [rr, rg, rb] = [sums[3] - mr * mr + steady, sums[4] - mr * mg, sums[5] - mr * mb];
    const [gg, gb, bb] = [sums[6] - mg * mg + steady, sums[7] - mg * mb, sums[8] - mb * mb + steady];
    const [crr, crg, crb] = [gg * bb - gb * gb, rb * gb - rg * bb, rg * gb - rb * gg];
    const det = rr * crr + rg * crg + rb * crb;
    means.set([mr, mg, mb], 3 * w);
    inverses.set([crr / det, crg / det, crb / det, (rr * bb - rb * rb) / det, (rg * rb - rr * gb) / det, (rr * gg - rg * rg) / det], 6 * w);
  }

  /** The Laplacian times `p` at the unknown pixels: for each window what its line leaves of p. */
  apply(p: Float32Array, out: Float64Array): void {
    this.fit(p);
    const { cells, data, fits, windowAt, width } = this;
    for (let k = 0; k < cells.length; k++) {
      const i = cells[k];
      const [r, g, b] = [data[4 * i], data[4 * i + 1], data[4 * i + 2]];
      let sum = 0;
      for (let dy = -width; dy <= width; dy += width) {
        for (let j = i + dy - 1; j <= i + dy + 1; j++) {
          const f = 4 * windowAt[j];
          sum += p[i] - (fits[f] * r + fits[f + 1] * g + fits[f + 2] * b + fits[f + 3]);
        }
      }
      out[k] = sum;
    }
  }

  /** The line from colour to p that fits each window best. */
  private fit(p: Float32Array): void {
    const { windows, data, means, inverses, fits, width } = this;
    for (let w = 0; w < windows.length; w++) {
      let [sum, pr, pg, pb] = [0, 0, 0, 0];
      for (let dy = -width; dy <= width; dy += width) {
        for (let j = windows[w] + dy - 1; j <= windows[w] + dy + 1; j++) {
          const v = p[j];
          sum += v;
          pr += v * data[4 * j];
          pg += v * data[4 * j + 1];
          pb += v * data[4 * j + 2];
        }
      }
      const mean = sum / WINDOW;
      const [mr, mg, mb] = [means[3 * w], means[3 * w + 1], means[3 * w + 2]];
      const [cr, cg, cb] = [pr / WINDOW - mean * mr, pg / WINDOW - mean * mg, pb / WINDOW - mean * mb];
      const n = 6 * w;
      const a = inverses[n] * cr + inverses[n + 1] * cg + inverses[n + 2] * cb;
      const b = inverses[n + 1] * cr + inverses[n + 3] * cg + inverses[n + 4] * cb;
      const c = inverses[n + 2] * cr + inverses[n + 4] * cg + inverses[n + 5] * cb;
      fits[4 * w] = a;
      fits[4 * w + 1] = b;
      fits[4 * w + 2] = c;
      fits[4 * w + 3] = mean - a * mr - b * mg - c * mb;
    }
  }

  private diagonalAt(i: number): number {
    const { data, windowAt, means, inverses, width } = this;
    let sum = 0;
    for (let dy = -width; dy <= width; dy += width) {
      for (let j = i + dy - 1; j <= i + dy + 1; j++) {
        const w = windowAt[j];
        const [r, g, b] = [data[4 * i] - means[3 * w], data[4 * i + 1] - means[3 * w + 1], data[4 * i + 2] - means[3 * w + 2]];
        const n = 6 * w;
        const square =
          inverses[n] * r * r +
          inverses[n + 3] * g * g +
          inverses[n + 5] * b * b +
          2 * (inverses[n + 1] * r * g + inverses[n + 2] * r * b + inverses[n + 4] * g * b);
        sum += 1 - (1 + square) / WINDOW;
      }
    }
    return Math.max(1e-6, sum);
  }

  /** For each unknown pixel the mean of the lines of the windows that it lies in. */
  lines(p: Float32Array): Float32Array {
    this.fit(p);
    const { cells, fits, windowAt, width } = this;
    const out = new Float32Array(4 * p.length);
    for (const i of cells) {
      for (let dy = -width; dy <= width; dy += width) {
        for (let j = i + dy - 1; j <= i + dy + 1; j++) for (let c = 0; c < 4; c++) out[4 * i + c] += fits[4 * windowAt[j] + c] / WINDOW;
      }
    }
    return out;
  }
}

function* indices(cells: Uint8Array): Generator<number> {
  for (let i = 0; i < cells.length; i++) if (cells[i] !== 0) yield i;
}
