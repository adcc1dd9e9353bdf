import { makeRgba8, type Rgba8 } from '../raster/raster.ts';
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
  for (let y = 0; y < height; y++) {
    filterRow(data, out, width, height, y, radius, reach, offsets, mendLone ? ALONE : 0);
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

function filterRow(data: Rgba8['data'], out: Uint8Array, width: number, height: number, y: number, radius: number, reach: number, offsets: Int8Array, alone: number): void {
  const inRows = y >= radius && y < height - radius;
  for (let x = 0, i = y * width * 4; x < width; x++, i += 4) {
    const r = data[i];
    const g = data[i + 1];
    const b = data[i + 2];
    let count = 1;
    let sumR = r;
    let sumG = g;
    let sumB = b;
    const inside = inRows && x >= radius && x < width - radius;
    for (let k = 0; k < offsets.length; k += 2) {
      const dx = offsets[k];
      const dy = offsets[k + 1];
      if (!inside && (x + dx < 0 || x + dx >= width || y + dy < 0 || y + dy >= height)) continue;
      const j = i + (dy * width + dx) * 4;
      const jr = data[j];
      const jg = data[j + 1];
      const jb = data[j + 2];
      if (jr - r > reach || r - jr > reach || jg - g > reach || g - jg > reach || jb - b > reach || b - jb > reach) continue;
      count++;
      sumR += jr;
      sumG += jg;
      sumB += jb;
    }
    if (count <= alone && inside) {
      const stride = width * 4;
      sumR = data[i - 4] + data[i + 4] + data[i - stride] + data[i + stride];
      sumG = data[i - 3] + data[i + 5] + data[i - stride + 1] + data[i + stride + 1];
      sumB = data[i - 2] + data[i + 6] + data[i - stride + 2] + data[i + stride + 2];
      count = 4;
    }
    out[i] = (sumR + (count >> 1)) / count;
    out[i + 1] = (sumG + (count >> 1)) / count;
    out[i + 2] = (sumB + (count >> 1)) / count;
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
