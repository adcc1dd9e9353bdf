import type { Curves } from './curves.ts';
import { flatten } from './flatten.ts';

/** Outlines as chords: chord k runs from point k to point ends[k]. */
export interface Chords {
  readonly points: Float64Array;
  readonly ends: Int32Array;
}

/** Largest distance of chords from the curves, in units of the coordinates. */
const CHORD = 0.02;
/** Chords are walked in steps of this, so that no cell that one passes is left out by much. */
const STEP = 1 / 3;

export function chordsOf(curves: Curves): Chords {
  const { points, starts } = flatten(curves, CHORD);
  const ends = new Int32Array(points.length / 2);
  for (let ring = 0; ring + 1 < starts.length; ring++)
    for (let i = starts[ring]; i < starts[ring + 1]; i++) ends[i] = i + 1 < starts[ring + 1] ? i + 1 : starts[ring];
  return { points, ends };
}

/** Squared distance of a place from a chord. */
export function chordDistance2({ points, ends }: Chords, chord: number, x: number, y: number): number {
  const [ax, ay] = [points[2 * chord], points[2 * chord + 1]];
  const [dx, dy] = [points[2 * ends[chord]] - ax, points[2 * ends[chord] + 1] - ay];
  const length2 = dx * dx + dy * dy;
  const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / length2));
  return (ax + t * dx - x) ** 2 + (ay + t * dy - y) ** 2;
}

/** Visits the cells that each chord passes and those around them. */
export function eachCellNear({ points, ends }: Chords, width: number, height: number, visit: (i: number, x: number, y: number, chord: number) => void): void {
  for (let chord = 0; chord < ends.length; chord++) {
    const [ax, ay, bx, by] = [points[2 * chord], points[2 * chord + 1], points[2 * ends[chord]], points[2 * ends[chord] + 1]];
    const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / STEP));
    for (let k = 0; k <= steps; k++) {
      const [column, row] = [Math.floor(ax + ((bx - ax) * k) / steps), Math.floor(ay + ((by - ay) * k) / steps)];
      for (let y = Math.max(0, row - 1); y <= Math.min(height - 1, row + 1); y++)
        for (let x = Math.max(0, column - 1); x <= Math.min(width - 1, column + 1); x++) visit(y * width + x, x, y, chord);
    }
  }
}
