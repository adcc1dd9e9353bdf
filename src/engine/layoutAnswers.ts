import type { Design } from '../core/assemble/design.ts';
import type { PolygonLibrary } from '../core/combine/polygonLibrary.ts';
import type { Job } from '../core/job/job.ts';
import type { NestRecord } from '../core/layout/layout.ts';
import { mirroringOf } from '../core/layout/mirroringOf.ts';
import { nestFilm } from '../core/layout/nestSheets.ts';
import type { CleanResult } from '../core/run/applyRecipe.ts';
import { printedPictures, warningsOfPrint } from '../core/run/proofOnBlank.ts';
import type { CutResult } from '../core/run/runJob.ts';
import type { Task } from '../core/task/task.ts';
import { printFile } from '../formats/pdf/printFile.ts';
import { writePng } from '../formats/picture/writePng.ts';
import type { PrintsView } from './protocol.ts';
import { ownCopy } from './views.ts';

/** All clean art of a job by its objects, and what is cut of it. */
export interface WholeJob {
  readonly cleans: ReadonlyMap<string, CleanResult>;
  readonly cut: CutResult;
}

/** The art of a job that is printed, to be shown on its pages. */
export function printsView(job: Job, { cleans, cut }: WholeJob): PrintsView {
  const printed = printedPictures(job, cut, cleans) ?? [];
  return { key: [...cleans.values()].map(({ key }) => key).join(), pictures: printed.map(({ id, picture, toDesign }) => ({ id, toDesign, picture: ownCopy(picture) })), warnings: warningsOfPrint(job, printed) };
}

export const printedPdf = (job: Job, { cleans, cut }: WholeJob): Promise<Uint8Array<ArrayBuffer>> => printFile(job, cut, cleans, (picture) => Promise.resolve(writePng(picture)));

/** Looks for so many seconds for a better way to lay the parts of a film. */
export function nestFor(seconds: number, library: PolygonLibrary, design: Design, filmId: string, { layout, process }: Pick<Job, 'layout' | 'process'>): Task<NestRecord> {
  const started = Date.now();
  return nestFilm(library, design, filmId, { ...layout, mirrored: mirroringOf(layout, process).mirrored }, () => Math.min(1, (Date.now() - started) / (1000 * seconds)));
}
