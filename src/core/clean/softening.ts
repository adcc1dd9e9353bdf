import { forEdges, writeForEdges } from '../colour/edgeMetric.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { labelEdges, nearEdges } from '../raster/nearEdges.ts';
import { noiseLevel } from './noiseLevel.ts';
import { findPalette } from './palette.ts';
import { within, type Task } from '../task/task.ts';
import { PLAIN, plainPixels } from './plainPixels.ts';

/** How far to both sides of the lift's edge pixels may be mixtures, px: compression spreads a change of tint alone as far. */
const REACH = 6;
/** Mixed pixels that hold more than this share of the art keep it whole: a lower share is mixture, a higher one is noise of the art. */
const WHOLE = 0.94;
/** Lifted pixels that hold less than this share of the art are clear; so much more a level of noise. */
const LEAST = 0.05;
const LEAST_NOISY = 0.006;
/** A pixel whose neighbours differ by no more than this is no mixture, levels of 255; so much more a level of noise. */
const ALIKE = 8;
const ALIKE_NOISY = 2;
/** A colour a pixel further away must explain a mixture by so much better, levels. */
const NEARER = 3;
/** Towards the art a mixture gets no nearer to the ground again by more than this, levels; so much more a level of noise. */
const BACK = 10;
const BACK_NOISY = 3;
/** A lifted pixel this near to the ground's colour holds too little art to tell, levels; so much more a level of noise. */
const TAIL = 5;
const TAIL_NOISY = 1.5;
/** A plain colour this near to one of the art's tones is that tone, and so is the strongest of a thin line, levels of all channels. */
const TONE = 40;
const TONE_OF_LINE = 70;

/** In flat art nearly all plain pixels are this near to one of few tones, levels of all channels; so much more a level of noise. */
const OFF_TONE = 22;
const OFF_TONE_NOISY = 4;
const FLAT = 0.93;
const MOST_FLAT_TONES = 12;
/** What stands alone as so few pixels and this near to the ground is what compression or noise left of it, levels. */
const SPECK = 60;
const SPECK_PX2 = 4;

/** So many plain pixels of the ground are enough to know its colour. */
const GROUND_PX = 8;
/** In a thin line the strongest pixel is looked for this far, px. */
const LINE_REACH = 3.5;
/** Not looked up yet. */
const UNKNOWN = -2;
/** The places around one that are looked at, nearest first: how far across and down they are, and how far away. */
const AROUND = Array.from({ length: (2 * REACH + 1) ** 2 }, (_, k) => [(k % (2 * REACH + 1)) - REACH, Math.floor(k / (2 * REACH + 1)) - REACH] as const).sort(
  (a, b) => Math.hypot(...a) - Math.hypot(...b),
);
const ACROSS = Int8Array.from(AROUND, ([dx]) => dx);
const DOWN = Int8Array.from(AROUND, ([, dy]) => dy);
const AWAY = Float64Array.from(AROUND, ([dx, dy]) => Math.hypot(dx, dy));

/** Makes ready to read an art's pixels near the edge of what is lifted. */
export function* softeningFor(art: Art, lifted: Uint8Array, ground: Rgb, stays?: Uint8Array): Task<Softening> {
  const noise = noiseLevel(art.colour);
  const plain = yield* within(plainPixels(art.colour, art.alpha, ALIKE + ALIKE_NOISY * noise), 0, 0.8);
  return new Softening(art, lifted, ground, stays, noise, plain);
}

/** Reads pixels near the lift's edge as mixtures of ground and art. */
export class Softening {
  /** The share of art that the pixel holds, 0 to 1, and the art's colour in it. */
  share = 0;
  readonly colour = new Uint8Array(3);
  private readonly data: Art['colour']['data'];
  private readonly tones: readonly Rgb[];
  private readonly tonePlaces: Float64Array;
  /** Whether the art is in few tones: then what is not near to one is a mixture, however slowly it changes. */
  readonly isFlat: boolean;
  private readonly offTone: number;
  private readonly known: Int8Array;
  private readonly least: number;
  private readonly slack: number;
  private readonly tail: number;
  private readonly own = new Float64Array(3);
  private readonly back = new Float64Array(3);
  private readonly front = new Float64Array(3);
  private readonly other = new Float64Array(3);
  private readonly rgb = new Uint8Array(3);
  private best = 0;
  private strongest = 0;

  constructor(
    private readonly art: Art,
    private readonly lifted: Uint8Array,
    private readonly ground: Rgb,
    private readonly stays: Uint8Array | undefined,
    readonly noise: number,
    private readonly plain: Uint8Array,
  ) {
    this.data = art.colour.data;
    this.tones = findPalette(art.colour, this.plain, 'auto');
    this.tonePlaces = forEdges(this.tones);
    this.known = new Int8Array(lifted.length).fill(UNKNOWN);
    this.offTone = OFF_TONE + OFF_TONE_NOISY * noise;
    this.isFlat = this.tones.length <= MOST_FLAT_TONES && this.shareWithin(this.offTone) > FLAT;
    this.least = LEAST + LEAST_NOISY * noise;
    this.slack = BACK + BACK_NOISY * noise;
    this.tail = TAIL + TAIL_NOISY * noise;
    // In flat art all that is lifted has one tone.
    if (this.isFlat) this.readTone(ground.r, ground.g, ground.b, this.back);
  }

  /**
   * The pixels that may be mixtures: from the lift's edge outwards as far as it reaches, and inwards as long as they do not come nearer to the ground again.
   * Beyond a thin line around white art there is no mixture with the ground.
   */
  rim(): number[] {
    const {
      art: { width, height, alpha },
      lifted,
    } = this;
    const depth = new Uint8Array(lifted.length);
    const found: number[] = [];
    const { rowFirst, start, end } = nearEdges(labelEdges(lifted, width, height), 1);
    for (let y = 0; y < height; y++) {
      for (let s = rowFirst[y]; s < rowFirst[y + 1]; s++)
        for (let i = start[s]; i < end[s]; i++) if (alpha[i] !== 0 && this.isBesideOther(i - y * width, y)) depth[found.push(i) && i] = 1;
    }
    for (let k = 0; k < found.length; k++) {
      const i = found[k];
      if (depth[i] >= REACH || this.isPlain(i)) continue;
      const y = Math.floor(i / width);
      const x = i - y * width;
      const from = this.fromGround(i);
      for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
        for (let xx = Math.max(0, x - 1), j = yy * width + xx; xx <= Math.min(width - 1, x + 1); xx++, j++) {
          if (depth[j] !== 0 || alpha[j] === 0 || lifted[j] !== lifted[i] || this.isBesideStay(xx, yy)) continue;
          if (lifted[j] === 0 && this.fromGround(j) < from - this.slack) continue;
          depth[j] = depth[i] + 1;
          found.push(j);
        }
      }
    }
    return found;
  }

  /** Whether a pixel, or one beside it, is art of the ground's colour. */
  private isBesideStay(x: number, y: number): boolean {
    const {
      art: { width, height },
      stays,
    } = this;
    if (stays === undefined) return false;
    for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++)
      for (let xx = Math.max(0, x - 1); xx <= Math.min(width - 1, x + 1); xx++) if (stays[yy * width + xx] !== 0) return true;
    return false;
  }

  private isBesideOther(x: number, y: number): boolean {
    const {
      art: { width, height, alpha },
      lifted,
    } = this;
    const own = lifted[y * width + x];
    for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
      for (let xx = Math.max(0, x - 1), j = yy * width + xx; xx <= Math.min(width - 1, x + 1); xx++, j++) if (lifted[j] !== own && alpha[j] !== 0) return true;
    }
    return false;
  }

  /** How far a pixel's colour is from the lifted one. */
  private fromGround(i: number): number {
    const { data, ground } = this;
    return Math.sqrt((data[4 * i] - ground.r) ** 2 + (data[4 * i + 1] - ground.g) ** 2 + (data[4 * i + 2] - ground.b) ** 2);
  }

  /** Whether the pixel is to be given another share than its side of the edge has; `share` and `colour` tell it. */
  isMixed(i: number): boolean {
    const {
      data,
      lifted,
      own,
      art: { width },
    } = this;
    if (this.isPlain(i) || (lifted[i] !== 0 && this.fromGround(i) <= this.tail)) return false;
    const [x, y] = [i % width, Math.floor(i / width)];
    writeForEdges(data[4 * i], data[4 * i + 1], data[4 * i + 2], own, 0);
    this.readGround(x, y);
    if (!this.readArt(i, x, y)) return false;
    if (this.best === 0 && lifted[i] === 0 && this.fromGround(i) < SPECK && this.isSpeck(x, y)) {
      this.share = 0;
      return true;
    }
    const [isLifted, share] = [lifted[i] !== 0, this.share];
    if (isLifted ? share < this.least : share >= WHOLE) return false;
    if (share < this.least) this.share = 0;
    return true;
  }

  /** Whether a pixel is no mixture. */
  private isPlain(i: number): boolean {
    return this.plain[i] === PLAIN && (!this.isFlat || this.isInTones(i));
  }

  private isInTones(i: number): boolean {
    return this.toneAt(i) >= 0;
  }

  /** The tone that a pixel has, −1 for none; found when it is first asked for. */
  private toneAt(i: number): number {
    const { data, known } = this;
    if (known[i] !== UNKNOWN) return known[i];
    writeForEdges(data[4 * i], data[4 * i + 1], data[4 * i + 2], this.other, 0);
    return (known[i] = this.nearestTone(this.offTone));
  }

  /** Share of the pixels that are plain. */
  plainShare(): number {
    let count = 0;
    for (const kind of this.plain) if (kind === PLAIN) count++;
    return count / this.plain.length;
  }

  /** Of the plain pixels, how many are so near to one of the tones, levels of all channels; some are looked at. */
  shareWithin(levels: number): number {
    const { data, plain, other } = this;
    let [seen, inTones] = [0, 0];
    for (let i = 0; i < plain.length; i += Math.max(1, plain.length >> 14) | 1) {
      if (plain[i] !== PLAIN) continue;
      seen++;
      writeForEdges(data[4 * i], data[4 * i + 1], data[4 * i + 2], other, 0);
      if (this.nearestTone(levels) >= 0) inTones++;
    }
    return seen === 0 ? 0 : inTones / seen;
  }

  /** Whether hardly anything beside a pixel stays. */
  private isSpeck(x: number, y: number): boolean {
    const {
      art: { width, height, alpha },
      lifted,
    } = this;
    let stays = 0;
    for (let yy = Math.max(0, y - 2); yy <= Math.min(height - 1, y + 2); yy++) {
      for (let xx = Math.max(0, x - 2), j = yy * width + xx; xx <= Math.min(width - 1, x + 2); xx++, j++) if (lifted[j] === 0 && alpha[j] !== 0) stays++;
    }
    return stays <= SPECK_PX2;
  }

  /** The ground's colour beside a place: the mean of the plain pixels that are nearest. */
  private readGround(x: number, y: number): void {
    if (this.isFlat) return;
    const { data, lifted, ground, back } = this;
    let [r, g, b, n] = [0, 0, 0, 0];
    for (let k = 0; k < AWAY.length && n < GROUND_PX; k++) {
      const j = this.at(x, y, k);
      if (j < 0 || lifted[j] === 0 || !this.isPlain(j)) continue;
      r += data[4 * j];
      g += data[4 * j + 1];
      b += data[4 * j + 2];
      n++;
    }
    if (n === 0) [r, g, b, n] = [ground.r, ground.g, ground.b, 1];
    this.readTone(r / n, g / n, b / n, back);
  }

  /** The pixel at one of the offsets from a place, −1 outside of the art. */
  private at(x: number, y: number, k: number): number {
    const { width, height } = this.art;
    const xx = x + ACROSS[k];
    const yy = y + DOWN[k];
    return xx < 0 || yy < 0 || xx >= width || yy >= height ? -1 : yy * width + xx;
  }

  /** A plain colour, or the tone of the art that it is, in the edges' space and as `rgb`. */
  private readTone(r: number, g: number, b: number, out: Float64Array, within = TONE): void {
    const { other, rgb } = this;
    writeForEdges(r, g, b, out, 0);
    other.set(out);
    rgb[0] = r;
    rgb[1] = g;
    rgb[2] = b;
    const tone = this.nearestTone(within);
    if (tone >= 0) this.takeTone(tone, out);
  }

  private takeTone(tone: number, out: Float64Array): void {
    const { tones, tonePlaces, rgb } = this;
    for (let c = 0; c < 3; c++) out[c] = tonePlaces[3 * tone + c];
    rgb[0] = tones[tone].r;
    rgb[1] = tones[tone].g;
    rgb[2] = tones[tone].b;
  }

  /** The tone nearest to `other`, −1 when none is within a distance. */
  private nearestTone(within: number): number {
    const { tonePlaces, other } = this;
    let least = within * within;
    let nearest = -1;
    for (let k = 0; k < tonePlaces.length; k += 3) {
      const d = (tonePlaces[k] - other[0]) ** 2 + (tonePlaces[k + 1] - other[1]) ** 2 + (tonePlaces[k + 2] - other[2]) ** 2;
      if (d > least) continue;
      least = d;
      nearest = k / 3;
    }
    return nearest;
  }

  /**
   * Finds the art's colour that explains the pixel best: a plain one near it; where there is none, as in a thin line, the one that is furthest from the ground.
   */
  private readArt(i: number, x: number, y: number): boolean {
    const {
      art: { alpha },
      lifted,
    } = this;
    this.best = Infinity;
    this.strongest = 0;
    let weighed = 0;
    for (let k = 0; k < AWAY.length && NEARER * AWAY[k] < this.best; k++) {
      const j = this.at(x, y, k);
      if (j < 0 || lifted[j] !== 0 || alpha[j] === 0 || !this.isPlain(j)) continue;
      // Of pixels of one tone the nearest explains as well as any.
      const tone = this.isFlat ? this.toneAt(j) : -1;
      if (tone >= 0 && (weighed & (1 << tone)) !== 0) continue;
      if (this.weigh(i, j, tone, AWAY[k]) && tone >= 0) weighed |= 1 << tone;
    }
    if (this.best < Infinity) return true;
    for (let k = 0; k < AWAY.length && AWAY[k] <= LINE_REACH; k++) {
      const j = this.at(x, y, k);
      if (j >= 0 && lifted[j] === 0 && alpha[j] !== 0) this.weighStrong(j);
    }
    return this.best < Infinity;
  }

  /** Whether the pixel leads to the other one, whose colour is then the best so far if it explains the pixel better. */
  private weigh(i: number, j: number, tone: number, away: number): boolean {
    const { data, front } = this;
    if (tone >= 0) this.takeTone(tone, front);
    else this.readTone(data[4 * j], data[4 * j + 1], data[4 * j + 2], front);
    const cost = this.off() + NEARER * away;
    if (cost >= this.best) return true;
    if (!this.leadsTo(i, j)) return false;
    this.best = cost;
    this.share = this.along;
    this.colour.set(this.rgb);
    return true;
  }

  private weighStrong(j: number): void {
    const { data, front, back } = this;
    writeForEdges(data[4 * j], data[4 * j + 1], data[4 * j + 2], front, 0);
    const far = (front[0] - back[0]) ** 2 + (front[1] - back[1]) ** 2 + (front[2] - back[2]) ** 2;
    if (far <= this.strongest) return;
    this.strongest = far;
    this.readTone(data[4 * j], data[4 * j + 1], data[4 * j + 2], front, TONE_OF_LINE);
    // A faint line is not the ground for being near to it.
    if ((front[0] - back[0]) ** 2 + (front[1] - back[1]) ** 2 + (front[2] - back[2]) ** 2 < far / 2)
      this.readTone(data[4 * j], data[4 * j + 1], data[4 * j + 2], front, 0);
    this.off();
    this.best = 0;
    this.share = this.along;
    this.colour.set(this.rgb);
  }

  /** Where the pixel's foot lies on the way from ground to art. */
  private along = 0;

  /** How far the pixel's colour lies off the way from ground to art. */
  private off(): number {
    const { own, back, front } = this;
    const [dx, dy, dz] = [front[0] - back[0], front[1] - back[1], front[2] - back[2]];
    const length2 = dx * dx + dy * dy + dz * dz;
    if (length2 < 1) return Infinity;
    const [px, py, pz] = [own[0] - back[0], own[1] - back[1], own[2] - back[2]];
    const t = Math.max(0, Math.min(1, (px * dx + py * dy + pz * dz) / length2));
    this.along = t;
    return Math.sqrt((px - t * dx) ** 2 + (py - t * dy) ** 2 + (pz - t * dz) ** 2);
  }

  /**
   * Whether the straight way from a pixel to another goes up from the ground: a mixture lies beside what it is mixed of, with nothing fainter and nothing
   * stronger between.
   */
  private leadsTo(i: number, j: number): boolean {
    const { width } = this.art;
    const [x, y] = [i % width, Math.floor(i / width)];
    const [dx, dy] = [(j % width) - x, Math.floor(j / width) - y];
    const steps = Math.max(Math.abs(dx), Math.abs(dy));
    const least = this.fromGround(i) - this.slack;
    const most = this.fromGround(j) + this.slack;
    for (let k = 1; k < steps; k++) {
      const far = this.fromGround(Math.round(y + (dy * k) / steps) * width + Math.round(x + (dx * k) / steps));
      if (far < least || far > most) return false;
    }
    return true;
  }
}
