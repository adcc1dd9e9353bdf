import { writeOklab, type Rgb } from '../../colour/oklab.ts';
import type { Art } from '../../raster/art.ts';
import { wordsOf, type Rgba8 } from '../../raster/raster.ts';
import { byRows, within, type Task } from '../../task/task.ts';
import { calmedArt } from '../calmedArt.ts';
import { inkOfStrokes } from '../inkOfStrokes.ts';
import { findPalette, type Tone, type ToneCount } from '../palette.ts';
import { PLAIN } from '../plainPixels.ts';
import { bringBack, type Dot } from '../strokes/dots.ts';
import { settleStrokes } from '../strokes/settleStrokes.ts';
import { settleMixed } from './settleMixed.ts';

/** The tones of an art and which of them every pixel has. */
export interface ToneLabels {
  /** Most frequent first. */
  readonly tones: readonly Tone[];
  /** Index into `tones` for every pixel; what is clear has the nearest one too. */
  readonly labels: Uint8Array;
  /** Dots as small as noise, among what stands alone. */
  readonly dots: readonly Dot[];
}

/**
 * Finds the few real tones of an art and gives every pixel one. Plain places are read first: they give the palette, and they keep the nearest tone. A pixel that
 * is not plain is a mixture when its colour lies on the way between two tones that are plain nearby; then it belongs to the nearer of those two and never to a
 * third that happens to lie in between. What no such mixture explains (a thin line) keeps its own nearest tone.
 * @param count tones including the background, 2 to 32, or `auto`, or the tones themselves.
 * @param singles which pixels that stand alone keep their tone; the others take that around them. @param held tones that are among those found in any case.
 */
export function* toneLabels(art: Art, count: ToneCount | readonly Rgb[], singles: Singles, held: readonly Rgb[] = []): Task<ToneLabels> {
  const { width, height } = art;
  const { noise, smooth, plain } = yield* within(calmedArt(art), 0, 0.55);
  const tones = isPalette(count) ? count.map((tone): Tone => ({ ...tone, count: 0 })) : findPalette(smooth, plain, count, held);
  if (tones.length === 1 && count !== 1 && !isPalette(count)) {
    const ink = inkOfStrokes(smooth, art.alpha, tones[0]);
    if (ink !== undefined) tones.push(ink);
  }
  if (tones.length < 2) return { tones, labels: new Uint8Array(width * height), dots: [] };
  const labels = yield* within(nearestTones(smooth, tones), 0.6, 0.65);
  const core = yield* within(coresOf(labels, plain, width, height), 0.65, 0.7);
  const settled = yield* within(settleMixed({ smooth, labels, core, tones, slack: 14 + 2 * noise }), 0.7, 0.93);
  const dots = yield* within(settleStrokes(settled, { smooth, nearest: labels, core, tones }), 0.93, 0.98);
  if (singles === 'all') return { tones, labels: settled, dots };
  const kept = yield* within(withoutSingles(settled, width, height, singles === 'ofBits'), 0.98, 1);
  bringBack(dots, kept, width);
  return { tones, labels: kept, dots };
}

/** Of what stands alone, all keeps its tone; or that of small areas alone, such as the eye of a letter, but not the tips of large ones; or none does. */
export type Singles = 'all' | 'ofBits' | 'none';

const isPalette = (count: ToneCount | readonly Rgb[]): count is readonly Rgb[] => Array.isArray(count);

/** The nearest tone of every pixel, through a table of 6 bits a channel that is filled as its colours are met. */
function* nearestTones(picture: Rgba8, tones: readonly Rgb[]): Task<Uint8Array> {
  const { width, height } = picture;
  const words = wordsOf(picture);
  const table = new ToneTable(tones);
  const labels = new Uint8Array(width * height);
  yield* byRows(height, (y) => labelRow(words, table, labels, y * width, (y + 1) * width));
  return labels;
}

function labelRow(words: Int32Array, table: ToneTable, labels: Uint8Array, from: number, to: number): void {
  const { known } = table;
  for (let i = from; i < to; i++) {
    const key = ((words[i] >> 2) & 63) | (((words[i] >> 10) & 63) << 6) | (((words[i] >> 18) & 63) << 12);
    const tone = known[key];
    labels[i] = tone === UNKNOWN ? table.find(key) : tone;
  }
}

const UNKNOWN = 255;

class ToneTable {
  readonly known = new Uint8Array(1 << 18).fill(UNKNOWN);
  private readonly lab: Float64Array;
  private readonly own = new Float64Array(3);

  constructor(tones: readonly Rgb[]) {
    this.lab = new Float64Array(tones.length * 3);
    for (const [k, tone] of tones.entries()) writeOklab(tone.r, tone.g, tone.b, this.lab, k * 3);
  }

  /** The nearest tone to the middle of a cell of the table. */
  find(key: number): number {
    const { lab, own } = this;
    writeOklab(((key & 63) << 2) + 2, (((key >> 6) & 63) << 2) + 2, ((key >> 12) << 2) + 2, own);
    let best = Infinity;
    let nearest = 0;
    for (let k = 0; k < lab.length; k += 3) {
      const d = (lab[k] - own[0]) ** 2 + (lab[k + 1] - own[1]) ** 2 + (lab[k + 2] - own[2]) ** 2;
      if (d >= best) continue;
      best = d;
      nearest = k / 3;
    }
    this.known[key] = nearest;
    return nearest;
  }
}

/** 1 where a plain pixel's eight neighbours all have its tone: the inside of an area, as thin as three pixels. */
function* coresOf(labels: Uint8Array, plain: Uint8Array, width: number, height: number): Task<Uint8Array> {
  const core = new Uint8Array(labels.length);
  yield* byRows(height, (y) => coresRow(labels, plain, core, width, y * width, y > 0 ? -width : 0, y < height - 1 ? width : 0));
  return core;
}

function coresRow(labels: Uint8Array, plain: Uint8Array, core: Uint8Array, width: number, start: number, up: number, down: number): void {
  // How many columns to the left, this one too, have one tone in all three rows, and which.
  let columns = 0;
  let tone = -1;
  for (let x = 0, i = start; x < width; x++, i++) {
    const t = labels[i];
    const isOne = labels[i + up] === t && labels[i + down] === t;
    if (!isOne) columns = 0;
    else if (t === tone) columns++;
    else columns = 1;
    tone = isOne ? t : -1;
    // The middle one of three such columns is a core; at the ends of a row two are enough.
    if (x > 0 && (columns >= 3 || (columns === 2 && x === 1)) && plain[i - 1] === PLAIN) core[i - 1] = 1;
  }
  const last = start + width - 1;
  if ((columns >= 2 || (columns === 1 && width === 1)) && plain[last] === PLAIN) core[last] = 1;
}

/** Connected bits with fewer pixels than this are no tips of anything. */
const MOST_OF_BIT = 5;

/** A pixel that none or one of its eight neighbours shares takes the tone that most of them have. @param keepBits leaves it alone in a bit of a few pixels. */
function* withoutSingles(labels: Uint8Array, width: number, height: number, keepBits: boolean): Task<Uint8Array> {
  const out = labels.slice();
  const votes = new Uint8Array(32);
  const settleRow = (y: number): void => {
    for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
      const t = labels[i];
      if (labels[i - 1] === t && labels[i + 1] === t) continue;
      votes.fill(0);
      let most = t;
      for (let dy = -width; dy <= width; dy += width) for (let dx = -1; dx <= 1; dx++) if (dx !== 0 || dy !== 0) votes[labels[i + dy + dx]]++;
      if (votes[t] > 1 || (keepBits && isBit(labels, width, height, i))) continue;
      for (let k = 0; k < 32; k++) if (votes[k] > votes[most]) most = k;
      out[i] = most;
    }
  };
  yield* byRows(height - 2, (y) => settleRow(y + 1));
  return out;
}

/** Whether a pixel is one of a few, connected also over corners, that have its tone. */
function isBit(labels: Uint8Array, width: number, height: number, start: number): boolean {
  const bit = [start];
  for (let k = 0; k < bit.length; k++) {
    const x = bit[k] % width;
    const y = (bit[k] - x) / width;
    for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
      for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
        const j = v * width + u;
        if (labels[j] !== labels[start] || bit.includes(j)) continue;
        if (bit.length + 1 >= MOST_OF_BIT) return false;
        bit.push(j);
      }
    }
  }
  return true;
}
