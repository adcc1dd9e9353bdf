import type { Task } from '../task/task.ts';

/** So many cells are looked at before others have their turn. */
const CELLS_PER_TURN = 200_000;

/**
 * Thins the cells that are 1 to lines one cell wide that keep how things are connected (Z. Guo & R. W. Hall, "Parallel thinning with
 * two-subiteration algorithms", CACM 32(3), 1989, doi:10.1145/62065.62074, which does not eat diagonal lines from their ends). Cells on the
 * border of the raster are taken for 0. Costs as many rounds as the thickest place has half widths.
 */
export function* thin(cells: Uint8Array, width: number, height: number): Task<Uint8Array> {
  const out = cells.slice();
  for (let x = 0; x < width; x++) out[x] = out[(height - 1) * width + x] = 0;
  for (let y = 0; y < height; y++) out[y * width] = out[y * width + width - 1] = 0;
  let active: number[] = [];
  for (let i = 0; i < out.length; i++) if (out[i] !== 0) active.push(i);
  const gone: number[] = [];
  const all = Math.max(1, active.length);
  let seen = 0;
  for (;;) {
    let changed = 0;
    for (const second of [false, true]) {
      gone.length = 0;
      for (const i of active) {
        if (out[i] !== 0 && mayGo(out, width, i, second)) gone.push(i);
        if (++seen % CELLS_PER_TURN === 0) yield 1 - active.length / all;
      }
      for (const i of gone) out[i] = 0;
      changed += gone.length;
    }
    if (changed === 0) return out;
    active = active.filter((i) => out[i] !== 0);
  }
}

function mayGo(cells: Uint8Array, width: number, i: number, second: boolean): boolean {
  const n = cells[i - width];
  const ne = cells[i - width + 1];
  const e = cells[i + 1];
  const se = cells[i + width + 1];
  const s = cells[i + width];
  const sw = cells[i + width - 1];
  const w = cells[i - 1];
  const nw = cells[i - width - 1];
  const crossings = ((1 - n) & (ne | e)) + ((1 - e) & (se | s)) + ((1 - s) & (sw | w)) + ((1 - w) & (nw | n));
  if (crossings !== 1) return false;
  const around = Math.min((nw | n) + (ne | e) + (se | s) + (sw | w), (n | ne) + (e | se) + (s | sw) + (w | nw));
  if (around < 2 || around > 3) return false;
  return second ? ((n | ne | (1 - se)) & e) === 0 : ((s | sw | (1 - nw)) & w) === 0;
}
