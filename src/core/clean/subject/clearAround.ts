import { colourDifference, tintDifference, type Rgb } from '../../colour/oklab.ts';
import type { Art } from '../../raster/art.ts';
import { eachBorderPixel } from '../../raster/eachBorderPixel.ts';
import { labelRegions, type Regions } from '../../raster/labelRegions.ts';
import { byRows, within, type Task } from '../../task/task.ts';
import { settledTones } from '../settling/settledTones.ts';
import { middleColour } from '../middleColour.ts';
import { clearLifted } from '../softenLift.ts';

/** An area of one tone that is nearly all on one side is on that side as a whole. */
const NEARLY_ALL = 0.9;
/** A tone so far from the ground's, perceptual difference, or of so much another tint, is not the ground in shadow. */
const NO_SHADOW = 20;
const NO_TINT = 5;
/** More of the picture than this in tones nearer to the ground's is shadow on it. */
const MOST_SHADED = 0.004;
/** A tone that has so much of the border is the ground of flat art. */
const PLAIN_AROUND = 0.6;
/** Another area with less of the border than this is art that the frame cuts; with more it may be ground too, as water is below a sky. */
const CUT_BY_FRAME = 0.15;
/** Art with so much of its edge against one tone lies on that tone alone: the rest is what compression or a touching line leaves. */
const ALONE = 0.9;
/** What has the ground's tone but, over so many px away from its edge, a mean this far from the ground's, levels, is pale art and not the ground. */
const TELLING_PX2 = 150;
const OFF_GROUND = 6;

/** What one area of flat art says of itself. */
interface Area {
  readonly tone: number;
  /** Share of it that the mask keeps. */
  readonly kept: number;
  /** Share of the picture's border that it has. */
  readonly ofBorder: number;
  /** Closed off, in the ground's tone, by art that has that tone on its other sides too, as a letter has around it and in its counters. */
  readonly isCounter: boolean;
}

/** What areas are told by. */
interface Seen {
  readonly labels: Uint8Array;
  readonly mask: Uint8Array;
  readonly width: number;
  readonly height: number;
  /** The ground's tone, −1 where it is not known. */
  readonly around: number;
  /** RGBA bytes. */
  readonly colours: Uint8Array;
}

/**
 * In flat art areas go or stay as a whole, thin lines and small bits too, and the edge is known as exactly as after a lift by pointing. Where one tone has most
 * of the border it is the ground, and what has quite another tone is not, but where it has much of the border too.
 * @param mask 1 where the subject is thought to be. @param isSaid whether strokes said what stays: then that counts alone.
 * @returns undefined where a shadow lies on the ground, which is no flat art then.
 */
export function* clearAround(art: Art, mask: Uint8Array, isSaid: boolean): Task<Art | undefined> {
  const { width, height, alpha } = art;
  const inTones = yield* within(settledTones(art, { count: 'auto' }), 0, 0.8);
  const { labels, tones } = inTones;
  const regions = labelRegions(labels, width, height, 'each', false);
  yield 0.82;
  const around = isSaid ? -1 : toneAround(labels, alpha, width, height);
  const areas = yield* areasOf(regions, { labels, mask, width, height, around, colours: art.colour.data });
  const isFar = tones.map((tone) => around >= 0 && isFarFrom(tone, tones[around]));
  if (around >= 0 && shadedPx(areas, regions, around, isFar) > MOST_SHADED * labels.length) return undefined;
  const verdicts = areas.map((area) => verdictOn(area, around, isFar));
  const lifted = new Uint8Array(mask.length);
  for (let run = 0; run < regions.runStart.length; run++) {
    const verdict = verdicts[regions.regionOfRun[run]];
    if (verdict === 'stays') continue;
    for (let i = regions.runStart[run]; i < regions.runEnd[run]; i++) if (alpha[i] !== 0 && (verdict === 'goes' || mask[i] === 0)) lifted[i] = 1;
  }
  const ground = yield* within(middleColour(art, lifted), 0.89, 0.9);
  return yield* within(clearLifted(art, { lifted, ground, everywhere: false, inTones }), 0.9, 1);
}

function* areasOf(regions: Regions, { labels, mask, width, height, around, colours }: Seen): Task<Area[]> {
  const { runStart, runEnd, regionOfRun, count, area } = regions;
  const tone = new Uint8Array(count);
  const kept = new Float64Array(count);
  const border = new Float64Array(count);
  const regionOf = new Int32Array(labels.length);
  for (let run = 0; run < runStart.length; run++) {
    const k = regionOfRun[run];
    tone[k] = labels[runStart[run]];
    regionOf.fill(k, runStart[run], runEnd[run]);
    for (let i = runStart[run]; i < runEnd[run]; i++) kept[k] += mask[i];
  }
  eachBorderPixel(width, height, (i) => void border[regionOf[i]]++);
  const isAround = Uint8Array.from(tone, (each) => (each === around ? 1 : 0));
  const isOpen = around < 0 ? isAround : yield* within(closedByLoneArt(regionOf, isAround, width), 0.83, 0.86);
  const isPale = around < 0 ? isAround : yield* within(paleAreas(regionOf, border, isAround, colours, width), 0.86, 0.88);
  return Array.from(tone, (each, k) => ({
    tone: each,
    kept: kept[k] / area[k],
    ofBorder: border[k] / (2 * (width + height)),
    isCounter: isOpen[k] === 1 && isPale[k] === 0,
  }));
}

/** 1 for areas of the ground's tone whose neighbours have nearly all of their edges against that tone. */
function* closedByLoneArt(regionOf: Int32Array, isAround: Uint8Array, width: number): Task<Uint8Array> {
  const [edge, alike, byLone] = [new Float64Array(isAround.length), new Float64Array(isAround.length), new Float64Array(isAround.length)];
  const addWhere = (sum: Float64Array, counts: (other: number) => boolean): Task<void> =>
    eachEdge(regionOf, width, (a, b) => {
      if (counts(b)) sum[a]++;
      if (counts(a)) sum[b]++;
    });
  yield* within(addWhere(edge, () => true), 0, 0.3);
  yield* within(addWhere(alike, (other) => isAround[other] === 1), 0.3, 0.6);
  yield* within(addWhere(byLone, (other) => isAround[other] === 0 && alike[other] >= ALONE * edge[other]), 0.6, 1);
  return isAround.map((is, k) => (is === 1 && byLone[k] >= ALONE * edge[k] ? 1 : 0));
}

/** Visits the sides of pixels that part two regions. */
function eachEdge(regionOf: Int32Array, width: number, visit: (a: number, b: number) => void): Task<void> {
  return byRows(regionOf.length / width, (y) => {
    for (let i = y * width, last = i + width - 1; i <= last; i++) {
      const a = regionOf[i];
      if (i < last && regionOf[i + 1] !== a) visit(a, regionOf[i + 1]);
      if (i + width < regionOf.length && regionOf[i + width] !== a) visit(a, regionOf[i + width]);
    }
  });
}

/** 1 for areas that have the ground's tone, but inside another mean colour than the ground. */
function* paleAreas(regionOf: Int32Array, border: Float64Array, isAround: Uint8Array, colours: Uint8Array, width: number): Task<Uint8Array> {
  const sums = Array.from(isAround, () => new Float64Array(4));
  const ground = new Float64Array(4);
  const isIn = (k: number, i: number): boolean => regionOf[i] === k;
  const addRow = (y: number): void => {
    for (let i = y * width; i < (y + 1) * width; i++) {
      const k = regionOf[i];
      if (isAround[k] === 0 || !(isIn(k, i - 1) && isIn(k, i + 1) && isIn(k, i - width) && isIn(k, i + width))) continue;
      const sum = border[k] > 0 ? ground : sums[k];
      for (let c = 0; c < 3; c++) sum[c] += colours[4 * i + c];
      sum[3]++;
    }
  };
  yield* byRows(regionOf.length / width - 2, (y) => addRow(y + 1));
  return isAround.map((_, k) => (sums[k][3] >= TELLING_PX2 && [0, 1, 2].some((c) => Math.abs(sums[k][c] / sums[k][3] - ground[c] / ground[3]) > OFF_GROUND) ? 1 : 0));
}

const isFarFrom = (tone: Rgb, ground: Rgb): boolean => colourDifference(tone, ground) >= NO_SHADOW || tintDifference(tone, ground) >= NO_TINT;

/** How much of what would go is in tones that may be the ground in shadow, px². */
function shadedPx(areas: readonly Area[], { area }: Regions, around: number, isFar: readonly boolean[]): number {
  return areas.reduce((sum, { tone, kept }, k) => (tone !== around && !isFar[tone] ? sum + area[k] * (1 - kept) : sum), 0);
}

/** @returns what becomes of an area; of one that is neither, each pixel goes by the mask. */
function verdictOn({ tone, kept, ofBorder, isCounter }: Area, around: number, isFar: readonly boolean[]): 'goes' | 'stays' | 'parts' {
  if (around >= 0 && tone === around) return ofBorder > 0 || isCounter || kept < 0.5 ? 'goes' : 'stays';
  if (around >= 0 && isFar[tone] && ofBorder < CUT_BY_FRAME) return 'stays';
  return kept >= NEARLY_ALL ? 'stays' : kept <= 1 - NEARLY_ALL ? 'goes' : 'parts';
}

/** The tone that most of the border has, −1 where none has enough of it. */
function toneAround(labels: Uint8Array, alpha: Uint8Array, width: number, height: number): number {
  const votes = new Uint32Array(256);
  eachBorderPixel(width, height, (i) => {
    if (alpha[i] !== 0) votes[labels[i]]++;
  });
  const most = Math.max(...votes);
  return most >= PLAIN_AROUND * 2 * (width + height) ? votes.indexOf(most) : -1;
}
