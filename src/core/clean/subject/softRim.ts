import { withAlpha, type Art } from '../../raster/art.ts';
import { distanceInside, distanceTo } from '../../raster/distance.ts';
import { makeRgba8 } from '../../raster/raster.ts';
import { shrinkToSide } from '../../raster/shrink.ts';
import { within, type Task } from '../../task/task.ts';
import { closedForm, type ClosedForm } from './closedForm.ts';

/** The rim is solved on a picture of at most this side, px; the lines from colour to alpha that come out are then used on the full one. */
const SOLVED_SIDE_PX = 1600;
/** Subject beyond this share is read for the subject's colour. */
const SURELY = 0.95;
/** Shares this near to nothing and to all are what is left of solving by steps. */
const TRACE = 0.025;
/** Below this share a pixel says too little of the subject's own colour. */
const LITTLE = 0.35;

/**
 * Alpha and true colour in a rim around a subject's border: hair, fur, what is out of focus. Within `rimPx` to both sides of the border alpha is solved for; on
 * a large picture it is solved on a reduced one, whose lines from colour to alpha are then read at each full pixel (K. He & J. Sun, "Fast guided filter",
 * arXiv:1505.00996, 2015). The ground's tint is taken out by the compositing equation, where enough of the subject is there.
 * @param lifted the art as it was cut out with a hard border. @param original the art before. @param ground the ground's colour at a pixel of the art.
 */
export function* softenRim(lifted: Art, original: Art, ground: (i: number, out: Float64Array) => void, rimPx: number): Task<Art> {
  const { width, height } = original;
  const small = shrinkToSide(original.colour, SOLVED_SIDE_PX);
  const scale = small.width / width;
  const start = sharesAt(lifted, small.width, small.height);
  const unknown = rimOf(start, small.width, small.height, Math.max(1, rimPx * scale));
  const solved = yield* within(closedForm(small, start, unknown), 0, 0.8);
  const alpha = lifted.alpha.slice();
  const colour = new Uint8Array(lifted.colour.data);
  const front = frontColours(small.data, solved.alpha, unknown, small.width, small.height, Math.max(2, rimPx * scale));
  const rim: Rim = { original, alpha, colour, ground, solved, unknown, front, smallWidth: small.width, smallHeight: small.height };
  for (let y = 0; y < height; y++) {
    rimRow(rim, y);
    if (y % 128 === 127) yield 0.8 + (0.2 * y) / height;
  }
  return withAlpha(lifted, alpha, makeRgba8(width, height, colour, original.colour.opaque === true));
}

interface Rim {
  readonly original: Art;
  readonly alpha: Uint8Array;
  readonly colour: Uint8Array;
  readonly ground: (i: number, out: Float64Array) => void;
  readonly solved: ClosedForm;
  readonly unknown: Uint8Array;
  /** The subject's colour near each unknown pixel. */
  readonly front: Float32Array;
  readonly smallWidth: number;
  readonly smallHeight: number;
}

/** Alpha of an art at the middles of a smaller raster, 0 to 1. */
function sharesAt({ alpha, width, height }: Art, smallWidth: number, smallHeight: number): Float32Array {
  const shares = new Float32Array(smallWidth * smallHeight);
  for (let y = 0, k = 0; y < smallHeight; y++) {
    const row = Math.min(height - 1, Math.floor(((y + 0.5) * height) / smallHeight)) * width;
    for (let x = 0; x < smallWidth; x++, k++) shares[k] = alpha[row + Math.min(width - 1, Math.floor(((x + 0.5) * width) / smallWidth))] / 255;
  }
  return shares;
}

/** 1 within reach of the half-way border, to both sides, but not on the outermost two rows and columns. */
function rimOf(shares: Float32Array, width: number, height: number, reachPx: number): Uint8Array {
  const inside = new Uint8Array(shares.length);
  for (let i = 0; i < inside.length; i++) inside[i] = shares[i] >= 0.5 ? 1 : 0;
  const depth = distanceInside(inside, width, height, 'free');
  const away = distanceTo(inside, width, height);
  const rim = new Uint8Array(shares.length);
  for (let y = 2; y < height - 2; y++) for (let x = 2, i = y * width + 2; x < width - 2; x++, i++) rim[i] = Math.max(depth[i], away[i]) <= reachPx ? 1 : 0;
  return rim;
}

/** The mean colour of what is surely subject around each unknown pixel, by sums over squares; the pixel's own where there is none. */
function frontColours(data: ArrayLike<number>, alpha: Float32Array, unknown: Uint8Array, width: number, height: number, reachPx: number): Float32Array {
  const stride = width + 1;
  const sums = [0, 1, 2, 3].map(() => new Float64Array(stride * (height + 1)));
  for (let y = 0; y < height; y++) {
    const row = [0, 0, 0, 0];
    for (let x = 0, i = y * width; x < width; x++, i++) {
      const weight = alpha[i] >= SURELY ? 1 : 0;
      for (let c = 0; c < 4; c++) {
        row[c] += weight * (c === 3 ? 1 : data[4 * i + c]);
        sums[c][(y + 1) * stride + x + 1] = sums[c][y * stride + x + 1] + row[c];
      }
    }
  }
  const reach = Math.ceil(2 * reachPx);
  const front = new Float32Array(3 * unknown.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (unknown[i] === 0) continue;
      const [x0, x1, y0, y1] = [Math.max(0, x - reach), Math.min(width, x + reach + 1), Math.max(0, y - reach), Math.min(height, y + reach + 1)];
      const boxed = (c: number): number => sums[c][y1 * stride + x1] - sums[c][y0 * stride + x1] - sums[c][y1 * stride + x0] + sums[c][y0 * stride + x0];
      const count = boxed(3);
      for (let c = 0; c < 3; c++) front[3 * i + c] = count === 0 ? data[4 * i + c] : boxed(c) / count;
    }
  }
  return front;
}

function rimRow({ original, alpha, colour, ground, solved, unknown, front, smallWidth, smallHeight }: Rim, y: number): void {
  const { width, height } = original;
  const rgb = original.colour.data;
  const back = new Float64Array(3);
  const row = Math.min(smallHeight - 1, Math.floor(((y + 0.5) * smallHeight) / height)) * smallWidth;
  for (let x = 0, i = y * width; x < width; x++, i++) {
    const k = row + Math.min(smallWidth - 1, Math.floor(((x + 0.5) * smallWidth) / width));
    if (unknown[k] === 0) continue;
    const line = solved.lines;
    const solvedShare =
      smallWidth === width ? solved.alpha[k] : line[4 * k] * rgb[4 * i] + line[4 * k + 1] * rgb[4 * i + 1] + line[4 * k + 2] * rgb[4 * i + 2] + line[4 * k + 3];
    const share = Math.max(0, Math.min(1, (solvedShare - TRACE) / (1 - 2 * TRACE)));
    alpha[i] = Math.round(original.alpha[i] * share);
    if (share >= 1) {
      for (let c = 0; c < 3; c++) colour[4 * i + c] = rgb[4 * i + c];
      continue;
    }
    ground(i, back);
    // What the pixel would be without the ground; where it holds little of the subject, the subject's colour nearby.
    const own = Math.max(0, Math.min(1, (share - LITTLE) / (1 - LITTLE)));
    for (let c = 0; c < 3; c++) {
      const exact = share <= LITTLE ? 0 : (rgb[4 * i + c] - (1 - share) * back[c]) / share;
      colour[4 * i + c] = Math.max(0, Math.min(255, Math.round(front[3 * k + c] + (exact - front[3 * k + c]) * own)));
    }
  }
}
