import type { ToolStroke } from './toolStrokes.ts';

/** Nearer places are one, mm: below what any machine resolves. */
const SAME_MM = 1e-6;

/**
 * Where the holder of a trailing knife goes so that its tip follows the strokes: ahead of the tip by the offset, along the line; at each bend it swings around the tip, which stays where it is, until the blade points along what comes
 * next. A blade that is lifted keeps its direction, so that a stroke begins with a swing too. The tip of a blade that is drawn by its holder follows a tractrix: along these paths it is the stroke itself.
 * @param offsetMm from the middle of the holder to the tip; the strokes as they are at 0.
 * @param withinMm how far chords of a swing may lie from its arc.
 */
export function holderStrokes(strokes: readonly ToolStroke[], offsetMm: number, withinMm = 0.01): ToolStroke[] {
  if (offsetMm <= 0) return [...strokes];
  const most = withinMm >= offsetMm ? Math.PI / 2 : 2 * Math.acos(1 - withinMm / offsetMm);
  let blade: number | undefined;
  return strokes.flatMap(({ role, points }): ToolStroke[] => {
    const way: number[] = [];
    const put = (x: number, y: number, angle: number): void => void way.push(x + offsetMm * Math.cos(angle), y + offsetMm * Math.sin(angle));
    for (let i = 0; i + 3 < points.length; i += 2) {
      const [x, y, toX, toY] = points.subarray(i, i + 4);
      if (Math.hypot(toX - x, toY - y) < SAME_MM) continue;
      const angle = Math.atan2(toY - y, toX - x);
      const from = blade ?? angle;
      if (way.length === 0) put(x, y, from);
      const turn = Math.atan2(Math.sin(angle - from), Math.cos(angle - from));
      const steps = Math.ceil(Math.abs(turn) / most - 1e-9);
      for (let step = 1; step <= steps; step++) put(x, y, from + (turn * step) / steps);
      put(toX, toY, angle);
      blade = angle;
    }
    return way.length === 0 ? [] : [{ role, points: Float64Array.from(way) }];
  });
}
