import type { Three } from '../planes.ts';

/** Colours that a side is made of, at most. */
const PARTS = 6;
/** Added to the variance of each channel, levels²: noise and compression. */
const FLOOR = 12;
const ROUNDS = 4;
/** So many pixels tell what colours there are. */
const SAMPLES = 12_000;

/**
 * What colours a side of a picture has: a mixture of normal distributions, each with its middle, the inverse of its covariance (xx, xy, xz, yy, yz, zz) and the
 * logarithm of its weight over the root of the determinant: ten numbers a part.
 */
export type ColourMixture = Float64Array;
const STRIDE = 10;

/**
 * Fits a mixture to pixels: k-means from colours far from each other, then one distribution a cluster (as C. Rother, V. Kolmogorov & A. Blake, "GrabCut", ACM
 * TOG 23(3), 2004, doi:10.1145/1015706.1015720).
 * @param weight how much each pixel counts, 0 and up. @returns empty when none counts.
 */
export function fitMixture(planes: Three, weight: Float32Array): ColourMixture {
  const samples = samplesOf(planes, weight);
  const centres = farApart(samples);
  const own = new Uint8Array(samples.count);
  for (let round = 0; round < ROUNDS; round++) cluster(samples, centres, own);
  return distributions(samples, own, centres.length / 3);
}

/** r, g, b and weight of each. */
interface Samples {
  readonly values: Float64Array;
  readonly count: number;
  readonly total: number;
}

function samplesOf([r, g, b]: Three, weight: Float32Array): Samples {
  let counting = 0;
  for (const w of weight) if (w > 0) counting++;
  // A step that shares no factor with usual widths, so that no columns are left out.
  const every = Math.max(1, Math.floor(counting / SAMPLES));
  const values = new Float64Array(4 * Math.ceil(counting / every));
  let seen = 0;
  let count = 0;
  let total = 0;
  for (let i = 0; i < weight.length; i++) {
    if (weight[i] <= 0 || seen++ % every !== 0) continue;
    values[4 * count] = r[i];
    values[4 * count + 1] = g[i];
    values[4 * count + 2] = b[i];
    values[4 * count + 3] = weight[i];
    total += weight[i];
    count++;
  }
  return { values, count, total };
}

/** Colours each of which is the furthest from those before it; the first one is the middle sample. */
function farApart({ values, count }: Samples): Float64Array {
  if (count === 0) return new Float64Array(0);
  const far = new Float64Array(count).fill(Infinity);
  const centres: number[] = [];
  for (let next = count >> 1; centres.length < 3 * PARTS;) {
    const [r, g, b] = [values[4 * next], values[4 * next + 1], values[4 * next + 2]];
    centres.push(r, g, b);
    for (let k = 0; k < count; k++) {
      const d = (values[4 * k] - r) ** 2 + (values[4 * k + 1] - g) ** 2 + (values[4 * k + 2] - b) ** 2;
      if (d < far[k]) far[k] = d;
      if (far[k] > far[next]) next = k;
    }
    if (far[next] < FLOOR) break;
  }
  return Float64Array.from(centres);
}

/** Gives each sample to the nearest centre, and moves the centres to the middles of what they got. */
function cluster({ values, count }: Samples, centres: Float64Array, own: Uint8Array): void {
  const sums = new Float64Array((centres.length / 3) * 4);
  for (let k = 0; k < count; k++) {
    let least = Infinity;
    for (let c = 0; 3 * c < centres.length; c++) {
      const d = (values[4 * k] - centres[3 * c]) ** 2 + (values[4 * k + 1] - centres[3 * c + 1]) ** 2 + (values[4 * k + 2] - centres[3 * c + 2]) ** 2;
      if (d >= least) continue;
      least = d;
      own[k] = c;
    }
    const at = 4 * own[k];
    const w = values[4 * k + 3];
    for (let v = 0; v < 3; v++) sums[at + v] += w * values[4 * k + v];
    sums[at + 3] += w;
  }
  for (let c = 0; 3 * c < centres.length; c++) if (sums[4 * c + 3] > 0) for (let v = 0; v < 3; v++) centres[3 * c + v] = sums[4 * c + v] / sums[4 * c + 3];
}

function distributions({ values, count, total }: Samples, own: Uint8Array, parts: number): ColourMixture {
  const out: number[] = [];
  for (let part = 0; part < parts; part++) {
    // Weight, three sums, six sums of products.
    const s = new Float64Array(10);
    for (let k = 0; k < count; k++) if (own[k] === part) addTo(s, values[4 * k], values[4 * k + 1], values[4 * k + 2], values[4 * k + 3]);
    if (s[0] <= 0) continue;
    const [x, y, z] = [s[1] / s[0], s[2] / s[0], s[3] / s[0]];
    const [xx, xy, xz, yy, yz, zz] = [
      s[4] / s[0] - x * x + FLOOR,
      s[5] / s[0] - x * y,
      s[6] / s[0] - x * z,
      s[7] / s[0] - y * y + FLOOR,
      s[8] / s[0] - y * z,
      s[9] / s[0] - z * z + FLOOR,
    ];
    const det = xx * (yy * zz - yz * yz) - xy * (xy * zz - yz * xz) + xz * (xy * yz - yy * xz);
    out.push(
      x,
      y,
      z,
      (yy * zz - yz * yz) / det,
      (xz * yz - xy * zz) / det,
      (xy * yz - xz * yy) / det,
      (xx * zz - xz * xz) / det,
      (xy * xz - xx * yz) / det,
      (xx * yy - xy * xy) / det,
      Math.log(s[0] / total) - 0.5 * Math.log(det),
    );
  }
  return Float64Array.from(out);
}

function addTo(s: Float64Array, x: number, y: number, z: number, w: number): void {
  s[0] += w;
  s[1] += w * x;
  s[2] += w * y;
  s[3] += w * z;
  s[4] += w * x * x;
  s[5] += w * x * y;
  s[6] += w * x * z;
  s[7] += w * y * y;
  s[8] += w * y * z;
  s[9] += w * z * z;
}

/** −log of how likely a colour is in a mixture, by its likeliest part, up to a constant that all mixtures share. */
export function unlikeness(mixture: ColourMixture, r: number, g: number, b: number): number {
  let least = Infinity;
  for (let at = 0; at < mixture.length; at += STRIDE) {
    const x = r - mixture[at];
    const y = g - mixture[at + 1];
    const z = b - mixture[at + 2];
    const far =
      0.5 *
        (x * (mixture[at + 3] * x + 2 * (mixture[at + 4] * y + mixture[at + 5] * z)) +
          y * (mixture[at + 6] * y + 2 * mixture[at + 7] * z) +
          mixture[at + 8] * z * z) -
      mixture[at + 9];
    if (far < least) least = far;
  }
  return least;
}
