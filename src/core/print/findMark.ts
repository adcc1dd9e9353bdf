import { PAGE_MARK } from './printPages.ts';

/** What a camera above a bed sees: grey, light is high. */
export interface CameraView {
  readonly grey: Uint8Array;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly pxPerMm: number;
}

/** Why a mark was not found: it lies nowhere in the picture or is too pale, something lies over a part of it, or only a part of it is in the picture. */
export const MARK_FAULTS = ['nothingDark', 'hidden', 'cutOff'] as const;
export type MarkFault = (typeof MARK_FAULTS)[number];

/** Where the middles of a mark's arms cross, mm from the upper left of the picture, or why that is not known. */
export type MarkFound = { readonly xMm: number; readonly yMm: number } | { readonly why: MarkFault };

/** Difference between paper and ink that is one, of 255. */
const LEAST_CONTRAST = 40;
/** Of the arms, how dark they are against both sides: what is no mark stays below. */
const LEAST_SCORE = 0.45;
const MOST_TURN_DEG = 8;
/** Coarse search: cells, steps of places and of turns. */
const CELL_MM = 0.25;
const STEP_MM = 0.5;
const STEP_DEG = 1;
/** Arms are looked at from here on, mm from the corner: nearer, the other arm is in the way; and how far to their sides. */
const FROM_MM = 1.2;
const BESIDE_MM = 1.2;
/** Of the places along an arm, so many show it. */
const LEAST_SHARE = 0.6;
/** Places that stray further from the line are left out of it, mm. */
const STRAY_MM = 0.08;
const ALONG_MM = 0.15;
const ACROSS_MM = 0.05;

interface Dark {
  readonly values: Float32Array;
  readonly width: number;
  readonly height: number;
  /** Of its cells. */
  readonly perMm: number;
}

const sample = ({ values, width, height }: Dark, x: number, y: number): number => {
  const [px, py] = [Math.min(width - 1.001, Math.max(0, x - 0.5)), Math.min(height - 1.001, Math.max(0, y - 0.5))];
  const [i, j] = [Math.floor(px), Math.floor(py)];
  const [u, v] = [px - i, py - j];
  const at = j * width + i;
  return (values[at] * (1 - u) + values[at + 1] * u) * (1 - v) + (values[at + width] * (1 - u) + values[at + width + 1] * u) * v;
};

/**
 * Finds a page's corner mark in a picture: two arms that leave a corner at a right angle, `sx` and `sy` telling which way into the page. First by comparing the arms with what lies beside them over places and turns, then by lines
 * through the middles of profiles across each arm, so that the corner is known to a small part of a pixel. Cost: some ten million look-ups.
 * @param view with at least 4 px on a mm.
 */
export function findMark(view: CameraView, { sx, sy }: { readonly sx: 1 | -1; readonly sy: 1 | -1 }): MarkFound {
  const dark = darknessOf(view);
  if (dark === undefined) return { why: 'nothingDark' };
  const found = coarsely(dark, sx, sy);
  if (found.score < LEAST_SCORE) return { why: found.score < LEAST_SCORE / 3 ? 'nothingDark' : 'hidden' };
  let corner = { x: found.xMm, y: found.yMm };
  let [along, down] = [found.turnRad, found.turnRad];
  for (let pass = 0; pass < 2; pass++) {
    const across = armLine(dark, corner, [sx * Math.cos(along), sx * Math.sin(along)]);
    const upright = armLine(dark, corner, [-sy * Math.sin(down), sy * Math.cos(down)]);
    if (across === undefined || upright === undefined) return { why: isAtEdge(dark, corner, sx, sy) ? 'cutOff' : 'hidden' };
    corner = crossing(across, upright);
    along = Math.atan2(sx * across.dy, sx * across.dx);
    down = Math.atan2(-sy * upright.dx, sy * upright.dy);
  }
  return { xMm: corner.x, yMm: corner.y };
}

/** How dark each pixel is between paper, 0, and ink, 1; undefined where there is no ink. */
function darknessOf({ grey, widthPx, heightPx, pxPerMm }: CameraView): Dark | undefined {
  const counts = new Uint32Array(256);
  for (const value of grey) counts[value]++;
  const levelAt = (share: number): number => {
    let left = share * grey.length;
    for (let level = 0; level < 256; level++) if ((left -= counts[level]) < 0) return level;
    return 255;
  };
  // An arm covers some hundredths of the picture.
  const [ink, paper] = [levelAt(0.005), levelAt(0.6)];
  if (paper - ink < LEAST_CONTRAST) return undefined;
  const values = new Float32Array(grey.length);
  for (let i = 0; i < grey.length; i++) values[i] = Math.min(1, Math.max(0, (paper - grey[i]) / (paper - ink)));
  return { values, width: widthPx, height: heightPx, perMm: pxPerMm };
}

/** The same in cells of a quarter of a mm. */
function inCells({ values, width, height, perMm }: Dark): Dark {
  const size = Math.max(1, Math.round(perMm * CELL_MM));
  const [w, h] = [Math.floor(width / size), Math.floor(height / size)];
  const cells = new Float32Array(w * h);
  for (let y = 0; y < h * size; y++) for (let x = 0; x < w * size; x++) cells[Math.floor(y / size) * w + Math.floor(x / size)] += values[y * width + x];
  for (let i = 0; i < cells.length; i++) cells[i] /= size * size;
  return { values: cells, width: w, height: h, perMm: perMm / size };
}

interface Coarse {
  readonly score: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly turnRad: number;
}

function coarsely(dark: Dark, sx: number, sy: number): Coarse {
  const cells = inCells(dark);
  const { perMm } = cells;
  const { armMm } = PAGE_MARK;
  let best: Coarse = { score: -1, xMm: 0, yMm: 0, turnRad: 0 };
  for (let deg = -MOST_TURN_DEG; deg <= MOST_TURN_DEG; deg += STEP_DEG) {
    const turnRad = (deg * Math.PI) / 180;
    const [cos, sin] = [Math.cos(turnRad), Math.sin(turnRad)];
    const arms = [[sx * cos, sx * sin], [-sy * sin, sy * cos]] as const;
    for (let yMm = 0; yMm <= cells.height / perMm; yMm += STEP_MM) {
      for (let xMm = 0; xMm <= cells.width / perMm; xMm += STEP_MM) {
        let lesser = Infinity;
        for (const [dx, dy] of arms) {
          let [on, off, count] = [0, 0, 0];
          for (let t = 0.5; t < armMm - 0.4; t += 1) {
            const [x, y] = [(xMm + t * dx) * perMm, (yMm + t * dy) * perMm];
            on += sample(cells, x, y);
            off += sample(cells, x - dy * BESIDE_MM * perMm, y + dx * BESIDE_MM * perMm) + sample(cells, x + dy * BESIDE_MM * perMm, y - dx * BESIDE_MM * perMm);
            count++;
          }
          lesser = Math.min(lesser, (on - off / 2) / count);
        }
        if (lesser > best.score) best = { score: lesser, xMm, yMm, turnRad };
      }
    }
  }
  return best;
}

/** A line by a place on it and its direction, a unit. */
interface Line {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

/** The line along the middle of an arm, through the middles of profiles across it; undefined where too few of them show an arm. */
function armLine(dark: Dark, { x, y }: { readonly x: number; readonly y: number }, [dx, dy]: readonly [number, number]): Line | undefined {
  const { armMm, broadMm } = PAGE_MARK;
  const middles: { t: number; off: number }[] = [];
  let asked = 0;
  for (let t = FROM_MM; t <= armMm - 0.6; t += ALONG_MM) {
    asked++;
    let [sum, moment] = [0, 0];
    for (let off = -BESIDE_MM; off <= BESIDE_MM + 1e-9; off += ACROSS_MM) {
      const value = sample(dark, (x + t * dx - off * dy) * dark.perMm, (y + t * dy + off * dx) * dark.perMm);
      if (value < 0.15) continue;
      sum += value;
      moment += value * off;
    }
    const breadth = sum * ACROSS_MM;
    if (breadth > broadMm * 0.5 && breadth < broadMm * 1.8) middles.push({ t, off: moment / sum });
  }
  const whole = lineThrough(middles);
  const near = whole === undefined ? [] : middles.filter(({ t, off }) => Math.abs(off - whole.at - whole.slope * t) < STRAY_MM);
  const line = lineThrough(near);
  if (line === undefined || near.length < LEAST_SHARE * asked) return undefined;
  const length = Math.hypot(1, line.slope);
  return { x: x - line.at * dy, y: y + line.at * dx, dx: (dx - line.slope * dy) / length, dy: (dy + line.slope * dx) / length };
}

/** Least squares. */
function lineThrough(places: readonly { readonly t: number; readonly off: number }[]): { readonly at: number; readonly slope: number } | undefined {
  const n = places.length;
  if (n < 5) return undefined;
  const mean = places.reduce((sum, { t, off }) => ({ t: sum.t + t / n, off: sum.off + off / n }), { t: 0, off: 0 });
  const [up, down] = places.reduce(([u, d], { t, off }) => [u + (t - mean.t) * (off - mean.off), d + (t - mean.t) ** 2], [0, 0]);
  const slope = up / down;
  return { at: mean.off - slope * mean.t, slope };
}

function crossing(p: Line, q: Line): { x: number; y: number } {
  const cross = p.dx * q.dy - p.dy * q.dx;
  const t = ((q.x - p.x) * q.dy - (q.y - p.y) * q.dx) / cross;
  return { x: p.x + t * p.dx, y: p.y + t * p.dy };
}

/** Whether an arm from a corner leaves the picture. */
function isAtEdge({ width, height, perMm }: Dark, { x, y }: { readonly x: number; readonly y: number }, sx: number, sy: number): boolean {
  const { armMm } = PAGE_MARK;
  const [endX, endY] = [x + sx * armMm, y + sy * armMm];
  return Math.min(x, y, endX, endY) < 0 || Math.max(x, endX) * perMm > width || Math.max(y, endY) * perMm > height;
}
