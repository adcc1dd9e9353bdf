import { otsu } from '../../raster/otsu.ts';
import type { Planes } from '../planes.ts';
import { barrierFrom } from './barrier.ts';
import { fitMixture, unlikeness, type ColourMixture } from './colourMixture.ts';
import { MARK } from './marks.ts';
import { minCut } from './minCut.ts';
import type { Task } from '../../task/task.ts';
import { wayFrom } from './wayFrom.ts';

/** Times the colours of both sides are learned and the cut taken. */
const ROUNDS = 4;
/** Most that the colour of one pixel can say. */
const MOST_COLOUR = 6;
/** What standing out says beside it in the clearest case, and what strokes say near themselves. */
const STANDS_OUT = 2.5;
const SAID_NEAR = 4;
/** What it costs to part two pixels of one colour without a sharp edge. */
const SMOOTH_COST = 10;
/** Said of the picture's border: it is ground. */
const BORDER_COST = 4;
const FIXED_COST = 1e4;
/** What stands out by this part of the threshold teaches nothing about the ground any more: outlines of the subject do. */
const TELLS_OF_GROUND = 1 / 3;
const TELLS_LEAST = 1e-4;

/**
 * The subject as what stands out from all that leads to the picture's border without a step, and has other colours: barriers give the first guess, or ways from
 * strokes where there are some that keep, mixtures of colours and cuts by turns the rest (C. Rother, V. Kolmogorov & A. Blake, "GrabCut", ACM TOG 23(3), 2004,
 * doi:10.1145/1015706.1015720). Departs from it in that colours which no side has speak for the subject, since the ground is seen all around.
 * @param colours a small picture, some 300 px. @param sharp its sharp edges. @param marks one of `MARK` or 0 for each pixel. @returns 1 where the subject is.
 */
export function* standingOut(colours: Planes, sharp: Float32Array, marks: Uint8Array): Task<Uint8Array> {
  const { width, height, planes } = colours;
  const seeds = groundSeeds(colours);
  const guess = marks.includes(MARK.keep) ? nearStrokes(colours, sharp, seeds, marks) : standsOut(colours, seeds);
  yield 0.1;
  const parts = partings(colours, sharp);
  let subject: Uint8Array = guess.first;
  for (let i = 0; i < subject.length; i++) if (marks[i] !== 0) subject[i] = marks[i] === MARK.keep ? 1 : 0;
  for (let round = 0; round < ROUNDS; round++) {
    yield (round + 1) / (ROUNDS + 1);
    const front = fitMixture(
      planes,
      guess.ofSubject.map((tells, i) => (subject[i] !== 0 ? tells : 0)),
    );
    const back = fitMixture(
      planes,
      guess.ofGround.map((tells, i) => (subject[i] !== 0 ? 0 : tells)),
    );
    if (front.length === 0 || back.length === 0) break;
    const terminal = new Float32Array(subject.length);
    for (let i = 0; i < terminal.length; i++) {
      if (marks[i] !== 0) terminal[i] = marks[i] === MARK.keep ? FIXED_COST : -FIXED_COST;
      else terminal[i] = said(front, back, planes[0][i], planes[1][i], planes[2][i]) + guess.says[i] - (seeds[i] !== 0 ? BORDER_COST : 0);
    }
    subject = minCut({ width, height, terminal, right: parts.right.slice(), down: parts.down.slice() });
  }
  return subject;
}

/** Unlikeness from which a colour is one that a side does not have: anything may be on the subject, less on the ground. */
const UNKNOWN_FRONT = 15;
const UNKNOWN_BACK = 18;

function said(front: ColourMixture, back: ColourMixture, r: number, g: number, b: number): number {
  const behind = Math.min(UNKNOWN_BACK, unlikeness(back, r, g, b));
  return Math.max(-MOST_COLOUR, Math.min(MOST_COLOUR, behind - Math.min(UNKNOWN_FRONT, unlikeness(front, r, g, b))));
}

/** Unlikeness from which a colour is none of the other sides': some four deviations off and more. */
const STRANGE = 18;

/** The border where ground is: all of it but what has colours on the lower edge that the other sides do not have, on which people and things stand. */
function groundSeeds({ width, height, planes }: Planes): Uint8Array {
  const sides = new Float32Array(width * height);
  for (let x = 0; x < width; x++) sides[x] = 1;
  for (let y = 0; y < height; y++) sides[y * width] = sides[(y + 1) * width - 1] = 1;
  const around = fitMixture(planes, sides);
  const seeds = Uint8Array.from(sides);
  for (let i = (height - 1) * width; i < seeds.length; i++) if (unlikeness(around, planes[0][i], planes[1][i], planes[2][i]) < STRANGE) seeds[i] = 1;
  return seeds;
}

/** What is thought before colours are learned. */
interface Guess {
  readonly first: Uint8Array;
  /** Said for the subject (above 0) or the ground. */
  readonly says: Float32Array;
  /** How much each pixel tells about the colours of the side that it is on. */
  readonly ofSubject: Float32Array;
  readonly ofGround: Float32Array;
}

const LEVELS = 256;
/** How much more likely the middle of the picture is the subject: the spread of a bell over half its diagonal. */
const CENTRED = 0.8;
/** A threshold below this, of 255, is that of noise. */
const LEAST_THRESHOLD = 8;

/** How high barriers around each pixel are, in lightness and two ways of tint, more in the middle. */
function standsOut({ width, height, planes: [r, g, b] }: Planes, seeds: Uint8Array): Guess {
  const n = width * height;
  const opponents = [new Float32Array(n), new Float32Array(n), new Float32Array(n)];
  for (let i = 0; i < n; i++) {
    opponents[0][i] = (r[i] + g[i] + b[i]) / 3;
    opponents[1][i] = r[i] - g[i];
    opponents[2][i] = (r[i] + g[i]) / 2 - b[i];
  }
  const heights = opponents.map((plane) => barrierFrom(plane, seeds, width));
  const out = new Float32Array(n);
  let most = 1e-6;
  for (let i = 0; i < n; i++) {
    out[i] = heights[0][i] + heights[1][i] + heights[2][i];
    if (out[i] > most) most = out[i];
  }
  const reach = Math.hypot(width, height) / 2;
  const histogram = new Float64Array(LEVELS);
  for (let i = 0; i < n; i++) {
    const off = Math.hypot((i % width) - width / 2, Math.floor(i / width) - height / 2) / reach;
    out[i] *= ((LEVELS - 1) / most) * Math.exp(-0.5 * (off / CENTRED) ** 2);
    histogram[Math.round(out[i])]++;
  }
  const { threshold } = otsu(histogram);
  const unit = Math.max(LEAST_THRESHOLD, threshold);
  return {
    first: Uint8Array.from(out, (v) => (v > threshold ? 1 : 0)),
    says: out.map((v) => STANDS_OUT * Math.max(-1, Math.min(1, (v - threshold) / unit))),
    ofSubject: out.map((v) => 1 + v / LEVELS),
    ofGround: out.map((v) => Math.max(TELLS_LEAST, Math.max(0, 1 - v / Math.max(1, TELLS_OF_GROUND * threshold)) ** 2)),
  };
}

/** What a way over a sharp edge of one level costs, and over any step of one level, beside one of a px. */
const SHARP_COST = 20;
const STEP_COST = 0.05;
/** What lies nearer to the subject's strokes still tells a little about the ground when it is cut off from them. */
const TELLS_LITTLE = 0.01;

/**
 * Whether ways lead to the strokes that keep or to ground, where edges make ways longer (X. Bai & G. Sapiro, "A geodesic framework for fast interactive image
 * and video segmentation and matting", ICCV 2007, doi:10.1109/ICCV.2007.4408931).
 */
function nearStrokes({ width, planes }: Planes, sharp: Float32Array, seeds: Uint8Array, marks: Uint8Array): Guess {
  const cost = Float32Array.from(sharp, (own, i) => {
    let steps = 0;
    for (const plane of planes)
      steps += Math.abs(plane[i] - plane[(i + 1) % width === 0 ? i : i + 1]) + Math.abs(plane[i] - plane[i + width < plane.length ? i + width : i]);
    return 1 + SHARP_COST * own + STEP_COST * steps;
  });
  const toKeep = wayFrom(
    cost,
    marks.map((mark) => (mark === MARK.keep ? 1 : 0)),
    width,
  );
  const toGround = wayFrom(
    cost,
    marks.map((mark, i) => (mark === MARK.clear || (mark === 0 && seeds[i] !== 0) ? 1 : 0)),
    width,
  );
  const nearer = toKeep.map((way, i) => (toGround[i] === Infinity ? 1 : (toGround[i] - way) / Math.max(1, toGround[i] + way)));
  return {
    first: Uint8Array.from(nearer, (v) => (v > 0 ? 1 : 0)),
    says: nearer.map((v) => SAID_NEAR * v),
    ofSubject: nearer.map((v) => 1 + Math.max(0, v)),
    ofGround: nearer.map((v) => Math.max(TELLS_LITTLE, -v)),
  };
}

/** Share of the cost of parting that any step lowers; sharp edges alone lower the rest. */
const BY_ANY_STEP = 0.5;

/** What it costs to part each pixel from its right and its lower neighbour. */
function partings({ width, height, planes: [r, g, b] }: Planes, sharp: Float32Array): { right: Float32Array; down: Float32Array } {
  const n = width * height;
  const right = new Float32Array(n);
  const down = new Float32Array(n);
  const square = (i: number, j: number): number => (r[i] - r[j]) ** 2 + (g[i] - g[j]) ** 2 + (b[i] - b[j]) ** 2;
  let sum = 0;
  for (let i = 0; i < n; i++) {
    if ((i + 1) % width !== 0) sum += right[i] = square(i, i + 1);
    if (i + width < n) sum += down[i] = square(i, i + width);
  }
  const mean = Math.max(1e-6, sum / n);
  for (let i = 0; i < n; i++) {
    if ((i + 1) % width !== 0) right[i] = SMOOTH_COST * (BY_ANY_STEP * Math.exp(-right[i] / mean) + (1 - BY_ANY_STEP) / (1 + Math.max(sharp[i], sharp[i + 1])));
    if (i + width < n) down[i] = SMOOTH_COST * (BY_ANY_STEP * Math.exp(-down[i] / mean) + (1 - BY_ANY_STEP) / (1 + Math.max(sharp[i], sharp[i + width])));
  }
  return { right, down };
}
