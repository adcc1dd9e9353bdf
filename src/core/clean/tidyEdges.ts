import type { Rgb } from '../colour/oklab.ts';
import { distanceNear } from '../raster/distanceNear.ts';
import { labelEdges, nearEdges, type Stretches } from '../raster/nearEdges.ts';
import { withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import { settledTones } from './settling/settledTones.ts';
import { mixturesAtEdges, type Mixtures } from './redrawEdges.ts';
import type { Tone } from './palette.ts';
import { blurReach, blurred } from './planes.ts';

export interface TidyEdges {
  readonly art: Art;
  /** Pixels that went to another tone. */
  readonly movedPx2: number;
}

/** Of the amount: the blur that takes jags of that height out of a straight edge. */
const BLUR_SHARE = 2;
/** The scale at which a corner is told from a jag, in blurs. */
const CORNER_SCALE = 1.5;
/** Turn of the edge over the corner's scale, radians, from which it is a corner; an arc as wide as five amounts turns less. */
const CORNER_TURN = 0.42;
/** Parts thinner than twice so many amounts are left alone: smoothing would eat them or close them. */
const THIN = 2;
/** Teeth stand out by up to so many amounts from what an opening leaves. */
const TOOTH = 1.3;
/** What is kept lies within so many blurs of an edge, with all that is kept around it: corners are found where their larger blur has passed a fifth. */
const KEPT_REACH = 3;
/** An edge that would move by less within a pixel is not jagged, px. */
const SMALLEST_JAG = 0.2;

/**
 * Smooths the edges of flat art by an amount, in px: each tone's share is blurred and the strongest tone wins, with mixed pixels where two are equal. True
 * corners keep their place (they turn at a larger scale, where jags cancel out), and so do thin parts and narrow counters (an opening by a disc would lose
 * them).
 */
export function* tidyEdges(art: Art, amountPx: number): Task<TidyEdges> {
  const { width, height } = art;
  const { tones, labels } = yield* within(settledTones(art, { count: 'auto' }), 0, 0.4);
  const clear = tones.length;
  let isClear = false;
  for (let i = 0; i < labels.length; i++) {
    if (art.alpha[i] >= 128) continue;
    labels[i] = clear;
    isClear = true;
  }
  if (clear + (isClear ? 1 : 0) < 2) return { art, movedPx2: 0 };
  const mixtures = yield* within(mixturesWithClear(art, labels, tones, isClear), 0.4, 0.5);
  const margin = marginOf(amountPx * BLUR_SHARE, amountPx);
  const work: Tidying = {
    art,
    tones,
    mixtures,
    amountPx,
    sigma: amountPx * BLUR_SHARE,
    colour: mixtures.drawn,
    alpha: art.alpha.slice(),
    room: makeRoom(Math.min(height, BAND_ROWS + 2 * margin) * width),
  };
  let movedPx2 = 0;
  for (let y = 0; y < height; y += BAND_ROWS) {
    const top = Math.max(0, y - margin);
    const bottom = Math.min(height, y + BAND_ROWS + margin);
    const end = Math.min(height, y + BAND_ROWS);
    movedPx2 += yield* within(tidyBand(work, labels.subarray(top * width, bottom * width), top, y, end), 0.5 + (0.5 * y) / height, 0.5 + (0.5 * end) / height);
  }
  return { art: withAlpha(art, work.alpha, makeRgba8(width, height, work.colour, art.colour.opaque === true)), movedPx2 };
}

/** The mixtures along edges, to what is clear by alpha. */
function* mixturesWithClear({ alpha, ...art }: Art, labels: Uint8Array, tones: readonly Tone[], isClear: boolean): Task<Mixtures> {
  const clear = tones.length;
  // Clear counts as no tone that others are mixed with by colour.
  const mixtures = yield* mixturesAtEdges({ ...art, alpha }, isClear ? labels.map((label) => (label === clear ? 0 : label)) : labels, tones);
  if (!isClear) return mixtures;
  for (let i = 0; i < labels.length; i++) {
    if (alpha[i] === 255) continue;
    mixtures.other[i] = labels[i] === clear ? (alpha[i] === 0 ? clear : toneBeside(labels, i, art.width, clear)) : clear;
    mixtures.share[i] = labels[i] === clear ? 255 - alpha[i] : alpha[i];
  }
  return mixtures;
}

/** A tone beside a clear pixel that holds some of it. */
function toneBeside(labels: Uint8Array, i: number, width: number, clear: number): number {
  for (const j of [i - 1, i + 1, i - width, i + width]) if (j >= 0 && j < labels.length && labels[j] !== clear) return labels[j];
  return clear;
}

/** Rows that are tidied at a time: the fields of a tall picture would take ten times its own memory. */
const BAND_ROWS = 512;

interface Tidying {
  readonly art: Art;
  readonly tones: readonly Tone[];
  readonly mixtures: Mixtures;
  readonly amountPx: number;
  readonly sigma: number;
  /** The outcome, written band by band. */
  readonly colour: Uint8Array;
  readonly alpha: Uint8Array;
  readonly room: Room;
}

/** Planes of a band, used again for every tone and band: memory that is new each time would cost more than what is done with it. */
interface Room {
  readonly cells: readonly [Uint8Array, Uint8Array, Uint8Array];
  readonly planes: readonly [Float32Array, Float32Array, Float32Array, Float32Array];
}

const makeRoom = (cells: number): Room => ({
  cells: [new Uint8Array(cells), new Uint8Array(cells), new Uint8Array(cells)],
  planes: [new Float32Array(cells), new Float32Array(cells), new Float32Array(cells), new Float32Array(cells)],
});

/** How far a row's outcome depends on the rows around it: what is kept near it, found by a blur of a blur, the corners' blur or an opening. */
const marginOf = (sigma: number, amountPx: number): number =>
  Math.ceil(sigma + Math.max(2 * blurReach(sigma), blurReach(sigma * CORNER_SCALE), (2 * THIN + TOOTH) * amountPx)) + 4;

/**
 * Tidies rows `from` to `to`.
 * @param labels of those rows and as many around them as they depend on, the first of which is row `top`.
 * @returns how many pixels moved.
 */
function* tidyBand(work: Tidying, labels: Uint8Array, top: number, from: number, to: number): Task<number> {
  const { sigma, amountPx, tones, mixtures } = work;
  const { width } = work.art;
  const height = labels.length / width;
  const [kept, own, wide] = work.room.cells.map((cells) => cells.subarray(0, labels.length));
  const [share, across, once, twice] = work.room.planes.map((plane) => plane.subarray(0, labels.length));
  kept.fill(0);
  const field = new Strongest(labels);
  const edges = labelEdges(labels, width, height);
  for (let tone = 0; tone <= tones.length; tone++) {
    if (!labels.includes(tone)) continue;
    for (let y = 0; y < height; y++) shareRow(mixtures, labels, tone, own, share, y * width, (y + 1) * width, top * width);
    // Beyond, the tone has all or nothing.
    const where = nearEdges(edges, reachOf(sigma, amountPx), tone);
    yield tone / (tones.length + 1);
    field.add(tone, levelled(share, width, height, sigma, where, [across, once, twice]), where);
    yield (tone + 0.5) / (tones.length + 1);
    markCorners(blurred(share, width, height, sigma * CORNER_SCALE, where, [across, once]), kept, width, height, sigma * CORNER_SCALE, where);
    markThin(own, wide, kept, width, height, amountPx, where, once);
  }
  field.finish();
  yield tones.length / (tones.length + 1);
  const near = distanceNear(kept, false, nearEdges(edges, Math.ceil(KEPT_REACH * sigma) + 2), width, height, once);
  return paintRows(work, labels, field, near, top, from, to);
}

/** What is done along the edges of a tone sees so far, px: a blur of a blur, or how far an opening reaches and the teeth that it leaves. */
const reachOf = (sigma: number, amountPx: number): number => Math.max(2 * blurReach(sigma) + 2, Math.ceil((2 * THIN + TOOTH) * amountPx) + 2);

/** Where in a row a tone is, and how much of each pixel it has. @param above pixels of the mixtures before the first label. */
function shareRow(mixtures: Mixtures, labels: Uint8Array, tone: number, own: Uint8Array, share: Float32Array, from: number, to: number, above: number): void {
  for (let i = from, j = from + above; i < to; i++, j++) {
    const isOwn = labels[i] === tone;
    own[i] = isOwn ? 1 : 0;
    share[i] = isOwn ? mixtures.share[j] / 255 : mixtures.other[j] === tone ? 1 - mixtures.share[j] / 255 : 0;
  }
}

/**
 * Blurred without drawing round edges in: twice the blur less the blur of the blur (after G. Taubin, "Curve and surface smoothing without shrinkage", ICCV
 * 1995, doi:10.1109/ICCV.1995.466848).
 */
function levelled(
  own: Float32Array,
  width: number,
  height: number,
  sigma: number,
  where: Stretches,
  [across, first, second]: readonly [Float32Array, Float32Array, Float32Array],
): Float32Array {
  const once = blurred(own, width, height, sigma, where, [across, first]);
  const twice = blurred(once, width, height, sigma, where, [across, second]);
  for (let s = 0; s < where.start.length; s++) for (let i = where.start[s]; i < where.end[s]; i++) once[i] = 2 * once[i] - twice[i];
  return once;
}

/** The two strongest tones of each pixel. Away from every edge that is its own alone. */
class Strongest {
  readonly first: Uint8Array;
  readonly second: Uint8Array;
  readonly firstShare: Float32Array;
  readonly secondShare: Float32Array;
  /** 1 where the pixel's own tone was among those that were added. */
  private readonly weighed: Uint8Array;

  constructor(private readonly labels: Uint8Array) {
    const count = labels.length;
    this.first = new Uint8Array(count);
    this.second = new Uint8Array(count);
    this.firstShare = new Float32Array(count).fill(-1);
    this.secondShare = new Float32Array(count).fill(-1);
    this.weighed = new Uint8Array(count);
  }

  /** @param where elsewhere the tone has all of a pixel or nothing of it. */
  add(tone: number, share: Float32Array, { start, end }: Stretches): void {
    for (let s = 0; s < start.length; s++) this.addStretch(tone, share, start[s], end[s]);
  }

  private addStretch(tone: number, share: Float32Array, from: number, to: number): void {
    const { labels, weighed, first, second, firstShare, secondShare } = this;
    for (let i = from; i < to; i++) {
      if (labels[i] === tone) weighed[i] = 1;
      if (share[i] > firstShare[i]) {
        second[i] = first[i];
        secondShare[i] = firstShare[i];
        first[i] = tone;
        firstShare[i] = share[i];
      } else if (share[i] > secondShare[i]) {
        second[i] = tone;
        secondShare[i] = share[i];
      }
    }
  }

  /** Gives the pixels whose own tone has all of them that tone. */
  finish(): void {
    const { labels, weighed, first, second, firstShare, secondShare } = this;
    for (let i = 0; i < labels.length; i++) {
      if (weighed[i] !== 0) continue;
      first[i] = second[i] = labels[i];
      firstShare[i] = 1;
      secondShare[i] = 0;
    }
  }
}

/**
 * Marks edge pixels where the half-way line turns by a corner's angle over the blur's own length. Curvature of an isoline from first and second differences.
 */
function markCorners(share: Float32Array, kept: Uint8Array, width: number, height: number, sigma: number, where: Stretches): void {
  for (let y = 2; y < height - 2; y++) {
    for (let s = where.rowFirst[y]; s < where.rowFirst[y + 1]; s++)
      markCornersIn(share, kept, width, sigma, Math.max(y * width + 2, where.start[s]), Math.min((y + 1) * width - 2, where.end[s]));
  }
}

function markCornersIn(share: Float32Array, kept: Uint8Array, width: number, sigma: number, from: number, to: number): void {
  for (let i = from; i < to; i++) {
    if (share[i] < 0.2 || share[i] > 0.8) continue;
    const dx = (share[i + 1] - share[i - 1]) / 2;
    const dy = (share[i + width] - share[i - width]) / 2;
    const square = dx * dx + dy * dy;
    if (square < (0.05 / sigma) ** 2) continue;
    const dxx = share[i + 1] - 2 * share[i] + share[i - 1];
    const dyy = share[i + width] - 2 * share[i] + share[i - width];
    const dxy = (share[i + width + 1] - share[i + width - 1] - share[i - width + 1] + share[i - width - 1]) / 4;
    const curvature = Math.abs(dxx * dy * dy - 2 * dxy * dx * dy + dyy * dx * dx) / square ** 1.5;
    if (curvature * sigma > CORNER_TURN) kept[i] = 1;
  }
}

/** Marks what an opening of a tone by a disc would lose. @param wide and @param distance room. */
function markThin(
  own: Uint8Array,
  wide: Uint8Array,
  kept: Uint8Array,
  width: number,
  height: number,
  amountPx: number,
  where: Stretches,
  distance: Float32Array,
): void {
  const radiusPx = THIN * amountPx;
  const { start, end } = where;
  distanceNear(own, true, where, width, height, distance);
  // Away from its edges a tone is as wide as it need be.
  wide.set(own);
  for (let s = 0; s < start.length; s++) for (let i = start[s]; i < end[s]; i++) wide[i] = distance[i] > radiusPx ? 1 : 0;
  distanceNear(wide, false, where, width, height, distance);
  for (let s = 0; s < start.length; s++) markThinIn(own, distance, radiusPx + TOOTH * amountPx, kept, start[s], end[s]);
}

function markThinIn(own: Uint8Array, fromWide: Float32Array, most: number, kept: Uint8Array, from: number, to: number): void {
  for (let i = from; i < to; i++) if (own[i] !== 0 && fromWide[i] > most) kept[i] = 1;
}

/** Writes the rows `from` to `to`; labels, field and distances begin at row `top`. */
function paintRows(work: Tidying, labels: Uint8Array, field: Strongest, near: Float32Array, top: number, from: number, to: number): number {
  const { width } = work.art;
  let movedPx2 = 0;
  for (let y = from; y < to; y++) movedPx2 += paintRow(work, labels, field, near, y * width, (y + 1) * width, top * width);
  return movedPx2;
}

function paintRow(
  { tones, mixtures, sigma, colour, alpha }: Tidying,
  labels: Uint8Array,
  field: Strongest,
  near: Float32Array,
  from: number,
  to: number,
  above: number,
): number {
  const { first, second, firstShare, secondShare } = field;
  const clear = tones.length;
  // Across a straight edge the two shares part by this much over one pixel.
  const perPx = 2 / (sigma * Math.sqrt(2 * Math.PI));
  let movedPx2 = 0;
  for (let i = from, k = from - above; i < to; i++, k++) {
    if (near[k] <= sigma) continue;
    const share = Math.min(1, 0.5 + (firstShare[k] - secondShare[k]) / (2 * perPx));
    if (first[k] !== labels[k]) movedPx2++;
    if (share >= 1 && first[k] === labels[k] && alpha[i] !== 0) {
      if (first[k] === clear) alpha[i] = 0;
      else writeTone(tones[first[k]], colour, i * 4);
      continue;
    }
    const [a, b] = [first[k], second[k]];
    // What the edge would move by less is no jag: its pixels stay as they came.
    const was = a === labels[k] ? mixtures.share[i] / 255 : a === mixtures.other[i] ? 1 - mixtures.share[i] / 255 : 0;
    if (Math.abs(share - was) < SMALLEST_JAG) continue;
    alpha[i] = Math.round(255 * ((a === clear ? 0 : share) + (b === clear ? 0 : 1 - share)));
    writeMixture(tones[a === clear ? b : a] ?? NOTHING, tones[b === clear ? a : b] ?? NOTHING, share, colour, i * 4);
  }
  return movedPx2;
}

const NOTHING: Rgb = { r: 0, g: 0, b: 0 };

function writeTone({ r, g, b }: Rgb, colour: Uint8Array, at: number): void {
  colour[at] = r;
  colour[at + 1] = g;
  colour[at + 2] = b;
}

function writeMixture(a: Rgb, b: Rgb, share: number, colour: Uint8Array, at: number): void {
  colour[at] = Math.round(a.r * share + b.r * (1 - share));
  colour[at + 1] = Math.round(a.g * share + b.g * (1 - share));
  colour[at + 2] = Math.round(a.b * share + b.b * (1 - share));
}
