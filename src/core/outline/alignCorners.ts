import type { Corner, Ring } from './corners.ts';

/** A side needs so many points for its line to say more of a corner than the few pixels beside it. */
const LEAST_POINTS = 5;
/** Lines that meet at a smaller turn than this (sine) do not say where. */
const LEAST_SINE = 0.1;
/** A corner is not moved further than this, px: then something else is there. */
const FURTHEST_PX = 0.7;

interface Line {
  readonly x: number;
  readonly y: number;
  /** Unit vector along it. */
  readonly dx: number;
  readonly dy: number;
}

/**
 * Moves corners onto the straight sides that end at them: to where two straight sides meet, or over to the one that is straight. A side's line is fitted to all
 * of its points, so that a long edge lies where its whole length says and not where the pixels beside its corners do.
 * @param straightPx how far a point of a straight side may lie from its line, px. @param trimPx points nearer than this to a corner lie on its rounding, px.
 */
export function alignCorners(ring: Ring, corners: readonly Corner[], straightPx: number, trimPx: number): Corner[] {
  const count = corners.length;
  const lineAfter = corners.map((corner, k) =>
    k < count - 1 || (ring.closed && count > 1)
      ? sideLine(ring, corner, corners[(k + 1) % count], straightPx, trimPx)
      : ring.closed
        ? undefined
        : sideLine(ring, corner, undefined, straightPx, trimPx),
  );
  const first = ring.closed || count === 0 ? undefined : sideLine(ring, undefined, corners[0], straightPx, trimPx);
  return corners.map((corner, k) => {
    const before = k > 0 ? lineAfter[k - 1] : ring.closed ? lineAfter[count - 1] : first;
    const place = placeOn(corner, before, lineAfter[k]);
    return Math.hypot(place.x - corner.x, place.y - corner.y) > FURTHEST_PX ? corner : { ...corner, x: place.x, y: place.y };
  });
}

function placeOn(corner: Corner, before: Line | undefined, after: Line | undefined): { x: number; y: number } {
  if (before !== undefined && after !== undefined) {
    const cross = before.dx * after.dy - before.dy * after.dx;
    if (Math.abs(cross) >= LEAST_SINE) {
      const t = ((after.x - before.x) * after.dy - (after.y - before.y) * after.dx) / cross;
      return { x: before.x + t * before.dx, y: before.y + t * before.dy };
    }
  }
  const line = before ?? after;
  if (line === undefined) return corner;
  const t = (corner.x - line.x) * line.dx + (corner.y - line.y) * line.dy;
  return { x: line.x + t * line.dx, y: line.y + t * line.dy };
}

/** The line of the side from one corner to the next, or from or to the end of an open edge; undefined where it is not straight or too short. */
function sideLine(ring: Ring, from: Corner | undefined, to: Corner | undefined, straightPx: number, trimPx: number): Line | undefined {
  const { n, x, y } = ring;
  const start = from === undefined ? 0 : from.index;
  const end = to === undefined ? n - 1 : to.index > start ? to.index : to.index + n;
  const near2 = trimPx * trimPx;
  const isFarFrom = (i: number, corner: Corner | undefined): boolean => corner === undefined || (x[i] - corner.x) ** 2 + (y[i] - corner.y) ** 2 > near2;
  const free: number[] = [];
  let mx = 0;
  let my = 0;
  for (let k = start; k <= end; k++) {
    const i = k < n ? k : k - n;
    if (!isFarFrom(i, from) || !isFarFrom(i, to)) continue;
    free.push(i);
    mx += x[i];
    my += y[i];
  }
  if (free.length < LEAST_POINTS) return undefined;
  mx /= free.length;
  my /= free.length;
  let xx = 0;
  let yy = 0;
  let xy = 0;
  for (const i of free) {
    xx += (x[i] - mx) ** 2;
    yy += (y[i] - my) ** 2;
    xy += (x[i] - mx) * (y[i] - my);
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  const line = { x: mx, y: my, dx: Math.cos(angle), dy: Math.sin(angle) };
  return free.every((i) => Math.abs((x[i] - mx) * line.dy - (y[i] - my) * line.dx) <= straightPx) ? line : undefined;
}
