import { rgbFromHex } from '../src/core/colour/hex.ts';
import { colourDifference, type Rgb } from '../src/core/colour/oklab.ts';
import { isAppError } from '../src/core/errors/appError.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import type { Rgba8 } from '../src/core/raster/raster.ts';
import { flatTones } from '../src/core/separate/flatTones.ts';
import { finish } from '../src/core/task/task.ts';
import { colourSvgOf, tonesOf, type ColourDrawing } from './colourDrawings.ts';
import { composedDrawing } from './composed.ts';
import { CONDITIONS, degraded } from './degrade.ts';

/** Drawings put together by chance, in 3 to 8 tones; none was looked at while the tones were worked on. */
const DRAWINGS = 40;
const FIRST_SEED = 300;
/** A tone found this near to a true one is that one, OKLab × 100. */
const SAME = 8;

/** True tones that were missed, and found ones that are none. */
interface Missed {
  readonly missed: readonly string[];
  readonly extra: readonly string[];
}

const hex = ({ r, g, b }: Rgb): string => `#${[r, g, b].map((v) => v.toString(16).padStart(2, '0')).join('')}`;

function comparedWith(truth: readonly Rgb[], found: readonly Rgb[]): Missed {
  const left = [...found];
  const missed: string[] = [];
  for (const tone of truth) {
    const at = left.reduce((best, other, k) => (colourDifference(tone, other) < (best < 0 ? SAME : colourDifference(tone, left[best])) ? k : best), -1);
    if (at < 0) missed.push(hex(tone));
    else left.splice(at, 1);
  }
  return { missed, extra: left.map(hex) };
}

function foundIn(picture: Rgba8, count: number | 'auto'): readonly Rgb[] {
  try {
    return finish(flatTones(artFromPicture(picture), { count, leastAreaPx2: 5 })).tones;
  } catch (error) {
    if (isAppError(error)) return [];
    throw error;
  }
}

async function told(drawings: readonly ColourDrawing[], condition: (typeof CONDITIONS)[number]): Promise<void> {
  for (const given of [true, false]) {
    const wrong: string[] = [];
    for (const drawing of drawings) {
      const truth = tonesOf(drawing).map((tone) => rgbFromHex(tone) as Rgb);
      const picture = await degraded((pixels) => colourSvgOf(drawing, pixels, false), condition);
      const { missed, extra } = comparedWith(truth, foundIn(picture, given ? truth.length : 'auto'));
      if (missed.length + extra.length > 0) wrong.push(`${drawing.name} (${truth.length})${missed.length > 0 ? ` missed ${missed.join(' ')}` : ''}${extra.length > 0 ? ` found ${extra.join(' ')}` : ''}`);
    }
    console.log(`| ${condition} | ${given ? 'given' : 'found'} | ${drawings.length - wrong.length} of ${drawings.length} | ${wrong.join('; ')} |`);
  }
}

/** How often the true tones are found, their number given or not, on crowded drawings put together by chance. */
export async function benchTones(): Promise<void> {
  const drawings = Array.from({ length: DRAWINGS }, (_, k) => composedDrawing(FIRST_SEED + k, 3 + (k % 6)));
  console.log('\n### Tones\n\n| | number | right | wrong |\n|---|---|---|---|');
  for (const condition of CONDITIONS) await told(drawings, condition);
}
