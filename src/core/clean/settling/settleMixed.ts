import type { Rgb } from '../../colour/oklab.ts';
import type { Rgba8 } from '../../raster/raster.ts';
import type { Task } from '../../task/task.ts';
import { lowestOf, SetsAround } from '../setsAround.ts';

/** How far around a mixed pixel its tones are looked for, px: soft edges and JPEG blocks spread no further. */
const REACH = 3;
/** How far around a pixel of a thin line others of it are looked for, px. */
const LINE_REACH = 2;
const ROWS_PER_TURN = 64;

export interface MixedPixels {
  readonly smooth: Rgba8;
  /** The nearest tone of every pixel. */
  readonly labels: Uint8Array;
  /** 1 inside areas of one tone. */
  readonly core: Uint8Array;
  readonly tones: readonly Rgb[];
  /** How far a mixture may lie off the way between its two tones, levels of 255. */
  readonly slack: number;
}

/**
 * Gives the pixels outside the cores their tones: a mixture of two tones that have cores nearby takes the nearer of those two, what no mixture explains its
 * own. Thin lines have no core: what lies between a core's tone and a line's is a mixture of the two. Sets of tones are bits of a word, and what is gathered
 * for a column serves all pixels of the row beside it.
 */
export function* settleMixed(mixed: MixedPixels): Task<Uint8Array> {
  const { width, height } = mixed.smooth;
  const { labels, core } = mixed;
  const settled = labels.slice();
  const open = new Uint8Array(labels.length);
  const mixture = new Mixture(mixed);
  const near = new SetsAround(labels, core, width, height, REACH);
  const beside = new SetsAround(labels, core, width, height, 1);
  for (let y = 0; y < height; y++) {
    near.toRow(y);
    beside.toRow(y);
    settleRow(labels, core, settled, open, mixture, near, beside, width, y);
    if (y % ROWS_PER_TURN === ROWS_PER_TURN - 1) yield (0.5 * y) / height;
  }
  const lines = new SetsAround(labels, open, width, height, LINE_REACH);
  const cores = new SetsAround(labels, core, width, height, REACH);
  for (let y = 0; y < height; y++) {
    lines.toRow(y);
    cores.toRow(y);
    settleLinesRow(labels, open, settled, mixture, lines, cores, width, y);
    if (y % ROWS_PER_TURN === ROWS_PER_TURN - 1) yield 0.5 + (0.5 * y) / height;
  }
  return settled;
}

function settleRow(
  labels: Uint8Array,
  core: Uint8Array,
  settled: Uint8Array,
  open: Uint8Array,
  mixture: Mixture,
  near: SetsAround,
  beside: SetsAround,
  width: number,
  y: number,
): void {
  for (let x = 0, i = y * width; x < width; x++, i++) {
    if (core[i] !== 0) continue;
    // Beside the core of its own tone it is that tone's rim, unless it is a mixture of two others.
    if ((beside.around(x) & (1 << labels[i])) !== 0) continue;
    const found = mixture.best(i, near.around(x));
    if (found >= 0) settled[i] = found;
    else open[i] = 1;
  }
}

function settleLinesRow(
  labels: Uint8Array,
  open: Uint8Array,
  settled: Uint8Array,
  mixture: Mixture,
  lines: SetsAround,
  cores: SetsAround,
  width: number,
  y: number,
): void {
  for (let x = 0, i = y * width; x < width; x++, i++) {
    if (open[i] === 0) continue;
    const own = 1 << labels[i];
    const others = lines.around(x) & ~own;
    if (others === 0) continue;
    const found = mixture.bestWith(i, cores.around(x) & ~own, others);
    if (found >= 0) settled[i] = found;
  }
}

/** Numbers kept of each pair of tones: the way from the first to the second in three channels, and its squared length. */
const PAIR = 4;

/** Weighs how well a pixel's colour is explained as a mixture of two tones. */
class Mixture {
  private readonly data: Rgba8['data'];
  private readonly tones: readonly Rgb[];
  private readonly pairs: Float64Array;
  /** Squared distance off the way up to which a pair explains a colour. */
  private readonly slack2: number;
  /** Squared distance of the best pair so far, and the tone it gives. */
  private least = 0;
  private found = -1;

  constructor({ smooth, tones, slack }: MixedPixels) {
    this.data = smooth.data;
    this.tones = tones;
    this.slack2 = slack * slack;
    this.pairs = new Float64Array(tones.length * tones.length * PAIR);
    for (const [a, from] of tones.entries()) {
      for (const [b, to] of tones.entries()) {
        const [dr, dg, db] = [to.r - from.r, to.g - from.g, to.b - from.b];
        this.pairs.set([dr, dg, db, dr * dr + dg * dg + db * db], (a * tones.length + b) * PAIR);
      }
    }
  }

  /**
   * The nearer tone of the pair out of a set that explains a pixel best, −1 when none does. With one tone the only question is whether the pixel is that one.
   */
  best(i: number, set: number): number {
    this.least = this.slack2;
    this.found = -1;
    if (set !== 0 && (set & (set - 1)) === 0) this.weigh(i, lowestOf(set), set);
    else for (let rest = set; rest !== 0; rest &= rest - 1) this.weigh(i, lowestOf(rest), rest & (rest - 1));
    return this.found;
  }

  /** The same with one tone out of each of two sets. */
  bestWith(i: number, first: number, second: number): number {
    this.least = this.slack2;
    this.found = -1;
    for (let rest = first; rest !== 0; rest &= rest - 1) {
      const a = lowestOf(rest);
      this.weigh(i, a, second & ~(1 << a));
    }
    return this.found;
  }

  /** Looks at the pairs of one tone with each of a set. */
  private weigh(i: number, a: number, set: number): void {
    const { data, pairs, tones } = this;
    const from = tones[a];
    const r = data[i * 4] - from.r;
    const g = data[i * 4 + 1] - from.g;
    const b = data[i * 4 + 2] - from.b;
    const own = r * r + g * g + b * b;
    for (let rest = set; rest !== 0; rest &= rest - 1) {
      const other = lowestOf(rest);
      const p = (a * tones.length + other) * PAIR;
      const length = pairs[p + 3];
      const dot = r * pairs[p] + g * pairs[p + 1] + b * pairs[p + 2];
      // Before the first tone, after the second, or at its foot on the way between them.
      const off = dot <= 0 ? own : dot >= length ? own - 2 * dot + length : own - (dot * dot) / length;
      if (off >= this.least) continue;
      this.least = off;
      this.found = 2 * dot < length ? a : other;
    }
  }
}
