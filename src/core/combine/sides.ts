import { coordsOfVerb, CUBIC, type Curves } from '../outline/curves.ts';

/** What is shorter has no direction, mm. */
export const SHORT_MM = 1e-7;

export interface Point {
  readonly x: number;
  readonly y: number;
}
export type Cubic = readonly [Point, Point, Point, Point];

/** A line or a curve of a ring; lines have their handles at thirds. */
export interface Side {
  readonly cubic: Cubic;
  readonly isLine: boolean;
}

/** The sides of a ring as cubics, those without length left out; lines have their handles at thirds. */
export function sidesOf({ verbs, coords, verbStart, coordStart }: Curves, ring: number): Side[] {
  const sides: Side[] = [];
  let at = coordStart[ring];
  const point = (k: number): Point => ({ x: coords[at + k], y: coords[at + k + 1] });
  for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
    const isLine = verbs[v] !== CUBIC;
    const [a, b] = [point(0), point(isLine ? 2 : 6)];
    const cubic: Cubic = isLine ? [a, between(a, b, 1 / 3), between(a, b, 2 / 3), b] : [a, point(2), point(4), b];
    if (!isLine || Math.hypot(a.x - b.x, a.y - b.y) > SHORT_MM) if (directionAt(cubic, 0) !== undefined) sides.push({ cubic, isLine });
    at += coordsOfVerb(verbs[v]);
  }
  return sides;
}

export const between = (a: Point, b: Point, t: number): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });

/** The direction at an end, by the first point that does not lie on it; undefined where all do. */
export function directionAt(cubic: Cubic, end: 0 | 1): Point | undefined {
  const points = end === 0 ? cubic : ([...cubic].reverse() as unknown as Cubic);
  for (const point of points.slice(1)) {
    const [dx, dy] = [point.x - points[0].x, point.y - points[0].y];
    const length = Math.hypot(dx, dy);
    if (length > SHORT_MM) return end === 0 ? { x: dx / length, y: dy / length } : { x: -dx / length, y: -dy / length };
  }
  return undefined;
}

export function placeOf([a, b, c, d]: Cubic, t: number): Point {
  const u = 1 - t;
  const [p, q, r, s] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return { x: p * a.x + q * b.x + r * c.x + s * d.x, y: p * a.y + q * b.y + r * c.y + s * d.y };
}

export function speedOf([a, b, c, d]: Cubic, t: number): Point {
  const u = 1 - t;
  const [p, q, r] = [3 * u * u, 6 * u * t, 3 * t * t];
  return { x: p * (b.x - a.x) + q * (c.x - b.x) + r * (d.x - c.x), y: p * (b.y - a.y) + q * (c.y - b.y) + r * (d.y - c.y) };
}

export function halvesOf([a, b, c, d]: Cubic): readonly [Cubic, Cubic] {
  const [ab, bc, cd] = [between(a, b, 0.5), between(b, c, 0.5), between(c, d, 0.5)];
  const [abc, bcd] = [between(ab, bc, 0.5), between(bc, cd, 0.5)];
  const middle = between(abc, bcd, 0.5);
  return [
    [a, ab, abc, middle],
    [middle, bcd, cd, d],
  ];
}

/** A direction turned, clockwise on screen. */
export const turned = ({ x, y }: Point, rad: number): Point => ({ x: x * Math.cos(rad) - y * Math.sin(rad), y: x * Math.sin(rad) + y * Math.cos(rad) });

/** The length of a curve's handles and what lies between: never less than the curve's own. */
export const hullLength = ([a, b, c, d]: Cubic): number => Math.hypot(b.x - a.x, b.y - a.y) + Math.hypot(c.x - b.x, c.y - b.y) + Math.hypot(d.x - c.x, d.y - c.y);
