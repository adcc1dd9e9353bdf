import { distanceInside, distanceTo } from '../../raster/distance.ts';
import type { Rgba8 } from '../../raster/raster.ts';
import { byRows, within, type Task } from '../../task/task.ts';

const UNKNOWN = 2;
const LEVELS = 256;
/** So many pixels are reached before others have their turn. */
const PX_PER_TURN = 50_000;

/**
 * Brings a mask that was found on a reduced picture to the full one: its border snaps to the strongest edge within reach, by growing both sides from
 * where they are certain over the weakest gradients first (marker-controlled watershed by flooding; F. Meyer & S. Beucher, "Morphological
 * segmentation", J. Vis. Commun. Image Represent. 1(1), 1990, doi:10.1016/1047-3203(90)90014-M).
 * @param small 1 where the subject is, at `smallWidth` × `smallHeight`.
 */
export function* refineMask(picture: Rgba8, small: Uint8Array, smallWidth: number, smallHeight: number): Task<Uint8Array> {
  const { width, height } = picture;
  const mask = new Uint8Array(width * height);
  const inside = distanceInside(small, smallWidth, smallHeight, 'free');
  const outside = distanceTo(small, smallWidth, smallHeight);
  const band = new Uint8Array(mask.length);
  const markRow = (y: number): void => {
    const row = Math.min(smallHeight - 1, Math.floor((y * smallHeight) / height)) * smallWidth;
    for (let x = 0, i = y * width; x < width; x++, i++) {
      const k = row + Math.min(smallWidth - 1, Math.floor((x * smallWidth) / width));
      mask[i] = inside[k] > 1.5 ? 1 : outside[k] > 1.5 ? 0 : UNKNOWN;
      if (mask[i] === UNKNOWN) band[i] = 1;
    }
  };
  yield* within(byRows(height, markRow), 0, 0.2);
  // Noise is averaged over about half a pixel of the reduced picture, which saw none of it.
  const reach = Math.max(1, Math.min(MOST_REACH_PX, Math.round(width / smallWidth / 2)));
  const flood = new Flood(picture, mask, reach);
  yield* within(flood.run(), 0.2, 0.7);
  const settled = yield* within(flood.settled(small, smallWidth, smallHeight), 0.7, 0.9);
  return yield* within(smoothedIn(settled, band, width, height, reach), 0.9, 1);
}

const MOST_REACH_PX = 4;

/** Pixels of the band take the side that most pixels around them have: what noise frayed lies straight again. */
function* smoothedIn(mask: Uint8Array, band: Uint8Array, width: number, height: number, reach: number): Task<Uint8Array> {
  if (reach < 2) return mask;
  const out = mask.slice();
  const smoothRow = (y: number): void => {
    for (let x = reach, i = y * width + reach; x < width - reach; x++, i++) {
      if (band[i] === 0) continue;
      let sum = 0;
      for (let dy = -reach; dy <= reach; dy++) for (let j = i + dy * width - reach; j <= i + dy * width + reach; j++) sum += mask[j];
      out[i] = 2 * sum > (2 * reach + 1) ** 2 ? 1 : 0;
    }
  };
  yield* byRows(height - 2 * reach, (y) => smoothRow(y + reach));
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
  }

  /** Certain pixels beside uncertain ones are where it begins. */
  private beginInRow(y: number): void {
    const { mask, picture } = this;
    const { width } = picture;
    for (let i = y * width, x = 0; x < width; i++, x++) {
      if (mask[i] === UNKNOWN) continue;
      if (
        (x > 0 && mask[i - 1] === UNKNOWN) ||
        (x < width - 1 && mask[i + 1] === UNKNOWN) ||
        (i >= width && mask[i - width] === UNKNOWN) ||
        (i + width < mask.length && mask[i + width] === UNKNOWN)
      )
        this.buckets[0].push(i);
    }
  }

  *run(): Task<void> {
    const { buckets, mask, picture } = this;
    const { width, height } = picture;
    yield* within(
      byRows(height, (y) => this.beginInRow(y)),
      0,
      0.3,
    );
    let reached = 0;
    for (let level = 0; level < LEVELS; level++) {
      const bucket = buckets[level];
      for (let k = 0; k < bucket.length; k++) {
        const i = bucket[k];
        const x = i % width;
        if (++reached % PX_PER_TURN === 0) yield 0.3 + (0.7 * level) / LEVELS;
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
  *settled(small: Uint8Array, smallWidth: number, smallHeight: number): Task<Uint8Array> {
    const { mask, picture } = this;
    const { width, height } = picture;
    const grown = new Uint8Array(smallWidth * smallHeight);
    const growRow = (y: number): void => {
      const row = Math.min(smallHeight - 1, Math.floor((y * smallHeight) / height)) * smallWidth;
      for (let x = 0, i = y * width; x < width; x++, i++) {
        if (mask[i] === 1) grown[row + Math.min(smallWidth - 1, Math.floor((x * smallWidth) / width))] = 1;
        else if (mask[i] === UNKNOWN) mask[i] = 0;
      }
    };
    yield* within(byRows(height, growRow), 0, 0.6);
    const lost = small.map((v, k) => (v !== 0 && grown[k] === 0 ? 1 : 0));
    if (!lost.includes(1)) return mask;
    const giveRow = (y: number): void => {
      const row = Math.min(smallHeight - 1, Math.floor((y * smallHeight) / height)) * smallWidth;
      for (let x = 0, i = y * width; x < width; x++, i++) if (lost[row + Math.min(smallWidth - 1, Math.floor((x * smallWidth) / width))] !== 0) mask[i] = 1;
    };
    yield* within(byRows(height, giveRow), 0.6, 1);
    return mask;
  }
}
