import { LEVELS_PER_UNIT } from '../colour/differenceTable.ts';
import { colourDifference, type Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { CHAMFER_PX, chamferInside } from '../raster/chamfer.ts';
import { fillRegions, labelRegions, type Regions } from '../raster/labelRegions.ts';
import { within, type Task } from '../task/task.ts';

/** Areas smaller than this, in px², are not taken for an enclosed area: they are noise or mixed pixels along an edge. */
const SMALLEST_PX2 = 5;
/** An area is ground when its inside is no further from the ground's own mean than the ground's pixels are, this share of them, and a little more. */
const SPREAD_SHARE = 0.95;
const MORE_UNITS = 1.5;
/** The mean of few pixels is uncertain, and small openings are tinted by what is around them: so much more, over the root of their number. */
const FEW_UNITS = 6;
/** A line: so many times as long as it is broad, and no broader than this share of the art's long side. Openings are rounder or larger. */
const LINE_LENGTHS = 9;
const LINE_SHARE = 0.008;
const LEAST_LINE_PX = 3.2;
/** Of fewer pixels none says whether it is a line. */
const LEAST_LINE_PX2 = 12;

/** What an area of about the ground's colour is. */
export const CLOSED_OFF = 1;
export const DETAIL = 2;

/**
 * Which areas of about the ground's colour are ground that is closed off: counters of letters, gaps between arms. Light details of the drawing are not: those
 * whose own colour is another one although the tolerance reaches it, and those that are drawn as lines, also where only bits of a thin line are as light as the
 * ground.
 * @param regions areas within the tolerance of the ground's colour.
 * @param light 1 for all that is rather like the ground, but what was lifted.
 * @param ground 1 where it was lifted.
 * @returns for each region `CLOSED_OFF`, `DETAIL`, or 0 for what is too small.
 */
export function* enclosedAreas(art: Art, regions: Regions, light: Uint8Array, ground: Uint8Array): Task<Uint8Array> {
  const { count, area } = regions;
  const chosen = Uint8Array.from(area, (px2) => (px2 >= SMALLEST_PX2 ? CLOSED_OFF : 0));
  if (!chosen.includes(CLOSED_OFF)) return chosen;
  const { width, height } = art;
  const inRegions = fillRegions(regions, chosen, new Uint8Array(width * height));
  const { mean, spread } = groundColour(art, ground);
  const insides = meanInsides(art, regions, inRegions);
  const broadest = Math.max(LEAST_LINE_PX, LINE_SHARE * Math.max(width, height));
  yield 0.1;
  const lines = linesAmong(regions, yield* within(chamferInside(inRegions, width, height), 0.1, 0.4), broadest);
  const wider = labelRegions(light, width, height, 1, true);
  yield 0.5;
  const inLine = fillRegions(wider, linesAmong(wider, yield* within(chamferInside(light, width, height), 0.5, 0.9), broadest), new Uint8Array(width * height));
  const firstPixel = new Int32Array(count);
  for (let run = regions.runStart.length - 1; run >= 0; run--) firstPixel[regions.regionOfRun[run]] = regions.runStart[run];
  for (let k = 0; k < count; k++) {
    if (chosen[k] === 0) continue;
    const pixels = insides[4 * k + 3];
    const isOther = pixels > 0 && colourDifference(meanOf(insides, 4 * k, pixels), mean) > spread + MORE_UNITS + FEW_UNITS / Math.sqrt(pixels);
    if (isOther || lines[k] !== 0 || inLine[firstPixel[k]] !== 0) chosen[k] = DETAIL;
  }
  return chosen;
}

/** The mean colour of the ground, and how far from it most of its pixels lie that have none but ground around them. */
function groundColour(art: Art, ground: Uint8Array): { readonly mean: Rgb; readonly spread: number } {
  const { width, height } = art;
  const { data } = art.colour;
  // Some hundred thousand pixels tell it well enough.
  const stride = Math.max(1, Math.floor((width * height) / 200_000));
  const inside: number[] = [];
  for (let i = width + 1; i < width * (height - 1) - 1; i += stride)
    if (ground[i] + ground[i - 1] + ground[i + 1] + ground[i - width] + ground[i + width] === 5) inside.push(i);
  if (inside.length === 0) for (let i = 0; i < ground.length; i++) if (ground[i] !== 0) inside.push(i);
  const sums = new Float64Array(3);
  for (const i of inside) for (let c = 0; c < 3; c++) sums[c] += data[4 * i + c];
  const mean = meanOf(sums, 0, inside.length);
  const counts = new Float64Array(256);
  for (const i of inside)
    counts[Math.min(255, Math.round(LEVELS_PER_UNIT * colourDifference({ r: data[4 * i], g: data[4 * i + 1], b: data[4 * i + 2] }, mean)))]++;
  let level = 0;
  for (let sum = counts[0]; sum < SPREAD_SHARE * inside.length && level < 255; sum += counts[level]) level++;
  return { mean, spread: level / LEVELS_PER_UNIT };
}

const meanOf = (sums: Float64Array, at: number, pixels: number): Rgb => ({
  r: Math.round(sums[at] / pixels),
  g: Math.round(sums[at + 1] / pixels),
  b: Math.round(sums[at + 2] / pixels),
});

/** For each region the sums of red, green and blue of the pixels that have only their region around them, and how many those are. */
function meanInsides({ width, colour: { data } }: Art, { runStart, runEnd, regionOfRun, count }: Regions, inRegions: Uint8Array): Float64Array {
  const sums = new Float64Array(4 * count);
  for (let run = 0; run < runStart.length; run++) {
    const k = 4 * regionOfRun[run];
    for (let i = runStart[run] + 1; i < runEnd[run] - 1; i++) {
      if (inRegions[i] !== 1 || inRegions[i - width] !== 1 || inRegions[i + width] !== 1) continue;
      sums[k] += data[4 * i];
      sums[k + 1] += data[4 * i + 1];
      sums[k + 2] += data[4 * i + 2];
      sums[k + 3]++;
    }
  }
  return sums;
}

/** 1 for each region that is drawn as a line. @param broadest px. */
function linesAmong(regions: Regions, inside: Uint16Array, broadest: number): Uint8Array {
  const breadths = breadthsOf(regions, inside);
  return Uint8Array.from(regions.area, (px2, k) => (px2 > LEAST_LINE_PX2 && breadths[k] <= broadest && px2 >= LINE_LENGTHS * breadths[k] ** 2 ? 1 : 0));
}

/** How broad each region is where it is broadest, px. @param inside chamfer distance of its pixels to what is around it, from middle to middle. */
function breadthsOf({ runStart, runEnd, regionOfRun, count }: Regions, inside: Uint16Array): Float64Array {
  const breadths = new Float64Array(count);
  for (let run = 0; run < runStart.length; run++) {
    const k = regionOfRun[run];
    for (let i = runStart[run]; i < runEnd[run]; i++) if ((2 * inside[i]) / CHAMFER_PX - 1 > breadths[k]) breadths[k] = (2 * inside[i]) / CHAMFER_PX - 1;
  }
  return breadths;
}
