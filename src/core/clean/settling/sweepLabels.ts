import { AppError } from '../../errors/appError.ts';
import { labelRegions, runsByRegion, type Regions } from '../../raster/labelRegions.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../../raster/labelMap.ts';

/** More regions than this are noise and not a drawing: sweeping them would take a minute and leave as much noise. */
const MAX_REGIONS = 1_500_000;

/** Bits inside bits need more than one turn. */
const TURNS = 4;

/**
 * Gives regions, connected also over corners as thin lines are, that are smaller than `leastAreaPx2` the tone (or what is clear) with which they share most of
 * their edge. The map that comes in is not changed.
 * @throws AppError `tooIntricate` for noise.
 */
export function sweepLabels(labels: LabelMap, leastAreaPx2: number): LabelMap {
  const { width, height } = labels;
  let data = labels.data;
  for (let turn = 0; turn < TURNS; turn++) {
    const regions = labelRegions(data, width, height, 'each', true);
    if (regions.count > MAX_REGIONS) throw new AppError('tooIntricate', { count: regions.count, limit: MAX_REGIONS });
    const small = smallestFirst(regions, leastAreaPx2);
    if (small.length === 0) break;
    if (data === labels.data) data = data.slice();
    const { first, runs } = runsByRegion(regions);
    const absorber = new Absorber(data, width, height, regions);
    let changed = false;
    for (const region of small) changed = absorber.absorb(runs.subarray(first[region], first[region + 1])) || changed;
    if (!changed) break;
  }
  return data === labels.data ? labels : makeLabelMap(width, height, data);
}

function smallestFirst({ area, count }: Regions, least: number): Int32Array {
  const small: number[] = [];
  for (let k = 0; k < count; k++) if (area[k] < least) small.push(k);
  return Int32Array.from(small).sort((a, b) => area[a] - area[b] || a - b);
}

/** Lets regions be taken by what touches them most. */
class Absorber {
  /** How often each label touches the region in question, and which do at all. */
  private readonly votes = new Uint32Array(256);
  private readonly touching: number[] = [];

  constructor(
    private readonly data: Uint8Array,
    private readonly width: number,
    private readonly height: number,
    private readonly regions: Regions,
  ) {}

  /** False when nothing touches the region. */
  absorb(runs: Int32Array): boolean {
    const { data, votes, touching } = this;
    const { runStart, runEnd } = this.regions;
    const own = data[runStart[runs[0]]];
    for (const run of runs) this.ask(runStart[run], runEnd[run]);
    let best = -1;
    for (const label of touching)
      if (label !== own && (best < 0 || votes[label] > votes[best] || (votes[label] === votes[best] && label < best && label !== CLEAR))) best = label;
    for (const label of touching) votes[label] = 0;
    touching.length = 0;
    if (best < 0) return false;
    for (const run of runs) data.fill(best, runStart[run], runEnd[run]);
    return true;
  }

  private ask(from: number, to: number): void {
    const { width, height } = this;
    if (from % width > 0) this.vote(from - 1);
    if (to % width > 0) this.vote(to);
    for (let i = from; i < to; i++) {
      if (i >= width) this.vote(i - width);
      if (i < (height - 1) * width) this.vote(i + width);
    }
  }

  private vote(i: number): void {
    const label = this.data[i];
    if (this.votes[label]++ === 0) this.touching.push(label);
  }
}
