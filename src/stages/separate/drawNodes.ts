import { coordsOfVerb, eachSegment, type Curves } from '../../core/outline/curves.ts';
import { toScreenX, toScreenY, type Size, type Viewport } from '../../ui/viewport.ts';

/** Marks the ends of all segments that are in view: what a knife has to turn at, and what one would edit. */
export function drawNodes(context: CanvasRenderingContext2D, view: Viewport, curves: Curves, size: Size): void {
  context.save();
  context.fillStyle = '#fffdf8';
  context.strokeStyle = '#9e2f4b';
  context.lineWidth = 1.4;
  eachSegment(curves, (coords, at, verb) => {
    const end = at + coordsOfVerb(verb);
    const x = toScreenX(view, coords[end]);
    const y = toScreenY(view, coords[end + 1]);
    if (x < -5 || y < -5 || x > size.width + 5 || y > size.height + 5) return;
    context.fillRect(x - 3, y - 3, 6, 6);
    context.strokeRect(x - 3, y - 3, 6, 6);
  });
  context.restore();
}
