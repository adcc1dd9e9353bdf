import type { Rgba8 } from '../../core/raster/raster.ts';

const kept = new WeakMap<Rgba8, HTMLCanvasElement>();

/** A picture as something that can be drawn quickly; made once for each picture. */
export function canvasOf(picture: Rgba8): HTMLCanvasElement {
  const found = kept.get(picture);
  if (found !== undefined) return found;
  const canvas = document.createElement('canvas');
  canvas.width = picture.width;
  canvas.height = picture.height;
  const { data } = picture;
  const clamped = new Uint8ClampedArray(data.buffer as ArrayBuffer, data.byteOffset, data.byteLength);
  canvas.getContext('2d')?.putImageData(new ImageData(clamped, picture.width, picture.height), 0, 0);
  kept.set(picture, canvas);
  return canvas;
}
