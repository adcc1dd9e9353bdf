/** A plane enlarged by cubic convolution (R. G. Keys, IEEE Trans. ASSP 29(6), 1981, doi:10.1109/TASSP.1981.1163711), border pixels repeated. */
export function cubicEnlarged(plane: Float32Array, width: number, height: number, times: number): Float32Array {
  const weights = Array.from({ length: times }, (_, k) => weightsAt((k + 0.5) / times - 0.5));
  const across = new Float32Array(width * times * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) spread(plane, across, weights, times, y * width, x, 1, width, y * width * times + x * times, 1);
  const out = new Float32Array(width * times * height * times);
  const wide = width * times;
  for (let x = 0; x < wide; x++) for (let y = 0; y < height; y++) spread(across, out, weights, times, x, y, wide, height, y * times * wide + x, wide);
  return out;
}

interface Tap {
  /** First of the four pixels, from the one that is enlarged. */
  readonly first: number;
  readonly weights: readonly [number, number, number, number];
}

/** Weights for a place `offset` pixels from a pixel's middle, −0.5 to 0.5. */
function weightsAt(offset: number): Tap {
  const first = offset < 0 ? -2 : -1;
  const t = offset < 0 ? offset + 1 : offset;
  return { first, weights: [-0.5 * t + t * t - 0.5 * t ** 3, 1 - 2.5 * t * t + 1.5 * t ** 3, 0.5 * t + 2 * t * t - 1.5 * t ** 3, -0.5 * t * t + 0.5 * t ** 3] };
}

function spread(
  from: Float32Array,
  to: Float32Array,
  taps: readonly Tap[],
  times: number,
  line: number,
  at: number,
  step: number,
  count: number,
  start: number,
  outStep: number,
): void {
  for (let k = 0; k < times; k++) {
    const { first, weights } = taps[k];
    let sum = 0;
    for (let j = 0; j < 4; j++) sum += weights[j] * from[line + Math.max(0, Math.min(count - 1, at + first + j)) * step];
    to[start + k * outStep] = sum;
  }
}
