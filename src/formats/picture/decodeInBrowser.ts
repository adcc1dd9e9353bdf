import { AppError } from '../../core/errors/appError.ts';
import { makeRgba8, type Rgba8 } from '../../core/raster/raster.ts';
import { checkPicture, type PictureHead } from './checkPicture.ts';
import type { DecodePicture } from './decodedPicture.ts';
import { statedDpi } from './statedDpi.ts';

/** Decodes with the browser's own decoders (in a worker or a page); TIFF, which browsers do not read, through a library loaded when needed. */
export const decodeInBrowser: DecodePicture = async (bytes, file) => {
  const head = checkPicture(bytes, file);
  const picture = head.type === 'tiff' ? await decodeTiff(bytes, file) : await decodeBitmap(bytes, head, file);
  const dpi = statedDpi(bytes, head.type);
  return dpi === undefined ? { picture } : { picture, statedDpi: dpi };
};

async function decodeBitmap(bytes: Uint8Array<ArrayBuffer>, head: PictureHead, file: string): Promise<Rgba8> {
  const mime = head.type === 'jpg' ? 'image/jpeg' : `image/${head.type}`;
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(new Blob([bytes], { type: mime }), { imageOrientation: 'from-image', premultiplyAlpha: 'none', colorSpaceConversion: 'default' });
  } catch (error) {
    throw new AppError('truncated', { file }, error);
  }
  const { width, height } = bitmap;
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (context === null) throw new AppError('unexpected', { message: 'no drawing surface' });
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  return makeRgba8(width, height, context.getImageData(0, 0, width, height).data, head.type === 'jpg');
}

async function decodeTiff(bytes: Uint8Array<ArrayBuffer>, file: string): Promise<Rgba8> {
  const { default: UTIF } = await import('utif2');
  try {
    const buffer = bytes.slice().buffer;
    const [first] = UTIF.decode(buffer);
    UTIF.decodeImage(buffer, first);
    return makeRgba8(first.width, first.height, UTIF.toRGBA8(first));
  } catch (error) {
    throw new AppError('truncated', { file }, error);
  }
}
