import { boundsOf, type Curves } from '../outline/curves.ts';
import { coverageOf } from '../outline/coverage.ts';
import { scaling, translation, followedBy } from '../geometry/affine.ts';
import { transformCurves } from '../outline/transformCurves.ts';

/** Where the most films lie over each other. */
export interface MostLayers {
  readonly layers: number;
  /** How much of what is covered at all has so many, 0 to 1. */
  readonly share: number;
  /** A place that has so many, in the coordinates of the outlines. */
  readonly x: number;
  readonly y: number;
}

/** Long side of the raster on which films are counted. */
const SIDE = 600;
/** What coverage in full may lack by rounding, of 255. */
const SLACK = 6;

/** Counts the films over each other at every spot of a raster of 600 on the long side; films less wide than its pixels are not seen. */
export function mostLayers(films: readonly Curves[]): MostLayers {
  const boxes = films.flatMap((curves) => boundsOf(curves) ?? []);
  if (boxes.length === 0) return { layers: 0, share: 0, x: 0, y: 0 };
  const left = Math.min(...boxes.map((box) => box.left));
  const top = Math.min(...boxes.map((box) => box.top));
  const width = Math.max(...boxes.map((box) => box.right)) - left;
  const height = Math.max(...boxes.map((box) => box.bottom)) - top;
  const scale = SIDE / Math.max(width, height, 1e-9);
  const [columns, rows] = [Math.max(1, Math.ceil(width * scale)), Math.max(1, Math.ceil(height * scale))];
  const toRaster = followedBy(translation(-left, -top), scaling(scale));
  const covered255 = new Uint32Array(columns * rows);
  for (const curves of films) {
    const coverage = coverageOf(transformCurves(curves, toRaster), columns, rows);
    for (let i = 0; i < covered255.length; i++) covered255[i] += coverage[i];
  }
  // Films that meet in a pixel share it: only what is covered in full counts as several.
  const counts = new Uint8Array(covered255.length);
  for (let i = 0; i < counts.length; i++) counts[i] = covered255[i] < 255 ? Math.round(covered255[i] / 255) : Math.floor((covered255[i] + SLACK) / 255);
  let layers = 0;
  for (const count of counts) if (count > layers) layers = count;
  if (layers === 0) return { layers: 0, share: 0, x: 0, y: 0 };
  let covered = 0;
  let most = 0;
  let at = -1;
  for (let i = 0; i < counts.length; i++) {
    if (counts[i] > 0) covered++;
    if (counts[i] !== layers) continue;
    most++;
    if (at < 0) at = i;
  }
  return { layers, share: most / covered, x: left + ((at % columns) + 0.5) / scale, y: top + (Math.floor(at / columns) + 0.5) / scale };
}
