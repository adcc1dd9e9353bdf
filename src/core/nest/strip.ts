import { weightOf, type NestShape } from './nestShape.ts';

/** Where a part lies: its middle in mm of the strip, its turn clockwise on screen in radians. */
export interface Pose {
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

/** Overlaps below this share of two shapes' size are told by how far their discs are still apart. */
const SOFT_SHARE = 0.01;
const OF_SEGMENT = 4;
const OF_POLE = 3;
/** Discs of each that are looked at first. */
const LARGEST = 3;

/**
 * Shapes on a strip that may overlap, and how much they do: a pair is found to overlap by its edges (or by one lying in the other), and weighed by how deep discs
 * inside of both lie in each other (after Gardeyn, Vanden Berghe & Wauters, 2025, arXiv:2509.13329). All of a shape's turned points are kept; a pair's overlap is known until one
 * of them moves. Shapes from `fixedFrom` on never move: flaws, and what is not sheet.
 */
export class Strip {
  readonly count: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly angle: Float64Array;
  /** Overlap of each pair, both ways round. */
  readonly overlap: Float32Array;
  /** How much a pair's overlap counts, both ways round. */
  readonly weight: Float32Array;
  private readonly boxes: Float64Array;
  private readonly segments: Float64Array;
  private readonly segmentStart: Int32Array;
  private readonly poles: Float64Array;
  private readonly poleStart: Int32Array;
  private readonly sizes: Float64Array;
  /** The shape that is being tried, turned: its points around its middle, its discs and its box. */
  private readonly triedSegments: Float64Array;
  private readonly triedPoles: Float64Array;
  private triedShape: NestShape | undefined;
  private triedAngle = NaN;
  private triedCount = 0;
  readonly triedBox = { left: 0, top: 0, right: 0, bottom: 0 };
  private readonly nearA: Int32Array;
  private readonly nearB: Int32Array;

  constructor(readonly shapes: readonly NestShape[], readonly widthMm: number, public lengthMm: number, readonly fixedFrom = shapes.length) {
    this.count = shapes.length;
    const floats = (): Float64Array => new Float64Array(this.count);
    [this.x, this.y, this.angle, this.sizes] = [floats(), floats(), floats(), floats()];
    this.overlap = new Float32Array(this.count * this.count);
    this.weight = new Float32Array(this.count * this.count).fill(1);
    this.boxes = new Float64Array(4 * this.count);
    this.segmentStart = new Int32Array(this.count + 1);
    this.poleStart = new Int32Array(this.count + 1);
    let [mostSegments, mostPoles] = [0, 0];
    for (const [k, shape] of shapes.entries()) {
      const [points, poles] = [shape.points.length / 2, shape.poles.length / OF_POLE];
      this.segmentStart[k + 1] = this.segmentStart[k] + points;
      this.poleStart[k + 1] = this.poleStart[k] + poles;
      mostSegments = Math.max(mostSegments, points);
      mostPoles = Math.max(mostPoles, poles);
      this.sizes[k] = weightOf(shape);
    }
    this.segments = new Float64Array(OF_SEGMENT * this.segmentStart[this.count]);
    this.poles = new Float64Array(OF_POLE * this.poleStart[this.count]);
    this.triedSegments = new Float64Array(OF_SEGMENT * mostSegments);
    this.triedPoles = new Float64Array(OF_POLE * mostPoles);
    [this.nearA, this.nearB] = [new Int32Array(mostSegments), new Int32Array(mostSegments)];
  }

  /** Makes a shape at a turn the one that is tried. */
  turnTo(shape: NestShape, angle: number): void {
    if (shape === this.triedShape && angle === this.triedAngle) return;
    [this.triedShape, this.triedAngle] = [shape, angle];
    const [cos, sin] = [exact(Math.cos(angle)), exact(Math.sin(angle))];
    const { points, starts, poles } = shape;
    const to = this.triedSegments;
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    let at = 0;
    for (let ring = 0; ring + 1 < starts.length; ring++) {
      const last = 2 * (starts[ring + 1] - 1);
      let px = cos * points[last] - sin * points[last + 1];
      let py = sin * points[last] + cos * points[last + 1];
      for (let i = 2 * starts[ring]; i < 2 * starts[ring + 1]; i += 2) {
        const x = cos * points[i] - sin * points[i + 1];
        const y = sin * points[i] + cos * points[i + 1];
        to[at++] = px;
        to[at++] = py;
        to[at++] = x;
        to[at++] = y;
        if (x < left) left = x;
        if (x > right) right = x;
        if (y < top) top = y;
        if (y > bottom) bottom = y;
        px = x;
        py = y;
      }
    }
    this.triedCount = at / OF_SEGMENT;
    for (let k = 0; k < poles.length; k += OF_POLE) {
      this.triedPoles[k] = cos * poles[k] - sin * poles[k + 1];
      this.triedPoles[k + 1] = sin * poles[k] + cos * poles[k + 1];
      this.triedPoles[k + 2] = poles[k + 2];
    }
    const { triedBox } = this;
    triedBox.left = left;
    triedBox.top = top;
    triedBox.right = right;
    triedBox.bottom = bottom;
  }

  /** Where the middle of the tried shape may lie so that all of it is on the strip; undefined where it is too large. */
  room(): { left: number; top: number; right: number; bottom: number } | undefined {
    const { left, top, right, bottom } = this.triedBox;
    const room = { left: -left, top: -top, right: this.lengthMm - right, bottom: this.widthMm - bottom };
    return room.right < room.left || room.bottom < room.top ? undefined : room;
  }

  /**
   * The weighed overlap of the tried shape with all others, its middle at a place; more than `limit` as soon as it is more.
   * @param own the shape that it stands for, with which it does not overlap.
   */
  tried(own: number, x: number, y: number, limit: number): number {
    const { boxes, weight, count, triedBox } = this;
    const left = triedBox.left + x;
    const top = triedBox.top + y;
    const right = triedBox.right + x;
    const bottom = triedBox.bottom + y;
    let sum = 0;
    for (let k = 0, b = 0; k < count; k++, b += 4) {
      if (boxes[b] >= right || boxes[b + 2] <= left || boxes[b + 1] >= bottom || boxes[b + 3] <= top || k === own) continue;
      const counts = weight[own * count + k];
      sum += counts * this.with(own, k, x, y, (limit - sum) / counts);
      if (sum > limit) return sum;
    }
    return sum;
  }

  /** Lays a shape down, and finds its overlap with all others. */
  put(k: number, { x, y, angle }: Pose): void {
    const { overlap, count, segments, poles } = this;
    this.turnTo(this.shapes[k], angle);
    this.x[k] = x;
    this.y[k] = y;
    this.angle[k] = angle;
    const { left, top, right, bottom } = this.triedBox;
    this.boxes.set([left + x, top + y, right + x, bottom + y], 4 * k);
    let to = OF_SEGMENT * this.segmentStart[k];
    for (let i = 0; i < OF_SEGMENT * this.triedCount; i += 2) {
      segments[to++] = this.triedSegments[i] + x;
      segments[to++] = this.triedSegments[i + 1] + y;
    }
    to = OF_POLE * this.poleStart[k];
    for (let i = 0; to < OF_POLE * this.poleStart[k + 1]; i += OF_POLE) {
      poles[to++] = this.triedPoles[i] + x;
      poles[to++] = this.triedPoles[i + 1] + y;
      poles[to++] = this.triedPoles[i + 2];
    }
    for (let other = 0; other < count; other++) {
      const value = other === k || (k >= this.fixedFrom && other >= this.fixedFrom) ? 0 : this.apart(other, x, y) ? 0 : this.with(k, other, x, y, Infinity);
      overlap[k * count + other] = value;
      overlap[other * count + k] = value;
    }
  }

  pose = (k: number): Pose => ({ x: this.x[k], y: this.y[k], angle: this.angle[k] });

  /** The weighed overlap of a shape as it lies. */
  weighed(k: number): number {
    const { overlap, weight, count } = this;
    let sum = 0;
    for (let i = k * count; i < (k + 1) * count; i++) sum += overlap[i] * weight[i];
    return sum;
  }

  /** The overlap of a shape as it lies, each pair counted alike. */
  overlapOf(k: number): number {
    let sum = 0;
    for (let i = k * this.count; i < (k + 1) * this.count; i++) sum += this.overlap[i];
    return sum;
  }

  total(): number {
    let sum = 0;
    for (const value of this.overlap) sum += value;
    return sum / 2;
  }

  /** Where the last shape on the strip ends, mm. */
  usedMm(): number {
    let used = 0;
    for (let k = 0; k < this.fixedFrom; k++) used = Math.max(used, this.boxes[4 * k + 2]);
    return used;
  }

  private apart(k: number, x: number, y: number): boolean {
    const { boxes, triedBox } = this;
    return boxes[4 * k] >= triedBox.right + x || boxes[4 * k + 2] <= triedBox.left + x || boxes[4 * k + 1] >= triedBox.bottom + y || boxes[4 * k + 3] <= triedBox.top + y;
  }

  /** How much the tried shape at a place overlaps a shape that lies; 0 when it does not, more than `limit` as soon as it is more. Their boxes do overlap. */
  private with(own: number, k: number, x: number, y: number, limit: number): number {
    if (!this.largestMeet(own, k, x, y) && !this.crosses(k, x, y) && !this.lieIn(own, k, x, y)) return 0;
    const { poles, poleStart, triedPoles } = this;
    const from = OF_POLE * poleStart[k];
    const to = OF_POLE * poleStart[k + 1];
    const ownEnd = OF_POLE * (poleStart[own + 1] - poleStart[own]);
    const size = this.sizes[own] * this.sizes[k];
    const soft = SOFT_SHARE * size;
    const square = soft * soft;
    const most = (limit / size) * (limit / size) - square;
    let sum = 0;
    for (let i = 0; i < ownEnd; i += OF_POLE) {
      const px = triedPoles[i] + x;
      const py = triedPoles[i + 1] + y;
      const pr = triedPoles[i + 2];
      for (let j = from; j < to; j += OF_POLE) {
        const dx = px - poles[j];
        const dy = py - poles[j + 1];
        const r = poles[j + 2];
        const deep = pr + r - Math.sqrt(dx * dx + dy * dy);
        sum += (deep >= soft ? deep : square / (2 * soft - deep)) * (pr < r ? pr : r);
      }
      if (sum > most) break;
    }
    return Math.sqrt(sum + square) * size;
  }

  /** Whether one of the largest discs of both lie in each other: then the shapes overlap for sure. */
  private largestMeet(own: number, k: number, x: number, y: number): boolean {
    const { poles, poleStart, triedPoles } = this;
    const from = OF_POLE * poleStart[k];
    const to = Math.min(OF_POLE * poleStart[k + 1], from + OF_POLE * LARGEST);
    const ownEnd = OF_POLE * Math.min(LARGEST, poleStart[own + 1] - poleStart[own]);
    for (let i = 0; i < ownEnd; i += OF_POLE) {
      for (let j = from; j < to; j += OF_POLE) {
        const dx = triedPoles[i] + x - poles[j];
        const dy = triedPoles[i + 1] + y - poles[j + 1];
        const r = triedPoles[i + 2] + poles[j + 2];
        if (dx * dx + dy * dy < r * r) return true;
      }
    }
    return false;
  }

  /** Whether an edge of the tried shape crosses one of a shape that lies. */
  private crosses(k: number, x: number, y: number): boolean {
    const { boxes, triedBox, segments, segmentStart, triedSegments, triedCount, nearA, nearB } = this;
    const left = Math.max(boxes[4 * k] - x, triedBox.left);
    const top = Math.max(boxes[4 * k + 1] - y, triedBox.top);
    const right = Math.min(boxes[4 * k + 2] - x, triedBox.right);
    const bottom = Math.min(boxes[4 * k + 3] - y, triedBox.bottom);
    const countA = near(triedSegments, 0, triedCount, left, top, right, bottom, nearA);
    if (countA === 0) return false;
    const countB = near(segments, segmentStart[k], segmentStart[k + 1], left + x, top + y, right + x, bottom + y, nearB);
    for (let j = 0; j < countB; j++) {
      const at = nearB[j];
      const cx = segments[at] - x;
      const cy = segments[at + 1] - y;
      const ex = segments[at + 2] - x;
      const ey = segments[at + 3] - y;
      const fx = ex - cx;
      const fy = ey - cy;
      for (let i = 0; i < countA; i++) {
        const a = nearA[i];
        const ax = triedSegments[a];
        const ay = triedSegments[a + 1];
        const bx = triedSegments[a + 2];
        const by = triedSegments[a + 3];
        const sideA = fx * (ay - cy) - fy * (ax - cx);
        const sideB = fx * (by - cy) - fy * (bx - cx);
        if (sideA > 0 ? sideB > 0 : sideA < 0 && sideB < 0) continue;
        const gx = bx - ax;
        const gy = by - ay;
        const sideC = gx * (cy - ay) - gy * (cx - ax);
        const sideD = gx * (ey - ay) - gy * (ex - ax);
        if (sideC > 0 ? sideD > 0 : sideC < 0 && sideD < 0) continue;
        if (sideA === 0 && sideB === 0) continue;
        return true;
      }
    }
    return false;
  }

  /** Whether a ring of one lies in the other, when no edges cross. */
  private lieIn(own: number, k: number, x: number, y: number): boolean {
    const { segments, segmentStart, triedSegments, triedCount } = this;
    const ownStarts = this.shapes[own].starts;
    for (let ring = 0; ring + 1 < ownStarts.length; ring++) {
      const at = OF_SEGMENT * ownStarts[ring];
      if (isInside(segments, segmentStart[k], segmentStart[k + 1], triedSegments[at] + x, triedSegments[at + 1] + y)) return true;
    }
    const { starts } = this.shapes[k];
    for (let ring = 0; ring + 1 < starts.length; ring++) {
      const at = OF_SEGMENT * (segmentStart[k] + starts[ring]);
      if (isInside(triedSegments, 0, triedCount, segments[at] - x, segments[at + 1] - y)) return true;
    }
    return false;
  }
}

const exact = (value: number): number => (Math.abs(value) < 1e-12 ? 0 : value);

/** Segments that reach into a box, as where they start in the coordinates. */
function near(segments: Float64Array, from: number, to: number, left: number, top: number, right: number, bottom: number, found: Int32Array): number {
  let count = 0;
  for (let at = OF_SEGMENT * from; at < OF_SEGMENT * to; at += OF_SEGMENT) {
    const ax = segments[at];
    const bx = segments[at + 2];
    if (ax < left ? bx < left : ax > right && bx > right) continue;
    const ay = segments[at + 1];
    const by = segments[at + 3];
    if (ay < top ? by < top : ay > bottom && by > bottom) continue;
    found[count++] = at;
  }
  return count;
}

function isInside(segments: Float64Array, from: number, to: number, x: number, y: number): boolean {
  let isIn = false;
  for (let at = OF_SEGMENT * from; at < OF_SEGMENT * to; at += OF_SEGMENT) {
    const ay = segments[at + 1];
    const by = segments[at + 3];
    if (ay > y !== by > y && x < ((segments[at + 2] - segments[at]) * (y - ay)) / (by - ay) + segments[at]) isIn = !isIn;
  }
  return isIn;
}
