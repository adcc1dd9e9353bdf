import { makeRgba8, type Rgba8 } from '../../raster/raster.ts';
import type { Task } from '../../task/task.ts';
import { photoFromSheet, type SheetView } from './camera.ts';

/** A rectangle of the sheet, mm. */
export interface SheetArea {
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Pixels between which the way through the camera is interpolated: exact to a thousandth of a pixel, and 200 times cheaper. */
const GRID_PX = 16;

/** The area as the photo would show it from straight above, bilinear between photo pixels. @param pxPerMm resolution of what comes out. */
export function* rectified(photo: Rgba8, view: SheetView, area: SheetArea, pxPerMm: number): Task<Rgba8> {
  const width = Math.max(1, Math.round(area.widthMm * pxPerMm));
  const height = Math.max(1, Math.round(area.heightMm * pxPerMm));
  const out = new Uint8Array(width * height * 4);
  const columns = Math.ceil(width / GRID_PX) + 1;
  let above = gridRow(view, area, pxPerMm, 0, columns);
  for (let y0 = 0; y0 < height; y0 += GRID_PX) {
    const below = gridRow(view, area, pxPerMm, y0 + GRID_PX, columns);
    for (let y = y0; y < Math.min(height, y0 + GRID_PX); y++) outRow(photo, out, y, width, above, below, (y + 0.5 - y0) / GRID_PX);
    above = below;
    if (y0 % (8 * GRID_PX) === 0) yield y0 / height;
  }
  return makeRgba8(width, height, out, photo.opaque === true);
}

function gridRow(view: SheetView, area: SheetArea, pxPerMm: number, y: number, columns: number): Float64Array {
  const row = new Float64Array(columns * 2);
  const at = new Float64Array(2);
  for (let k = 0; k < columns; k++) {
    photoFromSheet(view, area.xMm + (k * GRID_PX) / pxPerMm, area.yMm + y / pxPerMm, at);
    row[2 * k] = at[0];
    row[2 * k + 1] = at[1];
  }
  return row;
}

function outRow(photo: Rgba8, out: Uint8Array, y: number, width: number, above: Float64Array, below: Float64Array, v: number): void {
  const { data, width: stride, height: rows } = photo;
  for (let x = 0, o = y * width * 4; x < width; x++, o += 4) {
    const k = (x / GRID_PX) | 0;
    const u = (x + 0.5 - k * GRID_PX) / GRID_PX;
    const px = (above[2 * k] * (1 - u) + above[2 * k + 2] * u) * (1 - v) + (below[2 * k] * (1 - u) + below[2 * k + 2] * u) * v - 0.5;
    const py = (above[2 * k + 1] * (1 - u) + above[2 * k + 3] * u) * (1 - v) + (below[2 * k + 1] * (1 - u) + below[2 * k + 3] * u) * v - 0.5;
    const sx = Math.max(0, Math.min(stride - 1.001, px));
    const sy = Math.max(0, Math.min(rows - 1.001, py));
    const x0 = sx | 0;
    const y0 = sy | 0;
    const fx = sx - x0;
    const fy = sy - y0;
    const i = (y0 * stride + x0) * 4;
    const right = x0 + 1 < stride ? 4 : 0;
    const down = y0 + 1 < rows ? stride * 4 : 0;
    for (let c = 0; c < 4; c++) {
      const top = data[i + c] + (data[i + right + c] - data[i + c]) * fx;
      const bottom = data[i + down + c] + (data[i + down + right + c] - data[i + down + c]) * fx;
      out[o + c] = top + (bottom - top) * fy + 0.5;
    }
  }
}
