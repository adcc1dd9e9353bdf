import type { Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import type { Piece } from '../outline/pieces.ts';

/** Places around an outline at which it is compared. */
const PLACES = 96;
/** Chords, as a share of the outline's length. */
const CHORD_SHARE = 1 / 2000;

/** What an outline is compared by: its size, and how far its edge lies from its middle all around. */
interface Form {
  readonly length: number;
  readonly area: number;
  readonly holes: number;
  /** Distances from the middle at places evenly along the edge, as shares of the mean one. */
  readonly radii: Float64Array;
  readonly mean: number;
}

/**
 * The pieces of the same shape as one of them, whatever way they are turned or mirrored, itself among them: as numbers in `pieces`.
 * @param within how much sizes and edges may differ, as a share.
 */
export function alikePieces(curves: Curves, pieces: readonly Piece[], like: Piece, of: Curves = curves, within = 0.02): number[] {
  const form = formOf(of, like);
  return pieces.flatMap((piece, k) => (isAlike(form, formOf(curves, piece), within) ? [k] : []));
}

function isAlike(a: Form, b: Form, within: number): boolean {
  if (a.holes !== b.holes) return false;
  const near = (p: number, q: number, share: number): boolean => Math.abs(p - q) <= share * Math.max(p, q);
  if (!near(a.length, b.length, within) || !near(a.mean, b.mean, within) || !near(a.area, b.area, 2 * within)) return false;
  const limit = within * within * PLACES;
  for (const way of [1, -1]) for (let shift = 0; shift < PLACES; shift++) if (differs(a.radii, b.radii, shift, way, limit) <= limit) return true;
  return false;
}

function differs(a: Float64Array, b: Float64Array, shift: number, way: number, enough: number): number {
  let sum = 0;
  for (let k = 0; k < PLACES && sum <= enough; k++) {
    const at = (((way * k + shift) % PLACES) + PLACES) % PLACES;
    sum += (a[k] - b[at]) ** 2;
  }
  return sum;
}

const forms = new WeakMap<Curves, Map<number, Form>>();

function formOf(curves: Curves, { outer, holes, area }: Piece): Form {
  let known = forms.get(curves);
  if (known === undefined) forms.set(curves, (known = new Map()));
  const kept = known.get(outer);
  if (kept !== undefined) return kept;
  const made = measured(curves, outer, holes.length, area);
  known.set(outer, made);
  return made;
}

function measured(curves: Curves, outer: number, holes: number, area: number): Form {
  const { coords, coordStart } = curves;
  let around = 0;
  for (let i = coordStart[outer] + 2; i < coordStart[outer + 1]; i += 2) around += Math.hypot(coords[i] - coords[i - 2], coords[i + 1] - coords[i - 1]);
  const { points } = flatten(ringOf(curves, outer), Math.max(1e-6, around * CHORD_SHARE));
  const count = points.length / 2;
  const along = new Float64Array(count + 1);
  for (let k = 0; k < count; k++) {
    const next = (k + 1) % count;
    along[k + 1] = along[k] + Math.hypot(points[2 * next] - points[2 * k], points[2 * next + 1] - points[2 * k + 1]);
  }
  const length = along[count];
  const [xs, ys] = [new Float64Array(PLACES), new Float64Array(PLACES)];
  for (let place = 0, k = 0; place < PLACES; place++) {
    const s = (length * place) / PLACES;
    while (along[k + 1] < s) k++;
    const next = (k + 1) % count;
    const t = along[k + 1] > along[k] ? (s - along[k]) / (along[k + 1] - along[k]) : 0;
    xs[place] = points[2 * k] + (points[2 * next] - points[2 * k]) * t;
    ys[place] = points[2 * k + 1] + (points[2 * next + 1] - points[2 * k + 1]) * t;
  }
  const [mx, my] = [xs.reduce((sum, x) => sum + x, 0) / PLACES, ys.reduce((sum, y) => sum + y, 0) / PLACES];
  const radii = xs.map((x, k) => Math.hypot(x - mx, ys[k] - my));
  const mean = radii.reduce((sum, r) => sum + r, 0) / PLACES;
  return { length, area, holes, mean, radii: radii.map((r) => (mean > 0 ? r / mean : 0)) };
}

function ringOf({ verbs, coords, verbStart, coordStart }: Curves, ring: number): Curves {
  return {
    kind: 'curves',
    verbs: verbs.subarray(verbStart[ring], verbStart[ring + 1]),
    coords: coords.subarray(coordStart[ring], coordStart[ring + 1]),
    verbStart: Int32Array.of(0, verbStart[ring + 1] - verbStart[ring]),
    coordStart: Int32Array.of(0, coordStart[ring + 1] - coordStart[ring]),
    parent: Int32Array.of(-1),
  };
}
