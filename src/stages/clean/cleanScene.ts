import type { Stroke } from '../../core/clean/paintStrokes.ts';
import type { RectPx } from '../../core/raster/crop.ts';
import type { ReachView } from '../../engine/protocol.ts';
import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';

type Context = CanvasRenderingContext2D;

const INK = '#241b2f';
const PAPER = '#fffdf8';
const MADDER = '#9e2f4b';

/** The crop frame with its handles; what is outside is dimmed. */
export function drawCropFrame(context: Context, view: Viewport, rect: RectPx, picture: { widthPx: number; heightPx: number }): void {
  const x = toScreenX(view, rect.xPx);
  const y = toScreenY(view, rect.yPx);
  const w = rect.widthPx * view.scale;
  const h = rect.heightPx * view.scale;
  context.save();
  context.fillStyle = 'rgb(36 27 47 / 45%)';
  context.beginPath();
  context.rect(toScreenX(view, 0), toScreenY(view, 0), picture.widthPx * view.scale, picture.heightPx * view.scale);
  context.rect(x, y, w, h);
  context.fill('evenodd');
  for (const [colour, width] of [[PAPER, 3], [INK, 1.2]] as const) {
    context.strokeStyle = colour;
    context.lineWidth = width;
    context.strokeRect(x, y, w, h);
  }
  for (const hx of [x, x + w / 2, x + w]) {
    for (const hy of [y, y + h / 2, y + h]) {
      if (hx === x + w / 2 && hy === y + h / 2) continue;
      context.fillStyle = PAPER;
      context.fillRect(hx - 4.5, hy - 4.5, 9, 9);
      context.strokeStyle = INK;
      context.lineWidth = 1.2;
      context.strokeRect(hx - 4.5, hy - 4.5, 9, 9);
    }
  }
  context.restore();
}

/** A plain frame around a part of the picture, in the accent. */
export function drawFrame(context: Context, view: Viewport, { xPx, yPx, widthPx, heightPx }: RectPx): void {
  context.save();
  context.strokeStyle = MADDER;
  context.lineWidth = 1.4;
  context.setLineDash([4, 3]);
  context.strokeRect(toScreenX(view, xPx), toScreenY(view, yPx), widthPx * view.scale, heightPx * view.scale);
  context.restore();
}

/** The four corners of a rectangle that is to come out square, with the side whose length is known marked. */
export function drawCorners(context: Context, view: Viewport, corners: readonly { readonly xPx: number; readonly yPx: number }[], held: number | undefined): void {
  const at = corners.map(({ xPx, yPx }) => [toScreenX(view, xPx), toScreenY(view, yPx)] as const);
  context.save();
  for (const [colour, width] of [[PAPER, 3], [INK, 1.2]] as const) {
    context.strokeStyle = colour;
    context.lineWidth = width;
    context.beginPath();
    at.forEach(([x, y], k) => (k === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
    context.closePath();
    context.stroke();
  }
  if (at.length === 4) {
    context.strokeStyle = MADDER;
    context.lineWidth = 3;
    context.beginPath();
    context.moveTo(at[0][0], at[0][1]);
    context.lineTo(at[1][0], at[1][1]);
    context.stroke();
  }
  at.forEach(([x, y], k) => {
    // Open in the middle, so that the corner under it stays in sight.
    for (const [colour, width] of [[PAPER, 5], [k === held ? MADDER : INK, 2]] as const) {
      context.strokeStyle = colour;
      context.lineWidth = width;
      context.beginPath();
      context.arc(x, y, 9, 0, 2 * Math.PI);
      context.stroke();
    }
  });
  context.restore();
}

/** The tinted area of a lift under way, where the reduced art lies in the picture. */
export function drawLiftLayer(context: Context, view: Viewport, layer: HTMLCanvasElement, { frame, width, height }: ReachView): void {
  context.imageSmoothingEnabled = false;
  context.drawImage(layer, toScreenX(view, frame.leftPx), toScreenY(view, frame.topPx), (width / frame.scale) * view.scale, (height / frame.scale) * view.scale);
}

/** The pull from the pressed point to the pointer. */
export function drawPull(context: Context, from: { screenX: number; screenY: number }, to: { screenX: number; screenY: number }): void {
  context.save();
  context.strokeStyle = INK;
  context.lineWidth = 1.5;
  context.setLineDash([5, 4]);
  context.beginPath();
  context.moveTo(from.screenX, from.screenY);
  context.lineTo(to.screenX, to.screenY);
  context.stroke();
  context.setLineDash([]);
  context.fillStyle = PAPER;
  context.beginPath();
  context.arc(from.screenX, from.screenY, 5, 0, 2 * Math.PI);
  context.fill();
  context.stroke();
  context.restore();
}

/** A stroke under way: what it goes over is marked in its own width. */
export function drawStroke(context: Context, view: Viewport, stroke: Stroke, colour: string): void {
  context.save();
  context.strokeStyle = colour;
  // With a pen the widest place is shown; the step itself follows the pressure.
  context.lineWidth = 2 * stroke.radiusPx * Math.max(...(stroke.widths ?? [1])) * view.scale;
  context.lineCap = 'round';
  context.lineJoin = 'round';
  context.beginPath();
  context.moveTo(toScreenX(view, stroke.points[0]), toScreenY(view, stroke.points[1]));
  for (let i = 2; i < stroke.points.length; i += 2) context.lineTo(toScreenX(view, stroke.points[i]), toScreenY(view, stroke.points[i + 1]));
  if (stroke.points.length === 2) context.lineTo(toScreenX(view, stroke.points[0]) + 0.01, toScreenY(view, stroke.points[1]));
  context.stroke();
  context.restore();
}

/** A stroke that goes around an area: the area is marked. */
export function drawLasso(context: Context, view: Viewport, { points }: Stroke, colour: string): void {
  context.save();
  context.fillStyle = colour;
  context.beginPath();
  for (let i = 0; i + 1 < points.length; i += 2) context.lineTo(toScreenX(view, points[i]), toScreenY(view, points[i + 1]));
  context.closePath();
  context.fill('evenodd');
  context.strokeStyle = INK;
  context.setLineDash([4, 3]);
  context.lineWidth = 1.2;
  context.stroke();
  context.restore();
}

/** The brush's rim under the pointer. */
export function drawBrushRim(context: Context, x: number, y: number, radius: number): void {
  context.save();
  for (const [colour, width] of [[PAPER, 3], [INK, 1.2]] as const) {
    context.strokeStyle = colour;
    context.lineWidth = width;
    context.beginPath();
    context.arc(x, y, Math.max(1.5, radius), 0, 2 * Math.PI);
    context.stroke();
  }
  context.restore();
}
