import { AppError } from '../../core/errors/appError.ts';
import { hasNoClear, makeRgba8, type Rgba8 } from '../../core/raster/raster.ts';
import { checkPicture, type PictureHead } from './checkPicture.ts';
import { sfntFromWoff } from '../fonts/sfntFromWoff.ts';
import { cameraOf } from './cameraOf.ts';
import { decoderError } from './decoderError.ts';
import { decodeHeic, type HeicLibrary } from './decodeHeic.ts';
import type { DecodePicture } from './decodedPicture.ts';
import { DRAWN_SIDE_PX, drawSvg, isSvg, svgDpi, type SvgLibrary } from './drawSvg.ts';
import { statedDpi } from './statedDpi.ts';

/**
 * Decodes with the browser's own decoders (in a worker or a page); TIFF and HEIC, which not all browsers read, and SVG, which never gets into the page, through
 * libraries loaded when needed.
 */
export const decodeInBrowser: DecodePicture = async (bytes, file, { drawnSidePx = DRAWN_SIDE_PX } = {}) => {
  if (isSvg(bytes)) {
    const picture = drawSvg(await loadSvg(), bytes, file, drawnSidePx, await loadFonts());
    const dpi = svgDpi(bytes, picture);
    return { picture, drawnSidePx, ...(dpi === undefined ? {} : { statedDpi: dpi }) };
  }
  const head = checkPicture(bytes, file);
  const picture = head.type === 'tiff' ? await decodeTiff(bytes, file) : head.type === 'heic' ? await decodeHeic(await loadHeic(), bytes, file) : await decodeBitmap(bytes, head, file);
  const dpi = statedDpi(bytes, head.type);
  const camera = await cameraOf(bytes, head.type);
  return { picture, ...(dpi === undefined ? {} : { statedDpi: dpi }), ...(camera === undefined ? {} : { camera }) };
};

let svgLibrary: Promise<SvgLibrary> | undefined;
/** The drawing library, started once. */
function loadSvg(): Promise<SvgLibrary> {
  svgLibrary ??= (async () => {
    const [{ initWasm, Resvg }, { default: address }] = await Promise.all([import('@resvg/resvg-wasm'), import('@resvg/resvg-wasm/index_bg.wasm?url')]);
    await initWasm(await (await fetch(address)).arrayBuffer());
    return { Resvg };
  })();
  return svgLibrary;
}

/** The shipped font for text in drawings, plain and bold. */
async function loadFonts(): Promise<Uint8Array[]> {
  const addresses = await Promise.all([import('@fontsource/hanken-grotesk/files/hanken-grotesk-latin-400-normal.woff?url'), import('@fontsource/hanken-grotesk/files/hanken-grotesk-latin-700-normal.woff?url')]);
  return Promise.all(addresses.map(async ({ default: address }) => sfntFromWoff(new Uint8Array(await (await fetch(address)).arrayBuffer()))));
}

async function decodeBitmap(bytes: Uint8Array<ArrayBuffer>, head: PictureHead, file: string): Promise<Rgba8> {
  const mime = head.type === 'jpg' ? 'image/jpeg' : `image/${head.type}`;
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(new Blob([bytes], { type: mime }), { imageOrientation: 'from-image', premultiplyAlpha: 'none', colorSpaceConversion: 'default' });
  } catch (error) {
    throw decoderError(error, file);
  }
  const { width, height } = bitmap;
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (context === null) throw new AppError('unexpected', { message: 'no drawing surface' });
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  // One kind of array everywhere: code that meets two is compiled for both, and slower.
  const data = new Uint8Array(context.getImageData(0, 0, width, height).data.buffer);
  return makeRgba8(width, height, data, head.type === 'jpg' || hasNoClear(data));
}

/** The decoder for phones' files: two separate files of their own, fetched from where the application came from. */
async function loadHeic(): Promise<HeicLibrary> {
  const [{ default: start }, { default: address }] = await Promise.all([import('libheif-js/libheif-wasm/libheif.js'), import('libheif-js/libheif-wasm/libheif.wasm?url')]);
  const wasmBinary = await (await fetch(address)).arrayBuffer();
  // Its types do not tell of the wrapper around the decoder.
  return start({ wasmBinary }) as unknown as HeicLibrary;
}

async function decodeTiff(bytes: Uint8Array<ArrayBuffer>, file: string): Promise<Rgba8> {
  const { default: UTIF } = await import('utif2');
  try {
    const buffer = bytes.slice().buffer;
    const [first] = UTIF.decode(buffer);
    UTIF.decodeImage(buffer, first);
    return makeRgba8(first.width, first.height, UTIF.toRGBA8(first));
  } catch (error) {
    throw decoderError(error, file);
  }
}
