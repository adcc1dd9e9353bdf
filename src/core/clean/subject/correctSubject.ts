import type { Planes } from '../planes.ts';
import { distanceTo } from '../../raster/distance.ts';
import { MARK } from './marks.ts';
import { minCut } from './minCut.ts';
import { wayFrom } from './wayFrom.ts';

/** A correction of a subject: what a stroke covers, 1 for each pixel, and what it says. */
export interface Correction {
  readonly says: 'keep' | 'clear';
  readonly cover: Uint8Array;
  /** How far from itself it may change anything, px. */
  readonly reachPx: number;
}

/** What it costs to leave what was found before, far from the stroke; beside it nothing. */
const PRIOR_COST = 2.5;
/** What a colour says that is just one of those under the stroke, beside it; at its reach nothing. */
const COLOUR_COST = 4;
/** Colours that stray so far from those under the stroke are others, levels. */
const COLOUR_STRAY = 16;
/** Cost of parting neighbours of one colour. */
const SMOOTH_COST = 6;
/** Neighbours that differ by so much are parted at a third of it, levels; more where all of the neighbourhood is restless. */
const LEAST_STEP = 6;
const FIXED_COST = 1e4;
/** Colours that are read under a stroke, at most. */
const MOST_COLOURS = 24;

interface Window {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Changes a subject near one stroke: a graph cut in the stroke's neighbourhood alone, whose rim stays as it was. What lies under the stroke is as it says; what
 * is like the colours under it and not parted from it by an edge goes along, the nearer the more, by ways that edges make longer (the seeds of Y. Boykov &
 * M.-P. Jolly, ICCV 2001, doi:10.1109/ICCV.2001.937505, held within a window).
 * @param marks what earlier and later strokes settled: stays. @returns another mask; the one that comes in stays.
 */
export function correctSubject(subject: Uint8Array, { width, height, planes }: Planes, marks: Uint8Array, { says, cover, reachPx }: Correction): Uint8Array {
  const away = distanceTo(cover, width, height);
  const window = windowOf(away, width, height, reachPx);
  if (window === undefined) return subject;
  const { left, top } = window;
  const n = window.width * window.height;
  const [terminal, right, down] = [new Float32Array(n), new Float32Array(n), new Float32Array(n)];
  const said = says === 'keep' ? 1 : -1;
  const colours = coloursUnder(cover, planes);
  const step2 = stepOf(planes, width, window) ** 2;
  const way = wayInside(planes, cover, width, window, step2, reachPx);
  const between = (i: number, j: number): number => SMOOTH_COST * Math.exp(-distance2(planes, i, j) / (2 * step2));
  for (let y = 0; y < window.height; y++) {
    for (let x = 0; x < window.width; x++) {
      const [k, i] = [y * window.width + x, (top + y) * width + left + x];
      const was = subject[i] === 1 ? 1 : -1;
      const near = 1 - way[k] / reachPx;
      if (marks[i] !== 0) terminal[k] = marks[i] === MARK.keep ? FIXED_COST : -FIXED_COST;
      else if (away[i] >= reachPx) terminal[k] = was * FIXED_COST;
      else if (near <= 0) terminal[k] = was * PRIOR_COST;
      else terminal[k] = was * PRIOR_COST * (1 - near) + said * COLOUR_COST * near * Math.exp(-nearest2(planes, i, colours) / (2 * COLOUR_STRAY ** 2));
      if (x < window.width - 1) right[k] = between(i, i + 1);
      if (y < window.height - 1) down[k] = between(i, i + width);
    }
  }
  const cut = minCut({ width: window.width, height: window.height, terminal, right, down });
  const out = subject.slice();
  // A stroke that keeps takes nothing away, one that clears brings nothing back.
  const side = says === 'keep' ? 1 : 0;
  for (let y = 0; y < window.height; y++) {
    for (let x = 0; x < window.width; x++) {
      const i = (top + y) * width + left + x;
      if (away[i] < reachPx && cut[y * window.width + x] === side) out[i] = side;
    }
  }
  return out;
}

/** The box around everything within reach; undefined when that is nothing. */
function windowOf(away: ArrayLike<number>, width: number, height: number, reachPx: number): Window | undefined {
  let [left, right, top, bottom] = [width, -1, height, -1];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (away[y * width + x] > reachPx) continue;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = y;
    }
  }
  return bottom < 0 ? undefined : { left, top, width: right - left + 1, height: bottom - top + 1 };
}

/** A way over an edge is longer by this share of the stroke's reach. */
const OVER_EDGE = 0.3;

/** Length of the way from the stroke to each pixel of a window, px, over edges longer: what lies behind one is another thing, however like its colour. */
function wayInside(
  planes: Planes['planes'],
  cover: Uint8Array,
  pitch: number,
  { left, top, width, height }: Window,
  step2: number,
  reachPx: number,
): Float32Array {
  const seeds = new Uint8Array(width * height);
  const cost = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [k, i] = [y * width + x, (top + y) * pitch + left + x];
      seeds[k] = cover[i];
      const step = Math.max(x > 0 ? distance2(planes, i, i - 1) : 0, y > 0 ? distance2(planes, i, i - pitch) : 0);
      cost[k] = 1 + OVER_EDGE * reachPx * (1 - Math.exp(-step / (2 * step2)));
    }
  }
  return wayFrom(cost, seeds, width);
}

/** Some of the colours under a stroke, as three numbers each, evenly from all of it. */
function coloursUnder(cover: Uint8Array, [red, green, blue]: Planes['planes']): Float32Array {
  const under: number[] = [];
  for (let i = 0; i < cover.length; i++) if (cover[i] !== 0) under.push(i);
  const count = Math.min(MOST_COLOURS, under.length);
  const colours = new Float32Array(3 * count);
  for (let k = 0; k < count; k++) {
    const i = under[Math.floor(((k + 0.5) * under.length) / count)];
    colours.set([red[i], green[i], blue[i]], 3 * k);
  }
  return colours;
}

function nearest2([red, green, blue]: Planes['planes'], i: number, colours: Float32Array): number {
  let least = Infinity;
  for (let k = 0; k < colours.length; k += 3)
    least = Math.min(least, (red[i] - colours[k]) ** 2 + (green[i] - colours[k + 1]) ** 2 + (blue[i] - colours[k + 2]) ** 2);
  return least;
}

const distance2 = ([red, green, blue]: Planes['planes'], i: number, j: number): number =>
  (red[i] - red[j]) ** 2 + (green[i] - green[j]) ** 2 + (blue[i] - blue[j]) ** 2;

/** How much neighbours differ in a window, levels: grain and texture are no edges. */
function stepOf(planes: Planes['planes'], width: number, { left, top, width: w, height: h }: Window): number {
  let sum = 0;
  let count = 0;
  for (let y = top; y < top + h; y++) {
    for (let x = left; x < left + w - 1; x++) {
      sum += Math.sqrt(distance2(planes, y * width + x, y * width + x + 1));
      count++;
    }
  }
  return Math.max(LEAST_STEP, count === 0 ? 0 : (1.5 * sum) / count);
}
