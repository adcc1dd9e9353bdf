import type { NestShape } from './nestShape.ts';

/** The turn at which the box around a shape is smallest: one side of its hull lies flat (H. Freeman & R. Shapira, CACM 18(7), 1975, doi:10.1145/360881.360919). */
export function flatTurn({ hull }: NestShape): number {
  let [best, least] = [0, Infinity];
  const count = hull.length / 2;
  for (let k = 0; k < count; k++) {
    const next = (k + 1) % count;
    const angle = -Math.atan2(hull[2 * next + 1] - hull[2 * k + 1], hull[2 * next] - hull[2 * k]);
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < hull.length; i += 2) {
      const [x, y] = [cos * hull[i] - sin * hull[i + 1], sin * hull[i] + cos * hull[i + 1]];
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
    const area = (right - left) * (bottom - top);
    // A little smaller is no reason to turn a part that lies straight.
    if (area < least * (1 - 1e-6)) [best, least] = [angle, area];
  }
  return best;
}
