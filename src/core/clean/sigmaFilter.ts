import { makeRgba8, wordsOf, type Rgba8 } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import { SigmaBands } from './sigmaBands.ts';

const ROWS_PER_TURN = 64;
/** Half the width of the neighbourhood, px; its corners do not belong to it. */
const RADIUS = 2;

/**
 * Edge-keeping smoothing: each pixel becomes the mean of the twenty around it whose colour is within `reach` of its own in every channel
 * (J.-S. Lee, "Digital image smoothing and the sigma filter", CVGIP 24, 1983, doi:10.1016/0734-189X(83)90047-6). Pixels that nothing near
 * resembles take the mean of their four neighbours, as Lee proposes, so that single wrong pixels go.
 * @param reach levels of 255, above 0. Alpha is kept.
 * @param mendLone off to keep the pixels that nothing near resembles.
 */
export function* sigmaFilter(picture: Rgba8, reach: number, mendLone = true): Task<Rgba8> {
  const { width, height, data } = picture;
  const out = new Uint8Array(data);
  const offsets = neighbours(RADIUS);
  const whole = Math.min(254, Math.floor(reach));
  const hasInside = width > 2 * RADIUS && height > 2 * RADIUS;
  for (let y = 0; y < height; y++) {
    const isInside = hasInside && y >= RADIUS && y < height - RADIUS;
    filterRow(data, out, width, height, y, 0, isInside ? RADIUS : width, reach, offsets);
    if (isInside) filterRow(data, out, width, height, y, width - RADIUS, width, reach, offsets);
  }
  if (!hasInside) return makeRgba8(width, height, out, picture.opaque === true);
  const bands = SigmaBands.start(picture, offsets, RADIUS, ROWS_PER_TURN);
  const fields = bands === undefined ? fieldsOf(picture) : undefined;
  for (let from = RADIUS; from < height - RADIUS; from += ROWS_PER_TURN) {
    const to = Math.min(height - RADIUS, from + ROWS_PER_TURN);
    if (bands !== undefined) bands.filter(out, from, to, whole, mendLone);
    if (fields !== undefined)
      for (let y = from; y < to; y++) filterInside(fields, out, y * width + RADIUS, (y + 1) * width - RADIUS, width, whole, mendLone ? ALONE : 0);
    yield to / height;
  }
  return makeRgba8(width, height, out, picture.opaque === true);
}

/** Offsets of a round neighbourhood, dx and dy by turns. */
function neighbours(radius: number): Int8Array {
  const list: number[] = [];
  for (let dy = -radius; dy <= radius; dy++) {
    for (let dx = -radius; dx <= radius; dx++) if ((dx !== 0 || dy !== 0) && dx * dx + dy * dy <= radius * radius + 1) list.push(dx, dy);
  }
  return Int8Array.from(list);
}

/** With fewer like neighbours than this a pixel is taken for a wrong one. */
const ALONE = 1;

/** Pixels of a row near the border of the picture, where some neighbours are missing. */
function filterRow(
  data: Rgba8['data'],
  out: Uint8Array,
  width: number,
  height: number,
  y: number,
  from: number,
  to: number,
  reach: number,
  offsets: Int8Array,
): void {
  for (let x = from, i = (y * width + from) * 4; x < to; x++, i += 4) {
    let count = 1;
    let sumR = data[i];
    let sumG = data[i + 1];
    let sumB = data[i + 2];
    for (let k = 0; k < offsets.length; k += 2) {
      const [dx, dy] = [offsets[k], offsets[k + 1]];
      if (x + dx < 0 || x + dx >= width || y + dy < 0 || y + dy >= height) continue;
      const j = i + (dy * width + dx) * 4;
      if (Math.abs(data[j] - data[i]) > reach || Math.abs(data[j + 1] - data[i + 1]) > reach || Math.abs(data[j + 2] - data[i + 2]) > reach) continue;
      count++;
      sumR += data[j];
      sumG += data[j + 1];
      sumB += data[j + 2];
    }
    out[i] = (sumR + (count >> 1)) / count;
    out[i + 1] = (sumG + (count >> 1)) / count;
    out[i + 2] = (sumB + (count >> 1)) / count;
  }
}

/** The three channels of each pixel in fields of ten bits, so that all are compared at once. */
function fieldsOf(picture: Rgba8): Int32Array {
  const words = wordsOf(picture);
  const fields = new Int32Array(words.length);
  for (let y = 0; y < picture.height; y++) fieldsRow(words, fields, y * picture.width, (y + 1) * picture.width);
  return fields;
}

function fieldsRow(words: Int32Array, fields: Int32Array, from: number, to: number): void {
  for (let i = from; i < to; i++) fields[i] = (words[i] & 255) | ((words[i] & 0xff00) << 2) | ((words[i] & 0xff0000) << 4);
}

/** One in each field, and the bit that says that a field has not run below zero. */
const ONES = 0x00100401;
const STAYS = ONES << 8;

/**
 * Pixels `from` to `to` of a row, all of whose neighbours exist. A neighbour is like the pixel when neither difference, with the reach and 256 added, runs
 * below 256 in any field (L. Lamport, "Multiple byte processing with full-word instructions", CACM 18(8), 1975, doi:10.1145/360933.360994). Where all are equal
 * the pixel stays as it is, which is most of flat art.
 */
function filterInside(fields: Int32Array, out: Uint8Array, from: number, to: number, width: number, reach: number, alone: number): void {
  const slack = Math.imul(ONES, 256 + reach);
  const up = -width;
  const down = width;
  for (let i = from; i < to; i++) {
    const own = fields[i];
    if (own === fields[i + 2] && own === fields[i - 2] && own === fields[i + down + 2] && isEven(fields, i, own, up, down)) continue;
    const above = (own + slack) | 0;
    const below = (slack - own) | 0;
    let count = 1;
    let redBlue = (own & 255) + ((own & 0x0ff00000) >> 4);
    let green = (own >> 10) & 255;
    // The round neighbourhood, row by row; its own pixel is like itself and is counted already.
    for (let row = -2; row <= 2; row++) {
      const half = row === -2 || row === 2 ? 1 : 2;
      const middle = i + row * width;
      for (let j = middle - half; j <= middle + half; j++) {
        const other = fields[j];
        const a = (above - other) | 0;
        const b = (below + other) | 0;
        if (((a | (a >> 1)) & (b | (b >> 1)) & STAYS) !== STAYS || j === i) continue;
        count++;
        redBlue += (other & 255) + ((other & 0x0ff00000) >> 4);
        green += (other >> 10) & 255;
      }
    }
    if (count <= alone) {
      const four = [fields[i - 1], fields[i + 1], fields[i + up], fields[i + down]];
      count = 4;
      redBlue = 0;
      green = 0;
      for (const other of four) {
        redBlue += (other & 255) + ((other & 0x0ff00000) >> 4);
        green += (other >> 10) & 255;
      }
    }
    const half = count >> 1;
    const o = i * 4;
    out[o] = ((redBlue & 0xffff) + half) / count;
    out[o + 1] = (green + half) / count;
    out[o + 2] = ((redBlue >>> 16) + half) / count;
  }
}

/** Whether all neighbours equal the pixel, those that were not looked at yet. */
function isEven(fields: Int32Array, i: number, own: number, up: number, down: number): boolean {
  return (
    own === fields[i - 1] &&
    own === fields[i + 1] &&
    own === fields[i + up - 2] &&
    own === fields[i + up - 1] &&
    own === fields[i + up] &&
    own === fields[i + up + 1] &&
    own === fields[i + up + 2] &&
    own === fields[i + down - 2] &&
    own === fields[i + down - 1] &&
    own === fields[i + down] &&
    own === fields[i + down + 1] &&
    own === fields[i + 2 * up - 1] &&
    own === fields[i + 2 * up] &&
    own === fields[i + 2 * up + 1] &&
    own === fields[i + 2 * down - 1] &&
    own === fields[i + 2 * down] &&
    own === fields[i + 2 * down + 1]
  );
}

/** Two passes with a small radius keep edges better than one with a large one. */
const PASSES = 2;

/** Smooths differences up to `reach` levels of 255 away and keeps larger ones, the edges. */
export function* smoothNoise(picture: Rgba8, reach: number): Task<Rgba8> {
  let smooth = picture;
  for (let pass = 0; pass < PASSES; pass++) smooth = yield* within(sigmaFilter(smooth, reach), pass / PASSES, (pass + 1) / PASSES);
  return smooth;
}
