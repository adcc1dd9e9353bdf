import { makeRgba8, type Rgba8 } from './raster.ts';

/**
 * Reduces a picture by averaging the pixels that fall on each new one (box filter, colour weighted by alpha), so that one long side has
 * at most `maxSidePx` pixels. A picture that is small enough is returned as it is.
 */
export function shrinkToSide(picture: Rgba8, maxSidePx: number): Rgba8 {
  const longest = Math.max(picture.width, picture.height);
  if (longest <= maxSidePx) return picture;
  const factor = maxSidePx / longest;
  return resample(picture, 0, 0, picture.width, picture.height, Math.max(1, Math.round(picture.width * factor)), Math.max(1, Math.round(picture.height * factor)));
}

/**
 * Resamples the rectangle (left, top, width, height in px) to `outWidth` × `outHeight`. Downwards each new pixel is the average of the area that falls on it,
 * pixels that it cuts counted by their part; upwards the pixel in its middle is taken, so that enlarged pixels stay visible as pixels.
 */
export function resample(picture: Rgba8, left: number, top: number, width: number, height: number, outWidth: number, outHeight: number): Rgba8 {
  const out = new Uint8Array(outWidth * outHeight * 4);
  const columns = spans(left, width, outWidth, picture.width);
  const rows = spans(top, height, outHeight, picture.height);
  const average = picture.opaque === true ? averageOpaqueRow : averageRow;
  for (let y = 0; y < outHeight; y++) average(picture, columns, rows, y, out, y * outWidth * 4);
  return makeRgba8(outWidth, outHeight, out);
}

/** One new row. Plain sums run over the whole pixels of each span; the cut ones at its ends are added by their part. */
function averageRow({ data, width: stride }: Rgba8, columns: Spans, rows: Spans, y: number, out: Uint8Array, at: number): void {
  const { from: left, to: right, first: firstX, last: lastX } = columns;
  const fromY = rows.from[y];
  const lastY = rows.to[y] - 1;
  for (let x = 0, o = at; x < left.length; x++, o += 4) {
    let r = 0;
    let g = 0;
    let b = 0;
    let a = 0;
    let area = 0;
    const firstLess = 1 - firstX[x];
    const lastLess = 1 - lastX[x];
    const count = right[x] - left[x] - firstLess - lastLess;
    for (let yy = fromY; yy <= lastY; yy++) {
      const part = yy === fromY ? rows.first[y] : yy === lastY ? rows.last[y] : 1;
      const begin = (yy * stride + left[x]) * 4;
      const end = (yy * stride + right[x]) * 4;
      let sr = 0;
      let sg = 0;
      let sb = 0;
      let sa = 0;
      for (let i = begin; i < end; i += 4) {
        const w = data[i + 3];
        sr += data[i] * w;
        sg += data[i + 1] * w;
        sb += data[i + 2] * w;
        sa += w;
      }
      const w0 = data[begin + 3] * firstLess;
      const w1 = data[end - 1] * lastLess;
      r += part * (sr - data[begin] * w0 - data[end - 4] * w1);
      g += part * (sg - data[begin + 1] * w0 - data[end - 3] * w1);
      b += part * (sb - data[begin + 2] * w0 - data[end - 2] * w1);
      a += part * (sa - w0 - w1);
      area += part * count;
    }
    // Parts are rounded: next to nothing may be left of a span that is clear.
    if (a <= LEAST_PART) continue;
    out[o] = r / a + 0.5;
    out[o + 1] = g / a + 0.5;
    out[o + 2] = b / a + 0.5;
    out[o + 3] = a / area + 0.5;
  }
}

/** The same where nothing is clear. */
function averageOpaqueRow({ data, width: stride }: Rgba8, columns: Spans, rows: Spans, y: number, out: Uint8Array, at: number): void {
  const { from: left, to: right, first: firstX, last: lastX } = columns;
  const fromY = rows.from[y];
  const lastY = rows.to[y] - 1;
  for (let x = 0, o = at; x < left.length; x++, o += 4) {
    let r = 0;
    let g = 0;
    let b = 0;
    let parts = 0;
    const firstLess = 1 - firstX[x];
    const lastLess = 1 - lastX[x];
    for (let yy = fromY; yy <= lastY; yy++) {
      const part = yy === fromY ? rows.first[y] : yy === lastY ? rows.last[y] : 1;
      const begin = (yy * stride + left[x]) * 4;
      const end = (yy * stride + right[x]) * 4;
      let sr = 0;
      let sg = 0;
      let sb = 0;
      for (let i = begin; i < end; i += 4) {
        sr += data[i];
        sg += data[i + 1];
        sb += data[i + 2];
      }
      r += part * (sr - data[begin] * firstLess - data[end - 4] * lastLess);
      g += part * (sg - data[begin + 1] * firstLess - data[end - 3] * lastLess);
      b += part * (sb - data[begin + 2] * firstLess - data[end - 2] * lastLess);
      parts += part;
    }
    const area = parts * (right[x] - left[x] - firstLess - lastLess);
    out[o] = r / area + 0.5;
    out[o + 1] = g / area + 0.5;
    out[o + 2] = b / area + 0.5;
    out[o + 3] = 255;
  }
}

/** For each new pixel of a line the old ones that fall on it, from and to (exclusive), and the parts of the first and the last that do. */
interface Spans {
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly first: Float32Array;
  readonly last: Float32Array;
}

/** Parts smaller than this are rounding. */
const LEAST_PART = 1e-4;

function spans(start: number, length: number, count: number, limit: number): Spans {
  const result = { from: new Int32Array(count), to: new Int32Array(count), first: new Float32Array(count).fill(1), last: new Float32Array(count).fill(1) };
  const step = length / count;
  for (let k = 0; k < count; k++) {
    const a = Math.max(0, Math.min(limit, start + k * step));
    const b = Math.max(0, Math.min(limit, start + (k + 1) * step));
    if (step <= 1 || b - a < LEAST_PART) {
      result.from[k] = clampIndex(Math.floor(start + (k + 0.5) * step), limit);
      result.to[k] = result.from[k] + 1;
      continue;
    }
    const from = Math.floor(a + LEAST_PART);
    const to = Math.max(from + 1, Math.ceil(b - LEAST_PART));
    result.from[k] = from;
    result.to[k] = to;
    if (to - from === 1) continue;
    result.first[k] = Math.min(1, from + 1 - a);
    result.last[k] = Math.min(1, b - (to - 1));
  }
  return result;
}

const clampIndex = (value: number, count: number): number => Math.max(0, Math.min(count - 1, value));
