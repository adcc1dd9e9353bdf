import type { Rgba8 } from '../../core/raster/raster.ts';

/** A picture file turned into pixels: sRGB, upright. */
export interface DecodedPicture {
  readonly picture: Rgba8;
  readonly statedDpi?: number;
}

/** Reads a picture file. One implementation for the browser, one for the command line. @throws AppError with a reading code. */
export type DecodePicture = (bytes: Uint8Array<ArrayBuffer>, file: string) => Promise<DecodedPicture>;
