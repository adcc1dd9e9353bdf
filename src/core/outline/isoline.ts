import { AppError } from '../errors/appError.ts';
import type { Rings } from '../geometry/rings.ts';
import type { ShareMap } from '../raster/raster.ts';
import { edgeShift, PAD } from './edgeShift.ts';

/** The half-way lines of a share map with, for each ring, what nesting needs. */
export interface Isolines {
  readonly rings: Rings;
  /** Crossings of the rings with rows of pixel centres: row, x, ring, and whether ink lies to the right. */
  readonly crossings: Crossings;
}

export interface Crossings {
  readonly count: number;
  readonly row: Int32Array;
  readonly x: Float64Array;
  readonly ring: Int32Array;
  readonly inkRight: Uint8Array;
}

/** More rings than this are noise, not a drawing: no knife and no person could take them. */
export const MAX_RINGS = 200_000;

/** A ring with fewer points than this keeps every crossing, also those that place the edge poorly. */
const FEW = 12;

/**
 * The lines on which a pixel would be half ink, by marching squares on the lattice of pixel centres (Lorensen & Cline, "Marching cubes", SIGGRAPH 1987,
 * doi:10.1145/37401.37422, in two dimensions) with saddles decided by the bilinear surface (Nielson & Hamann, "The asymptotic decider", 1991,
 * doi:10.1109/VISUAL.1991.175782), but for thin lines, which hold together. Where along a lattice edge the line crosses is not read by linear interpolation,
 * which is up to 0.09 px off for area-sampled edges, but from the ink summed across the edge, which is exact for straight ones (`edgeShift`). Coordinates are
 * px, integers at pixel corners. Outside the raster there is no ink.
 * @throws AppError `tooIntricate` above `MAX_RINGS` rings.
 */
export function isolines(share: ShareMap): Isolines {
  const tracer = new Tracer(share);
  tracer.run();
  return tracer.result();
}

/** Of the sixteen cells around a saddle, a tone with at most so many is a thin line there: a diagonal of single pixels has four. */
export const THIN_CELLS = 5;

/** Directions of travel: up, right, down, left. `ahead` is the step to the lattice points in front. */
const UP = 0;

/** The upper bits of four cells: which of them are at least half ink. Kept as the signed numbers that bit operations give. */
const ALL_INK = 0x80808080 | 0;
/** The upper bit of the last of four cells in memory. */
const LAST_INK = 0x80000000 | 0;

class Tracer {
  private readonly width: number;
  private readonly height: number;
  private readonly cells: Uint8Array;
  private readonly visited: Uint8Array;
  private points = new Float64Array(1 << 14);
  private pointCount = 0;
  private readonly starts: number[] = [0];
  private row = new Int32Array(1 << 12);
  private x = new Float64Array(1 << 12);
  private ring = new Int32Array(1 << 12);
  private inkRight = new Uint8Array(1 << 12);
  private crossingCount = 0;

  constructor(share: ShareMap) {
    // Rows are whole groups of four cells, so that a row can be scanned four cells at a time.
    this.width = (share.width + 2 * PAD + 3) & ~3;
    this.height = share.height + 2 * PAD;
    this.cells = new Uint8Array(this.width * this.height);
    for (let y = 0; y < share.height; y++) this.cells.set(share.data.subarray(y * share.width, (y + 1) * share.width), (y + PAD) * this.width + PAD);
    this.visited = new Uint8Array(this.cells.length);
  }

  run(): void {
    const fours = new Int32Array(this.cells.buffer);
    for (let y = PAD; y < this.height - PAD; y++) this.scanRow(fours, y);
  }

  private scanRow(fours: Int32Array, y: number): void {
    const { cells, visited, width } = this;
    const groups = width >> 2;
    let before = 0;
    for (let group = y * groups, end = group + groups; group < end; group++) {
      const ink = fours[group] & ALL_INK;
      if (ink === before) continue;
      for (let i = group * 4 - 1, last = i + 4; i < last; i++) {
        if (cells[i] < 128 && cells[i + 1] >= 128 && visited[i] === 0) this.trace(i);
      }
      before = (ink & LAST_INK) === 0 ? 0 : ALL_INK;
    }
  }

  result(): Isolines {
    return {
      rings: { kind: 'rings', points: this.points.slice(0, this.pointCount * 2), starts: Int32Array.from(this.starts) },
      crossings: { count: this.crossingCount, row: this.row, x: this.x, ring: this.ring, inkRight: this.inkRight },
    };
  }

  /** Follows one ring from an upward crossing between lattice points `start` (no ink) and `start + 1` (ink), ink always on the right. */
  private trace(start: number): void {
    const firstPoint = this.pointCount;
    this.follow(start, false);
    if (this.pointCount - firstPoint < FEW) {
      this.pointCount = firstPoint;
      this.follow(start, true);
    }
    this.starts.push(this.pointCount);
    if (this.starts.length > MAX_RINGS + 1) throw new AppError('tooIntricate', { count: this.starts.length, limit: MAX_RINGS });
  }

  private follow(start: number, everyCrossing: boolean): void {
    const { cells, visited, width } = this;
    const ahead = [-width, 1, width, -1];
    let left = start;
    let right = start + 1;
    let direction = UP;
    do {
      if (direction === UP) visited[left] = 1;
      if ((direction & 1) === 0 && !everyCrossing) this.noteCrossing(left, right, direction === UP);
      this.emit(left, right, direction, everyCrossing);
      const step = ahead[direction];
      const frontLeft = cells[left + step];
      const frontRight = cells[right + step];
      if (frontRight < 128 && (frontLeft < 128 || this.saddleParts(left, right, step))) {
        left = right + step;
        direction = (direction + 1) & 3;
      } else if (frontLeft >= 128) {
        right = left + step;
        direction = (direction + 3) & 3;
      } else {
        left += step;
        right += step;
      }
    } while (left !== start || direction !== UP);
  }

  /**
   * At a saddle (left out, right in, front left in, front right out): true when the two ink corners are apart in the middle of the cell. A thin line of either
   * holds together.
   */
  private saddleParts(left: number, right: number, step: number): boolean {
    const { cells, width } = this;
    let ink = 0;
    const corner = Math.min(left, right, left + step, right + step);
    for (let row = corner - width - 1, last = row + 4 * width; row < last; row += width) for (let i = row; i < row + 4; i++) ink += cells[i] >> 7;
    if (ink <= THIN_CELLS) return false;
    if (ink >= 16 - THIN_CELLS) return true;
    const [a, b, c, d] = [cells[left], cells[right], cells[left + step], cells[right + step]];
    return (a * d - b * c) / (a + d - b - c) < 127.5;
  }

  private emit(left: number, right: number, direction: number, everyCrossing: boolean): void {
    const { cells, width } = this;
    const across = right - left;
    const along = Math.abs(across) === 1 ? width : 1;
    if (!everyCrossing) {
      const steepAcross = 2 * (cells[right] - cells[left]);
      const steepAlong = (cells[left + along] + cells[right + along] - cells[left - along] - cells[right - along]) / 2;
      if (steepAlong > steepAcross || -steepAlong > steepAcross) return;
    }
    const at = edgeShift(cells, left, across);
    const column = left % width;
    const row = (left - column) / width;
    if (this.pointCount * 2 + 2 > this.points.length) this.points = doubled(this.points);
    const horizontal = (direction & 1) === 0;
    const sign = across > 0 ? at : -at;
    this.points[this.pointCount * 2] = column - PAD + 0.5 + (horizontal ? sign : 0);
    this.points[this.pointCount * 2 + 1] = row - PAD + 0.5 + (horizontal ? 0 : sign);
    this.pointCount++;
  }

  private noteCrossing(left: number, right: number, inkRight: boolean): void {
    if (this.crossingCount === this.row.length) {
      this.row = doubled(this.row);
      this.x = doubled(this.x);
      this.ring = doubled(this.ring);
      this.inkRight = doubled(this.inkRight);
    }
    const west = Math.min(left, right);
    const column = west % this.width;
    const k = this.crossingCount++;
    const a = this.cells[west];
    const b = this.cells[west + 1];
    this.row[k] = (west - column) / this.width;
    this.x[k] = column + (127.5 - a) / (b - a);
    this.ring[k] = this.starts.length - 1;
    this.inkRight[k] = inkRight ? 1 : 0;
  }
}

function doubled<A extends Float64Array | Int32Array | Uint8Array>(array: A): A {
  const larger = new (array.constructor as new (length: number) => A)(array.length * 2);
  larger.set(array);
  return larger;
}
