import { makeShareMap } from '../raster/raster.ts';
import { followedBy, scaling, translation } from '../geometry/affine.ts';
import { coverageOf } from './coverage.ts';
import { boundsOf, CurvesBuilder, depthOf, isOpenRing, ringCount, type Curves } from './curves.ts';
import { flatten } from './flatten.ts';
import { outlineOf } from './traceOutline.ts';
import { transformCurves } from './transformCurves.ts';

/** Cells of the field of distances on the width of an offset: on a round of that radius, straight lines between cells stray by a thousandth of it. */
const CELLS_ON_WIDTH = 10;
/** Most cells of the field. */
const MOST_CELLS = 4_000_000;
/** The edge is sampled this often a cell. */
const SAMPLES = 3;
/** How closely the curves follow the field's edge, cells, and the smallest turn that stays a corner. */
const FOLLOW_CELLS = 0.08;
const CORNER_RAD = 0.42;

/**
 * The outline at a distance around others, as a disc of that radius rolls around them: what comes near grows together, corners outside turn round, those inside stay sharp. The field of
 * distances is made by passing on the nearest point of the edge from cell to cell (P.-E. Danielsson, "Euclidean distance mapping", Computer Graphics and Image Processing 14, 1980,
 * doi:10.1016/0146-664X(80)90054-4), its line at the width is outlined like ink. O(cells).
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
  // Half-way is at the radius; a cell of distance is a quarter of the range, so that the eight bits tell a hundredth of a cell.
  const share = inside.map((value, i) => (value >= 128 ? 255 : Math.max(0, Math.min(255, Math.round(127.5 + (radius - distance[i]) * 64)))));
  const outline = outlineOf(makeShareMap(columns, rows, share), { followPx: FOLLOW_CELLS, cornerRad: CORNER_RAD, leastAreaPx2: 2, shapes: true });
  return transformCurves(outline, followedBy(scaling(cell), translation(box.left - margin, box.top - margin)));
}

/** Distance of each cell's centre to the edge, cells. */
function distanceToEdge(curves: Curves, width: number, height: number): Float32Array {
  const nearX = new Float32Array(width * height).fill(Infinity);
  const nearY = new Float32Array(width * height);
  const offer = (i: number, x: number, y: number, px: number, py: number): void => {
    const old = (nearX[i] - x) ** 2 + (nearY[i] - y) ** 2;
    // Infinity less anything is not a number's neighbour: the first offer is always taken.
    if (nearX[i] !== Infinity && old <= (px - x) ** 2 + (py - y) ** 2) return;
    nearX[i] = px;
    nearY[i] = py;
  };
  eachSample(curves, (x, y) => {
    const [column, row] = [Math.floor(x), Math.floor(y)];
    if (column >= 0 && row >= 0 && column < width && row < height) offer(row * width + column, column + 0.5, row + 0.5, x, y);
  });
  const pass = (i: number, from: number, x: number, y: number): void => {
    if (nearX[from] !== Infinity) offer(i, x, y, nearX[from], nearY[from]);
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (x > 0) pass(i, i - 1, x + 0.5, y + 0.5);
      if (y > 0) for (let d = x > 0 ? -1 : 0; d <= (x < width - 1 ? 1 : 0); d++) pass(i, i - width + d, x + 0.5, y + 0.5);
    }
    for (let x = width - 2; x >= 0; x--) pass(y * width + x, y * width + x + 1, x + 0.5, y + 0.5);
  }
  for (let y = height - 1; y >= 0; y--) {
    for (let x = width - 1; x >= 0; x--) {
      const i = y * width + x;
      if (x < width - 1) pass(i, i + 1, x + 0.5, y + 0.5);
      if (y < height - 1) for (let d = x > 0 ? -1 : 0; d <= (x < width - 1 ? 1 : 0); d++) pass(i, i + width + d, x + 0.5, y + 0.5);
    }
    for (let x = 1; x < width; x++) pass(y * width + x, y * width + x - 1, x + 0.5, y + 0.5);
  }
  const out = new Float32Array(width * height);
  for (let i = 0; i < out.length; i++) out[i] = nearX[i] === Infinity ? width + height : Math.hypot(nearX[i] - (i % width) - 0.5, nearY[i] - Math.floor(i / width) - 0.5);
  return out;
}

function eachSample(curves: Curves, visit: (x: number, y: number) => void): void {
  const { points, starts } = flatten(curves, 0.02);
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) {
      const [ax, ay, bx, by] = [points[2 * j], points[2 * j + 1], points[2 * i], points[2 * i + 1]];
      const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) * SAMPLES));
      for (let k = 0; k < steps; k++) visit(ax + ((bx - ax) * k) / steps, ay + ((by - ay) * k) / steps);
    }
  }
}

/** The outermost rings alone: every piece full. */
export function withoutOpenings(curves: Curves): Curves {
  const builder = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) if (depthOf(curves, ring) === 0 && !isOpenRing(curves, ring)) builder.copy(curves, ring, -1);
  return builder.build();
}
