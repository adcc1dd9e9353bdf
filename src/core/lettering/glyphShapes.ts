import { cellsAbove, distanceInside, distanceTo } from '../raster/distance.ts';
import { labelRegions, runsByRegion } from '../raster/labelRegions.ts';
import { coverageOf } from '../outline/coverage.ts';
import { boundsOf } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { followedBy, scaling, translation } from '../geometry/affine.ts';
import type { FontFace } from './fontFace.ts';
import { glyphCurves } from './glyphCurves.ts';

/** Cells along each side of a shape: enough to tell a serif from none at the height of small print. */
const CELLS = 18;

/** A connected bit of ink, brought to the same size whatever it was drawn at. */
export interface InkShape {
  /** Ink of each cell of its box, 0 to 1, row by row. */
  readonly cells: Float32Array;
  /** Width of its box over the height. */
  readonly aspect: number;
  /** px of the picture it was read from. */
  readonly heightPx: number;
  readonly areaPx2: number;
  readonly leftPx: number;
  readonly topPx: number;
}

/** The connected bits of ink of a raster of shares (0 to 255), the largest first; those below `leastPx2` are left out. */
export function inkShapes(share: Uint8Array, width: number, height: number, leastPx2: number): InkShape[] {
  const ink = new Uint8Array(share.length);
  for (let i = 0; i < ink.length; i++) ink[i] = share[i] >= 128 ? 1 : 0;
  const regions = labelRegions(ink, width, height, 1, true);
  const { first, runs } = runsByRegion(regions);
  const shapes: InkShape[] = [];
  for (let k = 0; k < regions.count; k++) {
    if (regions.area[k] < leastPx2) continue;
    let [left, right, top, bottom] = [width, 0, height, 0];
    for (const run of runs.subarray(first[k], first[k + 1])) {
      const y = Math.floor(regions.runStart[run] / width);
      left = Math.min(left, regions.runStart[run] - y * width);
      right = Math.max(right, regions.runEnd[run] - y * width);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y + 1);
    }
    const own = new Uint8Array((right - left) * (bottom - top));
    for (const run of runs.subarray(first[k], first[k + 1])) {
      const y = Math.floor(regions.runStart[run] / width);
      // Half a pixel around it is its own mixed rim.
      for (let i = regions.runStart[run]; i < regions.runEnd[run]; i++) own[(y - top) * (right - left) + (i - y * width - left)] = share[i];
    }
    shapes.push({ cells: toCells(own, right - left, bottom - top), aspect: (right - left) / (bottom - top), heightPx: bottom - top + beyond(share, ink, width, height, left, right, top, -1) + beyond(share, ink, width, height, left, right, bottom - 1, 1), areaPx2: regions.area[k], leftPx: left, topPx: top });
  }
  return shapes.sort((a, b) => b.areaPx2 - a.areaPx2);
}

/** How far ink reaches beyond the outer edge of its last row, px, below 0 where it fills only a part of it: by the column in which it reaches furthest. @param way −1 for a top row, 1 for a bottom row. */
function beyond(share: Uint8Array, ink: Uint8Array, width: number, height: number, left: number, right: number, row: number, way: -1 | 1): number {
  const out = row + way;
  let most = 0;
  for (let x = left; x < right; x++) {
    const i = row * width + x;
    if (ink[i] === 0) continue;
    most = Math.max(most, share[i] + (out >= 0 && out < height ? share[i + way * width] : 0));
  }
  return most / 255 - 1;
}

/** Averages the pixels that fall on each cell, those that it cuts by their part. */
function toCells(share: Uint8Array, width: number, height: number): Float32Array {
  const cells = new Float32Array(CELLS * CELLS);
  const [across, down] = [width / CELLS, height / CELLS];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const value = share[y * width + x] / 255;
      if (value === 0) continue;
      for (let row = Math.floor(y / down); row <= Math.min(CELLS - 1, Math.floor((y + 1 - 1e-9) / down)); row++) {
        const high = Math.min(y + 1, (row + 1) * down) - Math.max(y, row * down);
        for (let column = Math.floor(x / across); column <= Math.min(CELLS - 1, Math.floor((x + 1 - 1e-9) / across)); column++) {
          cells[row * CELLS + column] += (value * high * (Math.min(x + 1, (column + 1) * across) - Math.max(x, column * across))) / (across * down);
        }
      }
    }
  }
  return cells;
}

/** What of a font is held against a picture. */
export interface GlyphShape extends InkShape {
  readonly character: string;
}

/** Characters that letters in a picture may be. */
const CHARACTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789&';
/** Height of a capital at which glyphs are drawn to be held against a picture, px. */
export const DRAWN_CAPITAL_PX = 48;
/** Bits of a glyph below this, at that height, are no shapes of their own, px². */
const LEAST_PX2 = 12;

/** The shapes of a font's letters and figures, thickened by a share of their stems (0 for as they are). */
export function glyphShapes(face: FontFace, thicker: number): GlyphShape[] {
  const scale = DRAWN_CAPITAL_PX / face.capitalHeight;
  return [...CHARACTERS].flatMap((character) => {
    const [glyph] = face.shape(character);
    const curves = glyph === undefined || glyph.isMissing ? undefined : glyphCurves(glyph.outline, scale);
    const box = curves === undefined ? undefined : boundsOf(curves);
    if (curves === undefined || box === undefined) return [];
    const margin = 4;
    const [width, height] = [Math.ceil(box.right - box.left) + 2 * margin, Math.ceil(box.bottom - box.top) + 2 * margin];
    const share = coverageOf(transformCurves(curves, followedBy(translation(margin - box.left, margin - box.top), scaling(1))), width, height);
    return inkShapes(thicker === 0 ? share : thickened(share, width, height, thicker), width, height, LEAST_PX2).map((shape): GlyphShape => ({ ...shape, character }));
  });
}

/** Moves the edge of ink by a share of the width of its stems, out above 0. */
function thickened(share: Uint8Array, width: number, height: number, thicker: number): Uint8Array {
  const ink = cellsAbove(Float32Array.from(share), 127);
  const [inside, outside] = [distanceInside(ink, width, height), distanceTo(ink, width, height)];
  // Twice the mean depth of ink is about half a stem.
  let [depth, count] = [0, 0];
  for (let i = 0; i < ink.length; i++) {
    if (ink[i] === 0) continue;
    depth += inside[i];
    count++;
  }
  const byPx = thicker * 0.5 * (count === 0 ? 0 : (4 * depth) / count);
  return share.map((_, i) => Math.max(0, Math.min(255, 255 * (0.5 + (ink[i] !== 0 ? inside[i] - 0.5 : 0.5 - outside[i]) + byPx))));
}
