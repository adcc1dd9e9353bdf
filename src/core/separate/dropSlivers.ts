import type { Rgb } from '../colour/oklab.ts';
import { labelRegions, runsByRegion, type Regions } from '../raster/labelRegions.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../raster/labelMap.ts';
import { wordsOf, type Rgba8 } from '../raster/raster.ts';

/** Of a sliver's colours, the way between the two tones around it must explain them better than its own tone by this factor. */
const BETTER = 0.75;
/** Of a thin line's colours, another tone must explain them better than its own by this factor. */
const LINE_BETTER = 0.4;
/** A thin line covers at least this share of its pixels in the mean: less is a stain of any tone. */
const LEAST_COVER = 0.35;
/** Label of what is not thin in the map of thin parts. */
const BROAD = 254;

/**
 * Takes out slivers: strips of at most two pixels along an edge between two tones that have a third one's label, because compression has drawn the mixture of the two off
 * the straight way between them. Where the mixture explains the strip's colours better than its own tone, each pixel goes to the nearer of the two. A real thin
 * line has its own colour and stays.
 */
export function dropSlivers(labels: LabelMap, colour: Rgba8, tones: readonly Rgb[]): LabelMap {
  const { width, height } = labels;
  const thin = thinParts(labels);
  const regions = labelRegions(thin, width, height, 'each', true);
  const { runStart, runEnd, count, area } = regions;
  const { first, runs: all } = runsByRegion(regions);
  const words = wordsOf(colour);
  const out = labels.data.slice();
  for (let part = 0; part < count; part++) {
    const runs = all.subarray(first[part], first[part + 1]);
    const own = thin[runStart[runs[0]]];
    if (own >= tones.length || area[part] < 2) continue;
    const { first: ground, second, alone, both } = tonesAround(labels, own, regions, runs);
    if (ground >= tones.length) continue;
    if (second < tones.length) {
      const sliver = new Sliver(words, tones[own], tones[ground], tones[second]);
      for (const run of runs) for (let i = runStart[run]; i < runEnd[run]; i++) sliver.weigh(i);
      if (sliver.isMixture() || (both && (sliver.isBled() || sliver.isFaint() || sliver.isOvershoot()))) {
        for (const run of runs) for (let i = runStart[run]; i < runEnd[run]; i++) out[i] = sliver.isNearerFirst(i) ? ground : second;
        continue;
      }
    }
    if (!alone) continue;
    const line = isEcho(labels, tones, own, ground, regions, runs) ? ground : toneOfLine(words, tones, own, ground, regions, runs);
    if (line !== own) for (const run of runs) out.fill(line, runStart[run], runEnd[run]);
  }
  return makeLabelMap(width, height, out);
}

/** How far from an edge compression echoes it, px. */
const ECHO_PX = 4;
/** An echo is weaker than this share of its edge. */
const ECHO = 0.35;
/** So much of an echo has its edge beside it. */
const ALONG_EDGE = 0.6;

/** Whether a strip inside of one tone is the echo of an edge beside it: fainter than that, and off to the other side, as compression leaves it. */
function isEcho({ data, width, height }: LabelMap, tones: readonly Rgb[], own: number, ground: number, { runStart, runEnd }: Regions, runs: Int32Array): boolean {
  const votes = new Uint32Array(256);
  const seen = new Set<number>();
  let count = 0;
  for (const run of runs) {
    for (let i = runStart[run]; i < runEnd[run]; i++) {
      count++;
      seen.clear();
      const [x, y] = [i % width, Math.floor(i / width)];
      for (let yy = Math.max(0, y - ECHO_PX); yy <= Math.min(height - 1, y + ECHO_PX); yy++) for (let j = yy * width + Math.max(0, x - ECHO_PX), end = yy * width + Math.min(width - 1, x + ECHO_PX); j <= end; j++) seen.add(data[j]);
      for (const label of seen) votes[label]++;
    }
  }
  const [g, t] = [tones[ground], tones[own]];
  const echo = [t.r - g.r, t.g - g.g, t.b - g.b];
  return tones.some((tone, k) => {
    if (k === own || k === ground || votes[k] < ALONG_EDGE * count) return false;
    const edge = [tone.r - g.r, tone.g - g.g, tone.b - g.b];
    const against = -(echo[0] * edge[0] + echo[1] * edge[1] + echo[2] * edge[2]);
    return against > 0 && Math.hypot(...echo) < ECHO * Math.hypot(...edge);
  });
}

/** The tone of a line so thin that all of its pixels are mixed with the one tone around it: that which explains their colours best, its own unless another is clearly better. */
function toneOfLine(words: Int32Array, tones: readonly Rgb[], own: number, ground: number, { runStart, runEnd }: Regions, runs: Int32Array): number {
  const off = tones.map((tone, k) => {
    if (k === ground) return Infinity;
    const sliver = new Sliver(words, tone, tones[ground], tone);
    for (const run of runs) for (let i = runStart[run]; i < runEnd[run]; i++) sliver.weigh(i);
    return k === own || sliver.meanAlong() >= LEAST_COVER ? sliver.mixed : Infinity;
  });
  const best = off.indexOf(Math.min(...off));
  return off[best] < LINE_BETTER * off[own] ? best : own;
}

/** The labels of pixels that lie in no 3 × 3 block of their label, `BROAD` elsewhere. Along the border of the picture blocks are cut off: nothing is thin there. */
function thinParts({ data, width, height }: LabelMap): Uint8Array {
  const middles = new Uint8Array(data.length);
  for (let y = 1; y < height - 1; y++) middlesOfRow(data, middles, width, y * width);
  const thin = new Uint8Array(data.length).fill(BROAD);
  for (let y = 1; y < height - 1; y++) thinOfRow(data, middles, thin, width, y * width);
  return thin;
}

/** Marks the middles of 3 × 3 blocks of one label. */
function middlesOfRow(data: Uint8Array, middles: Uint8Array, width: number, row: number): void {
  // How many columns in a row, this one too, have one label in all three rows.
  let columns = 0;
  let label = -1;
  for (let i = row; i < row + width; i++) {
    const own = data[i];
    const isOne = data[i - width] === own && data[i + width] === own;
    columns = !isOne ? 0 : own === label ? columns + 1 : 1;
    label = isOne ? own : -1;
    if (columns >= 3) middles[i - 1] = 1;
  }
}

function thinOfRow(data: Uint8Array, middles: Uint8Array, thin: Uint8Array, width: number, row: number): void {
  for (let i = row + 1; i < row + width - 1; i++) {
    if (middles[i] !== 0 || data[i] === CLEAR) continue;
    const up = i - width;
    const down = i + width;
    const around = middles[up - 1] | middles[up] | middles[up + 1] | middles[i - 1] | middles[i + 1] | middles[down - 1] | middles[down] | middles[down + 1];
    // A block whose middle lies beside a pixel holds the pixel, so it is of the pixel's label.
    if (around === 0) thin[i] = data[i];
  }
}

/** A tone with so much of a strip's edge has it to itself. */
const ALONE = 0.8;
/** Two tones have a strip between them when the second one has at least so much of its edge. */
const BOTH = 0.2;

/** The two other labels that touch a strip most, 255 when there is no second, and whether the first does so nearly alone or both have a good part. */
function tonesAround({ data, width }: LabelMap, own: number, { runStart, runEnd }: Regions, runs: Int32Array): { first: number; second: number; alone: boolean; both: boolean } {
  const votes = new Uint32Array(256);
  for (const run of runs) {
    const from = runStart[run];
    const to = runEnd[run];
    votes[data[from - 1]]++;
    votes[data[to]]++;
    for (let i = from; i < to; i++) {
      votes[data[i - width]]++;
      votes[data[i + width]]++;
    }
  }
  votes[own] = 0;
  const total = votes.reduce((sum, count) => sum + count, 0);
  const first = votes.indexOf(Math.max(...votes));
  const most = votes[first];
  votes[first] = 0;
  const next = Math.max(...votes);
  return { first, second: next === 0 ? CLEAR : votes.indexOf(next), alone: most >= ALONE * total, both: next >= BOTH * total };
}

/** A tone that lies so far off the way between two others, of 255, mixes with each of them along ways of its own. */
const OFF_THE_WAY = 40;
/** A mixture that is off by more than this in the mean, of 255, is a bad explanation, one that is off by less a good one. */
const BADLY = 18;
const WELL = 12.5;
/** Where two explanations are compared, the better one must be off by less than this share of the other. */
const FAR_BETTER = 0.5;
/** A thin line of a pixel and a half has this share of its tone at least in its strongest pixels, which are so many of them. */
const FULL_COVER = 0.6;
const STRONGEST = 0.25;
/** The strongest pixels of a line are nearer to its tone than this share of what sets it off from its side. */
const HARDLY = 0.3;

/** The colours of a strip, weighed as a mixture of the two tones around it and as a line of its own tone. */
class Sliver {
  private readonly between: Way;
  /** The ways along which a line's own tone mixes with those around it; none where its tone lies between the two. */
  private readonly own: readonly Way[];
  /** Sum of the colours' distances from the way between the two tones. */
  mixed = 0;
  /** The same where tint may have run further than lightness. */
  private bled = 0;
  /** The same from the strip's tone, and from the ways to it. */
  private alone = 0;
  private asLine = 0;
  /** Share of its own tone in each pixel, on the way that explains it best. */
  private readonly covers: number[] = [];
  /** Distance of each pixel from its own tone. */
  private readonly far: number[] = [];
  private along = 0;
  private count = 0;

  constructor(
    private readonly words: Int32Array,
    private readonly tone: Rgb,
    private readonly first: Rgb,
    private readonly second: Rgb,
  ) {
    this.between = new Way(first, second);
    this.own = this.between.distance(tone.r, tone.g, tone.b) > OFF_THE_WAY ? [new Way(first, tone), new Way(second, tone)] : [];
  }

  weigh(i: number): void {
    const word = this.words[i];
    const [r, g, b] = [word & 255, (word >> 8) & 255, (word >> 16) & 255];
    this.mixed += this.between.distance(r, g, b);
    this.bled += this.between.bledDistance(r, g, b);
    this.along += this.between.along(r, g, b);
    const alone = Math.sqrt((this.tone.r - r) ** 2 + (this.tone.g - g) ** 2 + (this.tone.b - b) ** 2);
    this.alone += alone;
    this.far.push(alone);
    let asLine = alone;
    let cover = 1;
    for (const way of this.own) {
      const off = way.distance(r, g, b);
      if (off >= asLine) continue;
      asLine = off;
      cover = way.along(r, g, b);
    }
    this.covers.push(cover);
    this.asLine += asLine;
    this.count++;
  }

  /** Where the colours lie on the way between the two tones in the mean, 0 to 1. */
  meanAlong(): number {
    return this.along / this.count;
  }

  isMixture(): boolean {
    const { mixed, asLine, count } = this;
    const isLine = asLine < FAR_BETTER * mixed && mixed > BADLY * count && asLine < WELL * count;
    return mixed < BETTER * this.alone && !isLine;
  }

  /** Whether hardly a pixel of it is mostly its own tone: then it is the over- or undershoot of an edge, not a line, which shows its colour wherever it lies on the pixels. */
  isFaint(): boolean {
    return this.own.length > 0 && this.covers.sort((a, b) => b - a)[Math.floor(this.covers.length * STRONGEST)] < FULL_COVER;
  }

  /**
   * Whether it is one side of a strong edge that compression has made a little lighter or darker: its tone is near to that side, beside what the edge is high, and hardly a pixel of it
   * really has that tone.
   */
  isOvershoot(): boolean {
    const { first, second, tone, far } = this;
    const near = Math.min(apart(tone, first), apart(tone, second));
    return near < ECHO * apart(first, second) && far.sort((a, b) => a - b)[Math.floor(far.length * STRONGEST)] > HARDLY * near;
  }

  /**
   * Whether it is where the tints of the two tones have run into each other, as in JPEG files, which keep tint at half the resolution of lightness: each of the two lies between those of the
   * tones, but not at the same place, and ways to the strip's own tone explain the colours no better.
   */
  isBled(): boolean {
    const { bled, asLine, count } = this;
    return this.own.length > 0 && bled < BADLY * count && asLine > WELL * count && bled < asLine;
  }

  isNearerFirst(i: number): boolean {
    const word = this.words[i];
    return this.between.lightAlong(word & 255, (word >> 8) & 255, (word >> 16) & 255) < 0.5;
  }
}

const apart = (a: Rgb, b: Rgb): number => Math.hypot(a.r - b.r, a.g - b.g, a.b - b.b);
const lightOf = (r: number, g: number, b: number): number => 0.299 * r + 0.587 * g + 0.114 * b;
/** Tones that differ by less lightness than this, of 255, are told apart by tint. */
const LEAST_LIGHT = 30;

/** The straight way between two tones. */
class Way {
  private readonly dr: number;
  private readonly dg: number;
  private readonly db: number;
  private readonly length2: number;

  constructor(
    private readonly from: Rgb,
    to: Rgb,
  ) {
    this.dr = to.r - from.r;
    this.dg = to.g - from.g;
    this.db = to.b - from.b;
    this.length2 = Math.max(1, this.dr * this.dr + this.dg * this.dg + this.db * this.db);
  }

  /** Where a colour's foot lies: 0 at the first tone, 1 at the second. */
  along(r: number, g: number, b: number): number {
    const { from } = this;
    return ((r - from.r) * this.dr + (g - from.g) * this.dg + (b - from.b) * this.db) / this.length2;
  }

  /** The same by lightness (Rec. 601 luma) where the two tones differ enough in it. */
  lightAlong(r: number, g: number, b: number): number {
    const { from, dr, dg, db } = this;
    const light = lightOf(dr, dg, db);
    return Math.abs(light) < LEAST_LIGHT ? this.along(r, g, b) : lightOf(r - from.r, g - from.g, b - from.b) / light;
  }

  /** How far a colour lies outside of the two tones' lightnesses and off the way between their tints, of 255. */
  bledDistance(r: number, g: number, b: number): number {
    const { from, dr, dg, db } = this;
    const light = lightOf(dr, dg, db);
    const own = lightOf(r - from.r, g - from.g, b - from.b);
    const outside = Math.max(0, Math.min(0, light) - own, own - Math.max(0, light));
    // Tints are what is left of the colour differences (Rec. 601) without their lightness.
    const [du, dv] = [0.564 * (db - light), 0.713 * (dr - light)];
    const [u, v] = [0.564 * (b - from.b - own), 0.713 * (r - from.r - own)];
    const t = Math.max(0, Math.min(1, (u * du + v * dv) / Math.max(1, du * du + dv * dv)));
    return Math.sqrt(outside * outside + (u - t * du) ** 2 + (v - t * dv) ** 2);
  }

  /** How far a colour lies off the way, of 255. */
  distance(r: number, g: number, b: number): number {
    const { from } = this;
    const t = Math.max(0, Math.min(1, this.along(r, g, b)));
    return Math.sqrt((from.r + t * this.dr - r) ** 2 + (from.g + t * this.dg - g) ** 2 + (from.b + t * this.db - b) ** 2);
  }
}
