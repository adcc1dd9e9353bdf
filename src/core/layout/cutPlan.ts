import type { Film } from '../film/film.ts';
import { CurvesBuilder, ringCount, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { placed } from '../geometry/affine.ts';
import { shortRoute } from '../geometry/shortRoute.ts';
import type { RectMm } from '../geometry/rectMm.ts';
import { cutRoute } from './cutRoute.ts';
import type { Sheet } from './laySheet.ts';

/** What a path is for: the art itself, the box that the waste is lifted by, a cut through the waste, a mark to line up by, a fold, or ink. */
export type PathRole = 'cut' | 'box' | 'weedLine' | 'mark' | 'fold' | 'print';

/** Paths of one role that are done one after the other. */
export interface PathRun {
  readonly role: PathRole;
  /** In mm of the sheet, y down. */
  readonly curves: Curves;
  /** What the part is called that it is of, where several jobs lie on the sheet. */
  readonly label?: string | undefined;
  /** The rings of the curves in the order in which they are done. */
  readonly order: Int32Array;
}

/** All that a machine does on one sheet, in order. Writers and machines read this and nothing else of a sheet. */
export interface CutPlan {
  readonly film: Film;
  /** Which of several sheets of its film it is, from 1; absent when it is the only one. */
  readonly number?: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly runs: readonly PathRun[];
}

/**
 * The plan of a sheet: copy after copy, so that the way between them is short, each along its own way; the openings of a piece before its outside, so that it does not move under the knife; then the cuts through the
 * waste, and the boxes last, which hold the sheet together till then.
 */
export function cutPlanOf(sheet: Sheet, film: Film): CutPlan {
  const parts = new Map(sheet.parts.map(({ id, label, curves, marks }) => [id, { ...cutRoute(curves), label, marks }]));
  const lying = sheet.placements.flatMap(({ partId, at }) => {
    const part = parts.get(partId);
    if (part === undefined || part.order.length === 0) return [];
    const first = part.curves.coordStart[part.order[0]];
    return [{ part, at, start: placed(at, part.curves.coords[first], part.curves.coords[first + 1]) }];
  });
  const { xMm, yMm } = sheet.used;
  const copies = [...shortRoute(lying.map(({ start }) => start.x), lying.map(({ start }) => start.y), xMm, yMm)].flatMap((k): PathRun[] => {
    const { part, at } = lying[k];
    const cut: PathRun = { role: 'cut', curves: transformCurves(part.curves, at), order: part.order, ...(part.label === undefined ? {} : { label: part.label }) };
    // What is drawn is drawn while the film lies flat.
    return part.marks === undefined ? [cut] : [plainRun('mark', transformCurves(part.marks, at)), cut];
  });
  const { weedLines } = sheet;
  const strips = weedLines === undefined || ringCount(weedLines) === 0 ? [] : [plainRun('weedLine', weedLines)];
  const boxes = sheet.boxes.length === 0 ? [] : [plainRun('box', boxCurves(sheet.boxes, sheet.boxRoundMm))];
  return { film, ...(sheet.number === undefined ? {} : { number: sheet.number }), widthMm: sheet.widthMm, heightMm: sheet.heightMm, runs: [...copies, ...strips, ...boxes] };
}

/** The curves of all runs of a role, one after the other. */
export const curvesOfRole = ({ runs }: CutPlan, role: PathRole): Curves => joinCurves(runs.filter((run) => run.role === role).map(({ curves }) => curves));

/** Curves that are done in the order in which they stand. */
export const plainRun = (role: PathRole, curves: Curves): PathRun => ({ role, curves, order: Int32Array.from(curves.parent.keys()) });

/** Control points of a quarter round, as a share of its radius, taken off. */
const ROUND = 1 - 0.5522847498;

/** The outlines of boxes, mm; corners round where they are. */
export function boxCurves(boxes: readonly RectMm[], roundMm = 0): Curves {
  const builder = new CurvesBuilder();
  for (const { xMm: x, yMm: y, widthMm, heightMm } of boxes) {
    const [right, bottom] = [x + widthMm, y + heightMm];
    const r = Math.min(roundMm, widthMm / 2, heightMm / 2);
    const k = r * ROUND;
    builder.start(x + r, y, -1);
    builder.line(right - r, y);
    if (r > 0) builder.cubic(right - k, y, right, y + k, right, y + r);
    builder.line(right, bottom - r);
    if (r > 0) builder.cubic(right, bottom - k, right - k, bottom, right - r, bottom);
    builder.line(x + r, bottom);
    if (r > 0) builder.cubic(x + k, bottom, x, bottom - k, x, bottom - r);
    builder.line(x, y + r);
    if (r > 0) builder.cubic(x, y + k, x + k, y, x + r, y);
    builder.close();
  }
  return builder.build();
}
