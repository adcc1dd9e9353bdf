/** How world coordinates (picture px, or mm of a sheet or blank) lie on the screen: screen = world · scale + offset, in CSS px. */
export interface Viewport {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

const LEAST_SCALE = 0.005;
const MOST_SCALE = 200;

export const toScreenX = (view: Viewport, x: number): number => x * view.scale + view.x;
export const toScreenY = (view: Viewport, y: number): number => y * view.scale + view.y;
export const toWorldX = (view: Viewport, x: number): number => (x - view.x) / view.scale;
export const toWorldY = (view: Viewport, y: number): number => (y - view.y) / view.scale;

/** Shows the whole box in the middle, with at least `marginPx` of room around it. */
export function fitted(box: Box, size: Size, marginPx = 48): Viewport {
  const room = (available: number): number => Math.max(20, available - 2 * marginPx);
  const scale = clampScale(Math.min(room(size.width) / Math.max(box.width, 1e-6), room(size.height) / Math.max(box.height, 1e-6)));
  return { scale, x: (size.width - box.width * scale) / 2 - box.x * scale, y: (size.height - box.height * scale) / 2 - box.y * scale };
}

/** Zooms by a factor so that the world point under the given screen point stays there. */
export function zoomedAt(view: Viewport, factor: number, screenX: number, screenY: number): Viewport {
  const scale = clampScale(view.scale * factor);
  const worldX = toWorldX(view, screenX);
  const worldY = toWorldY(view, screenY);
  return { scale, x: screenX - worldX * scale, y: screenY - worldY * scale };
}

/** Whether a world point is well inside what is shown. */
export function isInSight(view: Viewport, size: Size, x: number, y: number, marginPx = 60): boolean {
  const screenX = toScreenX(view, x);
  const screenY = toScreenY(view, y);
  return screenX >= marginPx && screenY >= marginPx && screenX <= size.width - marginPx && screenY <= size.height - marginPx;
}

/** The same scale, with a world point in the middle. */
export const centredOn = (view: Viewport, size: Size, x: number, y: number): Viewport => ({ scale: view.scale, x: size.width / 2 - x * view.scale, y: size.height / 2 - y * view.scale });

export const panned = (view: Viewport, dx: number, dy: number): Viewport => ({ scale: view.scale, x: view.x + dx, y: view.y + dy });

const clampScale = (scale: number): number => Math.max(LEAST_SCALE, Math.min(MOST_SCALE, scale));
