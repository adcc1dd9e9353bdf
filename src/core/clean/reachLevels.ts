import { DifferenceTable, MAX_LEVEL } from '../colour/differenceTable.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
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
 * "Algorithm 360", CACM 12(11), 1969, doi:10.1145/363269.363610). Every pixel is queued once, so the whole family of areas, one for
 * each tolerance, costs as much as one flood: about 40 ns a pixel. Clear pixels are walls.
 * @param x whole art pixel, 0 to width − 1; the same for `y`.
 */
export function* reachLevels(art: Art, x: number, y: number): Task<ReachLevels> {
  const { width, height, alpha } = art;
  if (!(x >= 0 && x < width && y >= 0 && y < height)) throw new RangeError(`start (${x}, ${y}) lies outside ${width} × ${height}`);
  const rgb = art.colour.data;
  const start = y * width + x;
  const from = seedColour(art, x, y);
  const table = new DifferenceTable(from);
  const levels = new Uint8Array(width * height).fill(MAX_LEVEL);
  const areaByLevel = new Float64Array(MAX_LEVEL);
  // A level of 255 is final and unreached; queued pixels hold their level already, since the first bucket they enter is their last.
  const buckets: Int32Array[] = [];
  const fill = new Int32Array(MAX_LEVEL);
  for (let k = 0; k < MAX_LEVEL; k++) buckets.push(EMPTY);
  const push = (pixel: number, level: number): void => {
    let bucket = buckets[level];
    const at = fill[level];
    if (at === bucket.length) {
      const larger = new Int32Array(Math.max(256, at * 2));
      larger.set(bucket);
      buckets[level] = bucket = larger;
    }
    bucket[at] = pixel;
    fill[level] = at + 1;
    levels[pixel] = level;
  };
  if (alpha[start] > 0) push(start, 0);
  let done = 0;
  let pause = PIXELS_PER_TURN;
  for (let level = 0; level < MAX_LEVEL; level++) {
    while (fill[level] > 0) {
      const p = buckets[level][--fill[level]];
      done++;
      const column = p % width;
      for (let side = 0; side < 4; side++) {
        let q: number;
        if (side === 0) {
          if (column === 0) continue;
          q = p - 1;
        } else if (side === 1) {
          if (column === width - 1) continue;
          q = p + 1;
        } else if (side === 2) {
          q = p - width;
          if (q < 0) continue;
        } else {
          q = p + width;
          if (q >= levels.length) continue;
        }
        if (levels[q] !== MAX_LEVEL || alpha[q] === 0) continue;
        const c = q * 4;
        const d = table.level(rgb[c], rgb[c + 1], rgb[c + 2]);
        if (d < MAX_LEVEL) push(q, d > level ? d : level);
      }
      if (done >= pause) {
        pause += PIXELS_PER_TURN;
        yield done / levels.length;
      }
    }
    buckets[level] = EMPTY;
    areaByLevel[level] = done;
  }
  return { kind: 'reach', width, height, levels, areaByLevel, from };
}

const EMPTY = new Int32Array(0);
const PIXELS_PER_TURN = 400_000;

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
