import sharp from 'sharp';
import { rgbFromHex } from '../src/core/colour/hex.ts';
import type { Rgb } from '../src/core/colour/oklab.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { labelRegions } from '../src/core/raster/labelRegions.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { colourSvgOf, tonesOf } from './colourDrawings.ts';
import { composedDrawing } from './composed.ts';
import { outlined } from './outlined.ts';
import { drawnLabels, truthOf, type Labels } from './toneTruth.ts';

const DRAWINGS = 30;
const FIRST_SEED = 900;
/** Logos as they come from a web page: long side in px, and JPEG quality. */
const CONDITIONS = [[700, 80], [450, 60], [450, 80]] as const;
/** Pieces of a tone this large, px², are looked for: what has less than this share of its area where it belongs was not drawn, or was lost. */
const LEAST_STRAY_PX2 = 2;
const LEAST_LOST_PX2 = 16;
const THERE = 0.3;

async function jpegOf(svg: string, side: number, quality: number): Promise<Rgba8> {
  const drawn = sharp(Buffer.from(svg), { density: 72 }).resize(side, side).flatten({ background: '#fff' });
  const { data, info } = await sharp(await drawn.jpeg({ quality }).toBuffer()).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return makeRgba8(info.width, info.height, new Uint8Array(data), true);
}

/** Areas of one label, in px² of the picture, that hardly lie where the other labels have it. */
function apart({ data, side }: Labels, other: Labels, cellsPerPx2: number, leastPx2: number): number[] {
  const { runStart, runEnd, regionOfRun, area, count } = labelRegions(data, side, side, 'each', false);
  const there = new Float64Array(count);
  for (let run = 0; run < runStart.length; run++) for (let i = runStart[run]; i < runEnd[run]; i++) if (other.data[i] === data[i]) there[regionOfRun[run]]++;
  return Array.from(area).flatMap((cells, k) => (cells >= leastPx2 * cellsPerPx2 && there[k] < THERE * cells ? [cells / cellsPerPx2] : []));
}

/** Pieces that nobody drew, and pieces that were lost, in crowded drawings as small JPEG files. */
export async function benchPieces(): Promise<void> {
  console.log(`\n### Pieces of crowded drawings in 3 to 7 tones, ${DRAWINGS} of them\n\n| | not drawn, of ${LEAST_STRAY_PX2} px² and more (in all px²) | lost, of ${LEAST_LOST_PX2} px² and more (px²) | drawings without either |\n|---|---|---|---|`);
  for (const [side, quality] of CONDITIONS) {
    const [strays, lost]: [number[], number[]] = [[], []];
    let clean = 0;
    for (let seed = FIRST_SEED; seed < FIRST_SEED + DRAWINGS; seed++) {
      const drawing = composedDrawing(seed, 3 + (seed % 5));
      const picture = await jpegOf(colourSvgOf(drawing, side, false), side, quality);
      const { ground, shapes } = outlined(artFromPicture(picture), tonesOf(drawing));
      const truth = await truthOf(drawing, side);
      const tones = tonesOf(drawing).map((hex) => rgbFromHex(hex) as Rgb);
      const result = await drawnLabels(truth, ground, shapes, tones);
      const cells = (truth.labels.side / side) ** 2;
      const [more, less] = [apart(result, truth.labels, cells, LEAST_STRAY_PX2), apart(truth.labels, result, cells, LEAST_LOST_PX2)];
      strays.push(...more);
      lost.push(...less);
      if (more.length + less.length === 0) clean++;
      if (process.env['PIECES_VERBOSE'] !== undefined) console.log(`    ${seed} not drawn ${more.map((px2) => px2.toFixed(0)).join(' ')}, lost ${less.map((px2) => px2.toFixed(0)).join(' ')}`);
    }
    const told = (all: readonly number[]): string => `${all.length} (${all.reduce((sum, px2) => sum + px2, 0).toFixed(0)})`;
    console.log(`| ${side} px, JPEG ${quality} | ${told(strays)} | ${told(lost)} | ${clean} |`);
  }
}
