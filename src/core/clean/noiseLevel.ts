import { BAND, type Rgba8 } from '../raster/raster.ts';

/** Largest response of a place that still counts as plain, green levels: above it an edge speaks, not noise. */
const PLAIN = 200;
/** So many bands of pixels, spread over the picture, tell the noise to a hundredth. */
const SAMPLED_BANDS = 8;

/**
 * Standard deviation of a picture's noise, in levels of 255, from the second differences of its green channel (John Immerkær, "Fast noise variance
 * estimation", CVIU 64(2), 1996, doi:10.1006/cviu.1996.0060). Departs from it in leaving out strong responses, which are edges of the art.
 */
export function noiseLevel({ data, width, height }: Rgba8): number {
  if (width < 3 || height < 3) return 0;
  const rows = Math.max(1, Math.floor((width * (height - 2)) / (SAMPLED_BANDS * BAND)));
  let sum = 0;
  let count = 0;
  for (let y = 1; y < height - 1; y += rows) {
    const row = rowResponse(data, width, y);
    sum += row.sum;
    count += row.count;
  }
  return count === 0 ? 0 : (Math.sqrt(Math.PI / 2) * sum) / (6 * count);
}

function rowResponse(data: Rgba8['data'], width: number, y: number): { sum: number; count: number } {
  const stride = width * 4;
  let sum = 0;
  let count = 0;
  for (let x = 1, i = y * stride + 5; x < width - 1; x++, i += 4) {
    const corners = data[i - stride - 4] + data[i - stride + 4] + data[i + stride - 4] + data[i + stride + 4];
    const sides = data[i - stride] + data[i + stride] + data[i - 4] + data[i + 4];
    const response = Math.abs(corners - 2 * sides + 4 * data[i]);
    if (response > PLAIN) continue;
    sum += response;
    count++;
  }
  return { sum, count };
}
