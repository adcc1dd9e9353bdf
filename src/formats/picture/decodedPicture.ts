import type { Rgba8 } from '../../core/raster/raster.ts';

/** A picture file turned into pixels: sRGB, upright. */
export interface DecodedPicture {
  readonly picture: Rgba8;
  readonly statedDpi?: number;
  /** Camera and focal length, where the file names them. */
  readonly camera?: string;
  /** Long side at which a vector drawing was drawn, px. */
  readonly drawnSidePx?: number;
}

export interface DecodeOptions {
  /** Long side at which a vector drawing is drawn, px. */
  readonly drawnSidePx?: number | undefined;
}

/** Reads a picture file. One implementation for the browser, one for the command line. @throws AppError with a reading code. */
export type DecodePicture = (bytes: Uint8Array<ArrayBuffer>, file: string, options?: DecodeOptions) => Promise<DecodedPicture>;
