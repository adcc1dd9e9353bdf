import { AppError } from '../../errors/appError.ts';
import { byRows, within, type Task } from '../../task/task.ts';
import { CLEAR, type LabelMap } from '../../raster/labelMap.ts';

/**
 * The boundaries of a label map as chains of cracks, the unit edges between pixels of different labels. Cracks start at vertices, the corners of pixels.
 * Everything is counted in a lattice with one column and one row of `CLEAR` around the map: vertex v lies between the cells v − stride − 1, v − stride, v − 1
 * and v.
 */
export interface CrackArcs {
  /** The labels with a border of `CLEAR`. */
  readonly cells: Uint8Array;
  readonly stride: number;
  readonly count: number;
  /** Cracks of arc k: starts[k] to starts[k + 1] (exclusive). */
  readonly starts: Int32Array;
  /** Vertex × 4 + direction of each crack, in order of travel. */
  readonly cracks: Int32Array;
  /** Labels to the left and to the right of travel. */
  readonly left: Uint8Array;
  readonly right: Uint8Array;
  /** Vertex of the node at which an arc begins and ends; −1 for closed arcs. */
  readonly from: Int32Array;
  readonly to: Int32Array;
  /** Pairs of cells that touch only at a corner and are joined across it. */
  readonly joins: Int32Array;
}

/** The cells to the left and to the right of the crack that leaves a vertex in a direction. */
export const leftCell = (v: number, direction: number, stride: number): number =>
  direction === UP ? v - stride - 1 : direction === RIGHT ? v - stride : direction === DOWN ? v : v - 1;
export const rightCell = (v: number, direction: number, stride: number): number =>
  direction === UP ? v - stride : direction === RIGHT ? v : direction === DOWN ? v - 1 : v - stride - 1;

export const UP = 0;
export const RIGHT = 1;
export const DOWN = 2;
export const LEFT = 3;

/** More arcs than this are noise and not a drawing. */
const MAX_ARCS = 150_000;

/** Decides at a vertex around which two tones alternate whether the pair north-west and south-east is the joined one. */
export type JoinsNorthWest = (vertex: number) => boolean;

/**
 * Follows all cracks: first from node to node, then those that close on themselves. Nodes are where three or more labels meet, where an edge meets the
 * picture's frame, and the picture's corners, so that what lies along the frame is straight. Where only two labels meet in four cells, or one label twice and
 * two others, the label that is there twice is joined across the corner; for two labels `joinsNorthWest` says which.
 * @throws AppError `tooIntricate` above `MAX_ARCS`.
 */
export function* crackArcs(labels: LabelMap, joinsNorthWest: (cells: Uint8Array, stride: number) => JoinsNorthWest): Task<CrackArcs> {
  const { width, height, data } = labels;
  const stride = width + 2;
  const cells = new Uint8Array(stride * (height + 2)).fill(CLEAR);
  for (let y = 0; y < height; y++) cells.set(data.subarray(y * width, (y + 1) * width), (y + 1) * stride + 1);
  const tracer = new Tracer(cells, stride, joinsNorthWest(cells, stride));
  const nodesOfRow = (k: number): void => {
    const y = k + 1;
    const first = y * stride + 1;
    if (y === 1 || y === height + 1) for (let v = first; v <= first + width; v++) tracer.frameNode(v);
    else {
      tracer.frameNode(first);
      tracer.nodesOfRow(first + 1, first + width - 1);
      tracer.frameNode(first + width);
    }
  };
  yield* within(byRows(height + 1, nodesOfRow), 0, 0.6);
  yield* within(byRows(height + 1, (k) => tracer.closedOfRow((k + 1) * stride + 1, (k + 1) * stride + width + 1)), 0.6, 1);
  return tracer.result();
}

class Tracer {
  /** Bit 0: the crack to the right of a vertex was followed; bit 1: the one below. */
  private readonly followed: Uint8Array;
  private cracks = new Int32Array(1 << 14);
  private crackCount = 0;
  private readonly starts: number[] = [0];
  private readonly left: number[] = [];
  private readonly right: number[] = [];
  private readonly from: number[] = [];
  private readonly to: number[] = [];
  private readonly joins: number[] = [];
  private readonly ahead: readonly number[];

  constructor(
    private readonly cells: Uint8Array,
    private readonly stride: number,
    private readonly joinsNorthWest: JoinsNorthWest,
  ) {
    this.followed = new Uint8Array(cells.length);
    this.ahead = [-stride, 1, stride, -1];
  }

  nodesOfRow(first: number, last: number): void {
    const { cells, stride } = this;
    for (let v = first; v <= last; v++) {
      const northWest = cells[v - stride - 1];
      const northEast = cells[v - stride];
      const southWest = cells[v - 1];
      const southEast = cells[v];
      if (northWest === northEast && southWest === southEast) continue;
      const degree =
        (northWest !== northEast ? 1 : 0) + (northEast !== southEast ? 1 : 0) + (southEast !== southWest ? 1 : 0) + (southWest !== northWest ? 1 : 0);
      if (degree < 3 || (degree === 4 && (northWest === southEast || northEast === southWest))) continue;
      for (let direction = 0; direction < 4; direction++) if (this.isOpen(v, direction)) this.follow(v, direction, v);
    }
  }

  closedOfRow(first: number, last: number): void {
    const { cells, stride, followed } = this;
    for (let v = first; v <= last; v++) {
      if (cells[v - stride] !== cells[v] && (followed[v] & 1) === 0) this.follow(v, RIGHT, -1);
    }
  }

  result(): CrackArcs {
    return {
      cells: this.cells,
      stride: this.stride,
      count: this.left.length,
      starts: Int32Array.from(this.starts),
      cracks: this.cracks.subarray(0, this.crackCount),
      left: Uint8Array.from(this.left),
      right: Uint8Array.from(this.right),
      from: Int32Array.from(this.from),
      to: Int32Array.from(this.to),
      joins: Int32Array.from(this.joins),
    };
  }

  /** Starts the arcs at a vertex of the frame, when it is a node. */
  frameNode(v: number): void {
    if (!this.isFrameNode(v)) return;
    for (let direction = 0; direction < 4; direction++) if (this.isOpen(v, direction)) this.follow(v, direction, v);
  }

  /** Whether a vertex of the frame is a corner of the picture or has an edge that leads inwards. */
  private isFrameNode(v: number): boolean {
    const { cells, stride } = this;
    const turnsAcross = cells[v - stride] !== cells[v] || cells[v - stride - 1] !== cells[v - 1];
    const turnsDown = cells[v - 1] !== cells[v] || cells[v - stride - 1] !== cells[v - stride];
    return turnsAcross && turnsDown;
  }

  private isOnFrame(v: number): boolean {
    const { cells, stride } = this;
    const column = v % stride;
    return column === 1 || column === stride - 1 || v < 2 * stride || v >= cells.length - stride;
  }

  private isOpen(v: number, direction: number): boolean {
    if (this.leftOf(v, direction) === this.rightOf(v, direction)) return false;
    return (this.followed[this.owner(v, direction)] & bitOf(direction)) === 0;
  }

  /** The vertex at which a crack's mark stands. */
  private owner(v: number, direction: number): number {
    return direction === UP ? v - this.stride : direction === LEFT ? v - 1 : v;
  }

  private leftOf(v: number, direction: number): number {
    return this.cells[leftCell(v, direction, this.stride)];
  }

  private rightOf(v: number, direction: number): number {
    return this.cells[rightCell(v, direction, this.stride)];
  }

  /** Follows one arc from a vertex: to the next node, or for `node` −1 back to where it began. */
  private follow(v: number, direction: number, node: number): void {
    if (this.left.length >= MAX_ARCS) throw new AppError('tooIntricate', { count: MAX_ARCS, limit: MAX_ARCS });
    this.left.push(this.leftOf(v, direction));
    this.right.push(this.rightOf(v, direction));
    let at = v;
    let heading = direction;
    let next = direction;
    do {
      heading = next;
      this.followed[this.owner(at, heading)] |= bitOf(heading);
      if (this.crackCount === this.cracks.length) this.cracks = doubled(this.cracks);
      this.cracks[this.crackCount++] = at * 4 + heading;
      at += this.ahead[heading];
      next = this.turnAt(at, heading);
    } while (next >= 0 && (node >= 0 || at !== v || next !== direction));
    this.starts.push(this.crackCount);
    this.from.push(node);
    this.to.push(node >= 0 ? at : -1);
  }

  /** The direction in which an arc that arrives at a vertex goes on; −1 at a node. */
  private turnAt(v: number, heading: number): number {
    // The cells behind are read by looking back, where left and right are swapped.
    const back = (heading + 2) & 3;
    const left = this.rightOf(v, back);
    const right = this.leftOf(v, back);
    const frontLeft = this.leftOf(v, heading);
    const frontRight = this.rightOf(v, heading);
    const goesLeft = left !== frontLeft;
    const goesRight = right !== frontRight;
    const goesOn = frontLeft !== frontRight;
    if (this.isOnFrame(v) && this.isFrameNode(v)) return -1;
    if (goesLeft && goesRight && goesOn) {
      const leftJoined = left === frontRight;
      const rightJoined = right === frontLeft;
      if (!leftJoined && !rightJoined) return -1;
      const joinsLeft = leftJoined && (!rightJoined || this.joinsLeft(v, heading));
      if (joinsLeft) this.joins.push(rightCell(v, back, this.stride), rightCell(v, heading, this.stride));
      else this.joins.push(leftCell(v, back, this.stride), leftCell(v, heading, this.stride));
      return joinsLeft ? (heading + 1) & 3 : (heading + 3) & 3;
    }
    if (goesLeft) return goesRight || goesOn ? -1 : (heading + 3) & 3;
    if (goesRight) return goesOn ? -1 : (heading + 1) & 3;
    return heading;
  }

  /** Whether the label on the left of an arc that arrives at a saddle is the joined one. */
  private joinsLeft(v: number, heading: number): boolean {
    const northWest = this.joinsNorthWest(v);
    // The left cell behind lies south-west when going up, north-west to the right, north-east down, south-east to the left.
    return heading === RIGHT || heading === LEFT ? northWest : !northWest;
  }
}

const bitOf = (direction: number): number => (direction === UP || direction === DOWN ? 2 : 1);

function doubled(array: Int32Array<ArrayBuffer>): Int32Array<ArrayBuffer> {
  const larger = new Int32Array(array.length * 2);
  larger.set(array);
  return larger;
}
