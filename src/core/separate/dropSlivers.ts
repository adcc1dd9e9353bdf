import type { Rgb } from '../colour/oklab.ts';
import { labelRegions, runsByRegion, type Regions } from '../raster/labelRegions.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../raster/labelMap.ts';
import { wordsOf, type Rgba8 } from '../raster/raster.ts';

/** Of a sliver's colours, the way between the two tones around it must explain them better than its own tone by this factor. */
const BETTER = 0.75;
/** Label of what is not thin in the map of thin parts. */
const BROAD = 254;

/**
 * Takes out slivers: strips of at most two pixels along an edge between two tones that have a third one's label, because compression has drawn the mixture of the two off
 * the straight way between them. Where the mixture explains the strip's colours better than its own tone, each pixel goes to the nearer of the two. A real thin
 * line has its own colour and stays.
 */
export function dropSlivers(labels: LabelMap, colour: Rgba8, tones: readonly Rgb[]): LabelMap {
  const { width, height } = labels;
  const thin = thinParts(labels);
  const regions = labelRegions(thin, width, height, 'each', true);
  const { runStart, runEnd, count, area } = regions;
  const { first, runs: all } = runsByRegion(regions);
  const words = wordsOf(colour);
  const out = labels.data.slice();
  for (let part = 0; part < count; part++) {
    const runs = all.subarray(first[part], first[part + 1]);
    const own = thin[runStart[runs[0]]];
    if (own >= tones.length || area[part] < 2) continue;
    const pair = tonesAround(labels, own, regions, runs);
    if (pair === undefined || pair.some((tone) => tone >= tones.length)) continue;
    const sliver = new Sliver(words, tones[own], tones[pair[0]], tones[pair[1]]);
    for (const run of runs) for (let i = runStart[run]; i < runEnd[run]; i++) sliver.weigh(i);
    if (!sliver.isMixture()) continue;
    for (const run of runs) for (let i = runStart[run]; i < runEnd[run]; i++) out[i] = sliver.isNearerFirst(i) ? pair[0] : pair[1];
  }
  return makeLabelMap(width, height, out);
}

/** The labels of pixels that lie in no 3 × 3 block of their label, `BROAD` elsewhere. Along the border of the picture blocks are cut off: nothing is thin there. */
function thinParts({ data, width, height }: LabelMap): Uint8Array {
  const middles = new Uint8Array(data.length);
  for (let y = 1; y < height - 1; y++) middlesOfRow(data, middles, width, y * width);
  const thin = new Uint8Array(data.length).fill(BROAD);
  for (let y = 1; y < height - 1; y++) thinOfRow(data, middles, thin, width, y * width);
  return thin;
}

/** Marks the middles of 3 × 3 blocks of one label. */
function middlesOfRow(data: Uint8Array, middles: Uint8Array, width: number, row: number): void {
  // How many columns in a row, this one too, have one label in all three rows.
  let columns = 0;
  let label = -1;
  for (let i = row; i < row + width; i++) {
    const own = data[i];
    const isOne = data[i - width] === own && data[i + width] === own;
    columns = !isOne ? 0 : own === label ? columns + 1 : 1;
    label = isOne ? own : -1;
    if (columns >= 3) middles[i - 1] = 1;
  }
}

function thinOfRow(data: Uint8Array, middles: Uint8Array, thin: Uint8Array, width: number, row: number): void {
  for (let i = row + 1; i < row + width - 1; i++) {
    if (middles[i] !== 0 || data[i] === CLEAR) continue;
    const up = i - width;
    const down = i + width;
    const around = middles[up - 1] | middles[up] | middles[up + 1] | middles[i - 1] | middles[i + 1] | middles[down - 1] | middles[down] | middles[down + 1];
    // A block whose middle lies beside a pixel holds the pixel, so it is of the pixel's label.
    if (around === 0) thin[i] = data[i];
  }
}

/** The two other labels that touch a strip most; undefined when one alone does. */
function tonesAround({ data, width }: LabelMap, own: number, { runStart, runEnd }: Regions, runs: Int32Array): readonly [number, number] | undefined {
  const votes = new Uint32Array(256);
  for (const run of runs) {
    const from = runStart[run];
    const to = runEnd[run];
    votes[data[from - 1]]++;
    votes[data[to]]++;
    for (let i = from; i < to; i++) {
      votes[data[i - width]]++;
      votes[data[i + width]]++;
    }
  }
  votes[own] = 0;
  const first = votes.indexOf(Math.max(...votes));
  votes[first] = 0;
  const most = Math.max(...votes);
  return most === 0 ? undefined : [first, votes.indexOf(most)];
}

class Sliver {
  private readonly length2: number;
  private mixed = 0;
  private own = 0;

  constructor(
    private readonly words: Int32Array,
    private readonly tone: Rgb,
    private readonly first: Rgb,
    private readonly second: Rgb,
  ) {
    this.length2 = Math.max(1, (second.r - first.r) ** 2 + (second.g - first.g) ** 2 + (second.b - first.b) ** 2);
  }

  weigh(i: number): void {
    const word = this.words[i];
    const [r, g, b] = [word & 255, (word >> 8) & 255, (word >> 16) & 255];
    const t = Math.max(0, Math.min(1, this.along(r, g, b)));
    const { first, second, tone } = this;
    this.mixed += Math.sqrt((first.r + t * (second.r - first.r) - r) ** 2 + (first.g + t * (second.g - first.g) - g) ** 2 + (first.b + t * (second.b - first.b) - b) ** 2);
    this.own += Math.sqrt((tone.r - r) ** 2 + (tone.g - g) ** 2 + (tone.b - b) ** 2);
  }

  isMixture(): boolean {
    return this.mixed < BETTER * this.own;
  }

  isNearerFirst(i: number): boolean {
    const word = this.words[i];
    return this.along(word & 255, (word >> 8) & 255, (word >> 16) & 255) < 0.5;
  }

  private along(r: number, g: number, b: number): number {
    const { first, second } = this;
    return ((r - first.r) * (second.r - first.r) + (g - first.g) * (second.g - first.g) + (b - first.b) * (second.b - first.b)) / this.length2;
  }
}
