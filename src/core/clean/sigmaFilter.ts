import { makeRgba8, wordsOf, type Rgba8 } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';

const ROWS_PER_TURN = 64;

/**
 * Edge-keeping smoothing: each pixel becomes the mean of those within `radius` whose colour is within `reach` of its own in every channel
 * (J.-S. Lee, "Digital image smoothing and the sigma filter", CVGIP 24, 1983, doi:10.1016/0734-189X(83)90047-6). Pixels that nothing near
 * resembles take the mean of their four neighbours, as Lee proposes, so that single wrong pixels go.
 * @param radius whole px, 1 to 4; cost grows with its square. @param reach levels of 255, above 0. Alpha is kept.
 * @param mendLone off to keep the pixels that nothing near resembles.
 */
export function* sigmaFilter(picture: Rgba8, radius: number, reach: number, mendLone = true): Task<Rgba8> {
  const { width, height, data } = picture;
  const out = new Uint8Array(data);
  const offsets = neighbours(radius);
  const alone = mendLone ? ALONE : 0;
  const fields = fieldsOf(picture);
  const steps = Int32Array.from({ length: offsets.length / 2 }, (_, k) => offsets[2 * k] + offsets[2 * k + 1] * width);
  const whole = Math.min(254, Math.floor(reach));
  for (let y = 0; y < height; y++) {
    if (y < radius || y >= height - radius || width <= 2 * radius) filterRow(data, out, width, height, y, 0, width, reach, offsets);
    else {
      filterRow(data, out, width, height, y, 0, radius, reach, offsets);
      filterInside(fields, out, y * width + radius, (y + 1) * width - radius, width, whole, steps, alone);
      filterRow(data, out, width, height, y, width - radius, width, reach, offsets);
    }
    if (y % ROWS_PER_TURN === ROWS_PER_TURN - 1) yield y / height;
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
function filterRow(data: Rgba8['data'], out: Uint8Array, width: number, height: number, y: number, from: number, to: number, reach: number, offsets: Int8Array): void {
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
 * Pixels `from` to `to` of a row, all of whose neighbours exist. A neighbour is like the pixel when neither difference, with the reach and 256 added, runs below
 * 256 in any field (L. Lamport, "Multiple byte processing with full-word instructions", CACM 18(8), 1975, doi:10.1145/360933.360994).
 */
function filterInside(fields: Int32Array, out: Uint8Array, from: number, to: number, width: number, reach: number, steps: Int32Array, alone: number): void {
  const slack = Math.imul(ONES, 256 + reach);
  for (let i = from; i < to; i++) {
    const own = fields[i];
    const above = (own + slack) | 0;
    const below = (slack - own) | 0;
    let count = 1;
    let redBlue = (own & 255) + ((own & 0x0ff00000) >> 4);
    let green = (own >> 10) & 255;
    for (let k = 0; k < steps.length; k++) {
      const other = fields[i + steps[k]];
      const a = (above - other) | 0;
      const b = (below + other) | 0;
      if (((a | (a >> 1)) & (b | (b >> 1)) & STAYS) !== STAYS) continue;
      count++;
      redBlue += (other & 255) + ((other & 0x0ff00000) >> 4);
      green += (other >> 10) & 255;
    }
    if (count <= alone) {
      const four = [fields[i - 1], fields[i + 1], fields[i - width], fields[i + width]];
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

/** Two passes with a small radius keep edges better than one with a large one. */
const PASSES = 2;

/** Smooths differences up to `reach` levels of 255 away and keeps larger ones, the edges. */
export function* smoothNoise(picture: Rgba8, reach: number): Task<Rgba8> {
  let smooth = picture;
  for (let pass = 0; pass < PASSES; pass++) smooth = yield* within(sigmaFilter(smooth, 2, reach), pass / PASSES, (pass + 1) / PASSES);
  return smooth;
}
