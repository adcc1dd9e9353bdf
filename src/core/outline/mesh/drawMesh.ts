import type { Rgb } from '../../colour/oklab.ts';
import { CLEAR } from '../../raster/labelMap.ts';
import { makeRgba8, type Rgba8 } from '../../raster/raster.ts';
import type { Task } from '../../task/task.ts';
import { alongRow, chordsByRow, ringChords, type RingChords } from '../rowChords.ts';
import type { ArcMesh } from './arcMesh.ts';

/** Largest distance of chords from the curves, px of what is drawn. */
const CHORD_PX = 0.02;
/** Rows between pauses. */
const ROWS = 256;

export interface DrawnMesh {
  readonly colour: Rgba8;
  readonly alpha: Uint8Array;
}

/**
 * Draws the areas of a mesh, so many times as large as its art. Every pixel is the exact mean of what lies in it: each chord adds, to its row, the difference
 * of the colours on its two sides times the area that it cuts off, and sums along the row give the picture (the accumulation buffer of R. Levien's font-rs,
 * 2016, with colours in the place of coverage).
 * @param tones colours of the labels; `CLEAR` is clear.
 */
export function* drawMesh(mesh: ArcMesh, tones: readonly Rgb[], times: number): Task<DrawnMesh> {
  const [width, height] = [mesh.width * times, mesh.height * times];
  const chords = ringChords(mesh.curves, CHORD_PX, times);
  const byRow = chordsByRow(chords, height);
  const data = new Uint8Array(width * height * 4).fill(255);
  const alpha = new Uint8Array(width * height);
  const row = new Float64Array((width + 2) * 4);
  const step = new Float64Array(4);
  for (let y = 0; y < height; y++) {
    row.fill(0);
    for (let k = byRow.first[y]; k < byRow.first[y + 1]; k++) addChord(row, step, chords, byRow.chords[k], tones, mesh, y, width);
    writeRow(row, data, alpha, y * width, width);
    if (y % ROWS === ROWS - 1) yield y / height;
  }
  return { colour: makeRgba8(width, height, data, true), alpha };
}

/** Adds to a row what changes at a chord: from the colour on its one side to that on the other, for as much of the row as it runs through. */
function addChord(row: Float64Array, step: Float64Array, { from, to, ring }: RingChords, k: number, tones: readonly Rgb[], { arcs }: ArcMesh, y: number, width: number): void {
  writeStep(step, arcs.left[ring[k]], arcs.right[ring[k]], tones);
  alongRow(y, from[2 * k], from[2 * k + 1], to[2 * k], to[2 * k + 1], 0, width, (x, here, next) => {
    for (let c = 0; c < 4; c++) {
      row[4 * x + c] += step[c] * here;
      row[4 * x + 4 + c] += step[c] * next;
    }
  });
}

/** What a chord that goes down changes from its left on the picture to its right; colours are premultiplied. Going down, the left of travel is the picture's right. */
function writeStep(step: Float64Array, left: number, right: number, tones: readonly Rgb[]): void {
  step.fill(0);
  for (const [label, sign] of [
    [left, 1],
    [right, -1],
  ]) {
    if (label === CLEAR) continue;
    const { r, g, b } = tones[label];
    step[0] += sign * r;
    step[1] += sign * g;
    step[2] += sign * b;
    step[3] += sign * 255;
  }
}

function writeRow(row: Float64Array, data: Uint8Array, alpha: Uint8Array, start: number, width: number): void {
  const sum = [0, 0, 0, 0];
  for (let x = 0, i = start; x < width; x++, i++) {
    for (let c = 0; c < 4; c++) sum[c] += row[4 * x + c];
    alpha[i] = byteOf(sum[3]);
    // What is all but clear has the colour beside it.
    if (sum[3] < 0.5) for (let c = 0; c < 3; c++) data[4 * i + c] = x === 0 ? 255 : data[4 * i - 4 + c];
    else for (let c = 0; c < 3; c++) data[4 * i + c] = byteOf((sum[c] * 255) / sum[3]);
  }
}

const byteOf = (value: number): number => (value <= 0 ? 0 : value >= 255 ? 255 : Math.round(value));
