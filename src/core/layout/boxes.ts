import type { RectMm } from '../geometry/rectMm.ts';
import { boundsOf, boxOfPoints, ringCount, type Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import type { Placement, SheetPart } from './laySheet.ts';

/** A rectangle larger by so much on each side. */
export const grown = ({ xMm, yMm, widthMm, heightMm }: RectMm, byMm: number): RectMm => ({ xMm: xMm - byMm, yMm: yMm - byMm, widthMm: widthMm + 2 * byMm, heightMm: heightMm + 2 * byMm });

/** Boxes around each piece that lies on a sheet, so far away; those that touch become one, again until none do. */
export function boxesOfPieces(parts: readonly SheetPart[], placements: readonly Placement[], marginMm: number): RectMm[] {
  const curvesOf = new Map(parts.map(({ id, curves }) => [id, curves]));
  const rects = placements.flatMap(({ partId, at }) => {
    const curves = curvesOf.get(partId);
    return curves === undefined ? [] : piecesBoxes(transformCurves(curves, at)).map((rect) => grown(rect, marginMm));
  });
  return mergedRects(rects);
}

function piecesBoxes(curves: Curves): RectMm[] {
  return Array.from({ length: ringCount(curves) }, (_, ring) => ring)
    .filter((ring) => curves.parent[ring] < 0)
    .map((ring) => {
      const { left, top, right, bottom } = boxOfPoints(curves.coords, curves.coordStart[ring] / 2, curves.coordStart[ring + 1] / 2);
      return { xMm: left, yMm: top, widthMm: right - left, heightMm: bottom - top };
    });
}

/** Whether two rectangles have a place in common, be it of their edges. */
export const touch = (a: RectMm, b: RectMm): boolean => a.xMm <= b.xMm + b.widthMm && b.xMm <= a.xMm + a.widthMm && a.yMm <= b.yMm + b.heightMm && b.yMm <= a.yMm + a.heightMm;

/** Rectangles around those that touch, so that none of them touch any more. Sorted along x; quadratic only in how many lie beside each other. */
export function mergedRects(rects: readonly RectMm[]): RectMm[] {
  let left = [...rects].sort((a, b) => a.xMm - b.xMm);
  for (let count = -1; count !== left.length;) {
    count = left.length;
    const done: RectMm[] = [];
    for (const rect of left) {
      const at = done.findIndex((each) => touch(each, rect));
      if (at < 0) done.push(rect);
      else done[at] = around(done[at], rect);
    }
    left = done;
  }
  return left;
}

/** The rectangle around two. */
export function around(a: RectMm, b: RectMm): RectMm {
  const [xMm, yMm] = [Math.min(a.xMm, b.xMm), Math.min(a.yMm, b.yMm)];
  return { xMm, yMm, widthMm: Math.max(a.xMm + a.widthMm, b.xMm + b.widthMm) - xMm, heightMm: Math.max(a.yMm + a.heightMm, b.yMm + b.heightMm) - yMm };
}

/** The rectangle around outlines, mm; undefined without any. */
export function rectAround(curves: Curves): RectMm | undefined {
  const box = boundsOf(curves);
  return box === undefined ? undefined : { xMm: box.left, yMm: box.top, widthMm: box.right - box.left, heightMm: box.bottom - box.top };
}
