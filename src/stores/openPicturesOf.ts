import { AppError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import { pictureOf, tracedPart } from '../core/job/tracedPart.ts';
import { pictureKeyOf } from '../engine/protocol.ts';
import type { Services } from './services.ts';

/** Opens the pictures of a job on the shelf; gives the key of the one that its lowest part is made of. @throws AppError `pictureMissing`. */
export async function openPicturesOf(job: Job, { engine, storage }: Pick<Services, 'engine' | 'storage'>): Promise<string> {
  const info = pictureOf(job, tracedPart(job));
  if (info === undefined) throw new AppError('pictureMissing');
  for (const { id, drawnSidePx } of job.pictures) {
    const file = await storage.picture(id);
    if (file === undefined) throw new AppError('pictureMissing');
    await engine.open(file.bytes.slice(), file.fileName, { id, drawnSidePx });
  }
  return pictureKeyOf(info);
}
