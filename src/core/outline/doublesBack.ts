import { endAt, type End, type FittedCubic } from './cubicFit.ts';
import type { Section } from './section.ts';

/** So much further along its chord than its points a cubic may reach, px: between two of them nothing is known. */
const SLACK_PX = 0.25;
/** Places of a cubic that are looked at. */
const PLACES = 12;

/**
 * Whether a cubic between two joints of a section starts back from where its points go, or runs past where they end and comes back: where few points lie near a
 * corner whose direction is left free, such a hook passes through all of them.
 */
export function doublesBack(section: Section, from: number, to: number, { x1, y1, x2, y2 }: FittedCubic): boolean {
  const { x: xs, y: ys } = section;
  const a = section.joint(from);
  const b = section.joint(to);
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length < 1e-9) return false;
  const reach = (x: number, y: number): number => ((x - a.x) * dx + (y - a.y) * dy) / length;
  const [r1, r2] = [reach(x1, y1), reach(x2, y2)];
  if (Math.min(r1, r2) >= 0 && Math.max(r1, r2) <= length) return false;
  let [least, most] = [0, length];
  for (let k = from + 1; k < to; k++) {
    const r = reach(xs[k], ys[k]);
    least = Math.min(least, r);
    most = Math.max(most, r);
  }
  for (let p = 1; p < PLACES; p++) {
    const [t, v] = [p / PLACES, 1 - p / PLACES];
    const r = 3 * v * v * t * r1 + 3 * v * t * t * r2 + t * t * t * length;
    if (r < least - SLACK_PX || r > most + SLACK_PX) return true;
  }
  return false;
}

/**
 * The ends of a section's stretch with the direction from which, or to which, its first or last third goes, where theirs is free or goes the other way, as that
 * of a joint among points that turn back may.
 */
export function directedEnds(section: Section, from: number, to: number): [End, End] {
  const { x: xs, y: ys } = section;
  const [a, b] = [section.joint(from), section.joint(to)];
  const third = Math.max(1, Math.round((to - from) / 3));
  const placeAt = (k: number): { x: number; y: number } => (k <= from ? a : k >= to ? b : { x: xs[k], y: ys[k] });
  return [directed(a, a, placeAt(from + third)), directed(b, placeAt(to - third), b)];
}

function directed(end: End, from: { x: number; y: number }, to: { x: number; y: number }): End {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  if (!end.free && end.dx * dx + end.dy * dy > 0) return end;
  const length = Math.max(1e-9, Math.sqrt(dx * dx + dy * dy));
  return endAt(end.x, end.y, dx / length, dy / length);
}
