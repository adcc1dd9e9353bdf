import sharp from 'sharp';
import type { Rgba8 } from '../src/core/raster/raster.ts';
import { withoutResolution, withResolution } from '../src/formats/picture/writePng.ts';

/** A PNG file by the native encoder, many times as fast as the portable one on a large picture. States its resolution when `pxPerMm` is given. */
export async function encodeFile({ width, height, data }: Rgba8, pxPerMm?: number): Promise<Uint8Array> {
  const png = await sharp(data, { raw: { width, height, channels: 4 }, limitInputPixels: false }).png({ compressionLevel: 4 }).toBuffer();
  // The encoder states a resolution of its own that nobody asked for.
  return pxPerMm === undefined ? withoutResolution(png) : withResolution(png, pxPerMm);
}
