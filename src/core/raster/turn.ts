import { eachBorderPixel } from './eachBorderPixel.ts';
import { makeRgba8, wordsOf } from './raster.ts';
import type { Art } from './art.ts';
import { byRows, type Task } from '../task/task.ts';

/** How a picture is turned: mirrored left to right first, then by quarters clockwise, then by a small angle clockwise. */
export interface Turn {
  readonly mirrored: boolean;
  readonly quarters: 0 | 1 | 2 | 3;
  /** −45 to 45 degrees. */
  readonly angleDeg: number;
}

export interface TurnedSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Size of the turned picture: the smallest whole rectangle that holds it. */
export function turnedSize({ quarters, angleDeg }: Turn, widthPx: number, heightPx: number): TurnedSize {
  const [w, h] = quarters % 2 === 0 ? [widthPx, heightPx] : [heightPx, widthPx];
  if (angleDeg === 0) return { widthPx: w, heightPx: h };
  const [cos, sin] = [Math.cos((angleDeg * Math.PI) / 180), Math.abs(Math.sin((angleDeg * Math.PI) / 180))];
  return { widthPx: Math.ceil(w * cos + h * sin - 1e-6), heightPx: Math.ceil(w * sin + h * cos - 1e-6) };
}

/** Where the turn takes a point of a picture of that size. */
export function turnedPoint(turn: Turn, widthPx: number, heightPx: number, x: number, y: number): [number, number] {
  const { cos, sin } = directionOf(turn);
  const to = turnedSize(turn, widthPx, heightPx);
  const dx = (x - widthPx / 2) * (turn.mirrored ? -1 : 1);
  const dy = y - heightPx / 2;
  return [dx * cos - dy * sin + to.widthPx / 2, dx * sin + dy * cos + to.heightPx / 2];
}

/** Where a point of the turned picture came from. */
export function unturnedPoint(turn: Turn, widthPx: number, heightPx: number, x: number, y: number): [number, number] {
  const { cos, sin } = directionOf(turn);
  const to = turnedSize(turn, widthPx, heightPx);
  const [dx, dy] = [x - to.widthPx / 2, y - to.heightPx / 2];
  return [(dx * cos + dy * sin) * (turn.mirrored ? -1 : 1) + widthPx / 2, dy * cos - dx * sin + heightPx / 2];
}

/** Exact for whole quarters, so that turning four times gives the picture back. */
function directionOf({ quarters, angleDeg }: Turn): { cos: number; sin: number } {
  const [c, s] = [
    [1, 0],
    [0, 1],
    [-1, 0],
    [0, -1],
  ][quarters];
  const [cos, sin] = [Math.cos((angleDeg * Math.PI) / 180), Math.sin((angleDeg * Math.PI) / 180)];
  return { cos: c * cos - s * sin, sin: s * cos + c * sin };
}

/**
 * The art turned about its middle; whole quarters move pixels, other angles mix four. What it uncovers goes on as the art's border does, where that is one
 * plain colour or the turn straightens no more than a little; else it is clear. Later steps count from its upper left corner.
 */
export function* turnArt(art: Art, turn: Turn): Task<Art> {
  const { width, height, frame } = art;
  const { widthPx, heightPx } = turnedSize(turn, width, height);
  const colour = new Uint8Array(widthPx * heightPx * 4).fill(255);
  const alpha = new Uint8Array(widthPx * heightPx);
  const goesOn = turn.angleDeg !== 0 && bordersOn(art, Math.abs(turn.angleDeg) <= LITTLE_DEG);
  const [originX, originY] = unturnedPoint(turn, width, height, 0.5, 0.5);
  const [nextX, nextY] = unturnedPoint(turn, width, height, 1.5, 0.5);
  const [belowX, belowY] = unturnedPoint(turn, width, height, 0.5, 1.5);
  const steps = { ax: nextX - originX, ay: nextY - originY, bx: belowX - originX, by: belowY - originY };
  const turned = makeRgba8(widthPx, heightPx, colour);
  const [from, to] = [wordsOf(art.colour), wordsOf(turned)];
  const placeOf = (x: number, y: number): number => Math.round(originY + y * steps.by + x * steps.ay - 0.5) * width + Math.round(originX + y * steps.bx + x * steps.ax - 0.5);
  yield* byRows(heightPx, (y) =>
    turn.angleDeg === 0
      ? moveRow(art, from, to, alpha, y * widthPx, (y + 1) * widthPx, placeOf(0, y), Math.round(steps.ay) * width + Math.round(steps.ax))
      : turnRow(art, colour, alpha, y, widthPx, originX + y * steps.bx, originY + y * steps.by, steps.ax, steps.ay, goesOn),
  );
  return {
    kind: 'art',
    width: widthPx,
    height: heightPx,
    colour: turned,
    alpha,
    frame: { leftPx: 0, topPx: 0, scale: frame.scale },
  };
}

/** Up to this angle a turn straightens, and what it uncovers is a narrow wedge. */
const LITTLE_DEG = 10;
/** Of the border's pixels so many must have its colour, and they may differ from it by so much in any channel, levels of 255. */
const PLAIN_SHARE = 0.9;
const PLAIN_LEVELS = 14;

/** Whether what lies beyond an art's border is known: all of the border is there, and it has one plain colour or any will do. */
function bordersOn({ width, height, alpha, colour: { data } }: Art, anyWillDo: boolean): boolean {
  const channels: number[][] = [[], [], []];
  let isThere = true;
  eachBorderPixel(width, height, (i) => {
    if (alpha[i] !== 255) isThere = false;
    for (let c = 0; c < 3; c++) channels[c].push(data[4 * i + c]);
  });
  if (!isThere || anyWillDo) return isThere;
  const middle = channels.map((values) => [...values].sort((a, b) => a - b)[values.length >> 1]);
  const like = channels[0].filter((_, k) => middle.every((value, c) => Math.abs(channels[c][k] - value) <= PLAIN_LEVELS)).length;
  return like >= PLAIN_SHARE * channels[0].length;
}

function turnRow(
  art: Art,
  colour: Uint8Array,
  alpha: Uint8Array,
  y: number,
  count: number,
  startX: number,
  startY: number,
  stepX: number,
  stepY: number,
  goesOn: boolean,
): void {
  const { width, height } = art;
  const from = art.colour.data;
  for (let x = 0, o = y * count; x < count; x++, o++) {
    // A hair's breadth of rounding must not make a whole quarter mix pixels.
    let sx = Math.round((startX + x * stepX - 0.5) * 4096) / 4096;
    let sy = Math.round((startY + x * stepY - 0.5) * 4096) / 4096;
    if (goesOn) {
      sx = Math.max(0, Math.min(width - 1, sx));
      sy = Math.max(0, Math.min(height - 1, sy));
    } else if (sx < -0.5 || sy < -0.5 || sx > width - 0.5 || sy > height - 0.5) continue;
    const x0 = Math.max(0, Math.min(width - 1, Math.floor(sx)));
    const y0 = Math.max(0, Math.min(height - 1, Math.floor(sy)));
    const right = x0 + 1 < width ? 1 : 0;
    const down = y0 + 1 < height ? width : 0;
    const fx = Math.max(0, sx - x0) * right;
    const fy = Math.max(0, sy - y0) * (down > 0 ? 1 : 0);
    const i = y0 * width + x0;
    const [j, k, l] = [i + right, i + down, i + down + right];
    const [atI, atJ, atK, atL] = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy];
    const whole = atI + atJ + atK + atL;
    alpha[o] = Math.round(atI * art.alpha[i] + atJ * art.alpha[j] + atK * art.alpha[k] + atL * art.alpha[l]);
    for (let c = 0; c < 3; c++) colour[4 * o + c] = Math.round((atI * from[4 * i + c] + atJ * from[4 * j + c] + atK * from[4 * k + c] + atL * from[4 * l + c]) / whole);
  }
}

/** Whole pixels of one row of the turned art, `step` apart in the one that it came from. */
function moveRow(art: Art, from: Int32Array, to: Int32Array, alpha: Uint8Array, start: number, end: number, first: number, step: number): void {
  for (let o = start, i = first; o < end; o++, i += step) {
    to[o] = from[i] | OPAQUE;
    alpha[o] = art.alpha[i];
  }
}

/** The fourth byte of a colour's word, all there. */
const OPAQUE = 255 << 24;
