import { writeWeights } from '../../colour/edgeMetric.ts';
import type { Rgb } from '../../colour/oklab.ts';
import type { Art } from '../../raster/art.ts';
import { CLEAR } from '../../raster/labelMap.ts';
import { wordsOf } from '../../raster/raster.ts';
import type { CrackPlaces, Stray } from './arcPoints.ts';

/** How far across an edge shares are summed to each side, px: soft edges are rarely wider. */
const REACH = 4;
/** How far a strip that is thinner than its own blur is followed to its other side, px. */
const THIN_REACH = 7;
/** Edges are not taken for wider than this, px. */
const WIDEST = 2.5;
/** A share this near to none or all counts as the end of the edge, of 255. */
const NEAR = 18;
/** What strays further than this, of 255, belongs to another edge. */
const FURTHEST_STRAY = 64;
/**
 * A colour of a strip's profile may lie so far outside of the triangle of its three tones, as a share of its sides, and off its plane, of 255; else a fourth
 * tone has a part in it.
 */
const OVER = 0.25;
const STRANGE = 40;
/** Two tones that surround a thin strip and the strip's own must make a triangle this high, of 255, for its two edges to be told apart by colour. */
const LEAST_HEIGHT = 20;

/**
 * Says where an edge between two tones runs inside its pixels. A pixel's share of the second tone is its place on the way from the first tone's colour to the
 * second's; for an edge to what is clear, its alpha. Summed across the edge, from where there is only the one to where there is only the other, the shares say
 * exactly where a straight edge runs, and a symmetric blur does not change it (lowest grey moment: Tabatabai & Mitchell, IEEE PAMI 6(2), 1984,
 * doi:10.1109/TPAMI.1984.4767502). Where a third tone lies too near for that, the colours of the whole profile, from the first tone across a thin strip to the
 * third, are the sum of the three tones times their widths, which least squares solves for.
 */
export class EdgePlaces implements CrackPlaces {
  private readonly words: Int32Array;
  private readonly alpha: Uint8Array;
  private readonly width: number;
  /** From the first to the second tone: direction over its squared length times 255, and where it starts. */
  private readonly way = new Float64Array(4);
  private first = 0;
  private second = 0;
  /** Sum over the edges placed of how mixed the pixels across them are, and how many those are. */
  private mixed = 0;
  private placed = 0;
  /** The same sum over the edge that is being placed. */
  private mixedHere = 0;
  /** Whether its profile has colours that its three tones do not make. */
  private isMuddled = false;

  constructor(
    art: Art,
    private readonly tones: readonly Rgb[],
    private readonly cells: Uint8Array,
    private readonly stride: number,
  ) {
    this.words = wordsOf(art.colour);
    this.alpha = art.alpha;
    this.width = art.width;
  }

  /** The two tones, or `CLEAR`, between which edges are placed from now on. */
  between(first: number, second: number): void {
    this.first = first;
    this.second = second;
    this.mixed = 0;
    this.placed = 0;
    this.strays.fill(0);
    if (first === CLEAR || second === CLEAR) return;
    const a = this.tones[first];
    const b = this.tones[second];
    const x = b.r - a.r;
    const y = b.g - a.g;
    const z = b.b - a.b;
    writeWeights(x, y, z, this.way);
    const [u, v, w] = this.way;
    const scale = 255 / Math.max(1, x * u + y * v + z * w);
    this.way[0] = u * scale;
    this.way[1] = v * scale;
    this.way[2] = w * scale;
    this.way[3] = -(a.r * u + a.g * v + a.b * w) * scale;
  }

  /**
   * Width of the edges placed so far between these tones, px: 1 when only area sampling mixed them, more for blurred ones. Across a ramp of width w the mean of
   * share times the rest adds up to w / 6.
   */
  edgeWidthPx(): number {
    return this.placed === 0 ? 1 : Math.max(1, Math.min(WIDEST, (6 * this.mixed) / this.placed));
  }

  /** The pixel of a cell; −1 on the border that the lattice has around the picture. */
  private pixelOf(cell: number): number {
    const { stride, width } = this;
    const row = (cell / stride) | 0;
    const column = cell - row * stride;
    return column === 0 || column > width || row === 0 || cell >= this.cells.length - stride ? -1 : (row - 1) * width + column - 1;
  }

  /** Whether a cell lies on that border: beyond it there is no cell, and beside it the neighbouring row. */
  private isBorder(cell: number): boolean {
    return this.pixelOf(cell) < 0;
  }

  /** Share of the second tone in a cell, 0 to 255; 0 outside of the picture unless the second is `CLEAR`. */
  share(cell: number): number {
    const { second } = this;
    const i = this.pixelOf(cell);
    if (i < 0) return second === CLEAR ? 255 : 0;
    if (second === CLEAR) return 255 - this.alpha[i];
    if (this.first === CLEAR) return this.alpha[i];
    const word = this.words[i];
    const { way } = this;
    const share = (word & 255) * way[0] + ((word >> 8) & 255) * way[1] + ((word >> 16) & 255) * way[2] + way[3];
    return share < 0 ? 0 : share > 255 ? 255 : share;
  }

  /** A neighbour's share where it belongs to one of the two tones, else what the pixel beside it has: a third tone says nothing of this edge. */
  private shareBeside(cell: number, beside: number): number {
    const label = this.cells[cell];
    return label === this.first || label === this.second ? this.share(cell) : beside;
  }

  crossing(left: number, across: number, along: number, every: boolean): number {
    return every || this.crosses(left, across, along) ? this.place(left, across, every) : NaN;
  }

  /** Whether the shares change more across a crack than along it. */
  private crosses(left: number, across: number, along: number): boolean {
    const right = left + across;
    const a = this.share(left);
    const b = this.share(right);
    const steepAcross = 2 * (b - a);
    const before = this.shareBeside(left - along, a) + this.shareBeside(right - along, b);
    const after = this.shareBeside(left + along, a) + this.shareBeside(right + along, b);
    const steepAlong = (after - before) / 2;
    return steepAlong <= steepAcross && -steepAlong <= steepAcross;
  }

  /**
   * How far from the centre of cell `from` (of the first tone) towards that of its neighbour `from + across` (of the second) the edge lies, px.
   * Mostly between 0 and 1, at most half a pixel more to either side. NaN where a fourth tone has a part in the profile, unless some place is wanted at any
   * rate.
   */
  private place(from: number, across: number, atAnyRate: boolean): number {
    const { first, second } = this;
    this.mixedHere = 0;
    this.isMuddled = false;
    const outside = this.otherOn(first, from, -across);
    const inside = this.otherOn(second, from + across, across);
    if (outside >= 0 && inside >= 0) {
      this.placed++;
      this.mixed += this.mixedHere;
      return held(0.5 - (outside - inside) / 255);
    }
    // A strip of the second tone seen from the first one's side, or of the first seen from the second's.
    const thin = outside >= 0 ? this.strip(from, across, first, second) : inside >= 0 ? 1 - this.strip(from + across, -across, second, first) : NaN;
    if (thin > -1 && thin < 2) return held(thin);
    if (this.isMuddled && !atAnyRate) return NaN;
    const a = this.share(from);
    const b = this.share(from + across);
    return b - a < 8 ? 0.5 : held((127.5 - a) / (b - a));
  }

  /**
   * What there is of the other tone on one tone's side of the edge, from a cell on in steps of `away`; −1 when that side does not become all of its own tone.
   */
  private otherOn(own: number, from: number, away: number): number {
    let sum = 0;
    let before = 256;
    for (let k = 0, i = from; k < REACH; k++, i += away) {
      if (k > 0 && this.cells[i] !== own) return -1;
      const value = own === this.first ? this.share(i) : 255 - this.share(i);
      if (value > before) return -1;
      sum += value;
      before = value;
      this.mixedHere += (value * (255 - value)) / 65025;
      if (value > NEAR) continue;
      this.noteStray(own, i + away);
      return sum;
    }
    return -1;
  }

  /** Notes how far the pixel beyond the end of an edge strays from the tone that is alone there. */
  private noteStray(own: number, cell: number): void {
    const i = this.pixelOf(cell);
    if (i < 0 || this.cells[cell] !== own) return;
    const { first, second, way } = this;
    let off = own === second ? 255 : 0;
    if (first === CLEAR || second === CLEAR) off -= this.share(cell);
    else {
      const word = this.words[i];
      off -= (word & 255) * way[0] + ((word >> 8) & 255) * way[1] + ((word >> 16) & 255) * way[2] + way[3];
    }
    if (off < 0) off = -off;
    if (off < FURTHEST_STRAY) this.strays[off | 0]++;
  }

  stray(): Stray {
    const { strays } = this;
    let count = 0;
    for (let k = 0; k < FURTHEST_STRAY; k++) count += strays[k];
    let left = count / 2;
    let k = 0;
    while (k < FURTHEST_STRAY && strays[k] < left) left -= strays[k++];
    return { middle: count === 0 ? 0 : (k + left / strays[k]) / 255, count };
  }

  /**
   * The place of the near edge of a strip: its tone and those before and behind it, weighed by their widths, add up to the colours of the profile.
   * NaN when the profile does not end in a third tone, or the three tones lie in line.
   */
  private strip(from: number, across: number, before: number, own: number): number {
    const { cells } = this;
    let start = from;
    let lead = 0;
    while (lead < REACH - 1 && !this.isBorder(start) && this.distanceTo(start, before) > NEAR && cells[start - across] === before) {
      start -= across;
      lead++;
    }
    let end = from + across;
    let n = lead + 2;
    while (n < lead + THIN_REACH && cells[end] === own && !this.isBorder(end)) {
      end += across;
      n++;
    }
    const behind = cells[end];
    if (behind === own) return NaN;
    for (let k = 0; k < 2 && !this.isBorder(end) && this.distanceTo(end, behind) > NEAR && cells[end + across] === behind; k++) {
      end += across;
      n++;
    }
    return this.solveStrip(start, across, n, lead, before, own, behind);
  }

  /** How many pixels beyond the ends of the edges placed stray so far, of 255, from the tone that is alone there. */
  private readonly strays = new Uint32Array(FURTHEST_STRAY);
  private readonly total = new Float64Array(4);
  private readonly one = new Float64Array(4);

  private solveStrip(start: number, across: number, n: number, lead: number, before: number, own: number, behind: number): number {
    const { total, one } = this;
    total.fill(0);
    let moment = 0;
    const base = this.colourOf(before);
    const toOwn = this.colourOf(own).map((value, k) => value - base[k]);
    const toBehind = this.colourOf(behind).map((value, k) => value - base[k]);
    const oo = dot(toOwn, toOwn);
    for (let k = 0, i = start; k < n; k++, i += across) {
      this.writeCell(i, one);
      for (let c = 0; c < 4; c++) {
        one[c] -= base[c];
        total[c] += one[c];
      }
      moment += (k - lead) * (dot(one, toOwn) / oo);
    }
    if (behind === before) {
      const strip = dot(total, toOwn) / oo;
      return strip > 0.05 ? moment / strip - strip / 2 : NaN;
    }
    const bb = dot(toBehind, toBehind);
    const ob = dot(toOwn, toBehind);
    const det = oo * bb - ob * ob;
    if (det < LEAST_HEIGHT * LEAST_HEIGHT * Math.max(oo, bb)) return NaN;
    for (let k = 0, i = start; k < n; k++, i += across) {
      this.writeCell(i, one);
      for (let c = 0; c < 4; c++) one[c] -= base[c];
      const o = (dot(one, toOwn) * bb - dot(one, toBehind) * ob) / det;
      const b = (dot(one, toBehind) * oo - dot(one, toOwn) * ob) / det;
      const off2 = dot(one, one) - o * dot(one, toOwn) - b * dot(one, toBehind);
      if (o > -OVER && b > -OVER && o + b < 1 + OVER && off2 < STRANGE * STRANGE) continue;
      this.isMuddled = true;
      return NaN;
    }
    const to = dot(total, toOwn);
    const tb = dot(total, toBehind);
    const strip = (to * bb - tb * ob) / det;
    const after = (tb * oo - to * ob) / det;
    return n - strip - after - lead - 0.5;
  }

  /** How far a cell's colour is from a tone, levels of 255. */
  private distanceTo(cell: number, tone: number): number {
    this.writeCell(cell, this.one);
    const colour = this.colourOf(tone);
    return Math.sqrt((this.one[0] - colour[0]) ** 2 + (this.one[1] - colour[1]) ** 2 + (this.one[2] - colour[2]) ** 2 + (this.one[3] - colour[3]) ** 2);
  }

  /** Premultiplied colour and alpha, so that clear is a colour like the others. */
  private writeCell(cell: number, out: Float64Array): void {
    const i = this.pixelOf(cell);
    if (i < 0) {
      out.fill(0);
      return;
    }
    const word = this.words[i];
    const share = this.alpha[i] / 255;
    out[0] = (word & 255) * share;
    out[1] = ((word >> 8) & 255) * share;
    out[2] = ((word >> 16) & 255) * share;
    out[3] = this.alpha[i];
  }

  private colourOf(tone: number): readonly number[] {
    if (tone === CLEAR) return NOTHING;
    const { r, g, b } = this.tones[tone];
    return [r, g, b, 255];
  }
}

const NOTHING: readonly number[] = [0, 0, 0, 0];

const dot = (a: ArrayLike<number>, b: ArrayLike<number>): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2] + a[3] * b[3];
const held = (place: number): number => (place < -0.5 ? -0.5 : place > 1.5 ? 1.5 : place);
