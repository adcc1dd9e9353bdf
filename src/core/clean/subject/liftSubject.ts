import { AppError } from '../../errors/appError.ts';
import { artFromPicture, type Art } from '../../raster/art.ts';
import { fillRegions, labelRegions, largestRegion } from '../../raster/labelRegions.ts';
import type { Rgba8 } from '../../raster/raster.ts';
import { shrinkToSide } from '../../raster/shrink.ts';
import { within, type Task } from '../../task/task.ts';
import { isInEvenTones } from '../isInEvenTones.ts';
import { paintStroke } from '../paintStrokes.ts';
import { clearAround } from './clearAround.ts';
import { correctSubject } from './correctSubject.ts';
import { findSubject, type FoundSubject } from './findSubject.ts';
import { MARK } from './marks.ts';
import { groundReader, matteSubject } from './matte.ts';
import { softenRim } from './softRim.ts';
import { refineMask } from './refineMask.ts';

/** The subject is looked for on a picture reduced to this side, px; its border is then found on the full one. */
const WORK_SIDE_PX = 640;

/** A stroke that says what belongs to the subject or does not; coordinates and radius in art pixels. */
export interface SubjectStroke {
  readonly says: 'keep' | 'clear';
  readonly radius: number;
  /** x, y pairs. */
  readonly points: ArrayLike<number>;
  /** Goes around an area instead of over it. */
  readonly lasso?: boolean;
  /** Teaches what subject and ground look like everywhere, instead of acting near itself. */
  readonly teaches?: boolean;
}

export interface SubjectOptions {
  /** How far to both sides of the border pixels may be partly subject: hair, fur, blur, px. 0 for a border as sharp as the picture. */
  readonly rimPx?: number;
  /** Only the largest part that hangs together, and parts that a stroke keeps. */
  readonly largest?: boolean;
}

export interface SubjectLift {
  readonly art: Art;
  /** Pixels that were lifted. */
  readonly areaPx2: number;
  /** Whether the picture itself told what the subject is; else strokes have to, and do so everywhere. */
  readonly isSure: boolean;
}

/**
 * Clears everything but the subject, which is found by itself and corrected by strokes, in their order, each near itself unless it teaches. What is clear
 * already stays clear. About two seconds whatever the size, and 0.2 µs a pixel along the border; another stroke on the same picture costs a tenth, since what
 * was found without it is remembered.
 * @throws AppError `noSubject` when all of it is ground.
 */
export function* liftSubject(art: Art, strokes: readonly SubjectStroke[] = [], { rimPx = 0, largest = false }: SubjectOptions = {}): Task<SubjectLift> {
  const { width, height, colour } = art;
  const { small, found, said } = yield* within(foundIn(art, strokes), 0, 0.8);
  const { ground } = found;
  const subject = corrected(found, small.width / width, strokes, said, largest);
  if (!subject.includes(1)) throw new AppError('noSubject');
  const mask = small.width === width ? subject : yield* within(refineMask(colour, subject, small.width, small.height), 0.8, 0.85);
  const groundAt = groundReader(ground.colour.planes, small.width, small.height, width, height);
  const flat = rimPx === 0 && isInEvenTones(artFromPicture(small)) ? yield* within(clearAround(art, mask, strokes.length > 0), 0.85, 0.95) : undefined;
  const sharp = flat ?? matteSubject(art, mask, groundAt);
  const lifted = rimPx > 0 ? yield* within(softenRim(sharp, art, groundAt, rimPx), 0.85, 1) : sharp;
  let areaPx2 = 0;
  let left = 0;
  for (let i = 0; i < lifted.alpha.length; i++) {
    if (lifted.alpha[i] >= 128) left++;
    else if (art.alpha[i] >= 128) areaPx2++;
  }
  // Dust that was left over is no subject, unless one said so.
  if (left < LEAST_LEFT * lifted.alpha.length && !strokes.some(({ says }) => says === 'keep')) throw new AppError('noSubject');
  return { art: lifted, areaPx2, isSure: found.isSure };
}

/** Less of the picture than this is no subject. */
const LEAST_LEFT = 5e-4;

interface Found {
  readonly marks: Uint8Array;
  readonly subject: FoundSubject;
}

interface FoundBefore {
  readonly small: Rgba8;
  /** What was found without strokes, and with those that were there last. */
  readonly alone: Found;
  readonly last: Found;
}

/** What was found in a picture, by its pixels, which never change: only strokes come and go. */
const foundBefore = new WeakMap<Rgba8, FoundBefore>();

/** The subject with the strokes that say what it is: those that teach, and all of them where nothing else tells it. */
function* foundIn(art: Art, strokes: readonly SubjectStroke[]): Task<{ small: Rgba8; found: FoundSubject; said: readonly SubjectStroke[] }> {
  const before = foundBefore.get(art.colour);
  const small = before?.small ?? shrinkToSide(art.colour, WORK_SIDE_PX);
  yield 0;
  const marksWith = (some: readonly SubjectStroke[]): Uint8Array => marksOf(art, small.width, small.height, some);
  const isSame = (marks: Uint8Array, found: Found | undefined): found is Found => found !== undefined && marks.every((mark, i) => mark === found.marks[i]);
  const plain = marksWith([]);
  const alone: Found = isSame(plain, before?.alone)
    ? before.alone
    : { marks: plain, subject: yield* within(findSubject(small, plain), 0, strokes.length > 0 ? 0.5 : 1) };
  const said = alone.subject.isSure ? strokes.filter(({ teaches }) => teaches === true) : strokes;
  const marks = marksWith(said);
  const last: Found =
    said.length === 0
      ? alone
      : isSame(marks, before?.last)
        ? before.last
        : { marks, subject: yield* within(findSubject(small, marks, !alone.subject.isSure), 0.5, 1) };
  foundBefore.set(art.colour, { small, alone, last });
  return { small, found: last.subject, said };
}

/** A stroke reaches as far as it is long, and so many times its radius, within these, px of the reduced picture. */
const REACH_RADII = 3;
const LEAST_REACH_PX = 16;
const MOST_REACH_PX = 120;

/** The subject after all strokes, each near itself but for those that it was found by. @param scale pixels of the reduced picture on one of the art. */
function corrected(
  { subject, colours }: FoundSubject,
  scale: number,
  strokes: readonly SubjectStroke[],
  said: readonly SubjectStroke[],
  largest: boolean,
): Uint8Array {
  const { width, height } = colours;
  const covers = strokes.map((stroke) => coverOf(stroke, scale, width, height));
  const marks = new Uint8Array(width * height);
  for (const [k, cover] of covers.entries()) for (let i = 0; i < marks.length; i++) if (cover[i] !== 0) marks[i] = MARK[strokes[k].says];
  let now = subject;
  for (const [k, cover] of covers.entries()) {
    const { says, radius, points, lasso } = strokes[k];
    if (said.includes(strokes[k])) continue;
    if (lasso === true) {
      // It says all there is to say: what is inside.
      now = now.slice();
      for (let i = 0; i < now.length; i++) if (marks[i] !== 0 && cover[i] !== 0) now[i] = marks[i] === MARK.keep ? 1 : 0;
      continue;
    }
    const reachPx = Math.max(LEAST_REACH_PX, Math.min(MOST_REACH_PX, (REACH_RADII * radius + lengthOf(points) / 2) * scale));
    now = correctSubject(now, colours, marks, { says, cover, reachPx });
  }
  return largest ? largestPart(now, marks, width, height) : now;
}

function lengthOf(points: ArrayLike<number>): number {
  let length = 0;
  for (let k = 2; k + 1 < points.length; k += 2) length += Math.hypot(points[k] - points[k - 2], points[k + 1] - points[k - 1]);
  return length;
}

/** 1 for the pixels of the reduced picture that a stroke covers, or goes around. */
function coverOf({ radius, points, lasso }: SubjectStroke, scale: number, width: number, height: number): Uint8Array {
  const placed = Float64Array.from(points, (v) => v * scale);
  if (lasso === true) return insideOf(placed, width, height);
  const cover = new Uint8Array(width * height);
  paintStroke(cover, width, height, placed, Math.max(0.6, radius * scale));
  return cover.map((value) => (value >= 128 ? 1 : 0));
}

/** 1 for the pixels whose middles lie inside a closed path of x, y pairs, by crossings of their rows. */
function insideOf(path: Float64Array, width: number, height: number): Uint8Array {
  const inside = new Uint8Array(width * height);
  const n = path.length >> 1;
  for (let y = 0; y < height; y++) {
    const at: number[] = [];
    for (let k = 0, j = n - 1; k < n; j = k++) {
      const [y0, y1] = [path[2 * j + 1], path[2 * k + 1]];
      if (y0 > y + 0.5 !== y1 > y + 0.5) at.push(path[2 * j] + ((path[2 * k] - path[2 * j]) * (y + 0.5 - y0)) / (y1 - y0));
    }
    at.sort((a, b) => a - b);
    for (let k = 0; k + 1 < at.length; k += 2)
      inside.fill(1, y * width + Math.max(0, Math.ceil(at[k] - 0.5)), y * width + Math.max(0, Math.min(width, Math.ceil(at[k + 1] - 0.5))));
  }
  return inside;
}

/** The largest part that hangs together, and those that a stroke keeps. */
function largestPart(subject: Uint8Array, marks: Uint8Array, width: number, height: number): Uint8Array {
  const parts = labelRegions(subject, width, height, 1, true);
  const kept = new Uint8Array(parts.count);
  if (parts.count > 0) kept[largestRegion(parts)] = 1;
  for (let run = 0; run < parts.runStart.length; run++)
    for (let i = parts.runStart[run]; i < parts.runEnd[run]; i++) if (marks[i] === MARK.keep) kept[parts.regionOfRun[run]] = 1;
  return fillRegions(parts, kept, new Uint8Array(subject.length));
}

/** What is settled beforehand, on the reduced picture: clear pixels are no subject, and strokes say the rest; the last one counts. */
function marksOf(art: Art, width: number, height: number, strokes: readonly SubjectStroke[]): Uint8Array {
  const marks = new Uint8Array(width * height);
  const scale = width / art.width;
  for (let y = 0; y < height; y++) {
    const row = Math.min(art.height - 1, Math.floor((y + 0.5) / scale)) * art.width;
    for (let x = 0; x < width; x++) if (art.alpha[row + Math.min(art.width - 1, Math.floor((x + 0.5) / scale))] === 0) marks[y * width + x] = MARK.clear;
  }
  for (const stroke of strokes) {
    const cover = coverOf(stroke, scale, width, height);
    for (let i = 0; i < marks.length; i++) if (cover[i] !== 0) marks[i] = MARK[stroke.says];
  }
  return marks;
}
