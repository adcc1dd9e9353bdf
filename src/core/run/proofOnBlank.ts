import { printFacts, printWarnings } from '../print/motif.ts';
import type { Job } from '../job/job.ts';
import { blankProof, type BlankProofInput, type PrintedPicture } from '../proof/blankProof.ts';
import { pictureFromArt, type Art } from '../raster/art.ts';
import { PROCESSES } from '../process/processes.ts';
import type { Rgba8 } from '../raster/raster.ts';
import type { CutResult } from './runJob.ts';

/** What is printed of a traced object. */
export interface PrintedOfObject extends PrintedPicture {
  readonly id: string;
  /** Its pixels on one of the picture as it came: less than one when it is reduced, more when it was enlarged. */
  readonly pxPerPicturePx: number;
}

/** The art of printed objects where they lie on the design; nothing for what is cut. */
export function printedPictures({ process }: Pick<Job, 'process'>, { places }: Pick<CutResult, 'places'>, arts: ReadonlyMap<string, { readonly art: Art }>): PrintedOfObject[] | undefined {
  if (!PROCESSES[process].isPrinted) return undefined;
  return [...arts].flatMap(([id, { art }]) => {
    const place = places.get(id);
    return place === undefined ? [] : [{ id, picture: pictureFromArt(art), toDesign: place.fromOutline, pxPerPicturePx: art.frame.scale }];
  });
}

/** The finished blank of a job as a picture. */
export function proofOnBlank(
  job: Pick<Job, 'blank' | 'process' | 'place' | 'layout'>,
  cut: Pick<CutResult, 'design' | 'rack' | 'places'>,
  arts: ReadonlyMap<string, { readonly art: Art }>,
  options: Pick<BlankProofInput, 'label' | 'sidePx' | 'turnRad'>,
): { readonly picture: Rgba8; readonly pxPerMm: number } {
  const { blank, process, place } = job;
  const printed = printedPictures(job, cut, arts);
  return blankProof({ blank, process, place, design: cut.design, films: cut.rack, ...(printed === undefined ? {} : { printed }), onWhitePaper: job.layout.paper === 'white', ...options });
}

/** What is to be said of printed pictures at their size, each thing once. */
export function warningsOfPrint({ blank, layout }: Pick<Job, 'blank' | 'layout'>, printed: readonly PrintedOfObject[]): string[] {
  return [...new Set(printed.flatMap(({ picture, pxPerPicturePx, toDesign: { a, b, c, d } }) => printWarnings(printFacts(picture), 25.4 / Math.sqrt(Math.abs(a * d - b * c)) / pxPerPicturePx, layout.paper ?? 'clear', blank.colour)))];
}
