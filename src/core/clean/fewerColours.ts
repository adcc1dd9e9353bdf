import { writeOklab, type Rgb } from '../colour/oklab.ts';
import { withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import { noiseLevel } from './noiseLevel.ts';
import { findPalette, NARROW, PLAIN, type Tone } from './palette.ts';
import { sigmaFilter } from './sigmaFilter.ts';

export interface FewerColours {
  readonly art: Art;
  /** Most frequent first. */
  readonly tones: readonly Tone[];
  /** Index into `tones` for every pixel; what is clear has the nearest one too. */
  readonly labels: Uint8Array;
}

/** How far around a mixed pixel its tones are looked for, px: soft edges and JPEG blocks spread no further. */
const REACH = 3;

/**
 * Brings the art to its few real tones. Plain places are read first: they give the palette, and they keep the nearest tone. A pixel that is not plain is
 * a mixture when its colour lies on the way between two tones that are plain nearby; then it takes the nearer of those two and never a third that
 * happens to lie in between. What no such mixture explains (a thin line) keeps its own nearest tone.
 * @param count tones including the background, 2 to 32, or `auto`.
 * @param noSingles gives pixels that stand alone the tone around them; off to see specks.
 */
export function* fewerColours(art: Art, count: number | 'auto', noSingles = true): Task<FewerColours> {
  const { width, height } = art;
  const noise = noiseLevel(art.colour);
  const smooth = yield* within(sigmaFilter(art.colour, 2, Math.max(12, Math.min(40, 10 + 3 * noise)), noSingles), 0, 0.5);
  const plain = plainPixels(smooth, art.alpha, 6 + noise);
  yield 0.55;
  const tones = findPalette(smooth, plain, count);
  if (tones.length < 2) return { art, tones, labels: new Uint8Array(width * height) };
  const labels = nearestTones(smooth, tones);
  yield 0.65;
  const core = coresOf(labels, plain, width, height);
  yield 0.7;
  const settle = new Settler(smooth, labels, core, tones, 14 + 2 * noise);
  for (let y = 0; y < height; y++) {
    settle.row(y);
    if (y % 64 === 63) yield 0.7 + (0.2 * y) / height;
  }
  const settled = noSingles ? withoutSingles(settle.finish(), width, height) : settle.finish();
  return { art: withAlpha(art, art.alpha, inTones(art.colour, settled, tones)), tones, labels: settled };
}

/** `PLAIN` where a pixel is there and none of its four neighbours differs by more than `most` in any channel, `NARROW` where one does. */
function plainPixels({ data, width, height }: Rgba8, alpha: Uint8Array, most: number): Uint8Array {
  const plain = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) plainRow(data, alpha, plain, width, height, y, most);
  return plain;
}

function plainRow(data: Rgba8['data'], alpha: Uint8Array, plain: Uint8Array, width: number, height: number, y: number, most: number): void {
  const stride = width * 4;
  const up = y > 0 ? -stride : 0;
  const down = y < height - 1 ? stride : 0;
  for (let x = 0, i = y * width; x < width; x++, i++) {
    if (alpha[i] < 128) continue;
    const j = i * 4;
    const alike = isLike(data, j, j + (x > 0 ? -4 : 0), most) + isLike(data, j, j + (x < width - 1 ? 4 : 0), most) + isLike(data, j, j + up, most) + isLike(data, j, j + down, most);
    plain[i] = alike === 4 ? PLAIN : alike === 3 ? NARROW : 0;
  }
}

function isLike(data: Rgba8['data'], i: number, j: number, most: number): number {
  return Math.abs(data[i] - data[j]) <= most && Math.abs(data[i + 1] - data[j + 1]) <= most && Math.abs(data[i + 2] - data[j + 2]) <= most ? 1 : 0;
}

/** The nearest tone of every pixel, through a table of 6 bits a channel. */
function nearestTones({ data, width, height }: Rgba8, tones: readonly Rgb[]): Uint8Array {
  const table = toneTable(tones);
  const labels = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) labelRow(data, table, labels, y * width, (y + 1) * width);
  return labels;
}

function labelRow(data: Rgba8['data'], table: Uint8Array, labels: Uint8Array, from: number, to: number): void {
  for (let i = from, j = from * 4; i < to; i++, j += 4) labels[i] = table[(data[j] >> 2) | ((data[j + 1] >> 2) << 6) | ((data[j + 2] >> 2) << 12)];
}

function toneTable(tones: readonly Rgb[]): Uint8Array {
  const lab = new Float64Array(tones.length * 3);
  for (const [k, tone] of tones.entries()) writeOklab(tone.r, tone.g, tone.b, lab, k * 3);
  const table = new Uint8Array(1 << 18);
  const own = new Float64Array(3);
  for (let key = 0; key < table.length; key++) {
    writeOklab(((key & 63) << 2) + 2, (((key >> 6) & 63) << 2) + 2, ((key >> 12) << 2) + 2, own);
    let best = Infinity;
    for (let k = 0; k < tones.length; k++) {
      const dl = lab[k * 3] - own[0];
      const da = lab[k * 3 + 1] - own[1];
      const db = lab[k * 3 + 2] - own[2];
      const d = dl * dl + da * da + db * db;
      if (d < best) {
        best = d;
        table[key] = k;
      }
    }
  }
  return table;
}

/** 1 where a plain pixel's eight neighbours all have its tone: the inside of an area, as thin as three pixels. */
function coresOf(labels: Uint8Array, plain: Uint8Array, width: number, height: number): Uint8Array {
  const core = new Uint8Array(labels.length);
  for (let y = 0; y < height; y++) {
    const up = y > 0 ? -width : 0;
    const down = y < height - 1 ? width : 0;
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (plain[i] !== PLAIN) continue;
      const left = x > 0 ? -1 : 0;
      const right = x < width - 1 ? 1 : 0;
      const t = labels[i];
      if (
        labels[i + left] === t && labels[i + right] === t && labels[i + up] === t && labels[i + down] === t &&
        labels[i + up + left] === t && labels[i + up + right] === t && labels[i + down + left] === t && labels[i + down + right] === t
      ) core[i] = 1;
    }
  }
  return core;
}

/** Gives the pixels outside the cores their tones. One instance works on one picture, row by row. */
class Settler {
  private readonly settled: Uint8Array;
  /** Pixels that no mixture of plain tones explains, and whether their own tone may be a mixture with a neighbour's. */
  private readonly open: number[] = [];
  private readonly isOpen: Uint8Array;
  private readonly near = new Int32Array(32);

  constructor(
    private readonly smooth: Rgba8,
    private readonly labels: Uint8Array,
    private readonly core: Uint8Array,
    private readonly tones: readonly Rgb[],
    private readonly slack: number,
  ) {
    this.settled = labels.slice();
    this.isOpen = new Uint8Array(labels.length);
  }

  row(y: number): void {
    const { core } = this;
    const { width } = this.smooth;
    for (let x = 0, i = y * width; x < width; x++, i++) if (core[i] === 0) this.settle(x, y, i);
  }

  /** Thin lines are open on both sides of their middle: what lies between a plain tone and the line's own is a mixture of the two. */
  finish(): Uint8Array {
    const { width, height } = this.smooth;
    const { open, isOpen, labels, settled } = this;
    for (const i of open) {
      const x = i % width;
      const y = (i - x) / width;
      const plainNear = this.coresNear(x, y, REACH);
      const own = labels[i];
      let best = this.slack;
      for (let yy = Math.max(0, y - 2); yy <= Math.min(height - 1, y + 2); yy++) {
        for (let xx = Math.max(0, x - 2), j = yy * width + xx; xx <= Math.min(width - 1, x + 2); xx++, j++) {
          const other = labels[j];
          if (isOpen[j] === 0 || other === own) continue;
          for (let k = 0; k < plainNear; k++) {
            const tone = this.near[k];
            if (tone === own || tone === other) continue;
            const { off, share } = this.between(i, tone, other);
            if (off >= best) continue;
            best = off;
            settled[i] = share < 0.5 ? tone : other;
          }
        }
      }
    }
    return settled;
  }

  private settle(x: number, y: number, i: number): void {
    const own = this.labels[i];
    // Beside the core of its own tone it is that tone's rim, unless it is a mixture of two others.
    const beside = this.coresNear(x, y, 1);
    for (let k = 0; k < beside; k++) if (this.near[k] === own) return;
    const count = this.coresNear(x, y, REACH);
    let best = this.slack;
    let found = -1;
    for (let a = 0; a < count; a++) {
      // With one tone nearby the only question is whether the pixel is that one.
      for (let b = count === 1 ? a : a + 1; b < count; b++) {
        const { off, share } = this.between(i, this.near[a], this.near[b]);
        if (off >= best) continue;
        best = off;
        found = share < 0.5 ? this.near[a] : this.near[b];
      }
    }
    if (found >= 0) this.settled[i] = found;
    else {
      this.isOpen[i] = 1;
      this.open.push(i);
    }
  }

  /** Collects the tones of the cores within `reach` into `near`; gives how many. */
  private coresNear(x: number, y: number, reach: number): number {
    const { core, labels, near } = this;
    const { width, height } = this.smooth;
    let seen = 0;
    let count = 0;
    for (let yy = Math.max(0, y - reach); yy <= Math.min(height - 1, y + reach); yy++) {
      for (let xx = Math.max(0, x - reach), j = yy * width + xx; xx <= Math.min(width - 1, x + reach); xx++, j++) {
        if (core[j] === 0 || (seen & (1 << labels[j])) !== 0) continue;
        seen |= 1 << labels[j];
        near[count++] = labels[j];
      }
    }
    return count;
  }

  /** How far the pixel's colour lies off the way from tone a to tone b, levels of 255, and where on it. */
  private between(i: number, a: number, b: number): { off: number; share: number } {
    const { data } = this.smooth;
    const from = this.tones[a];
    const to = this.tones[b];
    const pr = data[i * 4] - from.r;
    const pg = data[i * 4 + 1] - from.g;
    const pb = data[i * 4 + 2] - from.b;
    const dr = to.r - from.r;
    const dg = to.g - from.g;
    const db = to.b - from.b;
    const length = dr * dr + dg * dg + db * db;
    const share = length === 0 ? 0 : Math.max(0, Math.min(1, (pr * dr + pg * dg + pb * db) / length));
    return { off: Math.hypot(pr - share * dr, pg - share * dg, pb - share * db), share };
  }
}

/** A pixel that none or one of its eight neighbours shares takes the tone that most of them have. */
function withoutSingles(labels: Uint8Array, width: number, height: number): Uint8Array {
  const out = labels.slice();
  const votes = new Uint8Array(32);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
      const t = labels[i];
      if (labels[i - 1] === t && labels[i + 1] === t) continue;
      votes.fill(0);
      let most = t;
      for (let dy = -width; dy <= width; dy += width) for (let dx = -1; dx <= 1; dx++) if (dx !== 0 || dy !== 0) votes[labels[i + dy + dx]]++;
      if (votes[t] > 1) continue;
      for (let k = 0; k < 32; k++) if (votes[k] > votes[most]) most = k;
      out[i] = most;
    }
  }
  return out;
}

function inTones(colour: Rgba8, labels: Uint8Array, tones: readonly Rgb[]): Rgba8 {
  const out = new Uint8Array(colour.data);
  for (let i = 0, j = 0; i < labels.length; i++, j += 4) {
    const tone = tones[labels[i]];
    out[j] = tone.r;
    out[j + 1] = tone.g;
    out[j + 2] = tone.b;
  }
  return makeRgba8(colour.width, colour.height, out, colour.opaque === true);
}
