import { DifferenceTable, MAX_LEVEL } from '../colour/differenceTable.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { wordsOf } from '../raster/raster.ts';
import type { Task } from '../task/task.ts';

/** For each pixel the smallest tolerance at which an area lift from one point takes it. */
export interface ReachLevels {
  readonly kind: 'reach';
  readonly width: number;
  readonly height: number;
  /** Tenths of a perceptual difference, 0 to 254; 255 is never reached. */
  readonly levels: Uint8Array;
  /** Pixels reached at each level or below, 255 entries: the area as a function of the tolerance. */
  readonly areaByLevel: Float64Array;
  /** Colour at the starting point. */
  readonly from: Rgb;
}

/**
 * Floods from one pixel in the order of the largest difference met on the way (a minimax path, by Dijkstra's algorithm with buckets; Dial,
 * "Algorithm 360", CACM 12(11), 1969, doi:10.1145/363269.363610). The whole family of areas, one for each tolerance, costs as much as one
 * flood: about 30 ns a pixel. Clear pixels are walls.
 * @param x whole art pixel, 0 to width − 1; the same for `y`.
 * @param only a level that is known to be wanted: then levels up to it are not told apart, those above not looked at, and it is a plain flood.
 */
export function* reachLevels(art: Art, x: number, y: number, only?: number): Task<ReachLevels> {
  const { width, height, alpha } = art;
  if (!(x >= 0 && x < width && y >= 0 && y < height)) throw new RangeError(`start (${x}, ${y}) lies outside ${width} × ${height}`);
  const flood = new Flood(art, seedColour(art, x, y), only ?? MAX_LEVEL - 1);
  const first = only ?? 0;
  if (alpha[y * width + x] > 0) flood.put(y * width + x, first);
  const areaByLevel = new Float64Array(MAX_LEVEL);
  for (let level = first; level <= (only ?? MAX_LEVEL - 1); level++) {
    while (flood.spread(level)) yield flood.done / alpha.length;
    areaByLevel[level] = flood.done;
  }
  if (only !== undefined) areaByLevel.fill(flood.done, only);
  return { kind: 'reach', width, height, levels: flood.levels, areaByLevel, from: flood.from };
}

/** Pixels after which the flood pauses, so that a cancel is heard. */
const PIXELS_PER_TURN = 300_000;
const EMPTY = new Int32Array(0);

/**
 * The flood's state. A pixel gets its level when it is first seen, and that is final: levels only rise. Pixels of the present level are taken in
 * runs along the row, and of each stretch that continues a run above or below only the first pixel is queued, so plain ground costs little.
 */
class Flood {
  readonly levels: Uint8Array;
  done = 0;
  private readonly words: Int32Array;
  private readonly table: DifferenceTable;
  private readonly buckets: Int32Array[] = Array.from({ length: MAX_LEVEL }, () => EMPTY);
  private readonly fill = new Int32Array(MAX_LEVEL);
  private lastWord = 0;
  private lastLevel: number;

  constructor(
    private readonly art: Art,
    readonly from: Rgb,
    private readonly highest: number,
  ) {
    this.levels = new Uint8Array(art.alpha.length).fill(MAX_LEVEL);
    this.words = wordsOf(art.colour);
    this.table = new DifferenceTable(from);
    this.lastLevel = this.table.level(0, 0, 0);
  }

  put(pixel: number, level: number): void {
    this.levels[pixel] = level;
    let bucket = this.buckets[level];
    const at = this.fill[level];
    if (at === bucket.length) {
      const larger = new Int32Array(Math.max(256, at * 2));
      larger.set(bucket);
      this.buckets[level] = bucket = larger;
    }
    bucket[at] = pixel;
    this.fill[level] = at + 1;
  }

  /** Takes what is queued at a level. True when it only paused. */
  spread(level: number): boolean {
    const { fill, buckets } = this;
    const pause = this.done + PIXELS_PER_TURN;
    while (fill[level] > 0) {
      this.run(buckets[level][--fill[level]], level);
      if (this.done >= pause) return true;
    }
    buckets[level] = EMPTY;
    return false;
  }

  /** Takes the run of pixels around a queued one and queues what borders on it. */
  private run(pixel: number, level: number): void {
    const { levels, art } = this;
    const { width } = art;
    const rowStart = pixel - (pixel % width);
    const rowEnd = rowStart + width;
    let first = pixel;
    while (first > rowStart && this.takes(first - 1, level)) levels[--first] = level;
    let last = pixel;
    while (last + 1 < rowEnd && this.takes(last + 1, level)) levels[++last] = level;
    this.done += last - first + 1;
    if (rowStart > 0) this.row(first - width, last - width, level);
    if (rowEnd < levels.length) this.row(first + width, last + width, level);
  }

  /** Whether a pixel is still free and reached at this level; a free one that takes more is queued for later. */
  private takes(pixel: number, level: number): boolean {
    if (this.levels[pixel] !== MAX_LEVEL || this.art.alpha[pixel] === 0) return false;
    const needed = this.levelOf(pixel);
    if (needed <= level) return true;
    if (needed <= this.highest) this.put(pixel, needed);
    return false;
  }

  private row(first: number, last: number, level: number): void {
    let continues = false;
    for (let pixel = first; pixel <= last; pixel++) {
      if (this.levels[pixel] !== MAX_LEVEL) {
        continues = false;
        continue;
      }
      const taken = this.takes(pixel, level);
      if (taken && !continues) this.put(pixel, level);
      continues = taken;
    }
  }

  private levelOf(pixel: number): number {
    const word = this.words[pixel] & 0xffffff;
    if (word === this.lastWord) return this.lastLevel;
    this.lastWord = word;
    return (this.lastLevel = this.table.level(word & 255, (word >> 8) & 255, word >> 16));
  }
}

/** The colour from which a lift measures: the middle one of each channel in the 3 × 3 pixels around the point, so that one noisy pixel does not decide. */
export function seedColour(art: Art, x: number, y: number): Rgb {
  const { width, height, alpha } = art;
  const rgb = art.colour.data;
  const channels: [number[], number[], number[]] = [[], [], []];
  for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
    for (let xx = Math.max(0, x - 1); xx <= Math.min(width - 1, x + 1); xx++) {
      const i = yy * width + xx;
      if (alpha[i] === 0 && !(xx === x && yy === y)) continue;
      for (let c = 0; c < 3; c++) channels[c].push(rgb[i * 4 + c]);
    }
  }
  const middle = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1];
  return { r: middle(channels[0]), g: middle(channels[1]), b: middle(channels[2]) };
}
