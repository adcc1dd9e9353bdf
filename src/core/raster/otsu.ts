/** A cut of a histogram into a dark and a light class. */
export interface Otsu {
  /** Values up to and including this one are dark, 0 to 254. */
  readonly threshold: number;
  /** Mean of each class. */
  readonly dark: number;
  readonly light: number;
  /** Share of the whole variance that the cut explains, 0 to 1: near 1 for two clean tones. */
  readonly separation: number;
}

/**
 * The threshold that parts a histogram best (Nobuyuki Otsu, "A threshold selection method from gray-level histograms", IEEE Trans. SMC 9(1), 1979,
 * doi:10.1109/TSMC.1979.4310076). Where a whole stretch of thresholds is equally good, its middle is taken.
 * @param histogram 256 counts.
 */
export function otsu(histogram: Float64Array): Otsu {
  let total = 0;
  let sum = 0;
  let squares = 0;
  for (let v = 0; v < 256; v++) {
    total += histogram[v];
    sum += v * histogram[v];
    squares += v * v * histogram[v];
  }
  const mean = total === 0 ? 0 : sum / total;
  const variance = total === 0 ? 0 : squares / total - mean * mean;
  let best = -1;
  let first = 127;
  let last = 127;
  let count = 0;
  let below = 0;
  for (let v = 0; v < 255; v++) {
    count += histogram[v];
    below += v * histogram[v];
    if (count === 0 || count === total) continue;
    const difference = below / count - (sum - below) / (total - count);
    const between = (count / total) * (1 - count / total) * difference * difference;
    if (between > best * (1 + 1e-12)) {
      best = between;
      first = v;
    }
    if (between >= best * (1 - 1e-12)) last = v;
  }
  const threshold = (first + last) >> 1;
  const classes = classMeans(histogram, threshold, mean);
  return { threshold, ...classes, separation: variance === 0 ? 0 : Math.max(0, best) / variance };
}

function classMeans(histogram: Float64Array, threshold: number, mean: number): { dark: number; light: number } {
  let darkCount = 0;
  let darkSum = 0;
  let lightCount = 0;
  let lightSum = 0;
  for (let v = 0; v < 256; v++) {
    if (v <= threshold) {
      darkCount += histogram[v];
      darkSum += v * histogram[v];
    } else {
      lightCount += histogram[v];
      lightSum += v * histogram[v];
    }
  }
  return { dark: darkCount === 0 ? mean : darkSum / darkCount, light: lightCount === 0 ? mean : lightSum / lightCount };
}
