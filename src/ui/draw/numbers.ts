import { toScreenX, toScreenY, type Viewport } from '../viewport.ts';

/** Numbers on their places, each on a light round. */
export function drawNumbers(context: CanvasRenderingContext2D, view: Viewport, numbers: readonly { readonly x: number; readonly y: number; readonly words: string }[]): void {
  context.save();
  context.font = "700 12px 'Hanken Grotesk Variable', sans-serif";
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  for (const { x, y, words } of numbers) {
    const [sx, sy] = [toScreenX(view, x), toScreenY(view, y)];
    context.fillStyle = '#fffdf8e6';
    context.beginPath();
    context.arc(sx, sy, 10, 0, 2 * Math.PI);
    context.fill();
    context.fillStyle = '#241b2f';
    context.fillText(words, sx, sy + 0.5);
  }
  context.restore();
}
