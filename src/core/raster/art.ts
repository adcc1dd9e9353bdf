import { makeRgba8, type Rgba8 } from './raster.ts';

/** Where an art raster lies in the picture. Recipe steps are written in picture pixels and find their place through it. */
export interface Frame {
  /** Left edge of the art in picture pixels. */
  readonly leftPx: number;
  /** Top edge of the art in picture pixels. */
  readonly topPx: number;
  /** Art pixels per picture pixel: 1 at full size, less in a reduced preview. */
  readonly scale: number;
}

/**
 * The picture on its way through the recipe. `colour` is shared between steps that only clear or restore, so that ten steps do not mean
 * ten copies; what is there and what is clear stands in `alpha` (0 clear, 255 opaque), which replaces the alpha bytes of `colour`.
 * `colour`'s own alpha bytes stay as the picture came: *bring back* reads them.
 */
export interface Art {
  readonly kind: 'art';
  readonly width: number;
  readonly height: number;
  readonly colour: Rgba8;
  readonly alpha: Uint8Array;
  readonly frame: Frame;
}

export function artFromPicture(picture: Rgba8, scale = 1): Art {
  const { width, height, data } = picture;
  const alpha = new Uint8Array(width * height);
  if (picture.opaque === true) alpha.fill(255);
  else for (let i = 0, j = 3; i < alpha.length; i++, j += 4) alpha[i] = data[j];
  return { kind: 'art', width, height, colour: picture, alpha, frame: { leftPx: 0, topPx: 0, scale } };
}

/** The same art with other alpha, and with other colours where a step took the old ground's tint off. */
export function withAlpha(art: Art, alpha: Uint8Array, colour: Rgba8 = art.colour): Art {
  if (alpha.length !== art.alpha.length) throw new RangeError(`alpha needs ${art.alpha.length} values, got ${alpha.length}`);
  return { ...art, alpha, colour };
}

/** The art as a picture, its alpha in place. */
export function pictureFromArt(art: Art): Rgba8 {
  const data = new Uint8Array(art.colour.data);
  const { alpha } = art;
  for (let i = 0, j = 3; i < alpha.length; i++, j += 4) data[j] = alpha[i];
  return makeRgba8(art.width, art.height, data, isOpaque(alpha));
}

/** Position of a picture point in the art, in art pixels. */
export const artXFromPicture = (frame: Frame, xPx: number): number => (xPx - frame.leftPx) * frame.scale;
export const artYFromPicture = (frame: Frame, yPx: number): number => (yPx - frame.topPx) * frame.scale;

/** Whether no pixel is clear, not even partly. Looks at four at a time. */
export function isOpaque(alpha: Uint8Array): boolean {
  let i = 0;
  if (alpha.byteOffset % 4 === 0) {
    const fours = new Uint32Array(alpha.buffer, alpha.byteOffset, alpha.length >> 2);
    for (let k = 0; k < fours.length; k++) if (fours[k] !== 0xffffffff) return false;
    i = fours.length * 4;
  }
  for (; i < alpha.length; i++) if (alpha[i] !== 255) return false;
  return true;
}
