import { makeShareMap } from '../raster/raster.ts';
import { followedBy, scaling, translation } from '../geometry/affine.ts';
import { chordDistance2, chordsOf, eachCellNear } from './chords.ts';
import { coverageOf } from './coverage.ts';
import { boundsOf, CurvesBuilder, depthOf, isOpenRing, ringCount, type Curves } from './curves.ts';
import { outlineOf } from './traceOutline.ts';
import { transformCurves } from './transformCurves.ts';

/** Cells of the field of distances on the width of an offset: on a round of that radius, straight lines between cells stray by a two-thousandth of it. */
const CELLS_ON_WIDTH = 16;
/** Most cells of the field. */
const MOST_CELLS = 1_500_000;
/** How closely the curves follow the field's edge, cells, and the smallest turn that stays a corner. */
const FOLLOW_CELLS = 0.08;
const CORNER_RAD = 0.8;

/**
 * The outline at a distance around others, as a disc of that radius rolls around them: what comes near grows together, corners outside turn round, those inside
 * stay sharp. The field of distances is made by passing on the nearest chord of the edge from cell to cell (P.-E. Danielsson, "Euclidean distance mapping",
 * Computer Graphics and Image Processing 14, 1980, doi:10.1016/0146-664X(80)90054-4), its line at the width is outlined like ink. O(cells).
 * @param width in units of the coordinates, above 0.
 */
export function offsetOutline(curves: Curves, width: number): Curves {
  const box = boundsOf(curves);
  if (box === undefined || !(width > 0)) return curves;
  const margin = width * 1.2;
  const [wide, high] = [box.right - box.left + 2 * margin, box.bottom - box.top + 2 * margin];
  const cell = Math.max(width / CELLS_ON_WIDTH, Math.sqrt((wide * high) / MOST_CELLS));
  const toField = followedBy(translation(margin - box.left, margin - box.top), scaling(1 / cell));
  const inField = transformCurves(curves, toField);
  const columns = Math.ceil(wide / cell) + 2;
  const rows = Math.ceil(high / cell) + 2;
  const inside = coverageOf(inField, columns, rows);
  const distance = distanceToEdge(inField, columns, rows);
  const radius = width / cell;
  // Half-way is at the radius; the eight bits span four cells of distance, a sixty-fourth of one each.
  const share = inside.map((value, i) => (value >= 128 ? 255 : Math.max(0, Math.min(255, Math.round(127.5 + (radius - distance[i]) * 64)))));
  const outline = outlineOf(makeShareMap(columns, rows, share), { followPx: FOLLOW_CELLS, cornerRad: CORNER_RAD, leastAreaPx2: 2, shapes: true });
  return transformCurves(outline, followedBy(scaling(cell), translation(box.left - margin, box.top - margin)));
}

/** Distance of each cell's centre to the edge, cells: to the chord that was passed on to it, exactly. */
function distanceToEdge(curves: Curves, width: number, height: number): Float32Array {
  const chords = chordsOf(curves);
  const nearest = new Int32Array(width * height).fill(-1);
  const away2 = new Float32Array(width * height).fill((width + height) ** 2);
  const offer = (i: number, chord: number, x: number, y: number): void => {
    if (chord < 0 || chord === nearest[i]) return;
    const d2 = chordDistance2(chords, chord, x + 0.5, y + 0.5);
    if (d2 >= away2[i]) return;
    away2[i] = d2;
    nearest[i] = chord;
  };
  const pass = (x: number, y: number, dx: number, dy: number): void => {
    if (x + dx < 0 || x + dx >= width || y + dy < 0 || y + dy >= height) return;
    offer(y * width + x, nearest[(y + dy) * width + x + dx], x, y);
  };
  eachCellNear(chords, width, height, (i, x, y, chord) => offer(i, chord, x, y));
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) for (const [dx, dy] of BEFORE) pass(x, y, dx, dy);
    for (let x = width - 2; x >= 0; x--) pass(x, y, 1, 0);
  }
  for (let y = height - 1; y >= 0; y--) {
    for (let x = width - 1; x >= 0; x--) for (const [dx, dy] of BEFORE) pass(x, y, -dx, -dy);
    for (let x = 1; x < width; x++) pass(x, y, -1, 0);
  }
  return away2.map(Math.sqrt);
}

/** The neighbours that a pass from the upper left has been to. */
const BEFORE: readonly (readonly [number, number])[] = [
  [-1, 0],
  [-1, -1],
  [0, -1],
  [1, -1],
];

/** The outermost rings alone: every piece full. */
export function withoutOpenings(curves: Curves): Curves {
  const builder = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) if (depthOf(curves, ring) === 0 && !isOpenRing(curves, ring)) builder.copy(curves, ring, -1);
  return builder.build();
}
