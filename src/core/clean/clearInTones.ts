import { withAlpha, type Art } from '../raster/art.ts';
import { labelRegions } from '../raster/labelRegions.ts';
import { labelEdges, nearEdges } from '../raster/nearEdges.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { byRows, within, type Task } from '../task/task.ts';
import { MAX_TONES } from './palette.ts';
import { settledTones, type SettledTones } from './settling/settledTones.ts';
import { SetsAround } from './setsAround.ts';
import type { Lifted } from './softenLift.ts';
import { ToneMix } from './toneMix.ts';

/** How far from an edge of the lifted tone a pixel may still be a mixture, px: soft edges and JPEG blocks spread no further. */
const REACH = 3;
/** Pixels of the lifted tone that the lift left go with it when they are so near to it, px: crumbs of what compression leaves around edges. */
const CRUMB_REACH = 3;
/** What the lift left of the tone in areas no larger than this goes too, px²; in restless art no larger than that, beside it or where the ground goes everywhere. */
const SPECK_PX2 = 4;
const BIT_PX2 = 40;
/** Nearly all of what is lifted has one tone; else more than one ground was lifted, and tones do not tell. */
const ONE_TONE = 0.97;
/** Away from the edge itself a share this small is noise, in restless art and in calm, and beside it this small a share. */
const NOISE_RESTLESS = 0.2;
const NOISE = 0.07;
const NEXT_TO_NONE = 0.02;
const ROWS_PER_TURN = 64;

/**
 * Clears one tone of flat art: what has the lifted tone goes, crumbs of it beside it too, which compression leaves around edges, and along its edge each pixel
 * keeps the share that other tones have in it, and their colour. So the edge stays where the tones of all pixels around say that it is.
 * @returns undefined when what is lifted is of more than one tone, or the art of too many.
 */
export function* clearInTones(art: Art, what: Lifted): Task<Art | undefined> {
  const { width, height, colour } = art;
  const { tones, labels, restless } = what.inTones ?? (yield* within(tonesIn(art), 0, 0.8));
  const tone = tones.length < MAX_TONES ? yield* toneOf(what.lifted, labels, art.alpha, width) : -1;
  if (tone < 0) return undefined;
  // What goes has a number of its own, so that art of the same tone is not taken for it.
  const gone = tones.length;
  const seen = yield* within(markGone(art, labels, what, tone, gone, restless), 0.8, 0.83);
  yield* within(takeBits(seen, art, what, tone, gone, restless ? BIT_PX2 : SPECK_PX2), 0.83, 0.85);
  yield* within(takeOthers(seen, labels, art, what, tone, gone), 0.85, 0.86);
  const alpha = art.alpha.slice();
  yield* within(byRows(height, (y) => clearRow(alpha, seen, gone, y * width, (y + 1) * width)), 0.86, 0.87);
  const out = new Uint8Array(colour.data);
  const rim: Rim = { art, seen, gone, tone, noise: restless ? NOISE_RESTLESS : NOISE, mix: new ToneMix(colour, [...tones, tones[tone]]), alpha, out };
  const edges = labelEdges(seen, width, height);
  yield 0.87;
  const { rowFirst, start, end } = nearEdges(edges, REACH, gone);
  yield 0.87;
  const near = new SetsAround(seen, art.alpha, width, height, REACH);
  const beside = new SetsAround(seen, art.alpha, width, height, 1);
  for (let y = 0; y < height; y++) {
    near.toRow(y);
    beside.toRow(y);
    for (let s = rowFirst[y]; s < rowFirst[y + 1]; s++) clearStretch(rim, near, beside, y * width, start[s], end[s]);
    if (y % ROWS_PER_TURN === ROWS_PER_TURN - 1) yield 0.87 + (0.13 * y) / height;
  }
  return withAlpha(art, alpha, makeRgba8(width, height, out, colour.opaque === true));
}

/** The tones of the last art are kept up to this size, px: a lift is tried with one tolerance after the other. */
const KEPT_PX = 4_500_000;
let last: { readonly colour: WeakRef<Uint8Array>; readonly alpha: WeakRef<Uint8Array>; readonly found: SettledTones } | undefined;

/** The tones of an art. A pure function of it: that the last ones are kept saves time alone. */
function* tonesIn(art: Art): Task<SettledTones> {
  const { colour, alpha, width, height } = art;
  if (last?.colour.deref() === colour.data && last.alpha.deref() === alpha) return last.found;
  const found = yield* settledTones(art, { count: 'auto' });
  last = width * height > KEPT_PX ? undefined : { colour: new WeakRef(colour.data), alpha: new WeakRef(alpha), found };
  return found;
}

interface Rim {
  readonly art: Art;
  readonly seen: Uint8Array;
  readonly gone: number;
  readonly tone: number;
  readonly noise: number;
  readonly mix: ToneMix;
  readonly alpha: Uint8Array;
  readonly out: Uint8Array;
}

/** The tone of nearly all that is lifted, −1 when there is none. */
function* toneOf(lifted: Uint8Array, labels: Uint8Array, alpha: Uint8Array, width: number): Task<number> {
  const counts = new Uint32Array(MAX_TONES);
  yield* within(byRows(lifted.length / width, (y) => countRow(lifted, labels, alpha, y * width, (y + 1) * width, counts)), 0.8, 0.8);
  const all = counts.reduce((sum, count) => sum + count, 0);
  const tone = counts.indexOf(Math.max(...counts));
  return all > 0 && counts[tone] >= ONE_TONE * all ? tone : -1;
}

function countRow(lifted: Uint8Array, labels: Uint8Array, alpha: Uint8Array, from: number, to: number, counts: Uint32Array): void {
  for (let i = from; i < to; i++) if (lifted[i] !== 0 && alpha[i] !== 0) counts[labels[i]]++;
}

/**
 * The labels, with `gone` for what is lifted of the tone, and for what of it lies so near that it is a crumb of it; in calm art only mixtures are, and beside
 * no other tone there are none.
 */
function* markGone(art: Art, labels: Uint8Array, { lifted, stays }: Lifted, tone: number, gone: number, restless: boolean): Task<Uint8Array> {
  const { width, height, alpha } = art;
  const seen = labels.slice();
  yield* within(byRows(height, (y) => markRow(seen, lifted, alpha, y * width, (y + 1) * width, tone, gone)), 0, 0.5);
  const isLeft = (i: number): boolean => lifted[i] === 0 && labels[i] === tone;
  const mayGo = (i: number): boolean =>
    seen[i] === tone && alpha[i] !== 0 && (stays === undefined || stays[i] === 0) && (restless || isNearOther(labels, width, height, i)) && !isInBlock(width, height, i, isLeft);
  let front: number[] = [];
  const frontOfRow = (y: number): void => {
    for (let i = y * width; i < (y + 1) * width; i++) if (seen[i] === tone && isBeside(seen, width, i, gone) && mayGo(i)) front.push(i);
  };
  yield* within(byRows(height, frontOfRow), 0.5, 1);
  for (let k = 1; front.length > 0; k++) {
    for (const i of front) seen[i] = gone;
    if (k === CRUMB_REACH) break;
    front = front.flatMap((i) => besides(width, height, i).filter(mayGo));
  }
  return seen;
}

function markRow(seen: Uint8Array, lifted: Uint8Array, alpha: Uint8Array, from: number, to: number, tone: number, gone: number): void {
  for (let i = from; i < to; i++) if (lifted[i] !== 0 && seen[i] === tone && alpha[i] !== 0) seen[i] = gone;
}

/** Whether a pixel lies in a block of 3 × 3 that all are something: in an area of its own, and not on the rim of what was lifted. */
function isInBlock(width: number, height: number, i: number, is: (i: number) => boolean): boolean {
  const x = i % width;
  const y = (i - x) / width;
  for (let top = Math.max(0, y - 2); top <= Math.min(height - 3, y); top++) {
    for (let left = Math.max(0, x - 2); left <= Math.min(width - 3, x); left++) {
      let all = true;
      for (let v = top; all && v < top + 3; v++) for (let u = left; all && u < left + 3; u++) all = is(v * width + u);
      if (all) return true;
    }
  }
  return false;
}

/** The pixels to the four sides of one: across corners a thin line holds what is behind it. */
function besides(width: number, height: number, i: number): number[] {
  const x = i % width;
  const found: number[] = [];
  if (x > 0) found.push(i - 1);
  if (x < width - 1) found.push(i + 1);
  if (i >= width) found.push(i - width);
  if (i + width < width * height) found.push(i + width);
  return found;
}

/** Whether one of them has a label. */
function isBeside(labels: Uint8Array, width: number, i: number, label: number): boolean {
  const x = i % width;
  return (x > 0 && labels[i - 1] === label) || (x < width - 1 && labels[i + 1] === label) || labels[i - width] === label || labels[i + width] === label;
}

/** Whether there is a pixel with another label within reach. */
function isNearOther(labels: Uint8Array, width: number, height: number, i: number): boolean {
  const x = i % width;
  const y = (i - x) / width;
  for (let v = Math.max(0, y - REACH); v <= Math.min(height - 1, y + REACH); v++)
    for (let j = v * width + Math.max(0, x - REACH); j <= v * width + Math.min(width - 1, x + REACH); j++) if (labels[j] !== labels[i]) return true;
  return false;
}

/** Marks small areas of the tone that the lift did not know for it, since what is around them tints them: specks, openings between letters that nearly meet. */
function* takeBits(seen: Uint8Array, { width, height, alpha }: Art, { stays, everywhere }: Lifted, tone: number, gone: number, mostPx2: number): Task<void> {
  const left = new Uint8Array(seen.length);
  const leftOfRow = (y: number): void => {
    for (let i = y * width; i < (y + 1) * width; i++) if (seen[i] === tone && alpha[i] !== 0) left[i] = 1;
  };
  yield* within(byRows(height, leftOfRow), 0, 0.5);
  const { runStart, runEnd, regionOfRun, area } = labelRegions(left, width, height, 1, false);
  const touches = new Uint8Array(area.length);
  const isStay = new Uint8Array(area.length);
  for (let run = 0; run < runStart.length; run++) {
    const region = regionOfRun[run];
    if (area[region] > mostPx2) continue;
    for (let i = runStart[run]; i < runEnd[run]; i++) {
      if (stays !== undefined && stays[i] !== 0) isStay[region] = 1;
      if (isBeside(seen, width, i, gone)) touches[region] = 1;
    }
  }
  for (let run = 0; run < runStart.length; run++) {
    const region = regionOfRun[run];
    if (area[region] <= mostPx2 && isStay[region] === 0 && (everywhere || touches[region] === 1 || area[region] <= SPECK_PX2)) seen.fill(gone, runStart[run], runEnd[run]);
  }
}

/** Marks areas of other tones that are lifted for the most part; what the lift has of the rest is where compression made an edge overshoot. */
function* takeOthers(seen: Uint8Array, labels: Uint8Array, { width, height, alpha }: Art, { lifted }: Lifted, tone: number, gone: number): Task<void> {
  const others = new Uint8Array(seen.length);
  const othersOfRow = (y: number): void => {
    for (let i = y * width; i < (y + 1) * width; i++) others[i] = alpha[i] !== 0 && seen[i] !== gone ? labels[i] : tone;
  };
  yield* within(byRows(height, othersOfRow), 0, 0.4);
  const { runStart, runEnd, regionOfRun, area } = labelRegions(others, width, height, 'each', false);
  yield 0.7;
  const inLift = new Float64Array(area.length);
  for (let run = 0; run < runStart.length; run++) inLift[regionOfRun[run]] += sumOf(lifted, runStart[run], runEnd[run]);
  yield 0.9;
  for (let run = 0; run < runStart.length; run++)
    if (others[runStart[run]] !== tone && inLift[regionOfRun[run]] > area[regionOfRun[run]] / 2) seen.fill(gone, runStart[run], runEnd[run]);
}

function sumOf(data: Uint8Array, from: number, to: number): number {
  let sum = 0;
  for (let i = from; i < to; i++) sum += data[i];
  return sum;
}

function clearRow(alpha: Uint8Array, seen: Uint8Array, gone: number, from: number, to: number): void {
  for (let i = from; i < to; i++) if (seen[i] === gone) alpha[i] = 0;
}

/** Pixels `from` to `to` of the row that begins at `row`. */
function clearStretch({ art, seen, gone, tone, noise, mix, alpha, out }: Rim, near: SetsAround, beside: SetsAround, row: number, from: number, to: number): void {
  for (let i = from; i < to; i++) {
    const nextTo = beside.around(i - row);
    // Art of the lifted tone and its edges are no mixtures with what goes.
    if (art.alpha[i] === 0 || ((nextTo >> tone) & 1) !== 0) continue;
    if (!mix.isOf(i, nextTo, near.around(i - row) & ~(1 << tone), gone)) continue;
    const isAway = seen[i] === gone ? (nextTo & ~(1 << gone)) === 0 : ((nextTo >> gone) & 1) === 0;
    const least = isAway ? noise : NEXT_TO_NONE;
    const share = 1 - mix.shareOf(gone);
    if (share <= least) alpha[i] = 0;
    else if (share >= 1 - least) alpha[i] = art.alpha[i];
    else {
      alpha[i] = Math.round(art.alpha[i] * share);
      mix.writeWithout(out, i, gone);
    }
  }
}
