import { CurvesBuilder, coordsOfVerb, LINE, ringCount, type Curves } from '../outline/curves.ts';
import { between, halvesOf, placeOf, type Cubic, type Point } from './sides.ts';

/** What takes each point of the plane smoothly to another, without turning it over. */
export type PlaneMap = (x: number, y: number) => Point;

/** Curves lie so near to where the map takes them, mm: a tenth of what a cutter resolves. */
const NEAR_MM = 0.002;
/** Lines that stay straight within this stay lines, mm. */
const STRAIGHT_MM = 0.0005;
/** A curve is halved so often at most. */
const MOST_HALVINGS = 8;
/** Part of a handle over which the map is told apart from its direction. */
const STEP = 1e-3;

/**
 * Curves taken through a smooth map of the plane: nodes go where it takes them, handles by its derivative there (cubic Hermite interpolation), and a curve is halved until it lies within two thousandths of a mm. Rings, their order and what lies in what stay.
 */
export function bentCurves(curves: Curves, map: PlaneMap): Curves {
  const builder = new CurvesBuilder();
  const { verbs, coords, verbStart, coordStart, parent } = curves;
  for (let ring = 0; ring < ringCount(curves); ring++) {
    let at = coordStart[ring];
    const point = (k: number): Point => ({ x: coords[at + k], y: coords[at + k + 1] });
    const start = map(coords[at], coords[at + 1]);
    builder.start(start.x, start.y, parent[ring]);
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      if (verbs[v] === LINE) bendLine(builder, point(0), point(2), map);
      else bendCubic(builder, [point(0), point(2), point(4), point(6)], map, MOST_HALVINGS);
      at += coordsOfVerb(verbs[v]);
    }
    builder.close();
  }
  return builder.build();
}

function bendLine(builder: CurvesBuilder, a: Point, b: Point, map: PlaneMap): void {
  const [from, to] = [map(a.x, a.y), map(b.x, b.y)];
  const strays = (t: number): number => {
    const [flat, on] = [between(from, to, t), between(a, b, t)];
    const there = map(on.x, on.y);
    return Math.hypot(there.x - flat.x, there.y - flat.y);
  };
  if (Math.max(strays(0.25), strays(0.5), strays(0.75)) <= STRAIGHT_MM) builder.line(to.x, to.y);
  else bendCubic(builder, [a, between(a, b, 1 / 3), between(a, b, 2 / 3), b], map, MOST_HALVINGS);
}

function bendCubic(builder: CurvesBuilder, cubic: Cubic, map: PlaneMap, halvings: number): void {
  const [a, b, c, d] = cubic;
  const [from, to] = [map(a.x, a.y), map(d.x, d.y)];
  const made: Cubic = [from, handle(map, a, b, from), handle(map, d, c, to), to];
  const isNear = [0.25, 0.5, 0.75].every((t) => {
    const [there, on] = [placeOf(made, t), placeOf(cubic, t)];
    const wanted = map(on.x, on.y);
    return Math.hypot(there.x - wanted.x, there.y - wanted.y) <= NEAR_MM;
  });
  if (isNear || halvings === 0) return builder.cubic(made[1].x, made[1].y, made[2].x, made[2].y, to.x, to.y);
  for (const half of halvesOf(cubic)) bendCubic(builder, half, map, halvings - 1);
}

/** A node's handle taken along by the derivative of the map at the node. */
function handle(map: PlaneMap, node: Point, tip: Point, home: Point): Point {
  const [dx, dy] = [(tip.x - node.x) * STEP, (tip.y - node.y) * STEP];
  const [ahead, behind] = [map(node.x + dx, node.y + dy), map(node.x - dx, node.y - dy)];
  return { x: home.x + (ahead.x - behind.x) / (2 * STEP), y: home.y + (ahead.y - behind.y) / (2 * STEP) };
}
