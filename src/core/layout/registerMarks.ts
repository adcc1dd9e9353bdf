import { CurvesBuilder, type Curves } from '../outline/curves.ts';

/** Between a design and the marks above it, mm. */
const AWAY_MM = 3;
/** Of a cross: how broad its arms are, as a share of its size. */
const ARM = 0.3;
/** Control points of a quarter round, as a share of its radius. */
const ROUND = 0.5522847498;

/** How much room marks take above a design, mm. */
export const registerRoomMm = (sizeMm: number): number => sizeMm + AWAY_MM;

/**
 * Marks that are cut into every film above the design, at its left and right end: a cross and a cross with a bar, so that a film that was turned over or around shows it. Of a stencil they are
 * holes, which pins or a pencil find: a round one and a square one.
 * @returns closed outlines in mm of the design, above its upper edge.
 */
export function registerMarks(widthMm: number, sizeMm: number, areHoles: boolean): Curves {
  const builder = new CurvesBuilder();
  const top = -registerRoomMm(sizeMm);
  const right = Math.max(widthMm - sizeMm, sizeMm * 1.5);
  if (areHoles) {
    roundAt(builder, sizeMm / 2, top + sizeMm / 2, sizeMm / 2);
    builder.polygon([right, top, right + sizeMm, top, right + sizeMm, top + sizeMm, right, top + sizeMm]);
    return builder.build();
  }
  const [a, b] = [((1 - ARM) / 2) * sizeMm, ((1 + ARM) / 2) * sizeMm];
  builder.polygon([a, 0, b, 0, b, a, sizeMm, a, sizeMm, b, b, b, b, sizeMm, a, sizeMm, a, b, 0, b, 0, a, a, a].map((value, k) => value + (k % 2 === 0 ? 0 : top)));
  // Its lower arm ends in a bar.
  const foot = sizeMm - (b - a);
  builder.polygon([a, 0, b, 0, b, a, sizeMm, a, sizeMm, b, b, b, b, foot, sizeMm, foot, sizeMm, sizeMm, 0, sizeMm, 0, foot, a, foot, a, b, 0, b, 0, a, a, a].map((value, k) => value + (k % 2 === 0 ? right : top)));
  return builder.build();
}

/** Adds a circle. */
export function roundAt(builder: CurvesBuilder, x: number, y: number, r: number): void {
  const k = r * ROUND;
  builder.start(x + r, y, -1);
  builder.cubic(x + r, y + k, x + k, y + r, x, y + r);
  builder.cubic(x - k, y + r, x - r, y + k, x - r, y);
  builder.cubic(x - r, y - k, x - k, y - r, x, y - r);
  builder.cubic(x + k, y - r, x + r, y - k, x + r, y);
  builder.close();
}
