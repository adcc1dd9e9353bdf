import type { Rgba8 } from '../../core/raster/raster.ts';
import { fillPath, strokeCutLine } from '../../ui/draw/cutLines.ts';
import { fillHatch, type BackdropPaint } from '../../ui/draw/hatch.ts';
import { toScreenX, toScreenY, type Box, type Size, type Viewport } from '../../ui/viewport.ts';
import { canvasOf } from './bitmaps.ts';

/** A picture and where it lies, in picture px. */
export interface Placed {
  readonly pixels: Rgba8;
  readonly box: Box;
}

type Context = CanvasRenderingContext2D;

/** Hatches a world box: there, nothing is. */
export function drawClear(context: Context, view: Viewport, box: Box, paint: BackdropPaint): void {
  fillHatch(context, paint, toScreenX(view, box.x), toScreenY(view, box.y), box.width * view.scale, box.height * view.scale);
}

export function drawPlaced(context: Context, view: Viewport, { pixels, box }: Placed): void {
  context.imageSmoothingEnabled = view.scale < (2 * pixels.width) / box.width;
  context.imageSmoothingQuality = 'high';
  context.drawImage(canvasOf(pixels), toScreenX(view, box.x), toScreenY(view, box.y), box.width * view.scale, box.height * view.scale);
}

/** The cut view: film where it stays, hatch where the waste was lifted, cut lines between. `path` is in world coordinates. */
export function drawCut(context: Context, view: Viewport, path: Path2D, film: string): void {
  fillPath(context, path, view, film);
  strokeCutLine(context, path, view);
}

/** Calls `draw` with drawing confined to one side of an upright divider, screen px. */
export function onSide(context: Context, size: Size, from: number, to: number, draw: () => void): void {
  context.save();
  context.beginPath();
  context.rect(from, 0, Math.max(0, to - from), size.height);
  context.clip();
  draw();
  context.restore();
}
