import type { Design } from '../core/assemble/design.ts';
import type { Finding } from '../core/check/cutCheck.ts';
import { applyRecipe, type CleanResult, type KeptSteps } from '../core/run/applyRecipe.ts';
import type { Job } from '../core/job/job.ts';
import { checkOf, designOf, finishedSizeOf, outlineArt, sheetsOf, type OutlinedArt } from '../core/run/runJob.ts';
import type { Remember } from '../core/run/separateArt.ts';
import type { Sheet } from '../core/layout/laySheet.ts';
import { artFromPicture, type Art } from '../core/raster/art.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import type { Task } from '../core/task/task.ts';

/** From clean art to what is cut. */
export interface CutResult extends OutlinedArt {
  readonly design: Design;
  /** One for each film, lowest first. */
  readonly sheets: readonly Sheet[];
  readonly findings: readonly Finding[];
}

/** The recipe on a picture; `scale` is art pixels per picture pixel when the picture handed in is a reduced one. */
export function* cleanPicture(job: Pick<Job, 'recipe' | 'assembly' | 'outline'>, picture: Rgba8, pictureKey: string, kept?: KeptSteps, scale = 1): Task<CleanResult> {
  const input = { picture: artFromPicture(picture, scale), pictureKey, recipe: job.recipe, finished: finishedSizeOf(job) };
  return yield* applyRecipe(kept === undefined ? input : { ...input, kept });
}

/** Separation, outlines, design, sheets and cut check. @throws AppError of the stage that cannot go on. */
export function* cutArt(job: Job, art: Art, remember?: Remember): Task<CutResult> {
  const separated = yield* outlineArt(job, art, remember);
  const design = designOf(job, separated.films);
  return { ...separated, design, sheets: sheetsOf(job, design), findings: checkOf(job, design, art.frame) };
}
