/**
 * Rasters are plain structs: a typed array with its width and height, told apart by `kind`. Row by row, top left first.
 * None of them is changed after it was made; functions give new ones.
 */

/** Colour picture: sRGB transfer curve, straight (not premultiplied) alpha, 4 bytes a pixel. */
export interface Rgba8 {
  readonly kind: 'rgba8';
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
  /** Known to have no clear pixel, because its file cannot hold one. Absent when that was not looked at. */
  readonly opaque?: true;
}

/** Share of ink in each pixel, 0 (none) to 255 (all): on an edge it says where inside the pixel the edge runs. */
export interface ShareMap {
  readonly kind: 'share';
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** Which pixels belong to something: 0 or 1. */
export interface Mask {
  readonly kind: 'mask';
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** Most pixels on which Limner works: two 50-megapixel phone pictures. */
export const MAX_PIXELS = 100_000_000;
export const MAX_SIDE_PX = 30_000;

function checkSize(kind: string, width: number, height: number, length: number, channels: number): void {
  if (!Number.isInteger(width) || !Number.isInteger(height) || width < 1 || height < 1)
    throw new RangeError(`${kind}: size must be whole and at least 1 × 1, got ${width} × ${height}`);
  if (length !== width * height * channels) throw new RangeError(`${kind}: ${width} × ${height} needs ${width * height * channels} values, got ${length}`);
}

export function makeRgba8(width: number, height: number, data: Uint8Array = new Uint8Array(width * height * 4), opaque = false): Rgba8 {
  checkSize('rgba8', width, height, data.length, 4);
  return opaque ? { kind: 'rgba8', width, height, data, opaque } : { kind: 'rgba8', width, height, data };
}

/** Whether every pixel of RGBA bytes is opaque. */
export function hasNoClear(rgba: Uint8Array): boolean {
  for (let i = 3; i < rgba.length; i += 4) if (rgba[i] !== 255) return false;
  return true;
}

export function makeShareMap(width: number, height: number, data: Uint8Array = new Uint8Array(width * height)): ShareMap {
  checkSize('share', width, height, data.length, 1);
  return { kind: 'share', width, height, data };
}

export function makeMask(width: number, height: number, data: Uint8Array = new Uint8Array(width * height)): Mask {
  checkSize('mask', width, height, data.length, 1);
  return { kind: 'mask', width, height, data };
}

/**
 * Pixels seen as one 32-bit value each, for comparing whole colours. Signed, so that an opaque pixel's word stays a machine integer in hot loops,
 * where an unsigned one would be carried as a double. Copies only when the bytes are not aligned.
 */
export function wordsOf(picture: Rgba8): Int32Array {
  const { data } = picture;
  if (data.byteOffset % 4 === 0) return new Int32Array(data.buffer, data.byteOffset, data.byteLength / 4);
  return new Int32Array(data.slice().buffer);
}

/**
 * Pixels that a hot loop takes at a time. A function that is called for band after band is soon compiled well; one call that loops over twelve
 * million pixels is only patched while it runs, and takes two to three times as long the first time.
 */
export const BAND = 1 << 14;
