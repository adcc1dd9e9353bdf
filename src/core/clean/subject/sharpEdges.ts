import { noiseLevel } from '../noiseLevel.ts';
import type { Rgba8 } from '../../raster/raster.ts';
import { blurred, type Planes } from '../planes.ts';

/** Scale of the second, softer look at the picture, px. */
const SOFT_PX = 1.5;
/**
 * A gradient counts as sharp by what it has above this multiple of its soft gradient. A step that is softened by two pixels or more keeps 1.25 of its
 * soft gradient and counts for nothing; one as wide as a pixel keeps 1.9.
 */
const SOFT_SHARE = 1.35;
/** Of the noise's standard deviation; what noise alone makes in three channels. */
const NOISE_SHARE = 3;

export interface SharpEdges {
  /** Sharp part of the gradient, levels a pixel, 0 where the picture is smooth or only softly changing. */
  readonly sharp: Float32Array;
  /** Standard deviation of the picture's noise, levels. */
  readonly noise: number;
}

/**
 * How sharp each edge is, whatever its contrast, by the gradients before and after a blur (S. Zhuo & T. Sim, "Defocus map estimation from a single
 * image", Pattern Recognition 44(9), 2011, doi:10.1016/j.patcog.2011.03.009). A thing laid on a softer ground shows by its sharp edges alone. Departs
 * from it in comparing along the sharp gradient's own direction in space and colour, so that a stronger edge nearby does not hide a weaker one.
 */
export function sharpEdges(picture: Rgba8, colours: Planes): SharpEdges {
  const { width, height, planes } = colours;
  const noise = noiseLevel(picture);
  const soft = planes.map((plane) => blurred(plane, width, height, SOFT_PX));
  const sharp = new Float32Array(width * height);
  const floor = 1 + NOISE_SHARE * noise;
  const steepness = { length: new Float32Array(sharp.length), across: new Int32Array(sharp.length) };
  for (let y = 0; y < height; y++) sharpRow(planes, soft, sharp, steepness, width, height, y, floor);
  for (let y = 0; y < height; y++) keepRidges(sharp, steepness, width, height, y);
  return { sharp, noise };
}

interface Steepness {
  /** Length of the gradient, levels a pixel. */
  readonly length: Float32Array;
  /** Step in the raster that leads across the edge, of the eight to the neighbours. */
  readonly across: Int32Array;
}

/** A gradient of less than this share of one that lies across it, at most `RIDGE_PX` away, is that edge's foot. */
const FOOT = 0.4;
const RIDGE_PX = 3;

function keepRidges(sharp: Float32Array, { length, across }: Steepness, width: number, height: number, y: number): void {
  if (y < RIDGE_PX || y >= height - RIDGE_PX) return;
  for (let x = RIDGE_PX, i = y * width + RIDGE_PX; x < width - RIDGE_PX; x++, i++) {
    if (sharp[i] === 0) continue;
    let most = 0;
    for (let k = 1; k <= RIDGE_PX; k++) most = Math.max(most, length[i + k * across[i]], length[i - k * across[i]]);
    if (length[i] < FOOT * most) sharp[i] = 0;
  }
}

/** The neighbour step nearest to the direction (dx, dy). */
function stepAlong(dx: number, dy: number, width: number): number {
  const [ax, ay] = [Math.abs(dx), Math.abs(dy)];
  // tan 22.5°: nearer to an axis than to a diagonal.
  const sx = ax > 0.414 * ay ? Math.sign(dx) : 0;
  const sy = ay > 0.414 * ax ? Math.sign(dy) : 0;
  return sy * width + sx;
}

function sharpRow(
  planes: readonly Float32Array[],
  soft: readonly Float32Array[],
  sharp: Float32Array,
  steepness: Steepness,
  width: number,
  height: number,
  y: number,
  floor: number,
): void {
  const up = y > 0 ? width : 0;
  const down = y < height - 1 ? width : 0;
  for (let x = 0, i = y * width; x < width; x++, i++) {
    const right = x < width - 1 ? i + 1 : i;
    const left = x > 0 ? i - 1 : i;
    let square = 0;
    let along = 0;
    let steepest = 0;
    let across = 1;
    for (let c = 0; c < 3; c++) {
      const plane = planes[c];
      const softer = soft[c];
      const dx = plane[right] - plane[left];
      const dy = plane[i + down] - plane[i - up];
      const own = dx * dx + dy * dy;
      square += own;
      if (own > steepest) {
        steepest = own;
        across = stepAlong(dx, dy, width);
      }
      along += dx * (softer[right] - softer[left]) + dy * (softer[i + down] - softer[i - up]);
    }
    if (square === 0) continue;
    const length = Math.sqrt(square);
    steepness.length[i] = length / 2;
    steepness.across[i] = across;
    sharp[i] = Math.max(0, (length - (SOFT_SHARE * Math.abs(along)) / length) / 2 - floor);
  }
}
