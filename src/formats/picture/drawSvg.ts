import { AppError } from '../../core/errors/appError.ts';
import { MAX_SIDE_PX, makeRgba8, type Rgba8 } from '../../core/raster/raster.ts';

/** Long side at which a vector drawing becomes a picture when no other is chosen, px. */
export const DRAWN_SIDE_PX = 2400;
export const LEAST_DRAWN_SIDE_PX = 100;
export const MOST_DRAWN_SIDE_PX = Math.min(8000, MAX_SIDE_PX);
/** Longer drawings than this hold pictures or maps, bytes. */
const MAX_SVG_BYTES = 20_000_000;
/** So much of the start is looked at for the root element. */
const HEAD_BYTES = 4096;

/** What is used of the drawing library, which is loaded only when such a file comes and can be replaced. */
export interface SvgLibrary {
  readonly Resvg: new (svg: Uint8Array | string, options: SvgOptions) => SvgDrawing;
}

interface SvgOptions {
  readonly fitTo: { readonly mode: 'zoom'; readonly value: number };
  readonly font: { readonly fontBuffers: Uint8Array[]; readonly defaultFontFamily: string };
}

interface SvgDrawing {
  readonly width: number;
  readonly height: number;
  render(): { readonly pixels: Uint8Array; readonly width: number; readonly height: number; free(): void };
  free(): void;
}

/** Whether a file is an SVG by its beginning: XML whose first element is `svg`. */
export function isSvg(bytes: Uint8Array): boolean {
  const head = new TextDecoder().decode(bytes.subarray(0, HEAD_BYTES)).replace(/^\uFEFF/, '').trimStart();
  return /^(<\?xml|<!--|<!DOCTYPE\s+svg|<svg[\s>])/i.test(head) && /<svg[\s>]/i.test(head);
}

/**
 * Draws an SVG (W3C SVG 1.1) as a picture whose long side has `sidePx`, clear where nothing is drawn. Scripts, animation and anything that lies outside the
 * file are left out by the library; text comes in the shipped font.
 * @throws AppError `fileTooLarge`, `badDrawing` or `pictureTooSmall`.
 */
export function drawSvg(library: SvgLibrary, bytes: Uint8Array, file: string, sidePx: number, fonts: readonly Uint8Array[]): Rgba8 {
  if (bytes.length > MAX_SVG_BYTES) throw new AppError('fileTooLarge', { file, megabytes: Math.ceil(bytes.length / 1e6), limitMegabytes: MAX_SVG_BYTES / 1e6 });
  const font = { fontBuffers: [...fonts], defaultFontFamily: 'Hanken Grotesk' };
  const first = opened(library, bytes, file, { fitTo: { mode: 'zoom', value: 1 }, font });
  const { width, height } = first;
  first.free();
  const longest = Math.max(width, height);
  const shortest = Math.min(width, height);
  if (!(longest > 0) || !(shortest > 0)) throw new AppError('badDrawing', { file });
  const zoom = Math.max(LEAST_DRAWN_SIDE_PX, Math.min(MOST_DRAWN_SIDE_PX, sidePx)) / longest;
  if (shortest * zoom < 2) throw new AppError('pictureTooSmall', { file, width: Math.round(width * zoom), height: Math.round(height * zoom) });
  const drawing = opened(library, bytes, file, { fitTo: { mode: 'zoom', value: zoom }, font });
  const image = drawing.render();
  const picture = makeRgba8(image.width, image.height, straightAlpha(image.pixels));
  image.free();
  drawing.free();
  return picture;
}

/** Millimetres of one unit of length (CSS Values 3, 5.2): a pixel is a 96th of an inch. */
const UNIT_MM: Readonly<Record<string, number>> = { mm: 1, cm: 10, q: 0.25, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6, px: 25.4 / 96, '': 25.4 / 96 };

/**
 * Resolution at which a drawing was drawn, dots per inch, by the width or height that its root states (SVG 1.1, 5.1.2); undefined when it states none or a
 * percentage.
 * @param picture its size in px.
 */
export function svgDpi(bytes: Uint8Array, picture: { readonly width: number; readonly height: number }): number | undefined {
  const root = /<svg\b[^>]*>/i.exec(new TextDecoder().decode(bytes.subarray(0, HEAD_BYTES)))?.[0] ?? '';
  for (const [name, px] of [['width', picture.width], ['height', picture.height]] as const) {
    const match = new RegExp(`\\s${name}\\s*=\\s*["']\\s*([0-9.]+(?:e[+-]?[0-9]+)?)\\s*([a-z]*)\\s*["']`, 'i').exec(root);
    const perUnit = match === null ? undefined : UNIT_MM[match[2].toLowerCase()];
    const mm = match === null || perUnit === undefined ? NaN : Number(match[1]) * perUnit;
    if (mm > 0 && Number.isFinite(mm)) return (px * 25.4) / mm;
  }
  return undefined;
}

function opened(library: SvgLibrary, bytes: Uint8Array, file: string, options: SvgOptions): SvgDrawing {
  try {
    return new library.Resvg(bytes, options);
  } catch (error) {
    throw new AppError('badDrawing', { file }, error);
  }
}

/** The library multiplies colours by alpha. */
function straightAlpha(pixels: Uint8Array): Uint8Array {
  const out = new Uint8Array(pixels);
  for (let i = 0; i < out.length; i += 4) {
    const alpha = out[i + 3];
    if (alpha === 0 || alpha === 255) continue;
    for (let c = i; c < i + 3; c++) out[c] = Math.min(255, Math.round((out[c] * 255) / alpha));
  }
  return out;
}
