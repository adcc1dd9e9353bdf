import type { Rgb } from '../../colour/oklab.ts';

/** What compression leaves beside an edge is weaker than this share of it. */
export const ECHO = 0.35;
/** Of a sliver's colours, the way between the two tones around it must explain them better than its own tone by this factor. */
const BETTER = 0.75;
/** A tone that lies so far off the way between two others, of 255, mixes with each of them along ways of its own. */
const OFF_THE_WAY = 40;
/** A mixture that is off by more than this in the mean, of 255, is a bad explanation, one that is off by less a good one. */
const BADLY = 18;
const WELL = 12.5;
/** Where two explanations are compared, the better one must be off by less than this share of the other. */
const FAR_BETTER = 0.5;
/** An explanation is about as good as another that is off by less than this times as much. */
const AS_WELL = 1.5;
/**
 * A strip of a tone that is itself on the way between its neighbours is that tone's only when its colours lie nearer to it than this share of the way to the
 * next of them.
 */
const OWN = 0.2;
/** A thin line of a pixel and a half has this share of its tone at least in its strongest pixels, which are so many of them. */
const FULL_COVER = 0.6;
const STRONGEST = 0.25;
/** The strongest pixels of a line are nearer to its tone than this share of what sets it off from its side. */
const HARDLY = 0.3;

/** The colours of a strip, weighed as a mixture of the two tones around it and as a line of its own tone. */
export class Sliver {
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

  /** Whether the strip's tone is none that lies on the way between the other two. */
  get isApart(): boolean {
    return this.own.length > 0;
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

  /**
   * Whether it is the edge's own blur: its tone lies on the way between the two, so that their mixtures look like it, and the strip is as narrow as a blur is
   * or has hardly that tone.
   * @param narrow a pixel broad.
   */
  isBlur(narrow: boolean): boolean {
    const { tone, first, second, alone, count } = this;
    return this.own.length === 0 && (narrow || alone > OWN * count * Math.min(apart(tone, first), apart(tone, second)));
  }

  /**
   * Whether hardly a pixel of it is mostly its own tone: then it is the over- or undershoot of an edge, not a line, which shows its colour wherever it lies on
   * the pixels.
   */
  isFaint(): boolean {
    return this.own.length > 0 && this.covers.sort((a, b) => b - a)[Math.floor(this.covers.length * STRONGEST)] < FULL_COVER;
  }

  /**
   * Whether it is one side of a strong edge that compression has made a little lighter or darker: its tone is near to that side, beside what the edge is high,
   * and hardly a pixel of it really has that tone.
   */
  isOvershoot(): boolean {
    const { first, second, tone, far } = this;
    const near = Math.min(apart(tone, first), apart(tone, second));
    return this.isNearSide() && far.sort((a, b) => a - b)[Math.floor(far.length * STRONGEST)] > HARDLY * near;
  }

  /**
   * Whether it is where the tints of the two tones have run into each other, as in JPEG files, which keep tint at half the resolution of lightness: each of the
   * two lies between those of the tones, but not at the same place, and ways to the strip's own tone explain the colours no better. A tone near to that of one side is explained by its ways nearly always:
   * there it is enough that the run tints explain them about as well, since a line of it would differ in lightness.
   */
  isBled(): boolean {
    const { bled, asLine, count } = this;
    if (this.own.length === 0) return false;
    return (bled < BADLY * count && asLine > WELL * count && bled < asLine) || (this.isNearSide() && bled < WELL * count && bled < AS_WELL * asLine);
  }

  /** Whether the two tones explain it well where their tints have run into each other. */
  hasRun(): boolean {
    return this.bled < WELL * this.count;
  }

  /** Whether they may: what sharpening adds to a tip makes it lighter than both. */
  mayHaveRun(): boolean {
    return this.bled < BADLY * this.count;
  }

  /** Whether its tone is near to that of one side, beside what the edge is high. */
  private isNearSide(): boolean {
    const { first, second, tone } = this;
    return Math.min(apart(tone, first), apart(tone, second)) < ECHO * apart(first, second);
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
