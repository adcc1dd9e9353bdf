import type { Curves } from './curves.ts';
import { flatten } from './flatten.ts';

/** Rows that each row of pixels is sampled at; across a row coverage is exact. */
const ROWS = 4;
/** Largest distance of the chords from the curves, px. */
const CHORD_PX = 0.05;

/**
 * How much of each pixel outlines cover, even-odd, 0 to 255. Curves are in px of the raster; what lies outside of it is cut off.
 * Each pixel row is cut by four lines, on which the covered lengths are exact.
 */
export function coverageOf(curves: Curves, width: number, height: number): Uint8Array {
  const { points, starts } = flatten(curves, CHORD_PX);
  const lines = height * ROWS;
  const { first, at } = crossingsByLine(points, starts, lines);
  const out = new Uint8Array(width * height);
  const row = new Float64Array(width + 1);
  for (let y = 0; y < height; y++) {
    row.fill(0);
    let any = false;
    for (let line = y * ROWS; line < (y + 1) * ROWS; line++) {
      const crossings = at.subarray(first[line], first[line + 1]).sort();
      any ||= crossings.length > 1;
      for (let k = 0; k + 1 < crossings.length; k += 2)
        addSpan(row, Math.max(0, Math.min(width, crossings[k])), Math.max(0, Math.min(width, crossings[k + 1])));
    }
    if (any) for (let x = 0; x < width; x++) out[y * width + x] = Math.min(255, Math.round((row[x] * 255) / ROWS));
  }
  return out;
}

function addSpan(row: Float64Array, from: number, to: number): void {
  const a = Math.floor(from);
  const b = Math.floor(to);
  if (a === b) {
    row[a] += to - from;
    return;
  }
  row[a] += a + 1 - from;
  for (let x = a + 1; x < b; x++) row[x] += 1;
  row[b] += to - b;
}

/** Where the rings cross each line, counted per line. */
function crossingsByLine(points: Float64Array, starts: Int32Array, lines: number): { first: Int32Array; at: Float64Array } {
  const first = new Int32Array(lines + 1);
  eachCrossing(points, starts, lines, (line) => void first[line + 1]++);
  for (let line = 0; line < lines; line++) first[line + 1] += first[line];
  const at = new Float64Array(first[lines]);
  const next = first.slice();
  eachCrossing(points, starts, lines, (line, x) => void (at[next[line]++] = x));
  return { first, at };
}

function eachCrossing(points: Float64Array, starts: Int32Array, lines: number, visit: (line: number, x: number) => void): void {
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) {
      const ya = points[2 * j + 1] * ROWS - 0.5;
      const yb = points[2 * i + 1] * ROWS - 0.5;
      const from = Math.max(0, Math.ceil(Math.min(ya, yb)));
      const to = Math.min(lines - 1, Math.ceil(Math.max(ya, yb)) - 1);
      for (let line = from; line <= to; line++) visit(line, points[2 * j] + ((points[2 * i] - points[2 * j]) * (line - ya)) / (yb - ya));
    }
  }
}
