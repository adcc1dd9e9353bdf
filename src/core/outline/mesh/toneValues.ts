import { writeWeights } from '../../colour/edgeMetric.ts';
import type { Rgb } from '../../colour/oklab.ts';
import type { Art } from '../../raster/art.ts';
import { CLEAR } from '../../raster/labelMap.ts';
import { wordsOf } from '../../raster/raster.ts';
import type { CorneredEdge } from '../cornerCheck.ts';
import type { CrackArcs } from './crackArcs.ts';

/**
 * Values of pixels and tones along the way from one tone to another: 0 where there is the first alone, 1 where there is the second. They are linear in what a
 * pixel is mixed of; between a tone and what is clear, they are how much of the pixel the tone covers.
 */
export class ToneValues {
  private readonly words: Int32Array;
  private readonly weights = new Float64Array(3);
  private start = 0;
  /** Whether colours tell, weighed by how much of the pixel they cover; else that cover alone does. */
  private byColour = true;

  constructor(
    private readonly art: Art,
    private readonly tones: readonly Rgb[],
  ) {
    this.words = wordsOf(art.colour);
  }

  /** Values between the two sides of an arc: those of pixels, and what changes at each arc from its right to its left. They hold until the next arc's. */
  alongEdge({ left, right }: CrackArcs, arc: number): Pick<CorneredEdge, 'valueAt' | 'stepOf'> {
    this.between(left[arc], right[arc]);
    return { valueAt: (x, y) => this.valueAt(x, y), stepOf: (k) => this.valueOf(left[k]) - this.valueOf(right[k]) };
  }

  /** The tones, or `CLEAR`, between which values lie from now on. */
  private between(first: number, second: number): void {
    this.byColour = first !== CLEAR && second !== CLEAR;
    if (!this.byColour) return;
    const [a, b] = [this.tones[first], this.tones[second]];
    const [x, y, z] = [b.r - a.r, b.g - a.g, b.b - a.b];
    writeWeights(x, y, z, this.weights);
    const [u, v, w] = this.weights;
    const all = Math.max(1e-9, x * u + y * v + z * w);
    this.weights.set([u / all, v / all, w / all]);
    this.start = -(a.r * u + a.g * v + a.b * w) / all;
  }

  private valueAt(x: number, y: number): number {
    const i = y * this.art.width + x;
    const cover = this.art.alpha[i] / 255;
    if (!this.byColour) return cover;
    const word = this.words[i];
    return cover * this.valueOfColour(word & 255, (word >> 8) & 255, (word >> 16) & 255);
  }

  /** What lies outside of the picture counts as clear: 0. */
  private valueOf(label: number): number {
    if (label === CLEAR) return 0;
    if (!this.byColour) return 1;
    const { r, g, b } = this.tones[label];
    return this.valueOfColour(r, g, b);
  }

  private valueOfColour(r: number, g: number, b: number): number {
    return r * this.weights[0] + g * this.weights[1] + b * this.weights[2] + this.start;
  }
}
