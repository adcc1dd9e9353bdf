import { createRequire } from 'node:module';
import { decode as decodeBmp } from 'bmp-ts';
import type * as resvg from '@resvg/resvg-wasm';
import type startHeif from 'libheif-js/libheif-wasm/libheif.js';
import sharp from 'sharp';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { checkPicture } from '../src/formats/picture/checkPicture.ts';
import { sfntFromWoff } from '../src/formats/fonts/sfntFromWoff.ts';
import { cameraOf } from '../src/formats/picture/cameraOf.ts';
import { decoderError } from '../src/formats/picture/decoderError.ts';
import { decodeHeic, type HeicLibrary } from '../src/formats/picture/decodeHeic.ts';
import type { DecodePicture } from '../src/formats/picture/decodedPicture.ts';
import { DRAWN_SIDE_PX, drawSvg, isSvg, svgDpi, type SvgLibrary } from '../src/formats/picture/drawSvg.ts';
import { statedDpi } from '../src/formats/picture/statedDpi.ts';
import { packageFile } from './packageFile.ts';

/** Decodes on the command line and in tests: native decoders for all but BMP, HEIC and SVG, upright by EXIF, embedded profiles turned into sRGB, first frame only. */
export const decodeFile: DecodePicture = async (bytes, file, { drawnSidePx = DRAWN_SIDE_PX } = {}) => {
  if (isSvg(bytes)) {
    const picture = drawSvg(await loadSvg(), bytes, file, drawnSidePx, await loadFonts());
    const dpi = svgDpi(bytes, picture);
    return { picture, drawnSidePx, ...(dpi === undefined ? {} : { statedDpi: dpi }) };
  }
  const head = checkPicture(bytes, file);
  let picture: Rgba8;
  try {
    picture = head.type === 'bmp' ? bmpPicture(bytes) : head.type === 'heic' ? await decodeHeic(await heicLibrary(), bytes, file) : await nativePicture(bytes);
  } catch (error) {
    throw decoderError(error, file);
  }
  const dpi = statedDpi(bytes, head.type);
  const camera = await cameraOf(bytes, head.type);
  return { picture, ...(dpi === undefined ? {} : { statedDpi: dpi }), ...(camera === undefined ? {} : { camera }) };
};

// Code that was kept compiled cannot import while it runs, but it can require.
const load = createRequire(import.meta.url);

let svgLibrary: Promise<SvgLibrary> | undefined;
function loadSvg(): Promise<SvgLibrary> {
  svgLibrary ??= (async () => {
    const { initWasm, Resvg } = load('@resvg/resvg-wasm') as typeof resvg;
    await initWasm(new Uint8Array(await packageFile('@resvg/resvg-wasm/index_bg.wasm')));
    return { Resvg };
  })();
  return svgLibrary;
}

const loadFonts = (): Promise<Uint8Array[]> => Promise.all(['400', '700'].map(async (weight) => sfntFromWoff(await packageFile(`@fontsource/hanken-grotesk/files/hanken-grotesk-latin-${weight}-normal.woff`))));

async function heicLibrary(): Promise<HeicLibrary> {
  const start = load('libheif-js/libheif-wasm/libheif.js') as typeof startHeif;
  // Its types do not tell of the wrapper around the decoder.
  return start({ wasmBinary: await packageFile('libheif-js/libheif-wasm/libheif.wasm') }) as unknown as HeicLibrary;
}

async function nativePicture(bytes: Uint8Array): Promise<Rgba8> {
  const image = sharp(bytes, { limitInputPixels: false, failOn: 'truncated', pages: 1 });
  const { hasAlpha } = await image.metadata();
  const { data, info } = await image.rotate().toColourspace('srgb').ensureAlpha().raw({ depth: 'uchar' }).toBuffer({ resolveWithObject: true });
  return makeRgba8(info.width, info.height, new Uint8Array(data.buffer, data.byteOffset, data.byteLength), !hasAlpha);
}

function bmpPicture(bytes: Uint8Array): Rgba8 {
  const { width, height, data, bitPP } = decodeBmp(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), { toRGBA: true });
  const rgba = new Uint8Array(data);
  // Only 32-bit files carry alpha, and many of those leave it at 0 throughout.
  if (bitPP !== 32 || !rgba.some((value, i) => i % 4 === 3 && value !== 0)) for (let i = 3; i < rgba.length; i += 4) rgba[i] = 255;
  return makeRgba8(width, height, rgba);
}
