import { basename } from 'node:path';
import { USUAL_STOCK } from '../src/core/film/stock.ts';
import type { Job } from '../src/core/job/job.ts';
import { tracedPart } from '../src/core/job/tracedPart.ts';
import { proposedJob } from '../src/core/propose/propose.ts';
import type { Art } from '../src/core/raster/art.ts';
import { cleanPart, cutJob, type CutResult } from '../src/core/run/runJob.ts';
import { hashBytes } from '../src/core/task/hash.ts';
import { finish } from '../src/core/task/task.ts';
import { ShapeMaker } from '../src/engine/designShapes.ts';
import { decodeFile } from './decodeFile.ts';
import { readBytes } from './files.ts';
import { shapeTools } from './shapeTools.ts';

/** A picture taken the whole way to its films as the first look proposes. */
export interface CutPicture {
  readonly job: Job;
  readonly art: Art;
  readonly cut: CutResult;
}

/** @param empty the job without a picture that says the process. @param widthMm finished width; what is usual on the blank when absent. @throws AppError of whatever stage cannot go on. */
export async function cutPicture(path: string, empty: Job, widthMm: number | undefined): Promise<CutPicture> {
  const { picture } = await decodeFile(await readBytes(path), basename(path), {});
  const job = proposedJob(empty, picture, USUAL_STOCK, widthMm);
  const part = tracedPart(job);
  const clean = finish(cleanPart(part, picture, hashBytes(picture.data as Uint8Array)));
  const shapes = await new ShapeMaker(shapeTools).of(job);
  return { job, art: clean.art, cut: finish(cutJob(job, new Map([[part.id, clean]]), part.id, undefined, shapes)) };
}
