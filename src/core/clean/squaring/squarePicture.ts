import { AppError } from '../../errors/appError.ts';
import { artFromPicture } from '../../raster/art.ts';
import { lumaAt } from '../../raster/luma.ts';
import { wordsOf, type Rgba8 } from '../../raster/raster.ts';
import { within, type Task } from '../../task/task.ts';
import { pxPerMm, type PxPerMm } from '../../units/length.ts';
import { levelLight } from '../levelLight.ts';
import { photoFromSheet, scaleAt, viewThrough, type Lens, type SheetView } from './camera.ts';
import { findMarks, type FoundMark } from './findMarks.ts';
import { CORNERS, MARK_RADIUS_MM, marksOf, workArea, type Paper } from './markSheet.ts';
import { matchMarks, missesMm, settled, type MatchedSheet } from './matchMarks.ts';
import { rectangleAspect } from './rectangleAspect.ts';
import { rectified, type SheetArea } from './rectify.ts';
import { say } from '../../words/say.ts';

export type PointPx = readonly [number, number];

export type SquaringMarks =
  /** The mark sheet is found by itself, or from about where its corner marks are: upper left, upper right, lower right, lower left as printed. */
  | { readonly by: 'sheet'; readonly corners?: readonly PointPx[] }
  /** A rectangle that was marked by hand, clockwise from its upper left corner, with the true length of its first side, and of the second where it is known. */
  | { readonly by: 'corners'; readonly corners: readonly PointPx[]; readonly widthMm: number; readonly heightMm?: number };

export interface SquaringOptions {
  readonly marks: SquaringMarks;
  /** What is known of the lens from another photo of the same camera. */
  readonly lens?: Lens;
  /** Take the light off as well. */
  readonly levelLight: boolean;
  /** Goes on when marks other than the corners are not found. */
  readonly allowMissing?: boolean;
}

export interface Squared {
  readonly picture: Rgba8;
  readonly resolution: PxPerMm;
  readonly view: SheetView;
  /** What of the sheet the picture shows, mm. */
  readonly area: SheetArea;
  readonly paper?: Paper;
  /** Marks found of those on the sheet. */
  readonly marksFound: number;
  readonly marksOnSheet: number;
  /** Distance between where marks are and where the view puts them, mm; 0 for four corners, which always fit. */
  readonly meanMissMm: number;
  readonly worstMissMm: number;
}

/** A view that misses marks by more than this is not trusted, mm. */
const WORST_MISS_MM = 0.6;
/** Edges softer than this share of a mark's radius say that the photo is blurred. */
const BLURRED = 0.75;
/** Most pixels of a side that comes out. */
const LARGEST_SIDE_PX = 8000;

/**
 * Flattens a photo of work on the mark sheet, or of anything with a rectangle of known size, and brings it to true scale.
 * @throws AppError `marksMissing`, `marksGlare`, `photoBlurred`, `marksMisfit`, or `badCorners` for four corners that make no rectangle.
 */
export function* squarePicture(photo: Rgba8, options: SquaringOptions): Task<Squared> {
  const { marks, lens } = options;
  if (marks.by === 'corners') {
    const { view, area } = viewOfCorners(photo, marks, lens);
    return yield* flattened(photo, options, { view, area, marksFound: 4, marksOnSheet: 4, meanMissMm: 0, worstMissMm: 0 });
  }
  const luma = lumaOf(photo);
  yield 0.1;
  const rings = findMarks(luma, photo.width, photo.height);
  yield 0.25;
  const sheet = marks.corners === undefined ? matchMarks(rings, photo.width, photo.height, lens) : fromCorners(rings, photo, marks.corners, lens);
  if (sheet === undefined)
    throw new AppError(isBlurred(rings) ? 'photoBlurred' : 'marksMissing', { found: rings.length, needed: marksOf('a4').length, which: '' });
  assertGood(sheet, luma, photo, options.allowMissing === true);
  const misses = missesMm(sheet);
  const found = sheet.found.filter((mark) => mark !== undefined).length;
  const known = {
    view: sheet.view,
    area: workArea(sheet.paper),
    marksFound: found,
    marksOnSheet: sheet.found.length,
    meanMissMm: misses.reduce((a, b) => a + b, 0) / misses.length,
    worstMissMm: Math.max(...misses),
  };
  if (known.worstMissMm > WORST_MISS_MM) throw new AppError('marksMisfit', { missMm: Math.round(known.worstMissMm * 100) / 100 });
  return { ...(yield* flattened(photo, options, known)), paper: sheet.paper };
}

function* flattened(photo: Rgba8, options: SquaringOptions, known: Omit<Squared, 'picture' | 'resolution'>): Task<Squared> {
  const { view, area } = known;
  const scale = scaleAt(view, area.xMm + area.widthMm / 2, area.yMm + area.heightMm / 2);
  const resolution = pxPerMm(Math.min(scale, LARGEST_SIDE_PX / Math.max(area.widthMm, area.heightMm)));
  const flat = yield* within(rectified(photo, view, area, resolution), 0.3, 0.8);
  const picture = options.levelLight ? (yield* within(levelLight(artFromPicture(flat)), 0.8, 1)).art.colour : flat;
  return { ...known, picture, resolution };
}

function viewOfCorners(
  photo: Rgba8,
  { corners, widthMm, heightMm }: Extract<SquaringMarks, { by: 'corners' }>,
  lens?: Lens,
): { view: SheetView; area: SheetArea } {
  if (corners.length !== 4 || !isConvex(corners)) throw new AppError('badCorners');
  const middle = corners.map(([x, y]) => [x - photo.width / 2, y - photo.height / 2] as const);
  const height = heightMm ?? widthMm / rectangleAspect(middle, Math.hypot(photo.width, photo.height) / 2);
  const view = viewThrough([0, 0, widthMm, 0, widthMm, height, 0, height], corners.flat(), photo.width, photo.height, lens);
  if (view === undefined || !(height > 0)) throw new AppError('badCorners');
  return { view, area: { xMm: 0, yMm: 0, widthMm, heightMm: height } };
}

/** Whether four points go once around a convex figure in one direction. */
function isConvex(corners: readonly PointPx[]): boolean {
  const turns = corners.map((a, k) => {
    const [b, c] = [corners[(k + 1) % 4], corners[(k + 2) % 4]];
    return (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]);
  });
  return turns.every((turn) => turn > 1) || turns.every((turn) => turn < -1);
}

function fromCorners(rings: readonly FoundMark[], photo: Rgba8, corners: readonly PointPx[], lens?: Lens): MatchedSheet | undefined {
  if (corners.length !== 4 || !isConvex(corners)) throw new AppError('badCorners');
  const matches = (['a4', 'letter'] as const).flatMap((paper) => {
    const marks = marksOf(paper);
    const view = viewThrough(
      CORNERS.flatMap((k) => [marks[k].xMm, marks[k].yMm]),
      corners.flat(),
      photo.width,
      photo.height,
      lens,
    );
    const match = view === undefined ? undefined : settled(paper, view, rings);
    return match === undefined ? [] : [match];
  });
  const count = ({ found }: MatchedSheet): number => found.filter((mark) => mark !== undefined).length;
  return matches.sort((a, b) => count(b) - count(a) || missesMm(a)[0] - missesMm(b)[0])[0];
}

function lumaOf(photo: Rgba8): Uint8Array {
  const words = wordsOf(photo);
  const alpha = artFromPicture(photo).alpha;
  const luma = new Uint8Array(words.length);
  for (let y = 0; y < photo.height; y++) for (let i = y * photo.width; i < (y + 1) * photo.width; i++) luma[i] = lumaAt(words, alpha, i);
  return luma;
}

function isBlurred(rings: readonly FoundMark[]): boolean {
  const soft = rings.map(({ blurPx, shortPx }) => blurPx / shortPx).sort((a, b) => a - b);
  return soft.length > 0 && soft[soft.length >> 1] > BLURRED;
}

/** Names of the corners for messages, in the order of `CORNERS`. */
const CORNER_NAMES = [say('upper left'), say('upper right'), say('lower right'), say('lower left')];
/** Names of the sides that begin at them, clockwise. */
const SIDE_NAMES = [say('top'), say('right'), say('bottom'), say('left')];

function assertGood(sheet: MatchedSheet, luma: Uint8Array, photo: Rgba8, allowMissing: boolean): void {
  const { found, paper, view } = sheet;
  const rings = found.filter((mark) => mark !== undefined);
  if (isBlurred(rings)) throw new AppError('photoBlurred', { found: rings.length, needed: found.length });
  const at = new Float64Array(2);
  const missing: number[] = [];
  marksOf(paper).forEach(({ xMm, yMm }, k) => {
    if (found[k] !== undefined) return;
    photoFromSheet(view, xMm, yMm, at);
    const radius = MARK_RADIUS_MM * scaleAt(view, xMm, yMm);
    if (glares(luma, photo, at[0], at[1], radius)) throw new AppError('marksGlare', { which: nameOf(k) });
    missing.push(k);
  });
  if (missing.length === 0 || (allowMissing && missing.length <= 6 && CORNERS.every((k) => found[k] !== undefined))) return;
  throw new AppError('marksMissing', { found: rings.length, needed: found.length, which: nameOf(missing[0]) });
}

function nameOf(k: number): string {
  const corner = (CORNERS as readonly number[]).indexOf(k);
  if (corner >= 0) return CORNER_NAMES[corner];
  const side = CORNERS.findLastIndex((first) => k > first);
  return say`number ${k - CORNERS[side]} of the ${SIDE_NAMES[side]} side`;
}

/** Lightness that is burnt out, and the share of a mark's place that must be. */
const BURNT = 250;
const BURNT_SHARE = 0.5;

function glares(luma: Uint8Array, { width, height }: Rgba8, x: number, y: number, radius: number): boolean {
  let seen = 0;
  let burnt = 0;
  for (let yy = Math.max(0, Math.floor(y - radius)); yy < Math.min(height, y + radius); yy++) {
    for (let xx = Math.max(0, Math.floor(x - radius)); xx < Math.min(width, x + radius); xx++) {
      seen++;
      if (luma[yy * width + xx] >= BURNT) burnt++;
    }
  }
  return seen > 0 && burnt >= BURNT_SHARE * seen;
}
