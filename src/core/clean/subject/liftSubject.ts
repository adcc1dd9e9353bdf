import { AppError } from '../../errors/appError.ts';
import type { Art } from '../../raster/art.ts';
import { shrinkToSide } from '../../raster/shrink.ts';
import { within, type Task } from '../../task/task.ts';
import { paintStroke } from '../paintStrokes.ts';
import { findSubject } from './findSubject.ts';
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
}

export interface SubjectLift {
  readonly art: Art;
  /** Pixels that were lifted. */
  readonly areaPx2: number;
}

/**
 * Clears everything but the subject, which is found by itself and corrected by strokes. What is clear already stays clear. About two seconds whatever the
 * size, and 0.2 µs a pixel along the border.
 * @param rimPx how far to both sides of the border pixels may be partly subject: hair, fur, blur. 0 for a border as sharp as the picture.
 * @throws AppError `noSubject` when all of it is ground.
 */
export function* liftSubject(art: Art, strokes: readonly SubjectStroke[] = [], rimPx = 0): Task<SubjectLift> {
  const { width, height, colour } = art;
  const small = shrinkToSide(colour, WORK_SIDE_PX);
  const { subject, ground } = yield* within(findSubject(small, marksOf(art, small.width, small.height, strokes)), 0, 0.8);
  if (!subject.includes(1)) throw new AppError('noSubject');
  const mask = small.width === width ? subject : refineMask(colour, subject, small.width, small.height);
  yield 0.85;
  const groundAt = groundReader(ground.colour.planes, small.width, small.height, width, height);
  const sharp = matteSubject(art, mask, groundAt);
  const lifted = rimPx > 0 ? yield* within(softenRim(sharp, art, groundAt, rimPx), 0.85, 1) : sharp;
  let areaPx2 = 0;
  for (let i = 0; i < lifted.alpha.length; i++) if (lifted.alpha[i] < 128 && art.alpha[i] >= 128) areaPx2++;
  return { art: lifted, areaPx2 };
}

/** What is settled beforehand, on the reduced picture: clear pixels are no subject, and strokes say the rest; the last one counts. */
function marksOf(art: Art, width: number, height: number, strokes: readonly SubjectStroke[]): Uint8Array {
  const marks = new Uint8Array(width * height);
  const scale = width / art.width;
  for (let y = 0; y < height; y++) {
    const row = Math.min(art.height - 1, Math.floor((y + 0.5) / scale)) * art.width;
    for (let x = 0; x < width; x++) if (art.alpha[row + Math.min(art.width - 1, Math.floor((x + 0.5) / scale))] === 0) marks[y * width + x] = MARK.clear;
  }
  for (const { says, radius, points } of strokes) {
    const cover = new Uint8Array(marks.length);
    paintStroke(cover, width, height, Float64Array.from(points, (v) => v * scale), Math.max(0.6, radius * scale));
    for (let i = 0; i < marks.length; i++) if (cover[i] >= 128) marks[i] = MARK[says];
  }
  return marks;
}
