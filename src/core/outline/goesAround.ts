import type { Ring } from './corners.ts';
import type { Ellipse } from './ellipse.ts';

/**
 * A part of a round that no point lies on may stand out by this beyond the tolerance of its points, px: half a pixel is where a single crossing was left out.
 */
const BARE_PX = 0.5;

/**
 * Whether a ring goes once around a round, so that no part of the round is far from the ring. That each point of the ring is near the round does not say it:
 * a sliver lies on a short stretch of some huge circle.
 */
export function goesAround({ n, x, y }: Ring, round: Ellipse, tolerancePx: number): boolean {
  const [cos, sin] = [Math.cos(round.turnRad), Math.sin(round.turnRad)];
  const angleOf = (k: number): number => {
    const [dx, dy] = [x[k] - round.x, y[k] - round.y];
    return Math.atan2((dy * cos - dx * sin) / round.b, (dx * cos + dy * sin) / round.a);
  };
  const most = Math.max(tolerancePx, BARE_PX);
  let total = 0;
  let before = angleOf(n - 1);
  for (let k = 0; k < n; k++) {
    const angle = angleOf(k);
    const turn = angle - before - 2 * Math.PI * Math.round((angle - before) / (2 * Math.PI));
    // The stretch between two points stands out from their chord by its sagitta.
    if (round.a * (1 - Math.cos(turn / 2)) > most) return false;
    total += turn;
    before = angle;
  }
  return Math.abs(Math.abs(total) - 2 * Math.PI) < 1e-6;
}
