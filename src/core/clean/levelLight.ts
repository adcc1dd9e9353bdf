import { fitQuadratic, quadraticAt } from '../geometry/quadratic.ts';
import { artFromPicture, pictureFromArt, withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { shrinkToSide } from '../raster/shrink.ts';
import type { Task } from '../task/task.ts';
import { isInEvenTones } from './isInEvenTones.ts';

/** Light field over a grid of blocks: what plain paper looks like there, one value a channel. */
interface LightField {
  readonly columns: number;
  readonly rows: number;
  readonly blockPx: number;
  /** Red, green, blue of each block, 0 to 255. */
  readonly paper: Float64Array;
}

export interface LevelledLight {
  readonly art: Art;
  /** How far the darkest paper lay below the brightest, per cent of it. */
  readonly fallOffPercent: number;
}

/** About this many blocks along the longer side: fine enough for a shadow, coarse enough for a stroke to fall inside one. */
const BLOCKS = 40;
const LEAST_BLOCK_PX = 8;
/** The share of a block's pixels that are lighter than its paper: noise and glints. */
const LIGHTER = 0.15;
/** A block whose paper lies more than this share below what its surroundings let expect is covered by art. */
const COVERED = 0.1;
/** Shade changes the share of each channel by less; a broad area of another colour is art. */
const OTHER_TINT = 0.05;
/** The paper's tint is read from this share of the blocks, the lightest. */
const LIGHTEST = 0.25;
const FIT_ROUNDS = 6;

/**
 * Takes shadow, vignetting and paper tone out of a scan or photo on light paper: the light on the paper is read block by block, blocks that art covers
 * are told from shaded paper by a smooth surface through the others (a quadratic, fitted with weights that let the upper side count; P. H. C. Eilers,
 * "A perfect smoother", Anal. Chem. 75(14), 2003, doi:10.1021/ac034173t, for the asymmetric weights), and filled in from it; then every
 * pixel is divided by its light. Broad dark areas stay dark, since they are never taken for the light.
 * @param strength 0 (nothing) to 1 (paper becomes plain white).
 */
export function* levelLight(art: Art, strength = 1): Task<LevelledLight> {
  const read = readBlocks(art);
  yield 0.1;
  const covered = coveredBlocks(read);
  // Even tones have no light on them that falls off: what differs from block to block is art.
  const flat = pictureFromArt(art);
  yield 0.2;
  const small = shrinkToSide(flat, EVEN_SIDE_PX);
  yield 0.3;
  const isEven = isInEvenTones(artFromPicture(small));
  yield 0.4;
  const light = filledIn(read, covered);
  const field = isEven ? underLightest(evened(light, covered), art, EVEN_GLINTS) : underLightest(smoothed(light), art, GLINTS);
  yield 0.5;
  const { width, height } = art;
  const out = new Uint8Array(art.colour.data);
  const columns = new Float64Array(field.columns * 3);
  const gains = new Float64Array((Math.ceil(width / KNOT_PX) + 1) * 3);
  for (let y = 0; y < height; y++) {
    lightAcross(field, y, columns);
    gainsOfRow(field, columns, width, strength, gains);
    levelRow(out, y * width * 4, width, gains);
    if (y % 128 === 127) yield 0.5 + (0.5 * y) / height;
  }
  return { art: withAlpha(art, art.alpha, makeRgba8(width, height, out, art.colour.opaque === true)), fallOffPercent: fallOff(field) };
}

/** The paper of each block: per channel, the value that only `LIGHTER` of its pixels exceed. Clear pixels do not count. */
function readBlocks(art: Art): LightField {
  const { width, height, alpha } = art;
  const rgb = art.colour.data;
  const blockPx = Math.max(LEAST_BLOCK_PX, Math.ceil(Math.max(width, height) / BLOCKS));
  const columns = Math.ceil(width / blockPx);
  const rows = Math.ceil(height / blockPx);
  const paper = new Float64Array(columns * rows * 3);
  const counts = new Int32Array(256 * 3);
  const step = Math.max(1, Math.floor(blockPx / 24));
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      counts.fill(0);
      let seen = 0;
      for (let y = row * blockPx, bottom = Math.min(height, y + blockPx); y < bottom; y += step) {
        for (let x = column * blockPx, right = Math.min(width, x + blockPx); x < right; x += step) {
          const i = y * width + x;
          if (alpha[i] < 128) continue;
          seen++;
          for (let c = 0; c < 3; c++) counts[c * 256 + rgb[i * 4 + c]]++;
        }
      }
      for (let c = 0; c < 3; c++) paper[(row * columns + column) * 3 + c] = seen === 0 ? NaN : quantile(counts, c * 256, seen * LIGHTER);
    }
  }
  return { columns, rows, blockPx, paper };
}

/** The value that at most `above` of the counted ones exceed. */
function quantile(counts: Int32Array, at: number, above: number): number {
  let seen = 0;
  for (let v = 255; v > 0; v--) {
    seen += counts[at + v];
    if (seen > above) return v;
  }
  return 0;
}

const lightness = (paper: Float64Array, k: number): number => 0.2126 * paper[3 * k] + 0.7152 * paper[3 * k + 1] + 0.0722 * paper[3 * k + 2];

/** 1 for each block that art covers, or that holds nothing: it lies well below a smooth surface that the lighter blocks span. */
function coveredBlocks({ columns, rows, paper }: LightField): Uint8Array {
  const count = columns * rows;
  const covered = new Uint8Array(count);
  const weight = new Float64Array(count).fill(1);
  let surface = new Float64Array(6);
  for (let round = 0; round < FIT_ROUNDS; round++) {
    surface = fitQuadratic(columns, rows, (k) => lightness(paper, k), weight);
    for (let k = 0; k < count; k++) {
      const value = lightness(paper, k);
      const expected = quadraticAt(surface, (k % columns) / columns, Math.floor(k / columns) / rows);
      weight[k] = Number.isNaN(value) ? 0 : value >= expected ? 1 : Math.max(0.002, Math.exp(-(((expected - value) / (0.04 * expected)) ** 2)));
    }
  }
  const tint = paperTint(paper, count);
  for (let k = 0; k < count; k++) {
    const value = lightness(paper, k);
    const expected = quadraticAt(surface, (k % columns) / columns, Math.floor(k / columns) / rows);
    if (Number.isNaN(value) || value < expected * (1 - COVERED) || tintFrom(paper, k, tint) > OTHER_TINT) covered[k] = 1;
  }
  // With hardly any paper left nothing is known about the light: then all blocks count as they are.
  let free = 0;
  for (let k = 0; k < count; k++) free += 1 - covered[k];
  return free < count * 0.05 ? covered.fill(0) : covered;
}

/** The tint of the lightest blocks: share of each channel, the middle one of them. */
function paperTint(paper: Float64Array, count: number): readonly number[] {
  const known = Array.from({ length: count }, (_, k) => k).filter((k) => lightness(paper, k) > 0);
  const lightest = known.sort((a, b) => lightness(paper, b) - lightness(paper, a)).slice(0, Math.max(1, Math.round(known.length * LIGHTEST)));
  return [0, 1, 2].map((c) => lightest.map((k) => shareOf(paper, k, c)).sort((a, b) => a - b)[lightest.length >> 1] ?? 1 / 3);
}

const shareOf = (paper: Float64Array, k: number, c: number): number => paper[3 * k + c] / (paper[3 * k] + paper[3 * k + 1] + paper[3 * k + 2]);
const tintFrom = (paper: Float64Array, k: number, tint: readonly number[]): number =>
  Math.max(...tint.map((share, c) => Math.abs(shareOf(paper, k, c) - share)));

/** Covered blocks take the mean of their neighbours, over and over, until they have settled: the light goes on smoothly under the art. */
function filledIn(field: LightField, covered: Uint8Array): LightField {
  const { columns, rows } = field;
  const paper = field.paper.slice();
  for (let c = 0; c < 3; c++) {
    let sum = 0;
    let count = 0;
    for (let k = 0; k < columns * rows; k++) {
      if (covered[k] !== 0 || Number.isNaN(paper[3 * k + c])) continue;
      sum += paper[3 * k + c];
      count++;
    }
    const mean = count === 0 ? 255 : sum / count;
    for (let k = 0; k < columns * rows; k++) if (covered[k] !== 0 || Number.isNaN(paper[3 * k + c])) paper[3 * k + c] = mean;
  }
  for (let round = 0; round < 4 * (columns + rows); round++) relax(paper, columns, rows, covered);
  return { ...field, paper };
}

function relax(paper: Float64Array, columns: number, rows: number, only: Uint8Array): void {
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const k = row * columns + column;
      if (only[k] === 0) continue;
      const left = column > 0 ? k - 1 : k;
      const right = column < columns - 1 ? k + 1 : k;
      const up = row > 0 ? k - columns : k;
      const down = row < rows - 1 ? k + columns : k;
      for (let c = 0; c < 3; c++) paper[3 * k + c] = (paper[3 * left + c] + paper[3 * right + c] + paper[3 * up + c] + paper[3 * down + c]) / 4;
    }
  }
}

/** Whether tones are even is looked at on a picture reduced to this side, px. */
const EVEN_SIDE_PX = 640;

/** The same light everywhere: the middle one of the blocks that nothing covers. */
function evened(field: LightField, covered: Uint8Array): LightField {
  const { paper } = field;
  const free = Array.from(covered.keys()).filter((k) => covered[k] === 0);
  const middle = [0, 1, 2].map((c) => free.map((k) => paper[3 * k + c]).sort((a, b) => a - b)[free.length >> 1] ?? 255);
  return { ...field, paper: paper.map((_, i) => middle[i % 3]) };
}

/** One pass of a 3 × 3 mean takes the steps between blocks and what noise left in them. */
function smoothed(field: LightField): LightField {
  const { columns, rows, paper } = field;
  const out = new Float64Array(paper.length);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        let weight = 0;
        for (let r = Math.max(0, row - 1); r <= Math.min(rows - 1, row + 1); r++) {
          for (let q = Math.max(0, column - 1); q <= Math.min(columns - 1, column + 1); q++) {
            const w = (r === row ? 2 : 1) * (q === column ? 2 : 1);
            sum += w * paper[3 * (r * columns + q) + c];
            weight += w;
          }
        }
        out[3 * (row * columns + column) + c] = sum / weight;
      }
    }
  }
  return { ...field, paper: out };
}

/** What is lighter than paper by more than this is art, and must not be lost in the paper's white; this share of the pixels may be. */
const LIGHTER_ART = 1.12;
const GLINTS = 0.005;
/** In even tones there are none: a thin light line is art. */
const EVEN_GLINTS = 2e-4;
/** How many times lighter than the paper something may be to be told. */
const MOST_LIGHTER = 8;

/** The field as bright as it must be for nothing but glints to come out lighter than white: on dark paper white art is the lightest. */
function underLightest(field: LightField, { width, height, alpha, colour: { data } }: Art, glints: number): LightField {
  const counts = new Float64Array(512);
  const light = new Float64Array(field.columns * 3);
  let seen = 0;
  for (let y = 0; y < height; y += Math.max(1, height >> 8)) {
    lightAcross(field, y, light);
    for (let x = 0; x < width; x += Math.max(1, width >> 8)) {
      const i = y * width + x;
      if (alpha[i] < 128) continue;
      const at = 3 * Math.min(field.columns - 1, Math.floor(x / field.blockPx));
      let most = 0;
      for (let c = 0; c < 3; c++) most = Math.max(most, data[4 * i + c] / Math.max(1, light[at + c]));
      counts[Math.min(511, Math.floor((most * 512) / MOST_LIGHTER))]++;
      seen++;
    }
  }
  let above = 0;
  let bin = 511;
  for (; bin > 0 && above + counts[bin] <= seen * glints; bin--) above += counts[bin];
  const times = ((bin + 1) * MOST_LIGHTER) / 512;
  return times <= LIGHTER_ART ? field : { ...field, paper: field.paper.map((value) => value * times) };
}

/** The light on one row at the middles of the blocks' columns: linear between the middles of the blocks above and below it. */
function lightAcross({ columns, rows, blockPx, paper }: LightField, y: number, out: Float64Array): void {
  const v = Math.max(0, Math.min(rows - 1, (y + 0.5) / blockPx - 0.5));
  const row = Math.floor(v);
  const upper = 3 * row * columns;
  const lower = 3 * Math.min(rows - 1, row + 1) * columns;
  const share = v - row;
  for (let k = 0; k < 3 * columns; k++) out[k] = paper[upper + k] + (paper[lower + k] - paper[upper + k]) * share;
}

/** The light changes so slowly that what pixels are multiplied by is worked out so far apart, px, and drawn straight between. */
const KNOT_PX = 8;
/** Paper comes out a touch above white, so that its noise is clipped away. */
const WHITE = 257;

/** What the pixels of a row are multiplied by, three channels every `KNOT_PX`. */
function gainsOfRow({ columns, blockPx }: LightField, light: Float64Array, width: number, strength: number, gains: Float64Array): void {
  for (let x = 0, k = 0; k < gains.length; x += KNOT_PX, k += 3) {
    const u = Math.max(0, Math.min(columns - 1, (Math.min(x, width) + 0.5) / blockPx - 0.5));
    const column = Math.floor(u);
    const left = 3 * column;
    const right = 3 * Math.min(columns - 1, column + 1);
    for (let c = 0; c < 3; c++) {
      const here = light[left + c] + (light[right + c] - light[left + c]) * (u - column);
      gains[k + c] = 1 + (WHITE / Math.max(1, here) - 1) * strength;
    }
  }
}

function levelRow(out: Uint8Array, from: number, width: number, gains: Float64Array): void {
  for (let start = 0, k = 0; start < width; start += KNOT_PX, k += 3) {
    let r = gains[k];
    let g = gains[k + 1];
    let b = gains[k + 2];
    const dr = (gains[k + 3] - r) / KNOT_PX;
    const dg = (gains[k + 4] - g) / KNOT_PX;
    const db = (gains[k + 5] - b) / KNOT_PX;
    for (let j = from + start * 4, end = from + Math.min(width, start + KNOT_PX) * 4; j < end; j += 4) {
      out[j] = Math.min(255, (out[j] * r + 0.5) | 0);
      out[j + 1] = Math.min(255, (out[j + 1] * g + 0.5) | 0);
      out[j + 2] = Math.min(255, (out[j + 2] * b + 0.5) | 0);
      r += dr;
      g += dg;
      b += db;
    }
  }
}

function fallOff({ paper }: LightField): number {
  let darkest = Infinity;
  let brightest = 0;
  for (let k = 0; k * 3 < paper.length; k++) {
    const value = lightness(paper, k);
    darkest = Math.min(darkest, value);
    brightest = Math.max(brightest, value);
  }
  return brightest === 0 ? 0 : Math.round((100 * (brightest - darkest)) / brightest);
}
