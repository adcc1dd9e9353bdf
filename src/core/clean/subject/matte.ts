import { withAlpha, type Art } from '../../raster/art.ts';
import { makeRgba8 } from '../../raster/raster.ts';
import type { Three } from '../planes.ts';

/** Mixed pixels that hold more than this share of the subject keep it whole; those that hold less than the rest are ground. */
const WHOLE = 0.96;
const NOTHING = 0.04;

/**
 * Alpha and true colour of a cut-out: pixels along the border are taken for a mixture of the subject's colour just inside and the ground's as it would be there
 * (E. S. L. Gastal & M. M. Oliveira, "Shared sampling for real-time alpha matting", Computer Graphics Forum 29(2), 2010,
 * doi:10.1111/j.1467-8659.2009.01627.x). The ground is known from its smooth continuation, so only the subject's side is sampled.
 * @param subject 1 where the subject is. @param ground the ground's colour at a pixel of the art, three planes.
 */
export function matteSubject(art: Art, subject: Uint8Array, ground: (i: number, out: Float64Array) => void): Art {
  const { width, height } = art;
  const alpha = art.alpha.slice();
  const colour = new Uint8Array(art.colour.data);
  const work: Matting = { art, subject, alpha, colour, ground, depth: depthOf(subject, width, height), back: new Float64Array(3) };
  for (let y = 0; y < height; y++) matteRow(work, y);
  return withAlpha(art, alpha, makeRgba8(width, height, colour, art.colour.opaque === true));
}

interface Matting {
  readonly art: Art;
  readonly subject: Uint8Array;
  readonly alpha: Uint8Array;
  readonly colour: Uint8Array;
  readonly ground: (i: number, out: Float64Array) => void;
  /** 1 for the pixels of the subject that touch the ground, 2 for the next ones, 3 beyond; the same on the other side, below 0. */
  readonly depth: Int8Array;
  readonly back: Float64Array;
}

const DEEP = 3;

function depthOf(subject: Uint8Array, width: number, height: number): Int8Array {
  const depth = new Int8Array(subject.length);
  for (let y = 0; y < height; y++) sideRow(subject, depth, width, height, y);
  for (let y = 0; y < height; y++) secondRow(depth, width, height, y);
  return depth;
}

/** ±1 where one of the eight neighbours is on the other side, else ±`DEEP`. */
function sideRow(subject: Uint8Array, depth: Int8Array, width: number, height: number, y: number): void {
  const up = y > 0 ? -width : 0;
  const down = y < height - 1 ? width : 0;
  for (let x = 0, i = y * width; x < width; x++, i++) {
    const left = x > 0 ? -1 : 0;
    const right = x < width - 1 ? 1 : 0;
    const own = subject[i];
    const around =
      subject[i + up + left] +
      subject[i + up] +
      subject[i + up + right] +
      subject[i + left] +
      subject[i + right] +
      subject[i + down + left] +
      subject[i + down] +
      subject[i + down + right];
    depth[i] = own !== 0 ? (around === 8 ? DEEP : 1) : around === 0 ? -DEEP : -1;
  }
}

/** ±2 for the pixels behind those: few pixels have the border beside them. */
function secondRow(depth: Int8Array, width: number, height: number, y: number): void {
  for (let x = 0, i = y * width; x < width; x++, i++) {
    const first = depth[i];
    if (first !== 1 && first !== -1) continue;
    for (let yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
      for (let j = yy * width + Math.max(0, x - 1); j <= yy * width + Math.min(width - 1, x + 1); j++) if (depth[j] === first * DEEP) depth[j] = 2 * first;
    }
  }
}

function matteRow(work: Matting, y: number): void {
  const { art, alpha, depth } = work;
  const { width } = art;
  for (let x = 0, i = y * width; x < width; x++, i++) {
    const d = depth[i];
    if (d <= -DEEP) alpha[i] = 0;
    else if (d < 2) mix(work, x, y, i, d);
  }
}

function mix(work: Matting, x: number, y: number, i: number, d: number): void {
  const { art, alpha, colour, back } = work;
  work.ground(i, back);
  const front = frontNear(work, x, y, i, d);
  if (front < 0) {
    if (d < 0) alpha[i] = 0;
    return;
  }
  const rgb = art.colour.data;
  let dot = 0;
  let square = 0;
  for (let c = 0; c < 3; c++) {
    const step = rgb[front * 4 + c] - back[c];
    square += step * step;
    dot += step * (rgb[i * 4 + c] - back[c]);
  }
  const share = square === 0 ? (d > 0 ? 1 : 0) : dot / square;
  if (share >= WHOLE) return;
  alpha[i] = share <= NOTHING ? 0 : Math.round(art.alpha[i] * share);
  for (let c = 0; c < 3; c++) colour[i * 4 + c] = rgb[front * 4 + c];
}

/** The pixel just inside that explains this one best as a mixture with the ground; where nothing lies deeper, the one furthest from the ground. */
function frontNear({ art, depth, back }: Matting, x: number, y: number, i: number, d: number): number {
  const { width, height } = art;
  const rgb = art.colour.data;
  const [r, g, b] = [rgb[i * 4] - back[0], rgb[i * 4 + 1] - back[1], rgb[i * 4 + 2] - back[2]];
  const wanted = Math.max(2, d + 1);
  let best = -1;
  let least = Infinity;
  let strongest = -1;
  let strength = 0;
  for (let yy = Math.max(0, y - 2); yy <= Math.min(height - 1, y + 2); yy++) {
    for (let xx = Math.max(0, x - 2), j = yy * width + xx; xx <= Math.min(width - 1, x + 2); xx++, j++) {
      if (depth[j] < 1) continue;
      const [fr, fg, fb] = [rgb[j * 4] - back[0], rgb[j * 4 + 1] - back[1], rgb[j * 4 + 2] - back[2]];
      const square = fr * fr + fg * fg + fb * fb;
      if (square > strength) {
        strength = square;
        strongest = j;
      }
      if (depth[j] !== wanted || square === 0) continue;
      const share = Math.max(0, Math.min(1, (r * fr + g * fg + b * fb) / square));
      const rest = (r - share * fr) ** 2 + (g - share * fg) ** 2 + (b - share * fb) ** 2 + FAR_COST * ((xx - x) ** 2 + (yy - y) ** 2);
      if (rest < least) {
        least = rest;
        best = j;
      }
    }
  }
  return best >= 0 ? best : strongest;
}

/** What a pixel of distance costs beside squared levels of colour, when samples explain a mixture equally well. */
const FAR_COST = 6;

/** Reads a ground found on a reduced picture for pixels of the full one. */
export function groundReader(planes: Three, smallWidth: number, smallHeight: number, width: number, height: number): (i: number, out: Float64Array) => void {
  if (smallWidth === width) {
    return (i, out) => {
      for (let c = 0; c < 3; c++) out[c] = planes[c][i];
    };
  }
  return (i, out) => {
    const x = Math.min(smallWidth - 1, Math.floor(((i % width) * smallWidth) / width));
    const y = Math.min(smallHeight - 1, Math.floor((Math.floor(i / width) * smallHeight) / height));
    for (let c = 0; c < 3; c++) out[c] = planes[c][y * smallWidth + x];
  };
}
