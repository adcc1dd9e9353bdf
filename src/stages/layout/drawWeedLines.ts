import type { WeedLinePlace } from '../../core/layout/weedLines.ts';
import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';
import { gripOf } from './useWeedLines.ts';

const PAPER = '#fffdf8';
const INK = '#3b3145';
const MADDER = '#9e2f4b';
const HALF_PX = 5;

/** A grip at the end of each weed line; of one that was left out an empty one, with a dotted line where it would run. */
export function drawWeedLineGrips(context: CanvasRenderingContext2D, view: Viewport, places: readonly WeedLinePlace[], chosen: number | undefined): void {
  context.save();
  for (const [k, place] of places.entries()) {
    const grip = gripOf(place);
    const [x, y] = [toScreenX(view, grip.x), toScreenY(view, grip.y)];
    const colour = k === chosen ? MADDER : INK;
    if (k === chosen || place.isLeftOut) {
      context.strokeStyle = colour;
      context.lineWidth = 1;
      context.setLineDash([2, 4]);
      context.beginPath();
      context.moveTo(x, y);
      context.lineTo(toScreenX(view, place.isUpright ? place.atMm : place.toMm), toScreenY(view, place.isUpright ? place.toMm : place.atMm));
      context.stroke();
      context.setLineDash([]);
    }
    // A wedge on the box's edge that points along the line.
    context.beginPath();
    const corners = place.isUpright ? [[-HALF_PX, -HALF_PX], [HALF_PX, -HALF_PX], [0, HALF_PX]] : [[-HALF_PX, -HALF_PX], [HALF_PX, 0], [-HALF_PX, HALF_PX]];
    for (const [dx, dy] of corners) context.lineTo(x + dx, y + dy);
    context.closePath();
    context.fillStyle = place.isLeftOut ? PAPER : colour;
    context.fill();
    context.strokeStyle = place.isLeftOut ? colour : PAPER;
    context.lineWidth = 1.5;
    context.stroke();
  }
  context.restore();
}
