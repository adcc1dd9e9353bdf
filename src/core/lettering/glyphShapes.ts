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
  /** px of the picture it was read from, to the part of a pixel that its rim tells. */
  readonly heightPx: number;
  readonly widthPx: number;
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
    shapes.push({ cells: toCells(own, right - left, bottom - top), aspect: (right - left) / (bottom - top), ...sizeOf(share, ink, width, height, { left, right, top, bottom }), areaPx2: regions.area[k], leftPx: left, topPx: top });
  }
  return shapes.sort((a, b) => b.areaPx2 - a.areaPx2);
}

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

function sizeOf(share: Uint8Array, ink: Uint8Array, width: number, height: number, { left, right, top, bottom }: Box): { readonly heightPx: number; readonly widthPx: number } {
  // Rows of the box's sides: where one begins, how far its pixels lie apart, how many there are, and the way out of the box if it leads to a pixel.
  const across = (y: number, out: -1 | 1): number => beyond(share, ink, y * width + left, 1, right - left, y + out >= 0 && y + out < height ? out * width : 0);
  const down = (x: number, out: -1 | 1): number => beyond(share, ink, top * width + x, width, bottom - top, x + out >= 0 && x + out < width ? out : 0);
  return { heightPx: bottom - top + across(top, -1) + across(bottom - 1, 1), widthPx: right - left + down(left, -1) + down(right - 1, 1) };
}

/** How far ink reaches beyond the outer edge of its last row or column, px, below 0 where it fills only a part of it: by the place at which it reaches furthest. */
function beyond(share: Uint8Array, ink: Uint8Array, from: number, step: number, count: number, out: number): number {
  let most = 0;
  for (let k = 0, i = from; k < count; k++, i += step) if (ink[i] !== 0) most = Math.max(most, share[i] + (out === 0 ? 0 : share[i + out]));
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
  /** Which of its bits, the largest first. */
  readonly part: number;
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
    return inkShapes(thicker === 0 ? share : thickened(share, width, height, thicker), width, height, LEAST_PX2).map((shape, part): GlyphShape => ({ ...shape, character, part }));
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
