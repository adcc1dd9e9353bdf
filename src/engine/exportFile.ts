import { strToU8, zipSync } from 'fflate';
import { AppError } from '../core/errors/appError.ts';
import { layerOf } from '../core/assemble/design.ts';
import type { Job } from '../core/job/job.ts';
import { assertFits } from '../core/layout/laySheet.ts';
import { penDrawing, testCut } from '../core/layout/tryOuts.ts';
import { pictureFromArt, type Art } from '../core/raster/art.ts';
import { sheetsDxf } from '../formats/dxf/sheetsDxf.ts';
import { filmPicture } from '../formats/picture/filmPicture.ts';
import { writePng } from '../formats/picture/writePng.ts';
import { sheetFiles } from '../formats/svg/sheetFiles.ts';
import { idFromName, writeSheetSvg } from '../formats/svg/writeSvg.ts';
import { cutPlansOf, type CutResult } from '../core/run/runJob.ts';
import type { ExportKind, ExportRequest } from './protocol.ts';

/** A file of what is cut. @throws AppError `doesNotFit` for sheets, `filmMissing` for the sheet of a film that is not there. */
export function exportFile(kind: Exclude<ExportKind, 'thumbnail' | 'pdf'>, cut: CutResult, job: Job, art: Art, { filmId, sheet = 1 }: Pick<ExportRequest, 'filmId' | 'sheet'> = {}): Uint8Array<ArrayBuffer> {
  if (kind === 'png') return writePng(pictureFromArt(art), cut.place.resolution);
  if (kind === 'filmPngs') return filmPngs(cut);
  if (kind !== 'testSvg') for (const sheet of cut.sheets) assertFits(sheet);
  if (kind === 'svgs') return zipOf(cut, job);
  const plans = cutPlansOf(cut);
  if (kind === 'dxf') return new TextEncoder().encode(sheetsDxf(plans));
  const plan = filmId === undefined && plans.length === 1 ? plans[0] : plans.find(({ film, number = 1 }) => film.id === filmId && number === sheet);
  if (plan === undefined) throw new AppError('filmMissing', { film: filmId ?? 'none named' });
  if (kind === 'testSvg') return new TextEncoder().encode(writeSheetSvg(testCut(plan.film), `Test cut, ${plan.film.name}`, 'lines'));
  return new TextEncoder().encode(writeSheetSvg(kind === 'penSvg' ? penDrawing(plan) : plan, job.name, job.handOff.cutAs));
}

/** Every film as a picture of its own, in one zip. Pictures are packed already. */
function filmPngs({ rack, design, place }: CutResult): Uint8Array<ArrayBuffer> {
  const files = rack.map((film, k): [string, [Uint8Array, { level: 0 }]] => {
    const { picture, pxPerMm } = filmPicture(layerOf(design, film.id).curves, film.colour, design.widthMm, design.heightMm, place.resolution);
    return [`${k + 1}-${idFromName(film.name)}.png`, [writePng(picture, pxPerMm), { level: 0 }]];
  });
  return new Uint8Array(zipSync(Object.fromEntries(files)));
}

/** Every film's sheet as a file of its own. */
function zipOf(cut: CutResult, job: Job): Uint8Array<ArrayBuffer> {
  const files = sheetFiles(cutPlansOf(cut), job.name, job.handOff.cutAs);
  return new Uint8Array(zipSync(Object.fromEntries(files.map(({ suffix, svg }) => [`${suffix === '' ? 'sheet' : suffix}.svg`, strToU8(svg)]))));
}
