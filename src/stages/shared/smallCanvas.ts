/** A canvas made ready to be drawn on at the screen's own resolution, and how many of its pixels a CSS px has; undefined before it is on the page. */
export function readyCanvas(canvas: HTMLCanvasElement | undefined, width: number, height: number): { context: CanvasRenderingContext2D; ratio: number } | undefined {
  const context = canvas?.getContext('2d');
  if (context === null || context === undefined) return undefined;
  const ratio = window.devicePixelRatio;
  context.canvas.width = width * ratio;
  context.canvas.height = height * ratio;
  return { context, ratio };
}
