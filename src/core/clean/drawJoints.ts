import { withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8, type ShareMap } from '../raster/raster.ts';
import { paintStroke } from './paintStrokes.ts';

/** A proposed joint: a curve from one end of a line to another or to the side of something, with the half width at both of its ends. */
export interface Joint {
  /** Points of the middle, x and y by turns, art pixels. */
  readonly points: readonly number[];
  readonly fromHalfWidthPx: number;
  readonly toHalfWidthPx: number;
  /** Length of the gap between the ink on both sides, px. */
  readonly gapPx: number;
}

/** Paints the joints in the colour of the ink beside them: a pixel holds as much ink as the joint brings or as it has, whichever is more. */
export function drawJoints(art: Art, share: ShareMap, ink: Uint8Array, joints: readonly Joint[]): Art {
  const { width, height } = art;
  const colour = new Uint8Array(art.colour.data);
  const alpha = art.alpha.slice();
  for (const joint of joints) {
    const cover = new Map<number, number>();
    paintJoint(joint, width, height, cover);
    const tone = inkTone(art, ink, joint);
    for (const [i, covered] of cover) {
      const has = share.data[i];
      if (covered <= has) continue;
      const part = alpha[i] === 0 ? 1 : (covered - has) / (255 - has);
      for (let c = 0; c < 3; c++) colour[i * 4 + c] = Math.round(colour[i * 4 + c] + (tone[c] - colour[i * 4 + c]) * part);
      alpha[i] = Math.max(alpha[i], covered);
    }
  }
  return withAlpha(art, alpha, makeRgba8(width, height, colour, art.colour.opaque === true));
}

/** Share of each pixel under a joint, its half width going over from one end's to the other's. */
export function paintJoint({ points, fromHalfWidthPx, toHalfWidthPx }: Joint, width: number, height: number, into: Map<number, number>): void {
  const margin = Math.ceil(Math.max(fromHalfWidthPx, toHalfWidthPx)) + 2;
  const xs = points.filter((_, k) => k % 2 === 0);
  const ys = points.filter((_, k) => k % 2 === 1);
  const left = Math.max(0, Math.floor(Math.min(...xs)) - margin);
  const top = Math.max(0, Math.floor(Math.min(...ys)) - margin);
  const w = Math.min(width, Math.ceil(Math.max(...xs)) + margin) - left;
  const h = Math.min(height, Math.ceil(Math.max(...ys)) + margin) - top;
  const cover = new Uint8Array(w * h);
  const last = points.length / 2 - 1;
  for (let k = 0; k < last; k++) {
    const radius = fromHalfWidthPx + ((toHalfWidthPx - fromHalfWidthPx) * (k + 0.5)) / last;
    paintStroke(cover, w, h, [points[2 * k] - left, points[2 * k + 1] - top, points[2 * k + 2] - left, points[2 * k + 3] - top], radius);
  }
  for (let i = 0; i < cover.length; i++) if (cover[i] !== 0) into.set((top + Math.floor(i / w)) * width + left + (i % w), cover[i]);
}

/** Middle colour of the ink within a few px of the joint's first point. */
function inkTone(art: Art, ink: Uint8Array, { points, fromHalfWidthPx }: Joint): [number, number, number] {
  const { width, height } = art;
  const reach = Math.ceil(fromHalfWidthPx) + 2;
  const near: number[] = [];
  const x = Math.floor(points[0]);
  const y = Math.floor(points[1]);
  for (let yy = Math.max(0, y - reach); yy <= Math.min(height - 1, y + reach); yy++)
    for (let xx = Math.max(0, x - reach); xx <= Math.min(width - 1, x + reach); xx++) if (ink[yy * width + xx] !== 0) near.push(yy * width + xx);
  const middle = (c: number): number => near.map((i) => art.colour.data[i * 4 + c]).sort((a, b) => a - b)[near.length >> 1] ?? 0;
  return [middle(0), middle(1), middle(2)];
}
