import type { DesignLayer } from '../../core/assemble/design.ts';
import { AppError } from '../../core/errors/appError.ts';
import type { Job } from '../../core/job/job.ts';
import type { Art } from '../../core/raster/art.ts';
import type { Rgba8 } from '../../core/raster/raster.ts';
import { pagePictures } from '../../core/run/proofOnBlank.ts';
import { overOf, trimOf } from '../../core/print/printPages.ts';
import type { CutResult } from '../../core/run/runJob.ts';
import { decalPdf, type PrintElement } from './decalPdf.ts';

/**
 * The print pages of a job as a PDF.
 * @param encode what makes a PNG of a picture. @throws AppError `doesNotFit` when a motif is larger than the page.
 */
export async function printFile(job: Job, cut: CutResult, arts: ReadonlyMap<string, { readonly art: Art }>, encode: (picture: Rgba8) => Promise<Uint8Array>): Promise<Uint8Array<ArrayBuffer>> {
  const { print, rack, laid: { parts } } = cut;
  if (print === undefined) throw new RangeError('this job is not printed');
  const { sheet, gapMm } = job.layout;
  if (print.pages.length === 0) throw new AppError('doesNotFit', overOf(print));
  const inColour = ({ filmId, curves }: DesignLayer): PrintElement => ({ kind: 'outline', curves, colour: rack.find((film) => film.id === filmId)?.colour ?? '#000000' });
  const pictures = new Map<string, readonly PrintElement[]>();
  for (const { id, picture, toDesign, below } of pagePictures(job, cut, arts) ?? []) pictures.set(id, [...below.map(inColour), { kind: 'picture', png: await encode(picture), widthPx: picture.width, heightPx: picture.height, toDesign }]);
  const motifs = print.motifs.map((motif) =>
    // What cuts others is no ink of its own.
    parts.filter(({ id, cutsOut }) => motif.parts.includes(id) && cutsOut !== true).flatMap(({ id, layers }) => pictures.get(id) ?? layers.map(inColour)),
  );
  return decalPdf({ title: job.name, widthMm: sheet.widthMm, heightMm: sheet.heightMm, motifs, pages: print.pages, shapes: print.motifs, ...(print.hasMarks === true ? { marksIn: print.area, slits: cut.sheets.map(({ weedLines }) => weedLines) } : {}), trimMm: trimOf(gapMm) });
}
