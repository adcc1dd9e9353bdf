/** A brush stroke: the path of its centre as x, y pairs and its radius, all in picture pixels. */
export interface Stroke {
  readonly radiusPx: number;
  readonly points: readonly number[];
  /** Share of the radius at each point, 0 to 1, as a pen was pressed; full when absent. */
  readonly widths?: readonly number[] | undefined;
  /** Goes only over what is like the colour under its first point, up to this perceptual difference. */
  readonly within?: number | undefined;
}

/**
 * Share of each pixel that a round brush covers along its strokes, 0 to 255, in a band one pixel wide at its rim. Coordinates are raster pixels here:
 * the caller has placed the strokes. `cover` is changed; it keeps the larger share where strokes overlap.
 * @param widths share of the radius at each point.
 */
export function paintStroke(cover: Uint8Array, width: number, height: number, points: ArrayLike<number>, radius: number, widths?: ArrayLike<number>): void {
  if (points.length < 2) return;
  const at = (k: number): Disc => ({ x: points[2 * k], y: points[2 * k + 1], radius: radius * (widths?.[k] ?? 1) });
  if (points.length === 2) paintCapsule(cover, width, height, at(0), at(0));
  for (let k = 1; 2 * k + 1 < points.length; k++) paintCapsule(cover, width, height, at(k - 1), at(k));
}

interface Disc {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** What lies under a disc on its way from one place and size to another. */
function paintCapsule(cover: Uint8Array, width: number, height: number, from: Disc, to: Disc): void {
  const { x: x0, y: y0, radius: r0 } = from;
  const { x: x1, y: y1 } = to;
  const grows = to.radius - r0;
  const radius = Math.max(r0, to.radius);
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
      const share = r0 + t * grows + 0.5 - distance;
      if (share <= 0) continue;
      const value = share >= 1 ? 255 : Math.round(share * 255);
      if (value > cover[i]) cover[i] = value;
    }
  }
}
