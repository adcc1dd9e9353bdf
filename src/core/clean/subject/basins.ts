import { distanceInside } from '../../raster/distance.ts';

/** Sharp gradient from which a pixel belongs to an edge, levels a pixel above the noise. */
export const EDGE = 1;
/** Wider places are not told apart, px to the nearest edge. */
const WIDEST_PX = 24;
/** Steps a pixel in which the distance is taken. */
const STEPS = 4;
/** Two areas that meet in a neck wider than this share of the narrower one are one. */
const NECK = 0.5;

export interface Basins {
  /** Area of each pixel, 0 to count − 1. */
  readonly labels: Int32Array;
  readonly count: number;
  /** Distance of each pixel to the nearest sharp edge, px. */
  readonly distance: Float32Array;
}

/**
 * Parts a picture into areas along its sharp edges. A gap in an edge that is narrow beside what lies behind it does not join two areas, because areas
 * grow from their widest places and stop where they meet in a neck: a watershed of the distance to the edges (F. Meyer, "Topographic distance and watershed
 * lines", Signal Processing 38(1), 1994, doi:10.1016/0165-1684(94)90060-4). Edge pixels go to the area that reaches them over the weakest edge.
 */
export function basinsOf(sharp: Float32Array, width: number, height: number): Basins {
  const free = new Uint8Array(sharp.length);
  for (let i = 0; i < free.length; i++) free[i] = sharp[i] > EDGE ? 0 : 1;
  const distance = distanceInside(free, width, height, 'free');
  const basins = new Growing(width, height, distance);
  const order = byLevel(levelsOf(distance, STEPS, WIDEST_PX * STEPS), WIDEST_PX * STEPS);
  for (let k = order.length - 1; k >= 0 && free[order[k]] !== 0; k--) basins.take(order[k]);
  const edges = byLevel(levelsOf(sharp, 4, 255), 255).filter((i) => free[i] === 0);
  basins.spread(edges);
  return basins.finished();
}

/** Values in whole steps, so many to 1, up to `most`. */
function levelsOf(values: Float32Array, steps: number, most: number): Uint8Array {
  const levels = new Uint8Array(values.length);
  for (let i = 0; i < levels.length; i++) levels[i] = Math.min(most, values[i] * steps);
  return levels;
}

/** Pixels in the order of a level, lowest first (counting sort). */
function byLevel(levels: Uint8Array, highest: number): Int32Array {
  const starts = new Int32Array(highest + 2);
  for (let i = 0; i < levels.length; i++) starts[levels[i] + 1]++;
  for (let level = 0; level <= highest; level++) starts[level + 1] += starts[level];
  const order = new Int32Array(levels.length);
  for (let i = 0; i < levels.length; i++) order[starts[levels[i]]++] = i;
  return order;
}

class Growing {
  private readonly labels: Int32Array;
  private readonly parent: number[] = [];
  private readonly peak: number[] = [];

  constructor(
    private readonly width: number,
    private readonly height: number,
    private readonly distance: Float32Array,
  ) {
    this.labels = new Int32Array(width * height).fill(-1);
  }

  private find(label: number): number {
    const { parent } = this;
    while (parent[label] !== label) label = parent[label] = parent[parent[label]];
    return label;
  }

  /** Puts a pixel into the area of the neighbour that lies furthest from an edge, or starts one; joins areas that meet in it with a wide neck. */
  take(pixel: number): void {
    const { width, height, labels, parent, peak, distance } = this;
    const distancePx = Math.min(WIDEST_PX, distance[pixel]);
    const x = pixel % width;
    const y = (pixel - x) / width;
    let own = -1;
    let furthest = -1;
    for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
      for (let xx = Math.max(0, x - 1); xx <= Math.min(width - 1, x + 1); xx++) {
        const label = labels[yy * width + xx];
        if (label < 0) continue;
        let other = this.find(label);
        if (own >= 0 && own !== other) {
          const [wide, narrow] = peak[own] >= peak[other] ? [own, other] : [other, own];
          if (distancePx >= NECK * peak[narrow] || peak[narrow] - distancePx <= 1) {
            parent[narrow] = wide;
            own = other = wide;
          }
        }
        if (distance[yy * width + xx] <= furthest) continue;
        furthest = distance[yy * width + xx];
        own = other;
      }
    }
    if (own < 0) {
      own = parent.length;
      parent.push(own);
      peak.push(distancePx);
    }
    labels[pixel] = own;
  }

  /** Gives edge pixels, weakest first, to a neighbour's area until all have one. */
  spread(edges: Int32Array): void {
    const { labels } = this;
    let waiting = edges;
    while (waiting.length > 0) {
      const left = waiting.filter((pixel) => {
        const label = this.neighbour(pixel);
        if (label < 0) return true;
        labels[pixel] = label;
        return false;
      });
      if (left.length === waiting.length) {
        this.take(left[0]);
        continue;
      }
      waiting = left;
    }
  }

  private neighbour(pixel: number): number {
    const { labels, width, height } = this;
    const x = pixel % width;
    if (x > 0 && labels[pixel - 1] >= 0) return labels[pixel - 1];
    if (x < width - 1 && labels[pixel + 1] >= 0) return labels[pixel + 1];
    if (pixel >= width && labels[pixel - width] >= 0) return labels[pixel - width];
    return pixel < width * (height - 1) ? labels[pixel + width] : -1;
  }

  finished(): Basins {
    const { labels, parent, distance } = this;
    const numbers = new Int32Array(parent.length).fill(-1);
    let count = 0;
    for (let i = 0; i < labels.length; i++) {
      const root = this.find(labels[i]);
      if (numbers[root] < 0) numbers[root] = count++;
      labels[i] = numbers[root];
    }
    return { labels, count, distance };
  }
}
