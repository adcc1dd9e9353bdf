import { AppError } from '../../core/errors/appError.ts';
import { decoderError } from './decoderError.ts';
import { makeRgba8, type Rgba8 } from '../../core/raster/raster.ts';

/** What is used of the decoder library, which is loaded only when a phone's file comes and can be replaced. */
export interface HeicLibrary {
  readonly HeifDecoder: new () => { decode(bytes: Uint8Array): HeicImage[] };
}

interface HeicImage {
  get_width(): number;
  get_height(): number;
  display(target: { data: Uint8ClampedArray<ArrayBuffer>; width: number; height: number }, done: (filled: object | null | undefined) => void): void;
}

/**
 * The first picture of a HEIC file (ISO/IEC 23008-12), upright.
 * @throws AppError `truncated` when a part of it is missing, `damaged` when it cannot be decoded for another reason.
 */
export async function decodeHeic(library: HeicLibrary, bytes: Uint8Array, file: string): Promise<Rgba8> {
  let images: HeicImage[];
  try {
    images = new library.HeifDecoder().decode(bytes);
  } catch (error) {
    throw decoderError(error, file);
  }
  const [image] = images;
  if (image === undefined) throw new AppError('damaged', { file });
  const [width, height] = [image.get_width(), image.get_height()];
  const data = new Uint8ClampedArray(width * height * 4);
  const filled = await new Promise<object | null | undefined>((resolve) => {
    image.display({ data, width, height }, resolve);
  });
  if (filled === null || filled === undefined) throw new AppError('damaged', { file });
  return makeRgba8(width, height, new Uint8Array(data.buffer));
}
