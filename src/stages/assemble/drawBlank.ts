import type { Blank } from '../../core/job/job.ts';
import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';

/** The blank's printable area in its own colour, with a dashed edge: beyond it nothing is printed or pressed. */
export function drawBlank(context: CanvasRenderingContext2D, view: Viewport, blank: Blank): void {
  const x = toScreenX(view, 0);
  const y = toScreenY(view, 0);
  const width = blank.widthMm * view.scale;
  const height = blank.heightMm * view.scale;
  context.save();
  context.fillStyle = blank.colour;
  context.fillRect(x - 14, y - 14, width + 28, height + 28);
  context.strokeStyle = '#b9ad9c';
  context.strokeRect(x - 14.5, y - 14.5, width + 29, height + 29);
  context.setLineDash([3, 4]);
  context.strokeStyle = '#7d7264';
  context.strokeRect(x, y, width, height);
  context.restore();
}
