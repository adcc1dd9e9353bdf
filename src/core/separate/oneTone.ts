import { AppError } from '../errors/appError.ts';
import type { Rgb } from '../colour/oklab.ts';
import { isOpaque, type Art } from '../raster/art.ts';
import { makeShareMap, wordsOf, type ShareMap } from '../raster/raster.ts';
import { eachBorderPixel } from '../raster/eachBorderPixel.ts';
import { lumaAt, lumaHistogram, throughTable } from '../raster/luma.ts';
import { otsu } from '../raster/otsu.ts';
import { joinThinStrokes } from './joinThinStrokes.ts';
import { toneOf } from './toneOf.ts';

export interface OneToneOptions {
  /** `threshold`: what is darker than a lightness is ink; `notClear`: everything that is there is ink. */
  readonly source: 'threshold' | 'notClear';
  /** Lightness 0 to 255 at which an edge stands, or found from the histogram. */
  readonly threshold: 'auto' | number;
  /** Takes the light tone as ink. `auto`: whichever of the two is not the ground around the art. */
  readonly inkIs: 'auto' | 'dark' | 'light';
}

export interface OneTone {
  readonly share: ShareMap;
  /** The lightness that parts ink from ground; 127.5 means half clear for `notClear`. */
  readonly threshold: number;
  readonly inkIs: 'dark' | 'light';
  /** The ink's own colour in the art, and that of the ground; white where all that is there is ink. */
  readonly ink: Rgb;
  readonly ground: Rgb;
  /** 256 counts of lightness on white, for the threshold's card. */
  readonly histogram: Float64Array;
}

const WHITE: Rgb = { r: 255, g: 255, b: 255 };

/** Less contrast than this between the two tones, in lightness levels, is paper grain and not a drawing. */
const LEAST_CONTRAST = 10;

/**
 * Reads the art as one ink on a ground. Each pixel gets its share of ink by where its colour stands on the way from the ground's tone to the ink's,
 * so mixed edge pixels keep saying where the edge runs.
 * A picture of which nothing is clear is a field of its size where everything that is there is ink.
 * @throws AppError `oneColour` when there are no two tones to tell apart, `nothingToCut` when all is clear.
 */
export function oneTone(art: Art, options: OneToneOptions): OneTone {
  const { histogram, there: counted } = lumaHistogram(art);
  if (counted === 0 && !art.alpha.some((value) => value >= 128)) throw new AppError('nothingToCut');
  if (options.source === 'notClear') {
    const there = art.alpha.slice();
    joinThinStrokes(there, art.width, art.height);
    return { share: makeShareMap(art.width, art.height, there), threshold: 127.5, inkIs: 'dark', ink: toneOf(art, 0, 255), ground: WHITE, histogram };
  }
  const cut = otsu(histogram);
  if (options.threshold === 'auto' && cut.light - cut.dark < LEAST_CONTRAST) throw new AppError('oneColour');
  const split = options.threshold === 'auto' ? cut.threshold + 0.5 : options.threshold;
  const inkIs = options.inkIs === 'auto' ? inkFromBorder(art, split) : options.inkIs;
  const tones = typicalTones(histogram, split, cut);
  const middle = options.threshold === 'auto' ? (tones.dark + tones.light) / 2 : split;
  const opaque = isOpaque(art.alpha);
  const share = throughTable(art, shareTable(middle, Math.max(4, tones.light - tones.dark), inkIs === 'dark'), opaque);
  if (inkIs === 'light' && !opaque) for (let i = 0; i < share.length; i++) share[i] = (share[i] * art.alpha[i] + 127) / 255;
  joinThinStrokes(share, art.width, art.height);
  const dark = toneOf(art, 0, Math.ceil(middle) - 1);
  const light = opaque || inkIs === 'light' ? toneOf(art, Math.ceil(middle), 255) : WHITE;
  const [ink, ground] = inkIs === 'dark' ? [dark, light] : [light, dark];
  return { share: makeShareMap(art.width, art.height, share), threshold: middle, inkIs, ink, ground, histogram };
}

/** The tone that most of the picture's border has is the ground; the other one is ink. An even border means dark ink. */
function inkFromBorder(art: Art, split: number): 'dark' | 'light' {
  const { width, height, alpha } = art;
  const words = wordsOf(art.colour);
  let dark = 0;
  eachBorderPixel(width, height, (i) => {
    if (lumaAt(words, alpha, i) < split) dark++;
  });
  return dark > 0.6 * 2 * (width + height) ? 'light' : 'dark';
}

/** The most frequent lightness on each side of the split: the tones themselves, where the class means are drawn in by mixed pixels. */
function typicalTones(histogram: Float64Array, split: number, cut: { dark: number; light: number }): { dark: number; light: number } {
  return { dark: peak(histogram, 0, Math.ceil(split) - 1, cut.dark), light: peak(histogram, Math.ceil(split), 255, cut.light) };
}

/** Half-width of the window in which neighbouring lightnesses count as one tone. */
const TONE_RADIUS = 6;

function peak(histogram: Float64Array, from: number, to: number, otherwise: number): number {
  let best = 0;
  let at = otherwise;
  for (let v = from; v <= to; v++) {
    let count = 0;
    let sum = 0;
    for (let w = Math.max(from, v - TONE_RADIUS); w <= Math.min(to, v + TONE_RADIUS); w++) {
      count += histogram[w];
      sum += w * histogram[w];
    }
    if (count > best) {
      best = count;
      at = sum / count;
    }
  }
  return at;
}

/** Share of ink for each lightness: half at `middle`, none and all at half the `contrast` to either side. */
function shareTable(middle: number, contrast: number, darkIsInk: boolean): Uint8Array {
  const table = new Uint8Array(256);
  for (let v = 0; v < 256; v++) {
    const share = 0.5 + ((middle - v) / contrast) * (darkIsInk ? 1 : -1);
    table[v] = Math.max(0, Math.min(255, Math.round(share * 255)));
  }
  return table;
}
