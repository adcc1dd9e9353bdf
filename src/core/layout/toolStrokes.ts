import type { CutSettings } from '../process/material.ts';
import { isOpenRing } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import type { CutPlan, PathRole } from './cutPlan.ts';

/** What the tool does between coming down and going up again. */
export interface ToolStroke {
  readonly role: PathRole;
  /** x, y of each place that it comes to, mm of the sheet; a closed line ends where it begins, or beyond. */
  readonly points: Float64Array;
}

export interface StrokeSettings extends Partial<Pick<CutSettings, 'passes' | 'tool' | 'overcutMm'>> {
  /** Largest distance of the chords from the curves, mm. */
  readonly chordMm: number;
}

/**
 * The strokes of a plan in its order. A knife goes around a closed line once for each pass without being lifted, and on over its beginning by the overcut; an open line it cuts anew each pass. A pen, and a mark, once and no further.
 */
export function toolStrokes(plan: CutPlan, { chordMm, passes = 1, tool = 'knife', overcutMm = 0 }: StrokeSettings): ToolStroke[] {
  return plan.runs.flatMap(({ role, curves, order }) => {
    const { points, starts } = flatten(curves, chordMm);
    const { coords, coordStart } = curves;
    const cuts = tool === 'knife' && role !== 'mark';
    const times = cuts ? passes : 1;
    return Array.from(order).flatMap((ring): ToolStroke[] => {
      const own = points.subarray(2 * starts[ring], 2 * starts[ring + 1]);
      if (own.length === 0) return [];
      if (isOpenRing(curves, ring)) {
        const end = coordStart[ring + 1] - 2;
        const whole = new Float64Array(own.length + 2);
        whole.set(own);
        whole.set(coords.subarray(end, end + 2), own.length);
        const stroke: ToolStroke = { role, points: whole };
        return Array.from({ length: times }, () => stroke);
      }
      return own.length < 4 ? [] : [{ role, points: around(own, times, cuts ? overcutMm : 0) }];
    });
  });
}

/** A closed line so many times, and so far beyond its beginning: at most once around. */
function around(own: Float64Array, times: number, beyondMm: number): Float64Array {
  const count = own.length / 2;
  const points: number[] = [];
  for (let k = 0; k < times * count; k++) points.push(own[2 * (k % count)], own[2 * (k % count) + 1]);
  points.push(own[0], own[1]);
  let left = beyondMm;
  for (let k = 0; k < count && left > 0; k++) {
    const [x, y] = [own[2 * k], own[2 * k + 1]];
    const next = 2 * ((k + 1) % count);
    const length = Math.hypot(own[next] - x, own[next + 1] - y);
    if (length === 0) continue;
    const share = Math.min(1, left / length);
    points.push(x + (own[next] - x) * share, y + (own[next + 1] - y) * share);
    left -= length;
  }
  return Float64Array.from(points);
}
