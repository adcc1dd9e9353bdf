import { directionAt, sidesOf, type Point, type Side } from '../combine/sides.ts';
import { CurvesBuilder, isOpenRing, ringCount, type Curves } from '../outline/curves.ts';

/** Sides no further than this from a ring's own directions are turned into them. */
const NEAR_RAD = (5 * Math.PI) / 180;
/** A ring whose directions are as near to level and upright stands so. */
const LEVEL_RAD = (1.5 * Math.PI) / 180;
/** Sides below this share of the longest tell no direction. */
const TELLING = 0.08;
const QUARTER_TURN = Math.PI / 2;

/**
 * Makes the corners of straight sides that are nearly square exactly so: each ring has two directions at right angles, those of most of its straight length, and sides near to them are turned about their middles. Corners are put
 * where sides meet; a curve's end moves with its handle. @param curves mm.
 */
export function rightAngles(curves: Curves): Curves {
  const builder = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) if (isOpenRing(curves, ring) || !drawSquared(builder, curves, ring)) builder.copy(curves, ring, curves.parent[ring]);
  return builder.build();
}

/** A straight side as it lies once it is turned: through its middle, in a direction. */
interface Straight {
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

function drawSquared(builder: CurvesBuilder, curves: Curves, ring: number): boolean {
  const sides = sidesOf(curves, ring);
  const base = directionOf(sides);
  if (base === undefined) return false;
  const straight = sides.map((side): Straight | undefined => {
    const angle = angleOf(side);
    if (angle === undefined) return undefined;
    const off = wrapped(angle - base);
    const [from, to] = [side.cubic[0], side.cubic[3]];
    return Math.abs(off) > NEAR_RAD ? undefined : { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2, angle: angle - off };
  });
  if (straight.every((line) => line === undefined)) return false;
  const nodes = sides.map(({ cubic }, k): Point => {
    const before = straight[(k + sides.length - 1) % sides.length];
    const after = straight[k];
    const at = cubic[0];
    if (before === undefined && after === undefined) return at;
    if (before === undefined || after === undefined) return onto(at, (before ?? after) as Straight);
    return Math.abs(Math.sin(before.angle - after.angle)) < 0.5 ? between(onto(at, before), onto(at, after)) : crossing(before, after);
  });
  builder.start(nodes[0].x, nodes[0].y, curves.parent[ring]);
  for (const [k, { cubic, isLine }] of sides.entries()) {
    const [from, to] = [nodes[k], nodes[(k + 1) % nodes.length]];
    if (isLine) builder.line(to.x, to.y);
    else builder.cubic(cubic[1].x + from.x - cubic[0].x, cubic[1].y + from.y - cubic[0].y, cubic[2].x + to.x - cubic[3].x, cubic[2].y + to.y - cubic[3].y, to.x, to.y);
  }
  builder.close();
  return true;
}

/** The direction, up to quarter turns, of most of a ring's sides that meet squarely; undefined for a ring without such. */
function directionOf(sides: readonly Side[]): number | undefined {
  const lines = sides.flatMap((side) => {
    const angle = angleOf(side);
    return angle === undefined ? [] : [{ angle, length: Math.hypot(side.cubic[3].x - side.cubic[0].x, side.cubic[3].y - side.cubic[0].y) }];
  });
  const longest = Math.max(0, ...lines.map(({ length }) => length));
  // A round corner between two sides is one between them all the same.
  const meetsSquarely = (k: number): boolean =>
    [lines[(k + lines.length - 1) % lines.length], lines[(k + 1) % lines.length]].some(({ angle }) => Math.abs(wrapped(angle - lines[k].angle)) <= 2 * NEAR_RAD && Math.abs(Math.cos(angle - lines[k].angle)) < 0.5);
  const telling = lines.filter(({ length }, k) => length >= TELLING * longest && meetsSquarely(k));
  let best: { angle: number; length: number } | undefined;
  for (const { angle } of telling) {
    const near = telling.filter((line) => Math.abs(wrapped(line.angle - angle)) <= NEAR_RAD);
    const length = near.reduce((sum, line) => sum + line.length, 0);
    if (best !== undefined && length <= best.length) continue;
    best = { angle: angle + near.reduce((sum, line) => sum + line.length * wrapped(line.angle - angle), 0) / length, length };
  }
  if (best === undefined) return undefined;
  return Math.abs(wrapped(best.angle)) <= LEVEL_RAD ? 0 : best.angle;
}

/** The least angle to a direction or one at right angles to it: above −45° and up to 45°. */
const wrapped = (rad: number): number => rad - QUARTER_TURN * Math.round(rad / QUARTER_TURN);

function angleOf({ cubic, isLine }: Side): number | undefined {
  const way = isLine ? directionAt(cubic, 0) : undefined;
  return way === undefined ? undefined : Math.atan2(way.y, way.x);
}

function onto({ x, y }: Point, { x: px, y: py, angle }: Straight): Point {
  const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  const along = (x - px) * ux + (y - py) * uy;
  return { x: px + along * ux, y: py + along * uy };
}

const between = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });

function crossing(a: Straight, b: Straight): Point {
  const [ux, uy, vx, vy] = [Math.cos(a.angle), Math.sin(a.angle), Math.cos(b.angle), Math.sin(b.angle)];
  const t = ((b.x - a.x) * vy - (b.y - a.y) * vx) / (ux * vy - uy * vx);
  return { x: a.x + t * ux, y: a.y + t * uy };
}
