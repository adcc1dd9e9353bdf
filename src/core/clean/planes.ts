import type { Stretches } from '../raster/nearEdges.ts';
import { wordsOf, type Rgba8 } from '../raster/raster.ts';

export type Three = readonly [Float32Array, Float32Array, Float32Array];

/** Three colour planes of equal size, values 0 to 255, so that filters need not step over alpha. */
export interface Planes {
  readonly width: number;
  readonly height: number;
  readonly planes: Three;
}

export function planesOf(picture: Rgba8): Planes {
  const { width, height } = picture;
  const words = wordsOf(picture);
  const red = new Float32Array(words.length);
  const green = new Float32Array(words.length);
  const blue = new Float32Array(words.length);
  for (let y = 0; y < height; y++) {
    for (let i = y * width; i < (y + 1) * width; i++) {
      red[i] = words[i] & 255;
      green[i] = (words[i] >> 8) & 255;
      blue[i] = (words[i] >> 16) & 255;
    }
  }
  return { width, height, planes: [red, green, blue] };
}

/** Weights of a Gaussian of `sigmaPx`, from the middle outwards, that add up to 1 over both sides. */
function kernelOf(sigmaPx: number): Float64Array {
  const reach = blurReach(sigmaPx);
  const weights = Float64Array.from({ length: reach + 1 }, (_, k) => Math.exp(-(k * k) / (2 * sigmaPx * sigmaPx)));
  const sum = weights.reduce((total, weight, k) => total + (k === 0 ? weight : 2 * weight), 0);
  return weights.map((weight) => weight / sum);
}

/** How far a Gaussian of `sigmaPx` is followed, px. */
export const blurReach = (sigmaPx: number): number => Math.max(1, Math.ceil(3 * sigmaPx));

/**
 * Gaussian blur of one plane; the border pixels are repeated outwards. Both ways go along rows: memory is read in its own order.
 * @param where stretches outside of which the plane is even as far as the blur reaches, so that it stays as it is there; everywhere when absent.
 * @param room two planes of the same size that are written, of which the second is
 * given back, so that many blurs need no memory of their own.
 */
export function blurred(
  plane: Float32Array,
  width: number,
  height: number,
  sigmaPx: number,
  where: Stretches = wholeRows(width, height),
  room: readonly [Float32Array, Float32Array] = [new Float32Array(plane.length), new Float32Array(plane.length)],
): Float32Array {
  const kernel = kernelOf(sigmaPx);
  const [across, out] = room;
  across.set(plane);
  out.set(plane);
  const line = new Float32Array(width + 2 * (kernel.length - 1));
  for (let y = 0; y < height; y++) {
    if (where.rowFirst[y] === where.rowFirst[y + 1]) continue;
    holdRow(plane, line, kernel.length - 1, y * width, width);
    for (let s = where.rowFirst[y]; s < where.rowFirst[y + 1]; s++) blurAcross(line, across, kernel, y * width, where.start[s], where.end[s]);
  }
  for (let y = 0; y < height; y++)
    for (let s = where.rowFirst[y]; s < where.rowFirst[y + 1]; s++) blurDown(across, out, kernel, y, width, height, where.start[s], where.end[s]);
  return out;
}

function wholeRows(width: number, height: number): Stretches {
  const rows = Int32Array.from({ length: height + 1 }, (_, y) => y);
  return { rowFirst: rows, start: rows.subarray(0, height).map((y) => y * width), end: rows.subarray(0, height).map((y) => (y + 1) * width) };
}

/** A row with its ends repeated. */
function holdRow(from: Float32Array, line: Float32Array, reach: number, start: number, width: number): void {
  line.fill(from[start], 0, reach);
  line.set(from.subarray(start, start + width), reach);
  line.fill(from[start + width - 1], reach + width);
}

function blurAcross(line: Float32Array, to: Float32Array, kernel: Float64Array, row: number, start: number, end: number): void {
  const reach = kernel.length - 1;
  for (let i = start; i < end; i++) {
    const at = i - row + reach;
    let sum = line[at] * kernel[0];
    for (let d = 1; d <= reach; d++) sum += kernel[d] * (line[at - d] + line[at + d]);
    to[i] = sum;
  }
}

/** A stretch of a row: those above and below it, weighted and added. */
function blurDown(from: Float32Array, to: Float32Array, kernel: Float64Array, y: number, width: number, height: number, start: number, end: number): void {
  for (let i = start; i < end; i++) to[i] = from[i] * kernel[0];
  for (let d = 1; d < kernel.length; d++) {
    const above = (Math.max(0, y - d) - y) * width;
    const below = (Math.min(height - 1, y + d) - y) * width;
    addRows(from, to, kernel[d], above, below, start, end);
  }
}

function addRows(from: Float32Array, to: Float32Array, weight: number, above: number, below: number, start: number, end: number): void {
  for (let i = start; i < end; i++) to[i] += weight * (from[i + above] + from[i + below]);
}
