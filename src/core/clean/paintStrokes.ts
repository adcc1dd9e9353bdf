/** A brush stroke: the path of its centre as x, y pairs and its radius, all in picture pixels. */
export interface Stroke {
  readonly radiusPx: number;
  readonly points: readonly number[];
}

/**
 * Share of each pixel that a round brush covers along its strokes, 0 to 255, in a band one pixel wide at its rim. Coordinates are raster pixels here:
 * the caller has placed the strokes. `cover` is changed; it keeps the larger share where strokes overlap.
 */
export function paintStroke(cover: Uint8Array, width: number, height: number, points: ArrayLike<number>, radius: number): void {
  if (points.length < 2) return;
  if (points.length === 2) paintCapsule(cover, width, height, points[0], points[1], points[0], points[1], radius);
  for (let i = 2; i + 1 < points.length; i += 2) paintCapsule(cover, width, height, points[i - 2], points[i - 1], points[i], points[i + 1], radius);
}

function paintCapsule(cover: Uint8Array, width: number, height: number, x0: number, y0: number, x1: number, y1: number, radius: number): void {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const length2 = dx * dx + dy * dy;
  const left = Math.max(0, Math.floor(Math.min(x0, x1) - radius - 1));
  const right = Math.min(width - 1, Math.ceil(Math.max(x0, x1) + radius + 1));
  const top = Math.max(0, Math.floor(Math.min(y0, y1) - radius - 1));
  const bottom = Math.min(height - 1, Math.ceil(Math.max(y0, y1) + radius + 1));
  for (let y = top; y <= bottom; y++) {
    const py = y + 0.5 - y0;
    for (let x = left, i = y * width + left; x <= right; x++, i++) {
      const px = x + 0.5 - x0;
      const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / length2));
      const distance = Math.hypot(px - t * dx, py - t * dy);
      const share = radius + 0.5 - distance;
      if (share <= 0) continue;
      const value = share >= 1 ? 255 : Math.round(share * 255);
      if (value > cover[i]) cover[i] = value;
    }
  }
}
