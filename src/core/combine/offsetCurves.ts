import { CurvesBuilder, isOpenRing, ringCount, type Curves } from '../outline/curves.ts';
import { settleCurves } from './combineCurves.ts';
import type { PolygonLibrary } from './polygonLibrary.ts';
import { directionAt, halvesOf, placeOf, SHORT_MM, sidesOf, speedOf, turned, type Cubic, type Point, type Side } from './sides.ts';

/** How far an offset curve may lie from its distance, mm. */
const OFF_MM = 0.003;
/** A curve is halved this often at most. */
const MOST_HALVINGS = 8;
/** Places at which an offset curve is measured. */
const MEASURED = [0.2, 0.4, 0.6, 0.8];
/** Turn of an arc that one cubic draws at most. */
const MOST_TURN = Math.PI / 4;
/** A sharp corner reaches no further than so many times the distance; beyond it is cut flat. */
const MOST_REACH = 4;
/** Directions that differ by less go on smoothly, radians. */
const SMOOTH = 1e-4;
/** What becomes of outer corners: an arc, the sides carried on to where they meet, or a straight cut across. */
export const OFFSET_CORNERS = ['round', 'sharp', 'flat'] as const;
export type OffsetCorners = (typeof OFFSET_CORNERS)[number];

/**
 * Outlines moved outwards, or inwards below 0, as a disc of that radius rolls along them: outer corners turn round, what comes near grows together, what is narrower than twice an inward distance goes. Lines stay lines,
 * curves become curves that lie at the distance (their ends and directions exactly; W. Tiller & E. Hanson, "Offsets of two-dimensional profiles", IEEE CG&A 4(9), 1984, doi:10.1109/MCG.1984.275995); loops are left out by their winding.
 * @param curves mm, rings in the direction of their depth.
 */
export function offsetCurves(library: PolygonLibrary, curves: Curves, byMm: number, corners: OffsetCorners = 'round'): Curves {
  if (byMm === 0) return curves;
  const raw = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) if (!isOpenRing(curves, ring)) offsetRing(raw, sidesOf(curves, ring), byMm, corners);
  return settleCurves(library, raw.build());
}

/** What becomes of the ends of a line: an arc around them, a straight cut, or one as far beyond them as the line is wide to each side. */
export type StrokeEnds = 'round' | 'flat' | 'square';

/**
 * The outline of lines of a width: what lies within `radiusMm` of them, on both sides. Rings may be open: those are walked there and back.
 * @param radiusMm above 0.
 */
export function strokeCurves(library: PolygonLibrary, curves: Curves, radiusMm: number, corners: OffsetCorners = 'round', ends: StrokeEnds = 'round'): Curves {
  const raw = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) {
    const there = sidesOf(curves, ring);
    const back = there.map(({ cubic: [a, b, c, d], isLine }) => ({ cubic: [d, c, b, a] as const, isLine })).reverse();
    if (isOpenRing(curves, ring)) offsetRing(raw, [...there, ...back], radiusMm, corners, ends);
    else for (const sides of [there, back]) offsetRing(raw, sides, radiusMm, corners);
  }
  return settleCurves(library, raw.build());
}

function offsetRing(builder: CurvesBuilder, sides: readonly Side[], byMm: number, corners: OffsetCorners, ends: StrokeEnds = 'round'): void {
  if (sides.length === 0) return;
  const pen = new OffsetPen(builder, byMm, corners, ends);
  for (const [k, side] of sides.entries()) {
    pen.corner(sides[(k + sides.length - 1) % sides.length].cubic, side.cubic);
    pen.side(side.cubic, side.isLine);
  }
  pen.close();
}

class OffsetPen {
  private first: Point | undefined;
  private at: Point = { x: 0, y: 0 };
  /** Where the line to `at` began that is not drawn yet: it may go on. */
  private lineFrom: Point | undefined;

  constructor(
    private readonly builder: CurvesBuilder,
    private readonly byMm: number,
    private readonly corners: OffsetCorners,
    private readonly ends: StrokeEnds,
  ) {}

  side(cubic: Cubic, isLine: boolean): void {
    this.goTo(this.offsetAt(cubic, 0));
    if (isLine) this.goTo(this.offsetAt(cubic, 1));
    else this.curve(cubic, 0);
  }

  /** From the end of one side to the start of the next: an arc around an outer corner, by the corner itself at an inner one, which makes a loop that winds the other way. */
  corner(before: Cubic, after: Cubic): void {
    const [from, to] = [directionAt(before, 1) as Point, directionAt(after, 0) as Point];
    const angle = Math.atan2(from.x * to.y - from.y * to.x, from.x * to.x + from.y * to.y);
    // Where a line turns back the way it came, both ways around its end are as long: it goes around the outside.
    const isEnd = Math.PI - Math.abs(angle) < SMOOTH;
    const turn = isEnd ? Math.PI * Math.sign(this.byMm) : angle;
    if (Math.abs(turn) > SMOOTH) {
      if (turn > 0 !== this.byMm > 0) this.goTo(before[3]);
      else if (isEnd) this.end(before[3], from, turn);
      else if (this.corners === 'round') this.arc(before[3], from, turn);
      else if (this.corners === 'sharp') this.point(before[3], from, turn);
    }
    this.goTo(this.offsetAt(after, 0));
  }

  private end(middle: Point, direction: Point, turn: number): void {
    if (this.ends === 'round') this.arc(middle, direction, turn);
    if (this.ends !== 'square') return;
    const [dx, dy] = [direction.x * Math.abs(this.byMm), direction.y * Math.abs(this.byMm)];
    for (const way of [direction, { x: -direction.x, y: -direction.y }]) {
      const { x, y } = this.beside(middle, way);
      this.goTo({ x: x + dx, y: y + dy });
    }
  }

  /** To where the sides meet when they are carried on, unless that is far away. */
  private point(middle: Point, direction: Point, turn: number): void {
    if (Math.cos(turn / 2) < 1 / MOST_REACH) return;
    const { x, y } = this.beside(middle, turned(direction, turn / 2));
    const reach = 1 / Math.cos(turn / 2);
    this.goTo({ x: middle.x + (x - middle.x) * reach, y: middle.y + (y - middle.y) * reach });
  }

  close(): void {
    if (this.first === undefined) return;
    this.goTo(this.first);
    this.drawLine();
    if (Math.hypot(this.first.x - this.at.x, this.first.y - this.at.y) > 0) this.builder.line(this.first.x, this.first.y);
    this.builder.close();
  }

  private drawLine(): void {
    if (this.lineFrom !== undefined) this.builder.line(this.at.x, this.at.y);
    this.lineFrom = undefined;
  }

  private goTo(to: Point): void {
    if (this.first === undefined) {
      this.first = to;
      this.builder.start(to.x, to.y, -1);
    } else if (Math.hypot(to.x - this.at.x, to.y - this.at.y) <= SHORT_MM) return;
    else if (this.lineFrom === undefined) this.lineFrom = this.at;
    else if (!goesOn(this.lineFrom, this.at, to)) {
      const from = this.at;
      this.drawLine();
      this.lineFrom = from;
    }
    this.at = to;
  }

  private cubicTo(a: Point, b: Point, to: Point): void {
    this.drawLine();
    this.builder.cubic(a.x, a.y, b.x, b.y, to.x, to.y);
    this.at = to;
  }

  private arc(middle: Point, direction: Point, turn: number): void {
    this.goTo(this.beside(middle, direction));
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
    else if (candidate === undefined && (halvings >= MOST_HALVINGS || isFlat(cubic))) this.chord(cubic);
    else if (halvings >= MOST_HALVINGS) this.goTo(this.offsetAt(cubic, 1));
    else for (const half of halvesOf(cubic)) this.curve(half, halvings + 1);
  }

  /** A bit that bends more tightly than the distance lies nowhere on the edge of what is left: as a side with inner corners at its ends it winds that away. */
  private chord(cubic: Cubic): void {
    const [a, , , d] = cubic;
    const length = Math.hypot(d.x - a.x, d.y - a.y);
    this.goTo(a);
    if (length > SHORT_MM) {
      const direction = { x: (d.x - a.x) / length, y: (d.y - a.y) / length };
      this.goTo(this.beside(a, direction));
      this.goTo(this.beside(d, direction));
      this.goTo(d);
    }
    this.goTo(this.offsetAt(cubic, 1));
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

/** Whether a line from a to b goes on to c. */
function goesOn(a: Point, b: Point, c: Point): boolean {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y];
  return ux * vx + uy * vy > 0 && Math.abs(ux * vy - uy * vx) <= SHORT_MM * Math.hypot(ux, uy);
}

/** Whether a cubic is its chord to the eye of a file. */
function isFlat([a, b, c, d]: Cubic): boolean {
  const [dx, dy] = [d.x - a.x, d.y - a.y];
  const length = Math.hypot(dx, dy);
  if (length < SHORT_MM) return false;
  const away = (p: Point): number => Math.abs((p.x - a.x) * dy - (p.y - a.y) * dx) / length;
  return Math.max(away(b), away(c)) < OFF_MM;
}


/** Signed curvature at an end: above 0 where it turns clockwise on screen. */
function curvatureAt([a, b, c, d]: Cubic, end: 0 | 1): number {
  const [p, q, r] = end === 0 ? [a, b, c] : [d, c, b];
  const [ux, uy, vx, vy] = [q.x - p.x, q.y - p.y, r.x - q.x, r.y - q.y];
  const length = Math.hypot(ux, uy);
  if (length < SHORT_MM) return 0;
  return ((end === 0 ? 1 : -1) * (2 / 3) * (ux * vy - uy * vx)) / length ** 3;
}
