import type { Design } from '../assemble/design.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { mirrorAbout } from '../geometry/affine.ts';
import { CurvesBuilder, ringCount, type Curves } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { mm } from '../units/length.ts';
import { boxCurves } from './cutPlan.ts';
import type { StencilUse } from './layout.ts';
import { registerRoomMm, roundAt } from './registerMarks.ts';

/** Two halves may differ by this share of their openings: bridges and the hand of who drew it. */
export const MOST_DIFFERENT = 0.06;
/** Film that is left beyond the axis of half a stencil, in sizes of a hole. */
const BEYOND_AXIS = 3;

/** A stencil that is used more than once: what of it is cut, and the holes by which it is laid again. */
export interface UsedStencil {
  readonly design: Design;
  /** Holes above and below, in mm of the design. */
  readonly holes: Curves;
  /** What they take above the design, mm. */
  readonly roomMm: number;
}

/** Rows of a stencil that is laid over a surface are no nearer than this, mm: between them its holes lie. */
export const leastDownMm = (heightMm: number, holeMm: number): number => heightMm + registerRoomMm(holeMm);

/** How much the right half of a design differs from its left one turned over, as a share of its openings; 0 where nothing is cut. */
export function halvesDiffer(library: PolygonLibrary, { widthMm, layers }: Pick<Design, 'widthMm' | 'layers'>): number {
  let [all, common] = [0, 0];
  for (const { curves } of layers) {
    if (ringCount(curves) === 0) continue;
    all += areaOf(curves);
    common += areaOf(combineCurves(library, 'common', curves, transformCurves(curves, mirrorAbout(widthMm / 2))));
  }
  return all === 0 ? 0 : Math.max(0, 1 - common / all);
}

/**
 * What is cut of a stencil that is turned over about its upright middle, or laid again and again along a line or over a surface: its left half, or all of it, with round holes above and below that are marked through once and found again. Turned over they lie where
 * they lay; a step further the left ones lie where the right ones did, and a row further down the upper ones where the lower ones did: rows lie at least so far apart that these holes are clear of the art.
 */
export function usedStencil(library: PolygonLibrary, design: Design, { manner, everyMm, downMm, holeMm }: StencilUse): UsedStencil {
  const { widthMm, heightMm, layers } = design;
  const roomMm = registerRoomMm(holeMm);
  const step = Math.max(everyMm ?? widthMm, holeMm);
  const upper = holeMm / 2 - roomMm;
  const lower = manner === 'repeat' && downMm !== undefined ? upper + Math.max(downMm, leastDownMm(heightMm, holeMm)) : heightMm + roomMm - holeMm / 2;
  const columns = manner === 'half' ? [widthMm / 2] : [holeMm / 2, holeMm / 2 + step];
  const builder = new CurvesBuilder();
  for (const x of columns) for (const y of [upper, lower]) roundAt(builder, x, y, holeMm / 2);
  const holes = builder.build();
  const onSheet = { heightMm: mm(Math.max(heightMm + roomMm, lower + holeMm / 2)), layers };
  if (manner === 'repeat') return { design: { ...design, ...onSheet, widthMm: mm(Math.max(widthMm, step + holeMm)) }, holes, roomMm };
  const left = boxCurves([{ xMm: -1, yMm: -1, widthMm: widthMm / 2 + 1, heightMm: heightMm + 2 }]);
  const halved = layers.map((layer) => ({ ...layer, curves: ringCount(layer.curves) === 0 ? layer.curves : combineCurves(library, 'common', layer.curves, left) }));
  return { design: { ...design, ...onSheet, layers: halved, widthMm: mm(widthMm / 2 + BEYOND_AXIS * holeMm) }, holes, roomMm };
}

const areaOf = (curves: Curves): number => piecesOf(curves).reduce((sum, { area }) => sum + area, 0);
