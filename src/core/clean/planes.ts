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
  const reach = Math.max(1, Math.ceil(3 * sigmaPx));
  const weights = Float64Array.from({ length: reach + 1 }, (_, k) => Math.exp(-(k * k) / (2 * sigmaPx * sigmaPx)));
  const sum = weights.reduce((total, weight, k) => total + (k === 0 ? weight : 2 * weight), 0);
  return weights.map((weight) => weight / sum);
}

/** Gaussian blur of one plane; the border pixels are repeated outwards. */
export function blurred(plane: Float32Array, width: number, height: number, sigmaPx: number): Float32Array {
  const kernel = kernelOf(sigmaPx);
  const across = new Float32Array(plane.length);
  for (let y = 0; y < height; y++) blurLine(plane, across, kernel, y * width, 1, width);
  const out = new Float32Array(plane.length);
  for (let x = 0; x < width; x++) blurLine(across, out, kernel, x, width, height);
  return out;
}

function blurLine(from: Float32Array, to: Float32Array, kernel: Float64Array, start: number, step: number, count: number): void {
  const reach = kernel.length - 1;
  for (let k = 0; k < count; k++) {
    const at = start + k * step;
    let sum = from[at] * kernel[0];
    for (let d = 1; d <= reach; d++) sum += kernel[d] * (from[start + Math.max(0, k - d) * step] + from[start + Math.min(count - 1, k + d) * step]);
    to[at] = sum;
  }
}
