import type { Rgb } from '../colour/oklab.ts';
import type { Rgba8 } from '../raster/raster.ts';
import { distance2 } from './lineMixtures.ts';
import { PLAIN } from './plainPixels.ts';

/** Places across a line where the plain ground beside it is looked for, px from its middle. */
const NEAREST = 2;
const FURTHEST = 5;
/** Both sides are one ground, and a pixel is of a colour, up to this distance, levels of 255. */
const ALIKE = 26;
/** A line narrower than this, px, may as well be a thinner one of a stronger ink. */
const LEAST_WIDTH_PX = 2.4;
/** In a line of that colour nothing is stronger than it by more than this, of its distance from the ground. */
const STRONGER = 1.2;
/** So much of the colour’s pixels lie in such lines: others are mixtures along edges, or the ground beside them does not show. */
const OFTEN = 0.3;
/** Pixels that are looked at, and those of the colour that are looked at closely. */
const SAMPLES = 400_000;
const LOOKED_AT = 400;
/** Of fewer pixels in such lines it does not matter, or of a smaller share of the picture. */
const LEAST_PX = 120;
const LEAST_SHARE = 0.0004;

/**
 * Whether a colour without areas is that of lines that have it: as the light grey line that holds white art on white paper, whose grey is just what a darker
 * ink mixes to with the paper. Such a line has one ground on both sides, is broader than the mixture along an edge, and nothing in it is stronger.
 * @param plain `PLAIN` or `NARROW` where a pixel is read.
 */
export function isLineTone(picture: Rgba8, plain: Uint8Array, tone: Rgb): boolean {
  const { data, width, height } = picture;
  let [seen, inLines] = [0, 0];
  const found: number[] = [];
  const step = Math.max(1, Math.floor(plain.length / SAMPLES)) | 1;
  for (let i = 0; i < plain.length; i += step) if (distance2(data, i, tone) <= ALIKE * ALIKE) found.push(i);
  const stride = Math.max(1, Math.floor(found.length / LOOKED_AT));
  for (let k = 0; k < found.length; k += stride) {
    const x = found[k] % width;
    const y = Math.floor(found[k] / width);
    if (x < FURTHEST || y < FURTHEST || x >= width - FURTHEST || y >= height - FURTHEST) continue;
    seen++;
    if (isInLine(data, plain, width, found[k], tone)) inLines++;
  }
  return inLines * stride * step >= Math.max(LEAST_PX, LEAST_SHARE * plain.length) && inLines >= OFTEN * seen;
}

/** Whether the pixel lies in a line of its colour: the narrowest way across, of four, tells its breadth. */
function isInLine(data: Rgba8['data'], plain: Uint8Array, width: number, i: number, tone: Rgb): boolean {
  let narrowest = Infinity;
  for (const [across, px] of [
    [1, 1],
    [width, 1],
    [width + 1, Math.SQRT2],
    [width - 1, Math.SQRT2],
  ] as const) {
    const before = plainBeside(data, plain, i, -across, tone);
    const after = plainBeside(data, plain, i, across, tone);
    if (before < 0 || after < 0 || apart2(data, before, after) > ALIKE * ALIKE) continue;
    const whole = Math.sqrt(distance2(data, before, tone));
    let breadth = 0;
    for (let j = before + across; j < after; j += across) {
      const off = Math.sqrt(apart2(data, before, j)) / whole;
      if (off > STRONGER) return false;
      breadth += off * px;
    }
    narrowest = Math.min(narrowest, breadth);
  }
  return narrowest < Infinity && narrowest >= LEAST_WIDTH_PX;
}

/** The nearest plain pixel of another colour to one side, −1 when there is none near. */
function plainBeside(data: Rgba8['data'], plain: Uint8Array, i: number, step: number, tone: Rgb): number {
  for (let k = NEAREST; k <= FURTHEST; k++) {
    const j = i + k * step;
    if (plain[j] === PLAIN && distance2(data, j, tone) > ALIKE * ALIKE) return j;
  }
  return -1;
}

const apart2 = (data: Rgba8['data'], i: number, j: number): number =>
  (data[4 * i] - data[4 * j]) ** 2 + (data[4 * i + 1] - data[4 * j + 1]) ** 2 + (data[4 * i + 2] - data[4 * j + 2]) ** 2;
