import { settleCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { halvesOf, sidesOf, type Cubic, type Point } from '../combine/sides.ts';
import { translation } from '../geometry/affine.ts';
import { CurvesBuilder, isOpenRing, ringCount, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';

/** Where a curve turns to the shadow's direction is known so well: a share of its length. */
const HALVINGS = 24;

/** Outlines moved; of a long shadow with all that they pass over on the way. */
export function shadowCurves(library: PolygonLibrary, curves: Curves, xMm: number, yMm: number, isLong: boolean): Curves {
  const moved = transformCurves(curves, translation(xMm, yMm));
  if (!isLong || (xMm === 0 && yMm === 0)) return moved;
  const swept = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) {
    if (isOpenRing(curves, ring)) continue;
    for (const { cubic, isLine } of sidesOf(curves, ring)) for (const part of isLine ? [cubic] : monotonous(cubic, xMm, yMm)) sweep(swept, part, isLine, xMm, yMm);
  }
  return settleCurves(library, joinCurves([curves, moved, swept.build()]));
}

/** What a side passes over, clockwise. */
function sweep(builder: CurvesBuilder, [a, b, c, d]: Cubic, isLine: boolean, x: number, y: number): void {
  const across = (d.x - a.x) * y - (d.y - a.y) * x;
  if (Math.abs(across) < 1e-9) return;
  const moved = (p: Point): Point => ({ x: p.x + x, y: p.y + y });
  const go = (p: Point, q: Point, to: Point): void => (isLine ? builder.line(to.x, to.y) : builder.cubic(p.x, p.y, q.x, q.y, to.x, to.y));
  builder.start(a.x, a.y, -1);
  if (across > 0) {
    go(b, c, d);
    builder.line(d.x + x, d.y + y);
    go(moved(c), moved(b), moved(a));
    builder.line(a.x, a.y);
  } else {
    builder.line(a.x + x, a.y + y);
    go(moved(b), moved(c), moved(d));
    builder.line(d.x, d.y);
    go(c, b, a);
  }
  builder.close();
}

/** Parts of a cubic that go to one side of a direction only. */
function monotonous(cubic: Cubic, x: number, y: number): Cubic[] {
  const across = (p: Point, q: Point): number => (q.x - p.x) * y - (q.y - p.y) * x;
  const split = (part: Cubic, depth: number): Cubic[] => {
    const [a, b, c, d] = part;
    const ways = [across(a, b), across(b, c), across(c, d)].filter((way) => Math.abs(way) > 1e-12);
    if (depth >= HALVINGS || ways.every((way) => way > 0) || ways.every((way) => way < 0)) return [part];
    return halvesOf(part).flatMap((half) => split(half, depth + 1));
  };
  return split(cubic, 0);
}
