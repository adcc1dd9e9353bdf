import { byRows, within, type Task } from '../task/task.ts';

/** What one px is in a chamfer distance. */
export const CHAMFER_PX = 3;
const DIAGONAL = 4;

/**
 * Distance of every cell that is not 0 to the nearest one that is, in thirds of a px, within 8 % of the true one; beyond the raster all is 0. Two passes with
 * steps of 3 and 4 (G. Borgefors, "Distance transformations in digital images", CVGIP 34, 1986, doi:10.1016/S0734-189X(86)80047-0): an eighth of the time of
 * the exact one.
 */
export function* chamferInside(cells: Uint8Array, width: number, height: number): Task<Uint16Array> {
  const out = new Uint16Array(cells.length);
  yield* within(byRows(height, (y) => forwardRow(cells, out, width, y)), 0, 0.5);
  yield* within(byRows(height, (k) => backwardRow(cells, out, width, height - 1 - k, height)), 0.5, 1);
  return out;
}

function forwardRow(cells: Uint8Array, out: Uint16Array, width: number, y: number): void {
  const start = y * width;
  for (let x = 0, i = start; x < width; x++, i++) {
    if (cells[i] === 0) continue;
    const left = x > 0 ? out[i - 1] : 0;
    const up = y > 0 ? out[i - width] : 0;
    const upLeft = x > 0 && y > 0 ? out[i - width - 1] : 0;
    const upRight = x < width - 1 && y > 0 ? out[i - width + 1] : 0;
    const straight = (left < up ? left : up) + CHAMFER_PX;
    const slanted = (upLeft < upRight ? upLeft : upRight) + DIAGONAL;
    const least = straight < slanted ? straight : slanted;
    out[i] = least < MOST ? least : MOST;
  }
}

function backwardRow(cells: Uint8Array, out: Uint16Array, width: number, y: number, height: number): void {
  for (let x = width - 1, i = y * width + width - 1; x >= 0; x--, i--) {
    if (cells[i] === 0) continue;
    const isLast = y === height - 1;
    const right = x < width - 1 ? out[i + 1] : 0;
    const down = isLast ? 0 : out[i + width];
    const downLeft = x > 0 && !isLast ? out[i + width - 1] : 0;
    const downRight = x < width - 1 && !isLast ? out[i + width + 1] : 0;
    const straight = (right < down ? right : down) + CHAMFER_PX;
    const slanted = (downLeft < downRight ? downLeft : downRight) + DIAGONAL;
    const least = straight < slanted ? straight : slanted;
    if (least < out[i]) out[i] = least;
  }
}

const MOST = 65_000;
