/**
 * Keeps what has not changed since the last frame as pixels, so that a stroke or a pointer over a large picture costs one copy and not the whole scene.
 * One instance belongs to one canvas.
 */
export class StillLayer {
  private readonly canvas = document.createElement('canvas');
  private known: readonly unknown[] = [];

  /**
   * Draws the still part of a scene.
   * @param on everything that it depends on, compared one by one. @param draw draws it, when one of them changed.
   */
  draw(context: CanvasRenderingContext2D, on: readonly unknown[], draw: (context: CanvasRenderingContext2D) => void): void {
    const { canvas } = this;
    const { width, height } = context.canvas;
    const transform = context.getTransform();
    const key = [width, height, transform.a, transform.d, transform.e, transform.f, ...on];
    if (key.length !== this.known.length || key.some((value, k) => value !== this.known[k])) {
      const own = canvas.getContext('2d');
      if (own === null) {
        draw(context);
        return;
      }
      // A new size clears the canvas too.
      canvas.width = width;
      canvas.height = height;
      own.setTransform(transform);
      draw(own);
      this.known = key;
    }
    context.save();
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(canvas, 0, 0);
    context.restore();
  }
}
