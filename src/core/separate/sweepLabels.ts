import { labelRegions, type Regions } from '../raster/labelRegions.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../raster/labelMap.ts';

/** Bits inside bits need more than one turn. */
const TURNS = 4;

/** Gives connected regions smaller than `leastAreaPx2` the tone (or what is clear) with which they share most of their edge. The map that comes in is not changed. */
export function sweepLabels(labels: LabelMap, leastAreaPx2: number): LabelMap {
  const { width, height } = labels;
  let data = labels.data;
  for (let turn = 0; turn < TURNS; turn++) {
    const regions = labelRegions(data, width, height, 'each', false);
    const small = smallestFirst(regions, leastAreaPx2);
    if (small.length === 0) break;
    if (data === labels.data) data = data.slice();
    const runsOf = runsByRegion(regions, new Set(small));
    let changed = false;
    for (const region of small) changed = absorb(data, width, height, regions, runsOf.get(region) ?? []) || changed;
    if (!changed) break;
  }
  return data === labels.data ? labels : makeLabelMap(width, height, data);
}

function smallestFirst({ area, count }: Regions, least: number): number[] {
  const small: number[] = [];
  for (let k = 0; k < count; k++) if (area[k] < least) small.push(k);
  return small.sort((a, b) => area[a] - area[b] || a - b);
}

function runsByRegion({ regionOfRun }: Regions, wanted: ReadonlySet<number>): Map<number, number[]> {
  const runs = new Map<number, number[]>();
  for (let run = 0; run < regionOfRun.length; run++) {
    const region = regionOfRun[run];
    if (!wanted.has(region)) continue;
    const list = runs.get(region);
    if (list === undefined) runs.set(region, [run]);
    else list.push(run);
  }
  return runs;
}

/** The label that touches a region's pixels most takes them; false when nothing touches it. */
function absorb(data: Uint8Array, width: number, height: number, { runStart, runEnd }: Regions, runs: readonly number[]): boolean {
  const own = data[runStart[runs[0]]];
  const votes = new Uint32Array(256);
  const vote = (i: number): void => void votes[data[i]]++;
  for (const run of runs) {
    const from = runStart[run];
    const to = runEnd[run];
    if (from % width > 0) vote(from - 1);
    if (to % width > 0) vote(to);
    for (let i = from; i < to; i++) {
      if (i >= width) vote(i - width);
      if (i < (height - 1) * width) vote(i + width);
    }
  }
  votes[own] = 0;
  let best = -1;
  for (let label = 0; label <= CLEAR; label++) if (votes[label] > 0 && (best < 0 || votes[label] > votes[best])) best = label;
  if (best < 0) return false;
  for (const run of runs) data.fill(best, runStart[run], runEnd[run]);
  return true;
}
