import { distanceTo, distanceToWide } from '../raster/distance.ts';
import { nearEdges, type Stretches } from '../raster/nearEdges.ts';
import { withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import { fewerColours } from './fewerColours.ts';
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

/**
 * Smooths the edges of flat art by an amount, in px: each tone's share is blurred and the strongest tone wins, with mixed pixels where two are equal. True corners keep
 * their place (they turn at a larger scale, where jags cancel out), and so do thin parts and narrow counters (an opening by a disc would lose them).
 */
export function* tidyEdges(art: Art, amountPx: number): Task<TidyEdges> {
  const { width, height } = art;
  const flat = yield* within(fewerColours(art, 'auto'), 0, 0.4);
  const isClear = art.alpha.some((v) => v < 128);
  const labels = flat.labels.slice();
  const clear = flat.tones.length;
  if (isClear) for (let i = 0; i < labels.length; i++) if (art.alpha[i] < 128) labels[i] = clear;
  const count = clear + (isClear ? 1 : 0);
  if (count < 2) return { art, movedPx2: 0 };
  const sigma = amountPx * BLUR_SHARE;
  const kept = new Uint8Array(width * height);
  // Twice the reach of the blur, for what is blurred twice; beyond, every share is all or nothing.
  const where = nearEdges(labels, width, height, 2 * blurReach(sigma) + 2);
  const field = new Strongest(width * height);
  for (let tone = 0; tone < count; tone++) {
    const own = new Float32Array(labels.length);
    for (let i = 0; i < own.length; i++) own[i] = labels[i] === tone ? 1 : 0;
    field.add(tone, levelled(own, width, height, sigma, where));
    markCorners(blurred(own, width, height, sigma * CORNER_SCALE, where), kept, width, height, sigma * CORNER_SCALE);
    markThin(labels, tone, kept, width, height, amountPx);
    yield 0.4 + (0.5 * (tone + 1)) / count;
  }
  const near = distanceTo(kept, width, height);
  return painted(art, flat.tones, labels, field, near, sigma);
}

/** Blurred without drawing round edges in: twice the blur less the blur of the blur (after G. Taubin, "Curve and surface smoothing without shrinkage", ICCV 1995, doi:10.1109/ICCV.1995.466848). */
function levelled(own: Float32Array, width: number, height: number, sigma: number, where: Stretches): Float32Array {
  const once = blurred(own, width, height, sigma, where);
  const twice = blurred(once, width, height, sigma, where);
  for (let i = 0; i < once.length; i++) once[i] = 2 * once[i] - twice[i];
  return once;
}

/** The two strongest tones of each pixel. */
class Strongest {
  readonly first: Uint8Array;
  readonly second: Uint8Array;
  readonly firstShare: Float32Array;
  readonly secondShare: Float32Array;

  constructor(count: number) {
    this.first = new Uint8Array(count);
    this.second = new Uint8Array(count);
    this.firstShare = new Float32Array(count).fill(-1);
    this.secondShare = new Float32Array(count).fill(-1);
  }

  add(tone: number, share: Float32Array): void {
    const { first, second, firstShare, secondShare } = this;
    for (let i = 0; i < share.length; i++) {
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
}

/** Marks edge pixels where the half-way line turns by a corner's angle over the blur's own length. Curvature of an isoline from first and second differences. */
function markCorners(share: Float32Array, kept: Uint8Array, width: number, height: number, sigma: number): void {
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2, i = y * width + 2; x < width - 2; x++, i++) {
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
}

/** Marks what an opening of a tone by a disc would lose. */
function markThin(labels: Uint8Array, tone: number, kept: Uint8Array, width: number, height: number, amountPx: number): void {
  const radiusPx = THIN * amountPx;
  const own = new Uint8Array(labels.length);
  for (let i = 0; i < own.length; i++) own[i] = labels[i] === tone ? 1 : 0;
  const fromWide = distanceToWide(own, width, height, radiusPx);
  for (let i = 0; i < own.length; i++) if (own[i] !== 0 && fromWide[i] > radiusPx + TOOTH * amountPx) kept[i] = 1;
}

function painted(art: Art, tones: readonly Tone[], labels: Uint8Array, field: Strongest, near: Float32Array, sigma: number): TidyEdges {
  const { width, height } = art;
  const { first, second, firstShare, secondShare } = field;
  const clear = tones.length;
  const colour = new Uint8Array(art.colour.data);
  const alpha = art.alpha.slice();
  // Across a straight edge the two shares part by this much over one pixel.
  const perPx = 2 / (sigma * Math.sqrt(2 * Math.PI));
  let movedPx2 = 0;
  for (let i = 0; i < labels.length; i++) {
    if (near[i] <= sigma) continue;
    const share = Math.min(1, 0.5 + (firstShare[i] - secondShare[i]) / (2 * perPx));
    if (first[i] !== labels[i]) movedPx2++;
    if (share >= 1 && first[i] === labels[i] && alpha[i] !== 0) {
      if (first[i] !== clear) for (let c = 0; c < 3; c++) colour[i * 4 + c] = toneValue(tones[first[i]], c);
      if (first[i] === clear) alpha[i] = 0;
      continue;
    }
    const [a, b] = [first[i], second[i]];
    alpha[i] = Math.round(255 * ((a === clear ? 0 : share) + (b === clear ? 0 : 1 - share)));
    for (let c = 0; c < 3; c++) {
      const va = toneValue(tones[a === clear ? b : a], c);
      const vb = toneValue(tones[b === clear ? a : b], c);
      colour[i * 4 + c] = Math.round(va * share + vb * (1 - share));
    }
  }
  return { art: withAlpha(art, alpha, makeRgba8(width, height, colour, art.colour.opaque === true)), movedPx2 };
}

const toneValue = (tone: Tone | undefined, c: number): number => (tone === undefined ? 0 : c === 0 ? tone.r : c === 1 ? tone.g : tone.b);
