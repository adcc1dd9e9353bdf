import { noiseLevel } from './noiseLevel.ts';
import { BAND, makeRgba8, type Rgba8 } from '../raster/raster.ts';

export interface Levels {
  /** Lightness that becomes black, 0 to 254. */
  readonly black: number;
  /** Lightness that becomes white, above `black`, up to 255. */
  readonly white: number;
  /** Middle tones: above 1 lighter, below darker. 0.1 to 10. */
  readonly gamma: number;
  /** −1 half the range darker to 1 half lighter; 0 when absent. */
  readonly brightness?: number | undefined;
  /** −1 all grey, towards 1 two tones, turned about the middle grey; 0 when absent. */
  readonly contrast?: number | undefined;
  /** 0 grey, 1 as it is, up to 3. */
  readonly saturation: number;
  readonly invert: boolean;
}

/**
 * Stretches black and white point, bends the middle tones, shifts and turns the line, then saturates and inverts. Works on the stored sRGB values, as every
 * histogram shows them.
 */
export function applyLevels(picture: Rgba8, levels: Levels): Rgba8 {
  const { width, height, data } = picture;
  const out = new Uint8Array(data);
  const table = levelsTable(levels);
  // Saturation 1 leaves every colour alone; skipping it keeps the common case a plain look-up.
  const saturation = Math.round(levels.saturation * 256);
  for (let from = 0; from < width * height; from += BAND) levelBand(out, table, saturation, from, Math.min(width * height, from + BAND));
  return makeRgba8(width, height, out, picture.opaque === true);
}

/** The new value of each of the 256 old ones. */
export function levelsTable({ black, white, gamma, brightness = 0, contrast = 0, invert }: Levels): Uint8Array {
  const table = new Uint8Array(256);
  const slope = Math.tan(((Math.min(0.98, contrast) + 1) * Math.PI) / 4);
  for (let v = 0; v < 256; v++) {
    const stretched = Math.max(0, Math.min(1, (v - black) / (white - black)));
    const bent = (stretched ** (1 / gamma) - 0.5) * slope + 0.5 + brightness / 2;
    const value = Math.round(255 * Math.max(0, Math.min(1, bent)));
    table[v] = invert ? 255 - value : value;
  }
  return table;
}

function levelBand(out: Uint8Array, table: Uint8Array, saturation: number, from: number, to: number): void {
  for (let j = from * 4, end = to * 4; j < end; j += 4) {
    const r = table[out[j]];
    const g = table[out[j + 1]];
    const b = table[out[j + 2]];
    if (saturation === 256) {
      out[j] = r;
      out[j + 1] = g;
      out[j + 2] = b;
      continue;
    }
    const grey = (54 * r + 183 * g + 19 * b) >> 8;
    out[j] = clampByte(grey + (((r - grey) * saturation) >> 8));
    out[j + 1] = clampByte(grey + (((g - grey) * saturation) >> 8));
    out[j + 2] = clampByte(grey + (((b - grey) * saturation) >> 8));
  }
}

const clampByte = (value: number): number => (value < 0 ? 0 : value > 255 ? 255 : value);

/**
 * What is given up at each end, so that the noise of ink and paper is full black and white too: a share of the range; in coloured art no more than so many
 * levels a level of noise.
 */
const MARGIN_NOISY = 1.5;
const MARGIN = 0.08;
/** Channels that differ by more make a colour, and art with more than this share of such pixels is coloured: not a drawing in one tinted ink. */
const COLOURED = 70;
const COLOURED_SHARE = 0.02;
/** Share of the pixels that may be lost at each end when the points are found from the histogram. */
const CLIPPED = 0.004;

/**
 * Black and white point that bring a pale drawing to full black on plain white: the darkest and lightest values, but for a few stray pixels.
 * Undefined when the picture is one flat tone.
 */
export function fullContrast(picture: Rgba8): { black: number; white: number } | undefined {
  const { data } = picture;
  const histogram = new Float64Array(256);
  const darkest = new Float64Array(256);
  let coloured = 0;
  const step = 4 * (Math.max(1, Math.floor(data.length / 4 / 400_000)) | 1);
  let count = 0;
  for (let j = 0; j < data.length; j += step) {
    histogram[(54 * data[j] + 183 * data[j + 1] + 19 * data[j + 2]) >> 8]++;
    const least = Math.min(data[j], data[j + 1], data[j + 2]);
    darkest[least]++;
    if (Math.max(data[j], data[j + 1], data[j + 2]) - least > COLOURED) coloured++;
    count++;
  }
  let black = 0;
  // In coloured art black goes by each pixel's darkest channel: where one is cut off, mixtures along an edge no longer say where it runs.
  const isColoured = coloured > count * COLOURED_SHARE;
  const darks = isColoured ? darkest : histogram;
  for (let seen = darks[0]; black < 255 && seen <= count * CLIPPED; seen += darks[black]) black++;
  let white = 255;
  for (let seen = histogram[255]; white > 0 && seen <= count * CLIPPED; seen += histogram[white]) white--;
  if (white - black < 8) return undefined;
  const margin = Math.round(Math.min((white - black) * MARGIN, isColoured ? MARGIN_NOISY * noiseLevel(picture) : Infinity));
  return { black: black + margin, white: white - margin };
}
