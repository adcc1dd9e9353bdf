import { solveLinear } from '../../geometry/solve.ts';
import { homographyFrom, project, type Homography } from './homography.ts';

/** How a lens bends straight lines: shares of the distance from the middle, which is counted in half diagonals of the photo. */
export interface Lens {
  readonly k1: number;
  readonly k2: number;
}

export const STRAIGHT: Lens = { k1: 0, k2: 0 };

/** How a flat sheet lies in a photo: from mm on the sheet to photo pixels. */
export interface SheetView {
  /** From units of 100 mm to half diagonals of the photo, seen without distortion. */
  readonly plane: Homography;
  readonly lens: Lens;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Keeps the numbers of the fit of the order of 1. */
const UNIT_MM = 100;

const halfDiagonal = (widthPx: number, heightPx: number): number => Math.hypot(widthPx, heightPx) / 2;

/**
 * Where a point of the sheet is in the photo, px; written into `out`. Radial distortion by Brown's even terms (D. C. Brown, "Close-range camera calibration",
 * Photogrammetric Engineering 37(8), 1971).
 */
export function photoFromSheet({ plane, lens, widthPx, heightPx }: SheetView, xMm: number, yMm: number, out: Float64Array): void {
  project(plane, xMm / UNIT_MM, yMm / UNIT_MM, out);
  const square = out[0] * out[0] + out[1] * out[1];
  const scale = (1 + lens.k1 * square + lens.k2 * square * square) * halfDiagonal(widthPx, heightPx);
  out[0] = out[0] * scale + widthPx / 2;
  out[1] = out[1] * scale + heightPx / 2;
}

/** The straight place of a photo pixel, in half diagonals from the middle: the distortion taken back by fixed-point steps. */
function straightened(lens: Lens, x: number, y: number): [number, number] {
  let [u, v] = [x, y];
  for (let k = 0; k < 12; k++) {
    const square = u * u + v * v;
    const scale = 1 + lens.k1 * square + lens.k2 * square * square;
    u = x / scale;
    v = y / scale;
  }
  return [u, v];
}

/** Where on the sheet a photo pixel lies, mm; written into `out`. */
export function sheetFromPhoto({ plane: h, lens, widthPx, heightPx }: SheetView, xPx: number, yPx: number, out: Float64Array): void {
  const half = halfDiagonal(widthPx, heightPx);
  const [u, v] = straightened(lens, (xPx - widthPx / 2) / half, (yPx - heightPx / 2) / half);
  // The rows of the adjugate of the map, which is its inverse up to a factor.
  const a = h[4] - h[5] * h[7];
  const b = h[2] * h[7] - h[1];
  const c = h[1] * h[5] - h[2] * h[4];
  const d = h[5] * h[6] - h[3];
  const e = h[0] - h[2] * h[6];
  const f = h[2] * h[3] - h[0] * h[5];
  const g = h[3] * h[7] - h[4] * h[6];
  const i = h[1] * h[6] - h[0] * h[7];
  const j = h[0] * h[4] - h[1] * h[3];
  const scale = UNIT_MM / (g * u + i * v + j);
  out[0] = (a * u + b * v + c) * scale;
  out[1] = (d * u + e * v + f) * scale;
}

/** The view that fits points without bending further than a known lens does. @returns undefined when the points do not determine it. */
export function viewThrough(
  sheetMm: ArrayLike<number>,
  photoPx: ArrayLike<number>,
  widthPx: number,
  heightPx: number,
  lens: Lens = STRAIGHT,
): SheetView | undefined {
  const half = halfDiagonal(widthPx, heightPx);
  const from = Float64Array.from(sheetMm, (v) => v / UNIT_MM);
  const to = new Float64Array(photoPx.length);
  for (let k = 0; k < to.length; k += 2) to.set(straightened(lens, (photoPx[k] - widthPx / 2) / half, (photoPx[k + 1] - heightPx / 2) / half), k);
  const plane = homographyFrom(from, to);
  return plane === undefined ? undefined : { plane, lens, widthPx, heightPx };
}

/** Fewer points than this do not tell a bent lens from a tilted sheet. */
const LEAST_FOR_LENS = 8;
const ROUNDS = 30;

/**
 * The view of a sheet and the lens through which it was taken, from marks found in the photo: Levenberg-Marquardt on the distances in the photo (K. Levenberg,
 * Quart. Appl. Math. 2, 1944; D. Marquardt, SIAM J. Appl. Math. 11, 1963), numeric derivatives.
 */
export function fitView(start: SheetView, sheetMm: ArrayLike<number>, photoPx: ArrayLike<number>): SheetView {
  const bends = sheetMm.length / 2 >= LEAST_FOR_LENS;
  const count = bends ? 10 : 8;
  let values: Float64Array = Float64Array.from([...start.plane, start.lens.k1, start.lens.k2]);
  const viewOf = (p: Float64Array): SheetView => ({ ...start, plane: p.slice(0, 8), lens: { k1: p[8], k2: p[9] } });
  const rests = (p: Float64Array): Float64Array => restsOf(viewOf(p), sheetMm, photoPx);
  let rest = rests(values);
  let damping = 1e-3;
  for (let round = 0; round < ROUNDS; round++) {
    const columns = Array.from({ length: count }, (_, j) => {
      const moved = values.slice();
      const step = 1e-6 * Math.max(1, Math.abs(values[j]));
      moved[j] += step;
      return rests(moved).map((v, i) => (v - rest[i]) / step);
    });
    const m = new Float64Array(count * (count + 1));
    for (let i = 0; i < count; i++) {
      for (let j = 0; j < count; j++) m[i * (count + 1) + j] = dot(columns[i], columns[j]) * (i === j ? 1 + damping : 1);
      m[i * (count + 1) + count] = -dot(columns[i], rest);
    }
    const step = solveLinear(m, count);
    if (step === undefined) break;
    const next = values.map((v, j) => v + (step[j] ?? 0));
    const nextRest = rests(next);
    if (dot(nextRest, nextRest) < dot(rest, rest)) {
      const gain = 1 - dot(nextRest, nextRest) / dot(rest, rest);
      [values, rest, damping] = [next, nextRest, damping / 10];
      if (gain < 1e-9) break;
    } else damping *= 10;
    if (damping > 1e8) break;
  }
  return viewOf(values);
}

const dot = (a: Float64Array, b: Float64Array): number => a.reduce((sum, v, i) => sum + v * b[i], 0);

/** Photo pixels by which the view misses each point, x and y in turn. */
export function restsOf(view: SheetView, sheetMm: ArrayLike<number>, photoPx: ArrayLike<number>): Float64Array {
  const out = new Float64Array(2);
  const rests = new Float64Array(photoPx.length);
  for (let k = 0; k < rests.length; k += 2) {
    photoFromSheet(view, sheetMm[k], sheetMm[k + 1], out);
    rests[k] = out[0] - photoPx[k];
    rests[k + 1] = out[1] - photoPx[k + 1];
  }
  return rests;
}

/** Photo pixels per mm around a point of the sheet: the root of how much a small area grows. */
export function scaleAt(view: SheetView, xMm: number, yMm: number): number {
  const [a, b, c] = [new Float64Array(2), new Float64Array(2), new Float64Array(2)];
  photoFromSheet(view, xMm, yMm, a);
  photoFromSheet(view, xMm + 1, yMm, b);
  photoFromSheet(view, xMm, yMm + 1, c);
  return Math.sqrt(Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])));
}
