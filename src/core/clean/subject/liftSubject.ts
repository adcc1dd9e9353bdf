import { artFromPicture, isOpaque, type Art } from '../../raster/art.ts';
import { shrinkToSide } from '../../raster/shrink.ts';
import type { Task } from '../../task/task.ts';
import { findSubject } from './findSubject.ts';
import { groundReader, matteSubject } from './matte.ts';
import { refineMask } from './refineMask.ts';

/** The subject is looked for on a picture reduced to this side, px; its border is then found on the full one. */
const WORK_SIDE_PX = 640;

export interface SubjectLift {
  readonly art: Art;
  /** Pixels that were lifted. */
  readonly areaPx2: number;
}

/** Clears everything but the subject. */
export function* liftSubject(art: Art): Task<SubjectLift> {
  const { width, height, colour } = art;
  const small = shrinkToSide(colour, WORK_SIDE_PX);
  const { subject, ground } = yield* findSubject(small);
  yield 0.8;
  const mask = small.width === width ? subject : refineMask(colour, subject, small.width, small.height);
  yield 0.9;
  const lifted = matteSubject(art, mask, groundReader(ground.colour.planes, small.width, small.height, width, height));
  let areaPx2 = 0;
  for (let i = 0; i < lifted.alpha.length; i++) if (lifted.alpha[i] < 128 && art.alpha[i] >= 128) areaPx2++;
  return { art: lifted, areaPx2 };
}
void artFromPicture;
void isOpaque;
