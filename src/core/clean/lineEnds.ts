import { within, type Task } from '../task/task.ts';
import { distancesInside } from '../raster/distance.ts';
import type { ShareMap } from '../raster/raster.ts';
import { thin } from '../raster/thin.ts';
import { skeletonNeighbours, withoutSpurs } from './withoutSpurs.ts';

/** Where a drawn line ends: the point on its axis where its ink ends, the direction in which it would go on, and its half width. */
export interface LineEnd {
  readonly xPx: number;
  readonly yPx: number;
  /** Unit vector outwards. */
  readonly dx: number;
  readonly dy: number;
  readonly halfWidthPx: number;
  /** The last pixel of its thinned line, as a flat index. */
  readonly pixel: number;
}

/** The direction is read over this many half widths of line, and at least so many px. */
const READ_HALF_WIDTHS = 6;
const READ_LEAST_PX = 10;
/** A branch shorter than this many half widths is a corner of something broad, not a line. */
const LINE_HALF_WIDTHS = 1.6;

/** All ends of the lines of a share map. */
export function* lineEnds(share: ShareMap): Task<LineEnd[]> {
  const { width, height } = share;
  const ink = inkMask(share);
  const inside = yield* within(distancesInside(ink, width, height), 0, 0.4);
  const skeleton = withoutSpurs(yield* within(thin(ink, width, height), 0.4, 0.8), inside, width, height);
  yield 0.9;
  const ends: LineEnd[] = [];
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
      if (skeleton[i] === 0 || skeletonNeighbours(skeleton, width, i).length !== 1) continue;
      const end = readEnd(share, ink, skeleton, inside, i);
      if (end !== undefined) ends.push(end);
    }
  }
  return ends;
}

/** 1 where a pixel is at least half ink. */
export function inkMask({ data }: ShareMap): Uint8Array {
  const ink = new Uint8Array(data.length);
  for (let i = 0; i < ink.length; i++) if (data[i] >= 128) ink[i] = 1;
  return ink;
}

/** Walks back along the line from its last point to read its direction and width; undefined when it is too short to be a line. */
function readEnd(share: ShareMap, ink: Uint8Array, skeleton: Uint8Array, inside: Float32Array, last: number): LineEnd | undefined {
  const { width } = share;
  const path = [last];
  let before = -1;
  let at = last;
  let halfWidth = inside[last];
  for (;;) {
    const next: number[] = skeletonNeighbours(skeleton, width, at).filter((j) => j !== before);
    if (next.length !== 1) break;
    before = at;
    at = next[0];
    path.push(at);
    halfWidth = middleOf(path.map((i) => inside[i]));
    if (path.length >= Math.max(READ_LEAST_PX, READ_HALF_WIDTHS * halfWidth)) break;
  }
  const radius = Math.max(0.5, halfWidth - 0.5);
  if (path.length < Math.max(3, LINE_HALF_WIDTHS * radius)) return undefined;
  // The very end of a thinned line leans to a corner of its stroke: the direction is read behind it.
  const from = path.slice(Math.min(path.length - 3, Math.round(radius)));
  const sections = sectionsAlong(share, from, radius);
  if (sections.length < 3) return undefined;
  const course = courseOf(sections);
  // Beside other ink a section counts too much; the line's own mask bounds it.
  const halfWidthPx = Math.max(radius - 0.75, Math.min(radius + 0.75, middleOf(sections.map((section) => section.width)) / 2));
  return { ...tipOf(ink, width, course, radius), halfWidthPx, pixel: last };
}

/** What a line is at one place: its middle and its width, px. */
interface Section {
  readonly x: number;
  readonly y: number;
  readonly width: number;
}

/** Sections across a line along its thinned middle. The ink in each gives its width and its centroid, which the mixed pixels of the rims place truly. */
function sectionsAlong({ data, width, height }: ShareMap, path: readonly number[], about: number): Section[] {
  const sections: Section[] = [];
  const reach = about + 2.5;
  for (let k = 0; k < path.length; k++) {
    const [from, to] = [path[Math.max(0, k - 2)], path[Math.min(path.length - 1, k + 2)]];
    const dx = (to % width) - (from % width);
    const dy = Math.floor(to / width) - Math.floor(from / width);
    const length = Math.hypot(dx, dy);
    const x = path[k] % width;
    const y = Math.floor(path[k] / width);
    let sum = 0;
    let moment = 0;
    for (let s = -reach; s <= reach; s += 0.5) {
      const px = Math.max(0, Math.min(width - 2, x - (dy / length) * s));
      const py = Math.max(0, Math.min(height - 2, y + (dx / length) * s));
      const i = Math.floor(py) * width + Math.floor(px);
      const fx = px % 1;
      const fy = py % 1;
      const value = (data[i] * (1 - fx) + data[i + 1] * fx) * (1 - fy) + (data[i + width] * (1 - fx) + data[i + width + 1] * fx) * fy;
      sum += value;
      moment += value * s;
    }
    const off = sum === 0 ? 0 : Math.max(-1, Math.min(1, moment / sum));
    sections.push({ x: x + 0.5 - (dy / length) * off, y: y + 0.5 + (dx / length) * off, width: (sum * 0.5) / 255 });
  }
  return sections;
}

/** Where the ink of a line ends, straight on from its first section in the direction that its course has there. */
function tipOf(ink: Uint8Array, width: number, { x, y }: Course, radius: number): Omit<LineEnd, 'halfWidthPx' | 'pixel'> {
  const height = ink.length / width;
  const length = Math.hypot(x[1], y[1]) || 1;
  const dx = -x[1] / length;
  const dy = -y[1] / length;
  let s = 0;
  for (; s < 4 * radius + 3; s += 0.25) {
    const px = x[0] + s * dx;
    const py = y[0] + s * dy;
    if (px < 0 || py < 0 || px >= width || py >= height || ink[Math.floor(py) * width + Math.floor(px)] === 0) break;
  }
  return { xPx: x[0] + s * dx, yPx: y[0] + s * dy, dx, dy };
}

const middleOf = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1];

/** Place and slope, in x and in y, of a line at its first section; the line's end lies against the slope. */
interface Course {
  readonly x: readonly [number, number];
  readonly y: readonly [number, number];
}

/**
 * The course of a line from parabolas fitted to its sections by least squares: one that bends goes on in the direction in which it ends, not in that of its
 * chord.
 */
function courseOf(path: readonly Section[]): Course {
  const n = path.length;
  // Sums over 0 to n − 1, for the normal equations of a + b·k + c·k².
  const s1 = (n * (n - 1)) / 2;
  const s2 = (n * (n - 1) * (2 * n - 1)) / 6;
  const s3 = s1 * s1;
  const s4 = (s2 * (3 * n * n - 3 * n - 1)) / 5;
  const det = n * (s2 * s4 - s3 * s3) - s1 * (s1 * s4 - s2 * s3) + s2 * (s1 * s3 - s2 * s2);
  const solve = (values: readonly number[]): [number, number] => {
    const first = values[0];
    let p = 0;
    let q = 0;
    let r = 0;
    for (const [k, value] of values.entries()) {
      p += value - first;
      q += (value - first) * k;
      r += (value - first) * k * k;
    }
    return [
      first + (p * (s2 * s4 - s3 * s3) + q * (s2 * s3 - s1 * s4) + r * (s1 * s3 - s2 * s2)) / det,
      (p * (s2 * s3 - s1 * s4) + q * (n * s4 - s2 * s2) + r * (s1 * s2 - n * s3)) / det,
    ];
  };
  return { x: solve(path.map(({ x }) => x)), y: solve(path.map(({ y }) => y)) };
}
