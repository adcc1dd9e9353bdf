import { placed, type Affine } from '../../core/geometry/affine.ts';

export interface DrawnPoint {
  readonly x: number;
  readonly y: number;
}

/** A line or a cubic that goes on from where the one before it ended. */
export interface DrawnSide {
  /** Handles of a cubic; a line has none. */
  readonly handles?: readonly [DrawnPoint, DrawnPoint];
  readonly to: DrawnPoint;
}

/** A path from a point on, closed where it ends in it. */
export interface DrawnPath {
  readonly start: DrawnPoint;
  readonly sides: readonly DrawnSide[];
}

/** An arc is drawn in cubics of at most this turn: they stray by 4·10⁻⁶ of the radius. */
const MOST_TURN = Math.PI / 4;
const FULL = 2 * Math.PI;

/** A path moved; numbers that are none give undefined. */
export function movedPath({ start, sides }: DrawnPath, where: Affine): DrawnPath | undefined {
  const move = ({ x, y }: DrawnPoint): DrawnPoint => placed(where, x, y);
  const moved: DrawnPath = { start: move(start), sides: sides.map(({ handles, to }) => (handles === undefined ? { to: move(to) } : { handles: [move(handles[0]), move(handles[1])], to: move(to) })) };
  const points = [moved.start, ...moved.sides.flatMap(({ handles, to }) => [...(handles ?? []), to])];
  return points.every(({ x, y }) => Math.abs(x) < 1e7 && Math.abs(y) < 1e7) ? moved : undefined;
}

/** An arc of the unit circle, put where it lies: from an angle on so far, rad; closed when it is a full turn. */
export function arcPath(where: Affine, from: number, turn: number): DrawnPath {
  const at = (x: number, y: number): DrawnPoint => placed(where, x, y);
  const count = Math.max(1, Math.ceil(Math.abs(turn) / MOST_TURN - 1e-9));
  const step = turn / count;
  const handle = (4 / 3) * Math.tan(step / 4);
  const sides: DrawnSide[] = [];
  for (let k = 0; k < count; k++) {
    const [a, b] = [from + k * step, from + (k + 1) * step];
    const [ca, sa, cb, sb] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b)];
    sides.push({ handles: [at(ca - handle * sa, sa + handle * ca), at(cb + handle * sb, sb - handle * cb)], to: at(cb, sb) });
  }
  const start = at(Math.cos(from), Math.sin(from));
  if (Math.abs(Math.abs(turn) - FULL) < 1e-9) sides[sides.length - 1] = { ...sides[sides.length - 1], to: start };
  return { start, sides };
}
