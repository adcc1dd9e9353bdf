import type { Size, Viewport } from '../../ui/viewport.ts';

/** Designs of fewer nodes are drawn anew each time: that is quick enough. */
const QUICK_NODES = 12_000;
/** The view rests for so long before a crowded design is drawn sharply again, ms. */
const REST_MS = 140;

/** Draws a crowded design while one zooms and pans: as it was drawn last, moved and scaled, and sharply once the view rests. */
export class DesignBitmap {
  private canvas: HTMLCanvasElement | undefined;
  private view: Viewport = { scale: 1, x: 0, y: 0 };
  private key: unknown;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private isDue = false;

  /** @param onRest asks for another drawing. */
  constructor(private readonly onRest: () => void) {}

  /** @param key what is drawn: another one is drawn at once. @param draw draws it on a context in CSS px. */
  draw(context: CanvasRenderingContext2D, view: Viewport, size: Size, nodes: number, key: unknown, draw: (context: CanvasRenderingContext2D) => void): void {
    if (nodes < QUICK_NODES) {
      this.canvas = undefined;
      draw(context);
      return;
    }
    const sameView = view.scale === this.view.scale && view.x === this.view.x && view.y === this.view.y;
    if (this.canvas === undefined || key !== this.key || (!sameView && this.isDue)) this.render(view, size, key, draw);
    else if (!sameView) this.wait();
    this.blit(context, view);
  }

  /** Ends waiting. */
  stop(): void {
    clearTimeout(this.timer);
  }

  private render(view: Viewport, size: Size, key: unknown, draw: (context: CanvasRenderingContext2D) => void): void {
    const ratio = window.devicePixelRatio;
    const canvas = (this.canvas ??= document.createElement('canvas'));
    canvas.width = Math.max(1, Math.round(size.width * ratio));
    canvas.height = Math.max(1, Math.round(size.height * ratio));
    const context = canvas.getContext('2d');
    if (context === null) return;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    draw(context);
    [this.view, this.key, this.isDue] = [view, key, false];
  }

  private wait(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.isDue = true;
      this.onRest();
    }, REST_MS);
  }

  private blit(context: CanvasRenderingContext2D, view: Viewport): void {
    if (this.canvas === undefined) return;
    const { canvas } = this;
    const ratio = window.devicePixelRatio;
    const by = view.scale / this.view.scale;
    context.drawImage(canvas, view.x - this.view.x * by, view.y - this.view.y * by, (canvas.width / ratio) * by, (canvas.height / ratio) * by);
  }
}
