import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';
import type { BridgeGrip } from './useBridges.ts';

const PAPER = '#fffdf8';
const INK = '#3b3145';
const MADDER = '#9e2f4b';
const RADIUS_PX = 5.5;

/** A grip on the middle of each bridge, with a line along it. */
export function drawBridges(context: CanvasRenderingContext2D, view: Viewport, grips: readonly BridgeGrip[], chosen: number | undefined): void {
  context.save();
  for (const [k, { from, to }] of grips.entries()) {
    const [ax, ay, bx, by] = [toScreenX(view, from.x), toScreenY(view, from.y), toScreenX(view, to.x), toScreenY(view, to.y)];
    const colour = k === chosen ? MADDER : INK;
    for (const [style, width] of [[PAPER, 4], [colour, 2]] as const) {
      context.strokeStyle = style;
      context.lineWidth = width;
      context.beginPath();
      context.moveTo(ax, ay);
      context.lineTo(bx, by);
      context.stroke();
    }
    context.beginPath();
    context.arc((ax + bx) / 2, (ay + by) / 2, RADIUS_PX, 0, 2 * Math.PI);
    context.fillStyle = k === chosen ? MADDER : PAPER;
    context.fill();
    context.strokeStyle = k === chosen ? PAPER : INK;
    context.lineWidth = 1.5;
    context.stroke();
  }
  context.restore();
}
