import { makeRgba8, type Rgba8 } from './raster.ts';

/**
 * Reduces a picture by averaging the pixels that fall on each new one (box filter, colour weighted by alpha), so that one long side has
 * at most `maxSidePx` pixels. A picture that is small enough is returned as it is.
 */
export function shrinkToSide(picture: Rgba8, maxSidePx: number): Rgba8 {
  const longest = Math.max(picture.width, picture.height);
  if (longest <= maxSidePx) return picture;
  const factor = maxSidePx / longest;
  return resample(
    picture,
    0,
    0,
    picture.width,
    picture.height,
    Math.max(1, Math.round(picture.width * factor)),
    Math.max(1, Math.round(picture.height * factor)),
  );
}

/**
 * Resamples the rectangle (left, top, width, height in px) to `outWidth` × `outHeight`. Downwards each new pixel is the average of the area that falls on it,
 * pixels that it cuts counted by their part; upwards the pixel in its middle is taken, so that enlarged pixels stay visible as pixels.
 */
export function resample(picture: Rgba8, left: number, top: number, width: number, height: number, outWidth: number, outHeight: number): Rgba8 {
  const out = new Uint8Array(outWidth * outHeight * 4);
  const columns = spans(left, width, outWidth, picture.width);
  const rows = spans(top, height, outHeight, picture.height);
  const isPlain = picture.opaque === true;
  const sums = new Float64Array(picture.width * 4);
  for (let y = 0; y < outHeight; y++) {
    const height = isPlain ? sumOpaqueRows(picture, columns, rows, y, sums) : sumRows(picture, columns, rows, y, sums);
    averageRow(sums, columns, height, isPlain ? 255 : 1, out, y * outWidth * 4);
  }
  return makeRgba8(outWidth, outHeight, out, isPlain);
}

/**
 * Adds up the rows that fall on a new one, those that it cuts by their part, as far as its columns go: colours weighted by alpha, and alpha.
 * @returns the height of what was added, px.
 */
function sumRows({ data, width: stride }: Rgba8, columns: Spans, rows: Spans, y: number, sums: Float64Array): number {
  const [begin, end] = extentOf(columns);
  sums.fill(0, begin, end);
  let added = 0;
  for (let yy = rows.from[y]; yy < rows.to[y]; yy++) {
    const part = partOf(rows, y, yy);
    added += part;
    for (let i = begin, j = yy * stride * 4 + begin; i < end; i += 4, j += 4) {
      const weight = part * data[j + 3];
      sums[i] += weight * data[j];
      sums[i + 1] += weight * data[j + 1];
      sums[i + 2] += weight * data[j + 2];
      sums[i + 3] += weight;
    }
  }
  return added;
}

/** The same where nothing is clear: every pixel weighs 1. */
function sumOpaqueRows({ data, width: stride }: Rgba8, columns: Spans, rows: Spans, y: number, sums: Float64Array): number {
  const [begin, end] = extentOf(columns);
  sums.fill(0, begin, end);
  let added = 0;
  for (let yy = rows.from[y]; yy < rows.to[y]; yy++) {
    const part = partOf(rows, y, yy);
    added += part;
    for (let i = begin, j = yy * stride * 4 + begin; i < end; i += 4, j += 4) {
      sums[i] += part * data[j];
      sums[i + 1] += part * data[j + 1];
      sums[i + 2] += part * data[j + 2];
      sums[i + 3] += part;
    }
  }
  return added;
}

/** Where the columns begin and end in the values of a row. */
const extentOf = ({ from, to }: Spans): [number, number] => [from[0] * 4, to[to.length - 1] * 4];

/** How much of an old row falls on a new one. */
const partOf = ({ from, to, first, last }: Spans, y: number, yy: number): number => (yy === from[y] ? first[y] : yy === to[y] - 1 ? last[y] : 1);

/** The sums of a new row, column by column, to its pixels. @param height of what was added up, px. @param unit alpha of a pixel that weighs 1. */
function averageRow(sums: Float64Array, { from, to, first, last }: Spans, height: number, unit: number, out: Uint8Array, at: number): void {
  for (let x = 0, o = at; x < from.length; x++, o += 4) {
    const begin = from[x] * 4;
    const end = (to[x] - 1) * 4;
    let part = first[x];
    let area = part;
    let r = part * sums[begin];
    let g = part * sums[begin + 1];
    let b = part * sums[begin + 2];
    let a = part * sums[begin + 3];
    for (let i = begin + 4; i < end; i += 4) {
      r += sums[i];
      g += sums[i + 1];
      b += sums[i + 2];
      a += sums[i + 3];
      area++;
    }
    if (end > begin) {
      part = last[x];
      area += part;
      r += part * sums[end];
      g += part * sums[end + 1];
      b += part * sums[end + 2];
      a += part * sums[end + 3];
    }
    // Parts are rounded: next to nothing may be left of a span that is clear.
    if (a <= LEAST_PART) continue;
    out[o] = r / a + 0.5;
    out[o + 1] = g / a + 0.5;
    out[o + 2] = b / a + 0.5;
    out[o + 3] = (unit * a) / (area * height) + 0.5;
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
