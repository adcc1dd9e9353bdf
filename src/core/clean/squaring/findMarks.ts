import { labelRegions } from '../../raster/labelRegions.ts';
import { HOLE_RADIUS_MM, MARK_RADIUS_MM } from './markSheet.ts';

/** A ring that may be a mark. */
export interface FoundMark {
  /** Middle, photo px. */
  readonly x: number;
  readonly y: number;
  /** Half axes of the ring's outer edge, px. */
  readonly longPx: number;
  readonly shortPx: number;
  readonly dotted: boolean;
  /** Width over which its edges go from ink to paper, px. */
  readonly blurPx: number;
}

const HOLE = HOLE_RADIUS_MM / MARK_RADIUS_MM;
/** How far the area of a ring may be from what its moments say. */
const RING_MISFIT = 0.22;
const LEAST_AREA_PX = 40;
/** Ink is darker than this share of the paper around it. */
const INK_SHARE = 0.62;

/** Finds ring marks in a photo by dark regions whose area and second moments are those of a tilted ring with a light middle. */
export function findMarks(luma: Uint8Array, width: number, height: number): FoundMark[] {
  const ink = inkOf(luma, width, height);
  const regions = labelRegions(ink, width, height, 1, false);
  const moments = new Float64Array(regions.count * 6);
  for (let run = 0; run < regions.runStart.length; run++) addRun(moments, regions.regionOfRun[run] * 6, regions.runStart[run], regions.runEnd[run], width);
  const rings: Region[] = [];
  const others: Region[] = [];
  for (let k = 0; k < regions.count; k++) {
    const area = regions.area[k];
    if (area < 4 || area > width * height * LARGEST_SHARE || regions.touchesBorder[k] !== 0) continue;
    const ring = { ...ringOf(moments, k * 6), area };
    (area >= LEAST_AREA_PX && isRing(ring, area) ? rings : others).push(ring);
  }
  const marks: FoundMark[] = [];
  for (const ring of rings) {
    const dotted = others.some(
      (dot) => Math.hypot(dot.x - ring.x, dot.y - ring.y) < ring.short * 0.3 && dot.area < ring.area * 0.2 && dot.area > ring.area * 0.01,
    );
    const refined = refineMiddle(luma, width, height, ring);
    if (refined !== undefined) marks.push({ ...refined, longPx: ring.long, shortPx: ring.short, dotted });
  }
  return marks;
}

type Region = Ring & { readonly area: number };
/** Most of a photo that one mark may cover. */
const LARGEST_SHARE = 0.02;

/**
 * 1 where a pixel is well darker than the mean of a wide window around it (D. Bradley & G. Roth, "Adaptive thresholding using the integral image", J. Graphics
 * Tools 12(2), 2007, doi:10.1080/2151237X.2007.10129236).
 */
function inkOf(luma: Uint8Array, width: number, height: number): Uint8Array {
  const half = Math.max(8, Math.round(Math.max(width, height) / 16));
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += luma[y * width + x];
      sums[(y + 1) * (width + 1) + x + 1] = sums[y * (width + 1) + x + 1] + row;
    }
  }
  const ink = new Uint8Array(luma.length);
  for (let y = 0; y < height; y++) inkRow(luma, sums, ink, width, height, half, y);
  return ink;
}

function inkRow(luma: Uint8Array, sums: Float64Array, ink: Uint8Array, width: number, height: number, half: number, y: number): void {
  const top = Math.max(0, y - half) * (width + 1);
  const bottom = Math.min(height, y + half + 1) * (width + 1);
  const rows = (bottom - top) / (width + 1);
  for (let x = 0; x < width; x++) {
    const left = Math.max(0, x - half);
    const right = Math.min(width, x + half + 1);
    const mean = (sums[bottom + right] - sums[bottom + left] - sums[top + right] + sums[top + left]) / (rows * (right - left));
    if (luma[y * width + x] < INK_SHARE * mean) ink[y * width + x] = 1;
  }
}

/** Adds a run of pixels to count, Σx, Σy, Σx², Σy², Σxy. */
function addRun(m: Float64Array, at: number, start: number, end: number, width: number): void {
  const y = Math.floor(start / width) + 0.5;
  for (let i = start; i < end; i++) {
    const x = (i % width) + 0.5;
    m[at] += 1;
    m[at + 1] += x;
    m[at + 2] += y;
    m[at + 3] += x * x;
    m[at + 4] += y * y;
    m[at + 5] += x * y;
  }
}

interface Ring {
  readonly x: number;
  readonly y: number;
  readonly long: number;
  readonly short: number;
}

/** Middle and half axes that a ring with these moments has. */
function ringOf(m: Float64Array, at: number): Ring {
  const n = m[at];
  const x = m[at + 1] / n;
  const y = m[at + 2] / n;
  const xx = m[at + 3] / n - x * x;
  const yy = m[at + 4] / n - y * y;
  const xy = m[at + 5] / n - x * y;
  const mean = (xx + yy) / 2;
  const spread = Math.hypot((xx - yy) / 2, xy);
  // Second moment of a ring along an axis: a² (1 + hole²) / 4.
  const axis = (value: number): number => 2 * Math.sqrt(Math.max(0, value) / (1 + HOLE * HOLE));
  return { x, y, long: axis(mean + spread), short: axis(mean - spread) };
}

function isRing({ long, short }: Ring, area: number): boolean {
  if (short < 2.5 || long > 3.5 * short) return false;
  const expected = Math.PI * long * short * (1 - HOLE * HOLE);
  return Math.abs(area / expected - 1) < RING_MISFIT;
}

/** Middle by the share of ink in each pixel, and how soft the edges are. */
function refineMiddle(luma: Uint8Array, width: number, height: number, ring: Ring): { x: number; y: number; blurPx: number } | undefined {
  const reach = ring.long * 1.45;
  const [x0, x1] = [Math.floor(ring.x - reach), Math.ceil(ring.x + reach)];
  const [y0, y1] = [Math.floor(ring.y - reach), Math.ceil(ring.y + reach)];
  if (x0 < 1 || y0 < 1 || x1 >= width - 1 || y1 >= height - 1) return undefined;
  const values: number[] = [];
  for (let y = y0; y <= y1; y++) for (let x = x0; x <= x1; x++) values.push(luma[y * width + x]);
  values.sort((a, b) => a - b);
  const dark = values[Math.floor(values.length * 0.05)];
  const light = values[Math.floor(values.length * 0.85)];
  if (light - dark < 30) return undefined;
  let [sum, sx, sy, steepest] = [0, 0, 0, 0];
  for (let y = y0; y <= y1; y++) {
    for (let x = x0, i = y * width + x0; x <= x1; x++, i++) {
      const share = Math.max(0, Math.min(1, (light - luma[i]) / (light - dark)));
      // The paper's own noise far from the ring must not pull.
      const weight = share < 0.12 ? 0 : share;
      sum += weight;
      sx += weight * (x + 0.5);
      sy += weight * (y + 0.5);
      steepest = Math.max(steepest, Math.hypot(luma[i + 1] - luma[i - 1], luma[i + width] - luma[i - width]) / 2);
    }
  }
  return { x: sx / sum, y: sy / sum, blurPx: (light - dark) / Math.max(1, steepest) };
}
