import type { Film } from '../film/film.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { translation } from '../geometry/affine.ts';
import type { Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { boxCurves, curvesOfRole, type CutPlan } from './cutPlan.ts';

/** Side of the test cut, and what is free around it, mm. */
const SIDE_MM = 26;
const EDGE_MM = 2;

const at = (curves: Curves, x: number, y: number): Curves => transformCurves(curves, translation(EDGE_MM + x, EDGE_MM + y));
const inOrder = (curves: Curves): Int32Array => Int32Array.from(curves.parent.keys());

/**
 * A small cut to try a film with before the sheet: a pennant whose corners must not round, a ring and a wave whose small curves must close and stay even, and a box that lifts off in one when the knife goes through
 * the film and not through its carrier.
 */
export function testCut(film: Film): CutPlan {
  const art = [
    at(figureCurves({ form: 'polygon', widthMm: 9, heightMm: 8, corners: 3, cornerMm: 0 }), 3, 3),
    at(figureCurves({ form: 'ring', widthMm: 7, heightMm: 7, bandMm: 1.2 }), 15.5, 3.5),
    at(figureCurves({ form: 'wave', widthMm: 20, heightMm: 5, bandMm: 1.5, waves: 4 }), 3, 13.5),
    at(figureCurves({ form: 'star', widthMm: 4.5, heightMm: 4.5, corners: 5, depth: 0.55, cornerMm: 0 }), 10.75, 19.5),
  ];
  const size = SIDE_MM + 2 * EDGE_MM;
  const box = boxCurves([{ xMm: EDGE_MM, yMm: EDGE_MM, widthMm: SIDE_MM, heightMm: SIDE_MM }], 3);
  return { film, widthMm: size, heightMm: size, runs: [...art.map((curves) => ({ role: 'cut' as const, curves, order: inOrder(curves) })), { role: 'box', curves: box, order: inOrder(box) }] };
}

/** A sheet as it is drawn with a pen on paper to judge its size and place: the outlines of the art and its boxes, nothing cut. */
export function penDrawing(plan: CutPlan): CutPlan {
  const drawn = [curvesOfRole(plan, 'cut'), curvesOfRole(plan, 'box')].filter(({ parent }) => parent.length > 0);
  return { ...plan, runs: drawn.map((curves) => ({ role: 'mark', curves, order: inOrder(curves) })) };
}
