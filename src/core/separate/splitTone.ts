import { colourDifference, rgbFromOklab, writeOklab, type Rgb } from '../colour/oklab.ts';
import { AppError } from '../errors/appError.ts';
import type { LabelMap } from '../raster/labelMap.ts';
import type { Rgba8 } from '../raster/raster.ts';

/** Rounds in which the two means settle. */
const ROUNDS = 24;
/** Two colours nearer than this are one, OKLab × 100. */
const LEAST_APART = 2;
/** The smaller of the two has at least this share of the tone. */
const LEAST_SHARE = 0.01;
/** So many of a tone's pixels tell its colours. */
const SAMPLES = 60_000;

/**
 * The two colours of which a tone is made: the means of two clusters of its pixels in OKLab (S. Lloyd, "Least squares quantization in PCM", IEEE Trans. Inf.
 * Theory 28(2), 1982, doi:10.1109/TIT.1982.1056489), begun at the two ends of its main direction. Only pixels with none but their own tone around them count:
 * those along edges are mixtures.
 * @throws AppError `toneIsEven` when there are no two.
 */
export function splitTone(picture: Rgba8, { data: labels, width, height }: LabelMap, tone: number): [Rgb, Rgb] {
  const lab = innerColours(picture, labels, width, height, tone);
  const count = lab.length / 3;
  if (count < 2) throw new AppError('toneIsEven');
  let means = startOf(lab);
  let sizes: [number, number] = [0, 0];
  for (let round = 0; round < ROUNDS; round++) {
    const sums = [new Float64Array(3), new Float64Array(3)];
    sizes = [0, 0];
    for (let k = 0; k < count; k++) {
      const of = distance2(lab, 3 * k, means[0]) <= distance2(lab, 3 * k, means[1]) ? 0 : 1;
      sizes[of]++;
      for (let c = 0; c < 3; c++) sums[of][c] += lab[3 * k + c];
    }
    if (Math.min(...sizes) === 0) throw new AppError('toneIsEven');
    means = [sums[0].map((sum) => sum / sizes[0]), sums[1].map((sum) => sum / sizes[1])];
  }
  const [a, b] = means.map(([l, x, y]) => rgbFromOklab(l, x, y));
  if (Math.min(...sizes) < LEAST_SHARE * count || colourDifference(a, b) < LEAST_APART) throw new AppError('toneIsEven');
  return sizes[0] >= sizes[1] ? [a, b] : [b, a];
}

function innerColours({ data }: Rgba8, labels: Uint8Array, width: number, height: number, tone: number): Float64Array {
  const inner: number[] = [];
  for (let y = 1; y < height - 1; y++) {
    for (let i = y * width + 1; i < (y + 1) * width - 1; i++) {
      if (labels[i] === tone && labels[i - 1] === tone && labels[i + 1] === tone && labels[i - width] === tone && labels[i + width] === tone) inner.push(i);
    }
  }
  const step = Math.max(1, Math.floor(inner.length / SAMPLES));
  const lab = new Float64Array(Math.ceil(inner.length / step) * 3);
  for (let k = 0, at = 0; k < inner.length; k += step, at += 3) writeOklab(data[4 * inner[k]], data[4 * inner[k] + 1], data[4 * inner[k] + 2], lab, at);
  return lab;
}

/** Mean plus and minus the spread along the channel that varies most. */
function startOf(lab: Float64Array): [Float64Array, Float64Array] {
  const count = lab.length / 3;
  const mean = new Float64Array(3);
  for (let k = 0; k < lab.length; k++) mean[k % 3] += lab[k] / count;
  const spread = new Float64Array(3);
  for (let k = 0; k < lab.length; k++) spread[k % 3] += (lab[k] - mean[k % 3]) ** 2 / count;
  const widest = spread.indexOf(Math.max(...spread));
  const by = Math.sqrt(spread[widest]);
  return [mean.map((value, c) => (c === widest ? value - by : value)), mean.map((value, c) => (c === widest ? value + by : value))];
}

const distance2 = (lab: Float64Array, at: number, mean: Float64Array): number =>
  (lab[at] - mean[0]) ** 2 + (lab[at + 1] - mean[1]) ** 2 + (lab[at + 2] - mean[2]) ** 2;
