import type { Rgb } from '../../colour/oklab.ts';
import { labelRegions, runsByRegion, type Regions } from '../../raster/labelRegions.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../../raster/labelMap.ts';
import { wordsOf, type Rgba8 } from '../../raster/raster.ts';
import { byRows, within, type Task } from '../../task/task.ts';
import { ECHO, Sliver } from './sliver.ts';

/** Of a thin line's colours, another tone must explain them better than its own by this factor. */
const LINE_BETTER = 0.4;
/** A thin line covers at least this share of its pixels in the mean: less is a stain of any tone. */
const LEAST_COVER = 0.35;
/**
 * Compression keeps tint at half the resolution of lightness or less, so that the tip of a small shape may have none left: up to so many px² there have a paler
 * tone than the shape.
 */
const BLED_TIP_PX2 = 12;
/** Label of what is not thin in the map of thin parts. */
const BROAD = 254;

/**
 * Takes out slivers: strips of at most two pixels along an edge between two tones that have a third one's label, because compression has drawn the mixture of
 * the two off the straight way between them. Where the mixture explains the strip's colours better than its own tone, each pixel goes to the nearer of the two.
 * A real thin line has its own colour and stays.
 * @param compressed whether tint may be lost at tips.
 */
export function* dropSlivers(labels: LabelMap, colour: Rgba8, tones: readonly Rgb[], compressed = false): Task<LabelMap> {
  const { width, height } = labels;
  const thin = yield* within(thinParts(labels), 0, 0.6);
  const regions = labelRegions(thin, width, height, 'each', true);
  const { runStart, runEnd, count, area } = regions;
  const { first, runs: all } = runsByRegion(regions);
  yield 0.7;
  const words = wordsOf(colour);
  const out = labels.data.slice();
  for (let part = 0; part < count; part++) {
    const runs = all.subarray(first[part], first[part + 1]);
    const own = thin[runStart[runs[0]]];
    if (own >= tones.length || area[part] < 2) continue;
    const { first: ground, second, alone, both } = tonesAround(labels, own, regions, runs);
    if (ground >= tones.length) continue;
    const isTip = goesOnBroad(labels, thin, own, regions, runs);
    if (second < tones.length) {
      const sliver = weighed(new Sliver(words, tones[own], tones[ground], tones[second]), regions, runs);
      const isBetween = sliver.isMixture() || (both && (sliver.isBlur(isNarrow(regions, runs, width)) || sliver.isBled() || sliver.isFaint() || sliver.isOvershoot()));
      // Its own tone and the one around it explain a tip too, where their tints have run into each other.
      if (isTip && isBetween && sliver.isApart && weighed(new Sliver(words, tones[own], tones[ground], tones[own]), regions, runs).hasRun()) continue;
      if (isBetween || (compressed && !isTip && area[part] <= BLED_TIP_PX2 && sliver.mayHaveRun())) {
        for (const run of runs) for (let i = runStart[run]; i < runEnd[run]; i++) out[i] = sliver.isNearerFirst(i) ? ground : second;
        continue;
      }
    }
    if (!alone) continue;
    const line = isEcho(labels, tones, own, ground, regions, runs) ? ground : toneOfLine(words, tones, own, ground, isTip, regions, runs);
    if (line !== own) for (const run of runs) out.fill(line, runStart[run], runEnd[run]);
  }
  return makeLabelMap(width, height, out);
}

/** A strip a pixel broad has fewer pixels than this times its length. */
const NARROW = 1.5;

/** Whether a strip is about a pixel broad, by the longer side of the box around it. */
function isNarrow({ runStart, runEnd }: Regions, runs: Int32Array, width: number): boolean {
  let [left, right, count] = [width, 0, 0];
  for (const run of runs) {
    left = Math.min(left, runStart[run] % width);
    right = Math.max(right, (runEnd[run] - 1) % width);
    count += runEnd[run] - runStart[run];
  }
  const rows = Math.floor(runStart[runs[runs.length - 1]] / width) - Math.floor(runStart[runs[0]] / width) + 1;
  return count < NARROW * Math.max(rows, right - left + 1);
}

/** How far from an edge compression echoes it, px. */
const ECHO_PX = 4;
/** So much of an echo has its edge beside it. */
const ALONG_EDGE = 0.6;

/** Whether a strip inside of one tone is the echo of an edge beside it: fainter than that, and off to the other side, as compression leaves it. */
function isEcho(
  { data, width, height }: LabelMap,
  tones: readonly Rgb[],
  own: number,
  ground: number,
  { runStart, runEnd }: Regions,
  runs: Int32Array,
): boolean {
  const votes = new Uint32Array(256);
  const seen = new Set<number>();
  let count = 0;
  for (const run of runs) {
    for (let i = runStart[run]; i < runEnd[run]; i++) {
      count++;
      seen.clear();
      const [x, y] = [i % width, Math.floor(i / width)];
      for (let yy = Math.max(0, y - ECHO_PX); yy <= Math.min(height - 1, y + ECHO_PX); yy++)
        for (let j = yy * width + Math.max(0, x - ECHO_PX), end = yy * width + Math.min(width - 1, x + ECHO_PX); j <= end; j++) seen.add(data[j]);
      for (const label of seen) votes[label]++;
    }
  }
  const [g, t] = [tones[ground], tones[own]];
  const echo = [t.r - g.r, t.g - g.g, t.b - g.b];
  return tones.some((tone, k) => {
    if (k === own || k === ground || votes[k] < ALONG_EDGE * count) return false;
    const edge = [tone.r - g.r, tone.g - g.g, tone.b - g.b];
    const against = -(echo[0] * edge[0] + echo[1] * edge[1] + echo[2] * edge[2]);
    return against > 0 && Math.hypot(...echo) < ECHO * Math.hypot(...edge);
  });
}

/** A sliver with the pixels of a strip weighed. */
function weighed(sliver: Sliver, { runStart, runEnd }: Regions, runs: Int32Array): Sliver {
  for (const run of runs) for (let i = runStart[run]; i < runEnd[run]; i++) sliver.weigh(i);
  return sliver;
}

/**
 * The tone of a line so thin that all of its pixels are mixed with the one tone around it: that which explains their colours best, its own unless another is
 * clearly better. The tip of an area loses its tint to what is around it in JPEG files, so that a paler tone explains it better: it keeps its own where that
 * and the run tint explain it.
 * @param isTip whether it goes on in a broad area of its tone.
 */
function toneOfLine(words: Int32Array, tones: readonly Rgb[], own: number, ground: number, isTip: boolean, regions: Regions, runs: Int32Array): number {
  const slivers = tones.map((tone) => new Sliver(words, tone, tones[ground], tone));
  const off = slivers.map((sliver, k) => {
    if (k === ground) return Infinity;
    weighed(sliver, regions, runs);
    return k === own || sliver.meanAlong() >= LEAST_COVER ? sliver.mixed : Infinity;
  });
  const best = off.indexOf(Math.min(...off));
  return off[best] < LINE_BETTER * off[own] && !(isTip && slivers[own].hasRun()) ? best : own;
}

/**
 * The labels of pixels that lie in no 3 × 3 block of their label, `BROAD` elsewhere. Along the border of the picture blocks are cut off: nothing is thin there.
 */
function* thinParts({ data, width, height }: LabelMap): Task<Uint8Array> {
  const middles = new Uint8Array(data.length);
  yield* within(byRows(height - 2, (y) => middlesOfRow(data, middles, width, (y + 1) * width)), 0, 0.5);
  const thin = new Uint8Array(data.length).fill(BROAD);
  yield* within(byRows(height - 2, (y) => thinOfRow(data, middles, thin, width, (y + 1) * width)), 0.5, 1);
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

/** Whether a thin strip is the tip of a broad area of its own tone: some pixel beside it is of that. */
function goesOnBroad({ data, width }: LabelMap, thin: Uint8Array, own: number, { runStart, runEnd }: Regions, runs: Int32Array): boolean {
  const isBroad = (i: number): boolean => data[i] === own && thin[i] === BROAD;
  for (const run of runs) {
    if (isBroad(runStart[run] - 1) || isBroad(runEnd[run])) return true;
    for (let i = runStart[run]; i < runEnd[run]; i++) if (isBroad(i - width) || isBroad(i + width)) return true;
  }
  return false;
}

/** A tone with so much of a strip's edge has it to itself. */
const ALONE = 0.8;
/** Two tones have a strip between them when the second one has at least so much of its edge. */
const BOTH = 0.2;

/** The two other labels that touch a strip most, 255 when there is no second, and whether the first does so nearly alone or both have a good part. */
export function tonesAround(
  { data, width }: LabelMap,
  own: number,
  { runStart, runEnd }: Regions,
  runs: Int32Array,
): { first: number; second: number; alone: boolean; both: boolean } {
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
  const total = votes.reduce((sum, count) => sum + count, 0);
  const first = votes.indexOf(Math.max(...votes));
  const most = votes[first];
  votes[first] = 0;
  const next = Math.max(...votes);
  return { first, second: next === 0 ? CLEAR : votes.indexOf(next), alone: most >= ALONE * total, both: next >= BOTH * total };
}
