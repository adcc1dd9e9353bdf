import { coordsOfVerb, CUBIC, CurvesBuilder, isOpenRing, ringCount, type Curves } from '../outline/curves.ts';
import { settleCurves } from './combineCurves.ts';
import type { PolygonLibrary } from './polygonLibrary.ts';

/** How far an offset curve may lie from its distance, mm. */
const OFF_MM = 0.003;
/** A curve is halved this often at most. */
const MOST_HALVINGS = 8;
/** Places at which an offset curve is measured. */
const MEASURED = [0.2, 0.4, 0.6, 0.8];
/** Turn of an arc that one cubic draws at most. */
const MOST_TURN = Math.PI / 4;
/** Directions that differ by less go on smoothly, radians. */
const SMOOTH = 1e-4;
const SHORT_MM = 1e-7;

interface Point {
  readonly x: number;
  readonly y: number;
}
type Cubic = readonly [Point, Point, Point, Point];

/**
 * Outlines moved outwards, or inwards below 0, as a disc of that radius rolls along them: outer corners turn round, what comes near grows together, what is narrower than twice an inward distance goes. Lines stay lines,
 * curves become curves that lie at the distance (their ends and directions exactly; W. Tiller & E. Hanson, "Offsets of two-dimensional profiles", IEEE CG&A 4(9), 1984, doi:10.1109/MCG.1984.275995); loops are left out by their winding.
 * @param curves mm, rings in the direction of their depth.
 */
export function offsetCurves(library: PolygonLibrary, curves: Curves, byMm: number): Curves {
  if (byMm === 0) return curves;
  const raw = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) if (!isOpenRing(curves, ring)) offsetRing(raw, sidesOf(curves, ring), byMm);
  return settleCurves(library, raw.build());
}

/** The sides of a ring as cubics, those without length left out; lines have their handles at thirds. */
function sidesOf({ verbs, coords, verbStart, coordStart }: Curves, ring: number): { readonly cubic: Cubic; readonly isLine: boolean }[] {
  const sides: { cubic: Cubic; isLine: boolean }[] = [];
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

const between = (a: Point, b: Point, t: number): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });

function offsetRing(builder: CurvesBuilder, sides: readonly { readonly cubic: Cubic; readonly isLine: boolean }[], byMm: number): void {
  if (sides.length === 0) return;
  const pen = new OffsetPen(builder, byMm);
  for (const [k, side] of sides.entries()) {
    pen.side(side.cubic, side.isLine);
    pen.corner(side.cubic, sides[(k + 1) % sides.length].cubic);
  }
  pen.close();
}

class OffsetPen {
  private first: Point | undefined;
  private at: Point = { x: 0, y: 0 };

  constructor(
    private readonly builder: CurvesBuilder,
    private readonly byMm: number,
  ) {}

  side(cubic: Cubic, isLine: boolean): void {
    this.goTo(this.offsetAt(cubic, 0));
    if (isLine) this.goTo(this.offsetAt(cubic, 1));
    else this.curve(cubic, 0);
  }

  /** From the end of one side to the start of the next: an arc around an outer corner, by the corner itself at an inner one, which makes a loop that winds the other way. */
  corner(before: Cubic, after: Cubic): void {
    const [from, to] = [directionAt(before, 1) as Point, directionAt(after, 0) as Point];
    const turn = Math.atan2(from.x * to.y - from.y * to.x, from.x * to.x + from.y * to.y);
    const start = this.offsetAt(after, 0);
    if (Math.abs(turn) > SMOOTH && turn > 0 === this.byMm > 0) this.arc(before[3], from, turn);
    else if (Math.abs(turn) > SMOOTH) this.goTo(before[3]);
    this.goTo(start);
  }

  close(): void {
    if (this.first === undefined) return;
    if (Math.hypot(this.first.x - this.at.x, this.first.y - this.at.y) > 0) this.builder.line(this.first.x, this.first.y);
    this.builder.close();
  }

  private goTo(to: Point): void {
    if (this.first === undefined) {
      this.first = to;
      this.builder.start(to.x, to.y, -1);
    } else if (Math.hypot(to.x - this.at.x, to.y - this.at.y) > SHORT_MM) this.builder.line(to.x, to.y);
    else return;
    this.at = to;
  }

  private cubicTo(a: Point, b: Point, to: Point): void {
    this.builder.cubic(a.x, a.y, b.x, b.y, to.x, to.y);
    this.at = to;
  }

  private arc(middle: Point, direction: Point, turn: number): void {
    const count = Math.max(1, Math.ceil(Math.abs(turn) / MOST_TURN));
    const step = turn / count;
    const handle = (4 / 3) * Math.tan(step / 4) * this.byMm;
    for (let k = 0; k < count; k++) {
      const [a, b] = [turned(direction, k * step), turned(direction, (k + 1) * step)];
      const [p, q] = [this.beside(middle, a), this.beside(middle, b)];
      this.cubicTo({ x: p.x + a.x * handle, y: p.y + a.y * handle }, { x: q.x - b.x * handle, y: q.y - b.y * handle }, q);
    }
  }

  /** A curve beside a cubic, halved until it lies at its distance. */
  private curve(cubic: Cubic, halvings: number): void {
    const candidate = this.candidate(cubic);
    if (candidate !== undefined && this.lies(cubic, candidate)) this.cubicTo(candidate[1], candidate[2], candidate[3]);
    else if (halvings >= MOST_HALVINGS) this.goTo(this.offsetAt(cubic, 1));
    else for (const half of halvesOf(cubic)) this.curve(half, halvings + 1);
  }

  /** The cubic with the ends and the speeds of the offset curve; undefined where that turns back. */
  private candidate(cubic: Cubic): Cubic | undefined {
    const [a, b, c, d] = cubic;
    const [from, to] = [1 + this.byMm * curvatureAt(cubic, 0), 1 + this.byMm * curvatureAt(cubic, 1)];
    if (!(from > 0 && to > 0)) return undefined;
    const [p, q] = [this.offsetAt(cubic, 0), this.offsetAt(cubic, 1)];
    return [p, { x: p.x + (b.x - a.x) * from, y: p.y + (b.y - a.y) * from }, { x: q.x + (c.x - d.x) * to, y: q.y + (c.y - d.y) * to }, q];
  }

  private lies(cubic: Cubic, candidate: Cubic): boolean {
    return MEASURED.every((t) => {
      const point = placeOf(candidate, t);
      let s = t;
      // The nearest place of the cubic, by Newton's method.
      for (let round = 0; round < 3; round++) {
        const [p, v] = [placeOf(cubic, s), speedOf(cubic, s)];
        const square = v.x * v.x + v.y * v.y;
        if (square > 0) s = Math.max(0, Math.min(1, s + ((point.x - p.x) * v.x + (point.y - p.y) * v.y) / square));
      }
      const near = placeOf(cubic, s);
      return Math.abs(Math.hypot(point.x - near.x, point.y - near.y) - Math.abs(this.byMm)) < OFF_MM;
    });
  }

  private offsetAt(cubic: Cubic, end: 0 | 1): Point {
    return this.beside(cubic[end * 3], directionAt(cubic, end) as Point);
  }

  /** The outside of a ring lies to the left of its direction, y being down. */
  private beside({ x, y }: Point, direction: Point): Point {
    return { x: x + direction.y * this.byMm, y: y - direction.x * this.byMm };
  }
}

const turned = ({ x, y }: Point, rad: number): Point => ({ x: x * Math.cos(rad) - y * Math.sin(rad), y: x * Math.sin(rad) + y * Math.cos(rad) });

/** The direction at an end, by the first point that does not lie on it; undefined where all do. */
function directionAt(cubic: Cubic, end: 0 | 1): Point | undefined {
  const points = end === 0 ? cubic : ([...cubic].reverse() as unknown as Cubic);
  for (const point of points.slice(1)) {
    const [dx, dy] = [point.x - points[0].x, point.y - points[0].y];
    const length = Math.hypot(dx, dy);
    if (length > SHORT_MM) return end === 0 ? { x: dx / length, y: dy / length } : { x: -dx / length, y: -dy / length };
  }
  return undefined;
}

/** Signed curvature at an end: above 0 where it turns clockwise on screen. */
function curvatureAt([a, b, c, d]: Cubic, end: 0 | 1): number {
  const [p, q, r] = end === 0 ? [a, b, c] : [d, c, b];
  const [ux, uy, vx, vy] = [q.x - p.x, q.y - p.y, r.x - q.x, r.y - q.y];
  const length = Math.hypot(ux, uy);
  if (length < SHORT_MM) return 0;
  return ((end === 0 ? 1 : -1) * (2 / 3) * (ux * vy - uy * vx)) / length ** 3;
}

function placeOf([a, b, c, d]: Cubic, t: number): Point {
  const u = 1 - t;
  const [p, q, r, s] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return { x: p * a.x + q * b.x + r * c.x + s * d.x, y: p * a.y + q * b.y + r * c.y + s * d.y };
}

function speedOf([a, b, c, d]: Cubic, t: number): Point {
  const u = 1 - t;
  const [p, q, r] = [3 * u * u, 6 * u * t, 3 * t * t];
  return { x: p * (b.x - a.x) + q * (c.x - b.x) + r * (d.x - c.x), y: p * (b.y - a.y) + q * (c.y - b.y) + r * (d.y - c.y) };
}

function halvesOf([a, b, c, d]: Cubic): readonly [Cubic, Cubic] {
  const [ab, bc, cd] = [between(a, b, 0.5), between(b, c, 0.5), between(c, d, 0.5)];
  const [abc, bcd] = [between(ab, bc, 0.5), between(bc, cd, 0.5)];
  const middle = between(abc, bcd, 0.5);
  return [
    [a, ab, abc, middle],
    [middle, bcd, cd, d],
  ];
}
