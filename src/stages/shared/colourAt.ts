import { hexFromRgb } from '../../core/colour/hex.ts';
import type { OpenedPicture } from '../../engine/protocol.ts';

/** Colour of a picture at a point in picture px, read from its reduced view; undefined outside. */
export function colourAt({ view, widthPx, heightPx }: Pick<OpenedPicture, 'view' | 'widthPx' | 'heightPx'>, point: { readonly x: number; readonly y: number }): string | undefined {
  const x = Math.floor((point.x / widthPx) * view.width);
  const y = Math.floor((point.y / heightPx) * view.height);
  if (x < 0 || y < 0 || x >= view.width || y >= view.height) return undefined;
  const i = (y * view.width + x) * 4;
  return hexFromRgb({ r: view.data[i], g: view.data[i + 1], b: view.data[i + 2] });
}
