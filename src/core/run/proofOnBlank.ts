import type { Job } from '../job/job.ts';
import { blankProof, type BlankProofInput, type PrintedPicture } from '../proof/blankProof.ts';
import { pictureFromArt, type Art } from '../raster/art.ts';
import type { Rgba8 } from '../raster/raster.ts';
import type { CutResult } from './runJob.ts';

/** The art of printed objects where they lie on the design; nothing for what is cut. */
export function printedPictures({ process }: Pick<Job, 'process'>, { places }: Pick<CutResult, 'places'>, arts: ReadonlyMap<string, { readonly art: Art }>): PrintedPicture[] | undefined {
  if (process !== 'waterslide') return undefined;
  return [...arts].flatMap(([id, { art }]) => {
    const place = places.get(id);
    return place === undefined ? [] : [{ picture: pictureFromArt(art), toDesign: place.fromOutline }];
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
