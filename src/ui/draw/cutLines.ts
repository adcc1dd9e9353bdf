import { lumaOf, rgbFromHex } from '../../core/colour/hex.ts';
import type { Viewport } from '../viewport.ts';

/** Colours of the two-tone cut line: it shows on black, on white and on any film. */
export interface CutLinePaint {
  readonly core: string;
  readonly casing: string;
}

export const CUT_LINE: CutLinePaint = { core: '#241b2f', casing: '#fffdf8' };

/** Strokes a path that is given in world coordinates as a cut line of even width on screen. */
export function strokeCutLine(context: CanvasRenderingContext2D, path: Path2D, view: Viewport, paint: CutLinePaint = CUT_LINE): void {
  context.save();
  context.translate(view.x, view.y);
  context.scale(view.scale, view.scale);
  context.lineJoin = 'round';
  context.strokeStyle = paint.casing;
  context.lineWidth = 2.6 / view.scale;
  context.stroke(path);
  context.strokeStyle = paint.core;
  context.lineWidth = 1.1 / view.scale;
  context.stroke(path);
  context.restore();
}

/** A thin broken line along a path, dark on light ground and light on dark: shows where film lies that has the colour of what it lies on. */
export function strokeHairline(context: CanvasRenderingContext2D, path: Path2D, view: Viewport, ground: string): void {
  const rgb = rgbFromHex(ground);
  context.save();
  context.translate(view.x, view.y);
  context.scale(view.scale, view.scale);
  context.lineWidth = 1 / view.scale;
  context.setLineDash([3 / view.scale, 3 / view.scale]);
  context.strokeStyle = rgb !== undefined && lumaOf(rgb) < 128 ? 'rgba(255, 253, 248, 0.7)' : 'rgba(36, 27, 47, 0.6)';
  context.stroke(path);
  context.restore();
}

/** Fills a path that is given in world coordinates. */
export function fillPath(context: CanvasRenderingContext2D, path: Path2D, view: Viewport, colour: string): void {
  context.save();
  context.translate(view.x, view.y);
  context.scale(view.scale, view.scale);
  context.fillStyle = colour;
  // Openings run the other way than what they lie in, and what overlaps covers.
  context.fill(path, 'nonzero');
  context.restore();
}
