import type { Blank } from '../../core/process/blanks.ts';
import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';

/** The blank's printable area in its own colour, with a dashed edge: beyond it nothing is printed or pressed. */
export function drawBlank(context: CanvasRenderingContext2D, view: Viewport, blank: Blank): void {
  const x = toScreenX(view, 0);
  const y = toScreenY(view, 0);
  const width = blank.widthMm * view.scale;
  const height = blank.heightMm * view.scale;
  const shape = (around: number): Path2D => {
    const path = new Path2D();
    if (blank.round === true) path.ellipse(x + width / 2, y + height / 2, width / 2 + around, height / 2 + around, 0, 0, 2 * Math.PI);
    else path.rect(x - around, y - around, width + 2 * around, height + 2 * around);
    return path;
  };
  context.save();
  context.fillStyle = blank.colour;
  context.fill(shape(14));
  context.strokeStyle = '#b9ad9c';
  context.stroke(shape(14.5));
  context.setLineDash([3, 4]);
  context.strokeStyle = '#7d7264';
  context.stroke(shape(0));
  context.restore();
}
