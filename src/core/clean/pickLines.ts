import { isOpaque, withAlpha, type Art } from '../raster/art.ts';
import { lumaHistogram, throughTable } from '../raster/luma.ts';
import { otsu } from '../raster/otsu.ts';
import { within, type Task } from '../task/task.ts';
import { middleColour } from './middleColour.ts';
import { clearLifted } from './softenLift.ts';

/** What is this near to the darkest tone, share of the way to the lightest, is ink whatever surrounds it: the middle of a broad filled area. */
const SURELY_INK = 0.3;
/** Half the side of the neighbourhood, as a share of the shorter side of the art, and at least so many px: wider than any stroke. */
const RADIUS_SHARE = 1 / 36;
const LEAST_RADIUS_PX = 10;
/** Standard deviation of lightness from which a place counts as full of contrast. */
const FULL_CONTRAST = 128;
/** How far below the mean a pixel must lie where there is no contrast, share of the mean: with no and with all detail wanted. */
const STRICT = 0.5;
const LENIENT = 0.08;
/** Lightness over which a rim goes from ink to clear where one threshold is given, as a share of the way from ink to paper, and at least so many levels. */
const RIM_SHARE = 0.35;
const LEAST_RIM = 10;
/** Where the threshold that is found lies on the way from ink to paper: with no and with all detail wanted. */
const FOUND_FROM = 0.25;
const FOUND_TO = 0.75;

/** One for each neighbourhood, one found for the whole picture, or a lightness from 0 to 255. */
export type InkThreshold = 'local' | 'found' | number;

/**
 * Keeps ink and clears the rest by local contrast, so that pale marks (pencil, watermarks, paper grain) and shade go: a pixel is ink when it is darker than a
 * threshold from the mean and the standard deviation of its neighbourhood (J. Sauvola & M. Pietikäinen, "Adaptive document image binarization", Pattern
 * Recognition 33(2), 2000, doi:10.1016/S0031-3203(99)00055-2). Departs from it in that it only says which pixels are ink: along their edges they keep the share
 * of it that their colours tell, so that edges stay where they are drawn (`clearLifted`); a threshold that is given or found for the whole picture moves them.
 * @param detail 0 keeps only strong ink, 1 also faint lines; a given lightness leaves it out of account.
 */
export function* pickLines(art: Art, detail: number, threshold: InkThreshold = 'local'): Task<{ art: Art; inkShare: number }> {
  if (threshold !== 'local') return pickBelow(art, detail, threshold);
  const { width, height } = art;
  const luma = throughTable(
    art,
    Uint8Array.from({ length: 256 }, (_, v) => v),
    isOpaque(art.alpha),
  );
  yield 0.2;
  const { dark, light } = otsu(lumaHistogram(art).histogram);
  const surely = dark + SURELY_INK * (light - dark);
  const radius = Math.max(LEAST_RADIUS_PX, Math.round(Math.min(width, height) * RADIUS_SHARE));
  const window = new ColumnSums(luma, width, height, radius);
  const dropped = new Uint8Array(luma.length);
  const strictness = STRICT + (LENIENT - STRICT) * detail;
  let ink = 0;
  for (let y = 0; y < height; y++) {
    window.moveTo(y);
    ink += pickRow(window, luma, dropped, y, strictness, surely);
    if (y % 64 === 63) yield 0.2 + (0.5 * y) / height;
  }
  const ground = yield* within(middleColour(art, dropped), 0.7, 0.72);
  return { art: yield* within(clearLifted(art, { lifted: dropped, ground, everywhere: true }), 0.72, 1), inkShare: ink / luma.length };
}

/** Keeps what is darker than one threshold: through a table, for the same lightness is ink everywhere. */
function pickBelow(art: Art, detail: number, threshold: 'found' | number): { art: Art; inkShare: number } {
  const { dark, light } = otsu(lumaHistogram(art).histogram);
  const at = threshold === 'found' ? dark + (FOUND_FROM + (FOUND_TO - FOUND_FROM) * detail) * (light - dark) : threshold;
  const rim = Math.max(LEAST_RIM, RIM_SHARE * (light - dark));
  const share = throughTable(
    art,
    Uint8Array.from({ length: 256 }, (_, v) => Math.round(255 * Math.max(0, Math.min(1, 0.5 + (at - v) / rim)))),
    isOpaque(art.alpha),
  );
  const { alpha } = art;
  let ink = 0;
  for (let i = 0; i < share.length; i++) {
    share[i] = alpha[i] === 255 ? share[i] : Math.round((share[i] * alpha[i]) / 255);
    ink += share[i];
  }
  return { art: withAlpha(art, share), inkShare: ink / 255 / share.length };
}

/** Sums and sums of squares of the rows around one row, column by column: each step down adds one row and takes one off. */
class ColumnSums {
  readonly sum: Float64Array;
  readonly squares: Float64Array;
  rows = 0;
  private top = 0;
  private bottom = 0;

  constructor(
    private readonly luma: Uint8Array,
    readonly width: number,
    private readonly height: number,
    readonly radius: number,
  ) {
    this.sum = new Float64Array(width);
    this.squares = new Float64Array(width);
  }

  moveTo(y: number): void {
    for (; this.bottom < Math.min(this.height, y + this.radius + 1); this.bottom++) this.add(this.bottom, 1);
    for (; this.top < y - this.radius; this.top++) this.add(this.top, -1);
    this.rows = this.bottom - this.top;
  }

  private add(row: number, sign: 1 | -1): void {
    const { luma, sum, squares, width } = this;
    for (let x = 0, i = row * width; x < width; x++, i++) {
      const v = luma[i];
      sum[x] += sign * v;
      squares[x] += sign * v * v;
    }
  }
}

/** Marks a row's pixels that are no ink; says how many are. */
function pickRow(
  { sum, squares, width, radius, rows }: ColumnSums,
  luma: Uint8Array,
  dropped: Uint8Array,
  y: number,
  strictness: number,
  surely: number,
): number {
  let ink = 0;
  let total = 0;
  let total2 = 0;
  for (let x = 0; x < Math.min(radius, width); x++) {
    total += sum[x];
    total2 += squares[x];
  }
  for (let x = 0, i = y * width; x < width; x++, i++) {
    if (x + radius < width) {
      total += sum[x + radius];
      total2 += squares[x + radius];
    }
    if (x - radius > 0) {
      total -= sum[x - radius - 1];
      total2 -= squares[x - radius - 1];
    }
    const count = rows * (Math.min(width - 1, x + radius) - Math.max(0, x - radius) + 1);
    const mean = total / count;
    const deviation = Math.sqrt(Math.max(0, total2 / count - mean * mean));
    const threshold = mean * (1 + strictness * (deviation / FULL_CONTRAST - 1));
    if (luma[i] > Math.max(threshold, surely)) dropped[i] = 1;
    else ink++;
  }
  return ink;
}
