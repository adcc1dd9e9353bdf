import { AppError } from '../errors/appError.ts';
import { rgbFromHex } from '../colour/hex.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';
import { beyondInk } from './inkReach.ts';
import { say } from '../words/say.ts';

/** Paper that carries a decal: what is not printed is clear, or white. */
export const DECAL_PAPERS = ['clear', 'white'] as const;
export type DecalPaper = (typeof DECAL_PAPERS)[number];

/** What is fainter than this is not seen as part of a motif, alpha. */
const SEEN = 8;

/** A picture without the clear border around what is seen. @throws AppError `nothingToCut` when all of it is clear. */
export function trimmedMotif(picture: Rgba8): Rgba8 {
  const { width, height, data } = picture;
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (data[4 * (y * width + x) + 3] < SEEN) continue;
      if (x < left) left = x;
      if (x >= right) right = x + 1;
      if (y < top) top = y;
      bottom = y + 1;
    }
  }
  if (right <= left) throw new AppError('nothingToCut');
  const out = new Uint8Array(4 * (right - left) * (bottom - top));
  for (let y = top; y < bottom; y++) out.set(data.subarray(4 * (y * width + left), 4 * (y * width + right)), 4 * (y - top) * (right - left));
  return makeRgba8(right - left, bottom - top, out);
}

/** What a printed motif looks like on a blank. */
export interface PrintFacts {
  /** Share of what is seen that is nearly white: on clear paper it will be the blank's own colour. */
  readonly whiteShare: number;
  /** Share of what is seen that is half clear. */
  readonly softShare: number;
  /** Mean lightness of what is seen, 0 to 1. */
  readonly lightness: number;
  /** Share of what is seen that inks do not reach, and the colour of it that lies farthest out; none when absent. */
  readonly beyondInkShare: number;
  readonly mostBeyond?: string;
}

/** A colour that is farther out than this comes out as another one, OKLab × 100. */
const BEYOND_INK = 6;
/** Less of a motif than this is not told. */
const LEAST_BEYOND_SHARE = 0.01;

const WHITE = 235;

export function printFacts({ data }: Pick<Rgba8, 'data'>): PrintFacts {
  let [seen, white, soft, light, beyond] = [0, 0, 0, 0, 0];
  let farthest = { by: 0, word: 0 };
  // Colours in steps of 8: some thousands of them at most are looked at.
  const known = new Map<number, number>();
  for (let i = 0; i < data.length; i += 4) {
    if (data[i + 3] < SEEN) continue;
    seen++;
    if (data[i + 3] < 240) soft++;
    if (Math.min(data[i], data[i + 1], data[i + 2]) >= WHITE && data[i + 3] >= 240) white++;
    light += (0.2126 * data[i] + 0.7152 * data[i + 1] + 0.0722 * data[i + 2]) / 255;
    const cell = ((data[i] >> 3) << 10) | ((data[i + 1] >> 3) << 5) | (data[i + 2] >> 3);
    let by = known.get(cell);
    if (by === undefined) known.set(cell, (by = beyondInk({ r: data[i], g: data[i + 1], b: data[i + 2] })));
    if (by <= BEYOND_INK) continue;
    beyond++;
    if (by > farthest.by) farthest = { by, word: (data[i] << 16) | (data[i + 1] << 8) | data[i + 2] };
  }
  if (seen === 0) return { whiteShare: 0, softShare: 0, lightness: 1, beyondInkShare: 0 };
  return { whiteShare: white / seen, softShare: soft / seen, lightness: light / seen, beyondInkShare: beyond / seen, ...(beyond === 0 ? {} : { mostBeyond: `#${farthest.word.toString(16).padStart(6, '0')}` }) };
}

/** Coarser prints than this look blurred from near, dots per inch. */
export const FINE_DPI = 150;

/** What is to be said of a motif before it is printed, in plain words. @param blank its colour where it is known. @param hasWhiteBack whether white is laid below the ink. */
export function printWarnings(facts: PrintFacts, dpi: number, paper: DecalPaper, blank?: string, hasWhiteBack = false): string[] {
  const words: string[] = [];
  if (dpi < FINE_DPI) words.push(say`${Math.round(dpi)} dots per inch at this size, under ${FINE_DPI}: it will look soft`);
  const shows = paper === 'clear' && !hasWhiteBack;
  if (shows && facts.whiteShare > 0.01) words.push(say`${Math.max(1, Math.round(100 * facts.whiteShare))} % of it is white, which is not printed: on clear paper the blank shows there`);
  const { r, g, b } = rgbFromHex(blank ?? '') ?? { r: 255, g: 255, b: 255 };
  const below = (0.2126 * r + 0.7152 * g + 0.0722 * b) / 255;
  if (shows && below < 0.5) words.push(say('the blank is dark: on clear paper its colour shines through and darkens the print'));
  else if (shows && facts.lightness > 0.8 && below > 0.8) words.push(say('light art on a light blank: it will hardly show'));
  if (facts.mostBeyond !== undefined && facts.beyondInkShare >= LEAST_BEYOND_SHARE) words.push(say`${Math.max(1, Math.round(100 * facts.beyondInkShare))} % of it is more vivid than inks print, most of all ${facts.mostBeyond}: it will come out duller`);
  return words;
}
