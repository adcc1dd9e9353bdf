import { followedBy, rotation, translation, type Affine } from '../geometry/affine.ts';
import type { NestShape } from './nestShape.ts';
import type { Pose } from './strip.ts';

/** How a sheet lies for nesting: along its longer side, so that what is saved is its length. */
export interface SheetFrame {
  readonly widthMm: number;
  readonly lengthMm: number;
  /** From the sheet's mm to those of the strip, by a quarter turn when the sheet is higher than wide. */
  readonly toStrip: Affine;
  readonly toSheet: Affine;
}

const QUARTER = Math.PI / 2;

export function sheetFrame(widthMm: number, heightMm: number): SheetFrame {
  if (widthMm > heightMm) return { widthMm: heightMm, lengthMm: widthMm, toStrip: rotation(0, 0, 0), toSheet: rotation(0, 0, 0) };
  return { widthMm, lengthMm: heightMm, toStrip: followedBy(rotation(-QUARTER, 0, 0), translation(0, widthMm)), toSheet: followedBy(rotation(QUARTER, 0, 0), translation(widthMm, 0)) };
}

/** The turn alone that brings a part to the strip: it comes back by the other way, so that a part that is not turned reads as it did. */
export const partToStrip = ({ toStrip }: SheetFrame): Affine => ({ ...toStrip, e: 0, f: 0 });

/** From a part's own mm to the sheet's. @param roomMm how far the strip reaches over the sheet on each side: half the gap. */
export function onSheet(frame: SheetFrame, { middle }: NestShape, { x, y, angle }: Pose, roomMm: number): Affine {
  const turned = followedBy(followedBy(partToStrip(frame), translation(-middle.x, -middle.y)), rotation(angle, 0, 0));
  return followedBy(followedBy(turned, translation(x - roomMm, y - roomMm)), frame.toSheet);
}
