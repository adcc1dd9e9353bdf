import { eachBorderPixel } from './eachBorderPixel.ts';
import { makeRgba8 } from './raster.ts';
import type { Art } from './art.ts';

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
export function turnArt(art: Art, turn: Turn): Art {
  const { width, height, frame } = art;
  const { widthPx, heightPx } = turnedSize(turn, width, height);
  const colour = new Uint8Array(widthPx * heightPx * 4).fill(255);
  const alpha = new Uint8Array(widthPx * heightPx);
  const goesOn = turn.angleDeg !== 0 && bordersOn(art, Math.abs(turn.angleDeg) <= LITTLE_DEG);
  const [originX, originY] = unturnedPoint(turn, width, height, 0.5, 0.5);
  const [nextX, nextY] = unturnedPoint(turn, width, height, 1.5, 0.5);
  const [belowX, belowY] = unturnedPoint(turn, width, height, 0.5, 1.5);
  const steps = { ax: nextX - originX, ay: nextY - originY, bx: belowX - originX, by: belowY - originY };
  for (let y = 0; y < heightPx; y++) turnRow(art, colour, alpha, y, widthPx, originX + y * steps.bx, originY + y * steps.by, steps.ax, steps.ay, goesOn);
  return {
    kind: 'art',
    width: widthPx,
    height: heightPx,
    colour: makeRgba8(widthPx, heightPx, colour),
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
    const weights = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy];
    const places = [i, i + right, i + down, i + down + right];
    let there = 0;
    const sum = [0, 0, 0];
    let whole = 0;
    for (let k = 0; k < 4; k++) {
      const weight = weights[k];
      if (weight === 0) continue;
      there += weight * art.alpha[places[k]];
      whole += weight;
      for (let c = 0; c < 3; c++) sum[c] += weight * from[places[k] * 4 + c];
    }
    alpha[o] = Math.round(there);
    for (let c = 0; c < 3; c++) colour[o * 4 + c] = Math.round(sum[c] / whole);
  }
}
