import { strToU8, zipSync } from 'fflate';
import { AppError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import { assertFits } from '../core/layout/laySheet.ts';
import { penDrawing, testCut } from '../core/layout/tryOuts.ts';
import { pictureFromArt, type Art } from '../core/raster/art.ts';
import { writePng } from '../formats/picture/writePng.ts';
import { sheetFiles } from '../formats/svg/sheetFiles.ts';
import { writeSheetSvg } from '../formats/svg/writeSvg.ts';
import { cutPlansOf, type CutResult } from '../core/run/runJob.ts';
import type { ExportKind, ExportRequest } from './protocol.ts';
import { say } from '../core/words/say.ts';

/** A file of what is cut. @throws AppError `doesNotFit` for sheets, `filmMissing` for the sheet of a film that is not there. */
export function exportFile(kind: Exclude<ExportKind, 'thumbnail'>, cut: CutResult, job: Job, art: Art, { filmId, sheet = 1 }: Pick<ExportRequest, 'filmId' | 'sheet'> = {}): Uint8Array<ArrayBuffer> {
  if (kind === 'png') return writePng(pictureFromArt(art), cut.place.resolution);
  if (kind !== 'testSvg') for (const sheet of cut.sheets) assertFits(sheet);
  if (kind === 'svgs') return zipOf(cut, job);
  const plans = cutPlansOf(cut);
  const plan = filmId === undefined && cut.sheets.length === 1 ? plans[0] : plans.find(({ film, number = 1 }) => film.id === filmId && number === sheet);
  if (plan === undefined) throw new AppError('filmMissing', { film: filmId ?? say('none named') });
  if (kind === 'testSvg') return new TextEncoder().encode(writeSheetSvg(testCut(plan.film), say`Test cut, ${plan.film.name}`, 'lines'));
  return new TextEncoder().encode(writeSheetSvg(kind === 'penSvg' ? penDrawing(plan) : plan, job.name, job.handOff.cutAs));
}

/** Every film's sheet as a file of its own. */
function zipOf(cut: CutResult, job: Job): Uint8Array<ArrayBuffer> {
  const files = sheetFiles(cutPlansOf(cut), job.name, job.handOff.cutAs);
  return new Uint8Array(zipSync(Object.fromEntries(files.map(({ suffix, svg }) => [`${suffix === '' ? 'sheet' : suffix}.svg`, strToU8(svg)]))));
}
