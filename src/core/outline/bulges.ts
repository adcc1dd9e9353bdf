import type { FittedCubic } from './cubicFit.ts';
import type { Section } from './section.ts';

/** Between two points that lie apart a curve may stand out by this share of their distance: a quarter circle through both does by a fifth. */
const GAP_SHARE = 0.25;
/** But by no more than this, px: points are missing for longer only where nothing is known. */
const MOST_GAP_PX = 1;
/** Places of a cubic that are looked at: two for each of its points, within these. */
const LEAST_PLACES = 8;
const MOST_PLACES = 48;
/** Chords that are looked at on either side of the one that was nearest to the place before. */
const AROUND = 6;

/**
 * Whether a cubic between two joints of a section swings further from the section's points than its points from it: it is fitted by where they are, and what it
 * does between and beyond them nobody asked. Distances are to the chords from point to point, looked for near where the place before was.
 */
export function bulges(section: Section, from: number, to: number, { x1, y1, x2, y2 }: FittedCubic, tolerancePx: number): boolean {
  const { x: xs, y: ys } = section;
  const a = section.joint(from);
  const b = section.joint(to);
  const ax = a.x;
  const ay = a.y;
  const bx = b.x;
  const by = b.y;
  const places = Math.max(LEAST_PLACES, Math.min(MOST_PLACES, 2 * (to - from)));
  const stride = Math.ceil((to - from) / places);
  let nearest = from;
  for (let p = 1; p < places; p++) {
    const t = p / places;
    const v = 1 - t;
    const x = v * v * v * ax + 3 * v * v * t * x1 + 3 * v * t * t * x2 + t * t * t * bx;
    const y = v * v * v * ay + 3 * v * v * t * y1 + 3 * v * t * t * y2 + t * t * t * by;
    let least = Infinity;
    let at = nearest;
    for (let k = Math.max(from, nearest - AROUND - stride); k < Math.min(to, nearest + AROUND + 2 * stride); k++) {
      const px = k === from ? ax : xs[k];
      const py = k === from ? ay : ys[k];
      const dx = (k + 1 === to ? bx : xs[k + 1]) - px;
      const dy = (k + 1 === to ? by : ys[k + 1]) - py;
      const length2 = dx * dx + dy * dy;
      const s = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((x - px) * dx + (y - py) * dy) / length2));
      const allowed = tolerancePx + Math.min(MOST_GAP_PX, GAP_SHARE * Math.sqrt(length2));
      const ex = px + s * dx - x;
      const ey = py + s * dy - y;
      const off = Math.sqrt(ex * ex + ey * ey) - allowed;
      if (off >= least) continue;
      least = off;
      at = k;
    }
    if (least > 0) return true;
    nearest = at;
  }
  return false;
}
