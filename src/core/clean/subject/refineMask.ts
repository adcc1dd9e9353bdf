import { distanceInside, distanceTo } from '../../raster/distance.ts';
import type { Rgba8 } from '../../raster/raster.ts';

const UNKNOWN = 2;
const LEVELS = 256;

/**
 * Brings a mask that was found on a reduced picture to the full one: its border snaps to the strongest edge within reach, by growing both sides from
 * where they are certain over the weakest gradients first (marker-controlled watershed by flooding; F. Meyer & S. Beucher, "Morphological
 * segmentation", J. Vis. Commun. Image Represent. 1(1), 1990, doi:10.1016/1047-3203(90)90014-M).
 * @param small 1 where the subject is, at `smallWidth` × `smallHeight`.
 */
export function refineMask(picture: Rgba8, small: Uint8Array, smallWidth: number, smallHeight: number): Uint8Array {
  const { width, height } = picture;
  const mask = new Uint8Array(width * height);
  const inside = distanceInside(small, smallWidth, smallHeight, 'free');
  const outside = distanceTo(small, smallWidth, smallHeight);
  for (let y = 0; y < height; y++) {
    const row = Math.min(smallHeight - 1, Math.floor((y * smallHeight) / height)) * smallWidth;
    for (let x = 0, i = y * width; x < width; x++, i++) {
      const k = row + Math.min(smallWidth - 1, Math.floor((x * smallWidth) / width));
      mask[i] = inside[k] > 1.5 ? 1 : outside[k] > 1.5 ? 0 : UNKNOWN;
    }
  }
  const band = mask.map((v) => (v === UNKNOWN ? 1 : 0));
  // Noise is averaged over about half a pixel of the reduced picture, which saw none of it.
  const reach = Math.max(1, Math.min(MOST_REACH_PX, Math.round(width / smallWidth / 2)));
  const flood = new Flood(picture, mask, reach);
  flood.run();
  return smoothedIn(flood.settled(small, smallWidth, smallHeight), band, width, height, reach);
}

const MOST_REACH_PX = 4;

/** Pixels of the band take the side that most pixels around them have: what noise frayed lies straight again. */
function smoothedIn(mask: Uint8Array, band: Uint8Array, width: number, height: number, reach: number): Uint8Array {
  if (reach < 2) return mask;
  const out = mask.slice();
  for (let y = reach; y < height - reach; y++) {
    for (let x = reach, i = y * width + reach; x < width - reach; x++, i++) {
      if (band[i] === 0) continue;
      let sum = 0;
      for (let dy = -reach; dy <= reach; dy++) for (let j = i + dy * width - reach; j <= i + dy * width + reach; j++) sum += mask[j];
      out[i] = 2 * sum > (2 * reach + 1) ** 2 ? 1 : 0;
    }
  }
  return out;
}

/** Two-sided growth in the order of the gradient. */
class Flood {
  private readonly buckets: number[][] = Array.from({ length: LEVELS }, () => []);

  constructor(
    private readonly picture: Rgba8,
    private readonly mask: Uint8Array,
    private readonly reachPx: number,
  ) {
    const { width } = picture;
    for (let i = 0; i < mask.length; i++) {
      if (mask[i] === UNKNOWN) continue;
      const x = i % width;
      if (
        (x > 0 && mask[i - 1] === UNKNOWN) ||
        (x < width - 1 && mask[i + 1] === UNKNOWN) ||
        (i >= width && mask[i - width] === UNKNOWN) ||
        (i + width < mask.length && mask[i + width] === UNKNOWN)
      )
        this.buckets[0].push(i);
    }
  }

  run(): void {
    const { buckets, mask, picture } = this;
    const { width } = picture;
    for (let level = 0; level < LEVELS; level++) {
      const bucket = buckets[level];
      for (let k = 0; k < bucket.length; k++) {
        const i = bucket[k];
        const x = i % width;
        if (x > 0) this.reach(i - 1, mask[i], level);
        if (x < width - 1) this.reach(i + 1, mask[i], level);
        if (i >= width) this.reach(i - width, mask[i], level);
        if (i + width < mask.length) this.reach(i + width, mask[i], level);
      }
      buckets[level] = [];
    }
  }

  private reach(i: number, side: number, level: number): void {
    if (this.mask[i] !== UNKNOWN) return;
    this.mask[i] = side;
    this.buckets[Math.max(level, this.gradient(i))].push(i);
  }

  /** Largest change of a channel from the pixels before to those behind, means of `reachPx` on each side, across or down. */
  private gradient(i: number): number {
    const { data, width, height } = this.picture;
    const x = i % width;
    const y = (i - x) / width;
    const across = Math.min(this.reachPx, x, width - 1 - x);
    const down = Math.min(this.reachPx, y, height - 1 - y);
    let most = 0;
    for (let c = 0; c < 3; c++) {
      let dx = 0;
      let dy = 0;
      for (let k = 1; k <= across; k++) dx += data[(i + k) * 4 + c] - data[(i - k) * 4 + c];
      for (let k = 1; k <= down; k++) dy += data[(i + k * width) * 4 + c] - data[(i - k * width) * 4 + c];
      most = Math.max(most, Math.abs(dx) / Math.max(1, across), Math.abs(dy) / Math.max(1, down));
    }
    return Math.min(LEVELS - 1, Math.round(most));
  }

  /** Thin parts that have no certain core keep what the reduced mask says. */
  settled(small: Uint8Array, smallWidth: number, smallHeight: number): Uint8Array {
    const { mask, picture } = this;
    const { width, height } = picture;
    const grown = new Uint8Array(smallWidth * smallHeight);
    for (let y = 0; y < height; y++) {
      const row = Math.min(smallHeight - 1, Math.floor((y * smallHeight) / height)) * smallWidth;
      for (let x = 0, i = y * width; x < width; x++, i++) if (mask[i] === 1) grown[row + Math.min(smallWidth - 1, Math.floor((x * smallWidth) / width))] = 1;
    }
    const lost = small.map((v, k) => (v !== 0 && grown[k] === 0 ? 1 : 0));
    for (let i = 0; i < mask.length; i++) if (mask[i] === UNKNOWN) mask[i] = 0;
    if (!lost.includes(1)) return mask;
    for (let y = 0; y < height; y++) {
      const row = Math.min(smallHeight - 1, Math.floor((y * smallHeight) / height)) * smallWidth;
      for (let x = 0, i = y * width; x < width; x++, i++) {
        if (lost[row + Math.min(smallWidth - 1, Math.floor((x * smallWidth) / width))] !== 0) mask[i] = 1;
      }
    }
    return mask;
  }
}
