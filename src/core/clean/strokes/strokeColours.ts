import { forEdges, writeForEdges } from '../../colour/edgeMetric.ts';
import type { Rgb } from '../../colour/oklab.ts';
import type { Rgba8 } from '../../raster/raster.ts';

/** Sharpening and compression take a pixel up to so many times the way to its tone. */
const MOST_SHARE = 1.2;
/** What is so many times as far from the ground as the tone has not that tone. */
const BEYOND = 1.15;

/** The colours of the pixels of one stroke after the other, as edges weigh them, and what mixtures of tones explain of them. */
export class StrokeColours {
  private readonly edge: Float64Array;
  private readonly data: Rgba8['data'];
  private colours = new Float64Array(3 * 1024);
  private ground = 0;
  private count = 0;

  constructor({ data }: Rgba8, tones: readonly Rgb[]) {
    this.data = data;
    this.edge = forEdges(tones);
  }

  /** Takes up the pixels of a stroke on a ground. */
  read(pixels: readonly number[], ground: number): void {
    const { data } = this;
    this.ground = ground;
    this.count = pixels.length;
    if (3 * this.count > this.colours.length) this.colours = new Float64Array(6 * this.count);
    for (const [k, i] of pixels.entries()) writeForEdges(data[4 * i], data[4 * i + 1], data[4 * i + 2], this.colours, 3 * k);
  }

  /** How far the k-th pixel is on the way from the ground to a tone. */
  share(k: number, tone: number): number {
    const { colours, edge } = this;
    const [g, t] = [3 * this.ground, 3 * tone];
    const [x, y, z] = [edge[t] - edge[g], edge[t + 1] - edge[g + 1], edge[t + 2] - edge[g + 2]];
    const along = x * (colours[3 * k] - edge[g]) + y * (colours[3 * k + 1] - edge[g + 1]) + z * (colours[3 * k + 2] - edge[g + 2]);
    return along / (x * x + y * y + z * z);
  }

  /** How far a tone is from the ground, levels as edges weigh them. */
  distance(tone: number): number {
    const { edge } = this;
    const [g, t] = [3 * this.ground, 3 * tone];
    return Math.hypot(edge[t] - edge[g], edge[t + 1] - edge[g + 1], edge[t + 2] - edge[g + 2]);
  }

  /** The sum of the pixels' squared differences from the ground. */
  difference(): number {
    const { colours, edge } = this;
    const g = 3 * this.ground;
    let sum = 0;
    for (let k = 0; k < 3 * this.count; k += 3) for (let c = 0; c < 3; c++) sum += (colours[k + c] - edge[g + c]) ** 2;
    return sum;
  }

  /** The part of it that mixtures with a tone leave, the largest share of the tone, and the share of the pixels that lie beyond it. */
  unexplained(tone: number): { readonly left: number; readonly most: number; readonly beyond: number } {
    const { colours, edge } = this;
    const [g, t] = [3 * this.ground, 3 * tone];
    let left = 0;
    let most = 0;
    let beyond = 0;
    for (let k = 0; k < this.count; k++) {
      const share = this.share(k, tone);
      most = Math.max(most, share);
      if (share > BEYOND) beyond++;
      const held = Math.max(0, Math.min(MOST_SHARE, share));
      for (let c = 0; c < 3; c++) left += (colours[3 * k + c] - edge[g + c] - held * (edge[t + c] - edge[g + c])) ** 2;
    }
    return { left, most, beyond: beyond / this.count };
  }
}
