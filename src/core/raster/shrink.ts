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
 * Resamples the rectangle (left, top, width, height in px) to `outWidth` × `outHeight`. Downwards whole source pixels are averaged,
 * upwards the nearest one is taken, so that enlarged pixels stay visible as pixels.
 */
export function resample(picture: Rgba8, left: number, top: number, width: number, height: number, outWidth: number, outHeight: number): Rgba8 {
  const { data, width: stride, height: rows } = picture;
  const out = new Uint8Array(outWidth * outHeight * 4);
  const columns = bounds(left, width, outWidth, stride);
  for (let y = 0; y < outHeight; y++) {
    const y0 = clampIndex(Math.floor(top + (y * height) / outHeight), rows);
    const y1 = Math.max(y0 + 1, Math.min(rows, Math.floor(top + ((y + 1) * height) / outHeight)));
    for (let x = 0, o = y * outWidth * 4; x < outWidth; x++, o += 4) {
      const x0 = columns[2 * x];
      const x1 = columns[2 * x + 1];
      let r = 0;
      let g = 0;
      let b = 0;
      let a = 0;
      for (let yy = y0; yy < y1; yy++) {
        for (let xx = x0, i = (yy * stride + x0) * 4; xx < x1; xx++, i += 4) {
          const w = data[i + 3];
          r += data[i] * w;
          g += data[i + 1] * w;
          b += data[i + 2] * w;
          a += w;
        }
      }
      if (a > 0) {
        out[o] = r / a + 0.5;
        out[o + 1] = g / a + 0.5;
        out[o + 2] = b / a + 0.5;
        out[o + 3] = a / ((y1 - y0) * (x1 - x0)) + 0.5;
      }
    }
  }
  return makeRgba8(outWidth, outHeight, out);
}

const clampIndex = (value: number, count: number): number => Math.max(0, Math.min(count - 1, value));

function bounds(start: number, length: number, count: number, limit: number): Int32Array {
  const result = new Int32Array(count * 2);
  for (let x = 0; x < count; x++) {
    const x0 = clampIndex(Math.floor(start + (x * length) / count), limit);
    result[2 * x] = x0;
    result[2 * x + 1] = Math.max(x0 + 1, Math.min(limit, Math.floor(start + ((x + 1) * length) / count)));
  }
  return result;
}
