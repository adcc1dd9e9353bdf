import { layerOf } from '../core/assemble/design.ts';
import type { FileKind } from '../core/job/handOff.ts';
import type { Job } from '../core/job/job.ts';
import { materialOf } from '../core/job/materials.ts';
import { assertFits } from '../core/layout/laySheet.ts';
import { isNested } from '../core/layout/nestSheets.ts';
import type { CutPlan } from '../core/layout/cutPlan.ts';
import { capitalMmOf, proofWords } from '../core/proof/proofWords.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import { pictureFromArt, type Art } from '../core/raster/art.ts';
import { proofOnBlank } from '../core/run/proofOnBlank.ts';
import { cutPlansOf, type CutResult } from '../core/run/runJob.ts';
import { pxPerMm } from '../core/units/length.ts';
import { sheetsDxf } from '../formats/dxf/sheetsDxf.ts';
import { printFile } from '../formats/pdf/printFile.ts';
import { sheetsPdf } from '../formats/pdf/sheetsPdf.ts';
import { filmPicture } from '../formats/picture/filmPicture.ts';
import { writePlotter } from '../formats/plotter/writePlotter.ts';
import { sheetFiles, suffixOf } from '../formats/svg/sheetFiles.ts';
import { idFromName } from '../formats/svg/writeSvg.ts';
import type { ShapeTools } from './designShapes.ts';
import { proofLabel } from './proofLabel.ts';

const PROOF_SIDE_PX = 1600;

/** A file of a job: its name, and what is in it. */
export interface JobFile {
  readonly name: string;
  readonly kind: FileKind;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** What files are made of. */
export interface FilesOf {
  readonly job: Job;
  readonly cut: CutResult;
  /** Clean art of all traced objects by their ids, and the one whose picture leaves as it was cleaned. */
  readonly arts: ReadonlyMap<string, { readonly art: Art }>;
  readonly art: Art;
  /** What the names begin with. */
  readonly name: string;
  /** What the files call themselves; the job's name when absent. */
  readonly title?: string;
  /** On the proof, as `2026-11-28`. */
  readonly date: string;
  readonly tools: Pick<ShapeTools, 'polygons' | 'font'>;
  readonly encode: (picture: Rgba8, pxPerMm?: number) => Promise<Uint8Array>;
}

/**
 * The files of a job in the kinds that are asked for, one after the other: cut files for each sheet or for all of them, pages where the job is printed, pictures of the art, of each film and of the finished blank.
 * @throws AppError `doesNotFit` for sheets and pages.
 */
export async function* jobFiles(kinds: readonly FileKind[], of: FilesOf): AsyncGenerator<JobFile> {
  const { job, cut, name, title = job.name } = of;
  if (cut.print === undefined) for (const sheet of cut.sheets) assertFits(sheet);
  const plans = cutPlansOf(cut);
  const text = (kind: FileKind, ending: string, content: string): JobFile => ({ name: `${name}${ending}`, kind, bytes: new TextEncoder().encode(content) });
  for (const kind of kinds) {
    switch (kind) {
      case 'svg':
        for (const { suffix, svg } of sheetFiles(plans, title, job.handOff.cutAs)) yield text(kind, `${ended(suffix)}.svg`, svg);
        break;
      case 'dxf':
        yield text(kind, '.dxf', sheetsDxf(plans));
        break;
      case 'dxf-r12':
        yield text(kind, '-r12.dxf', sheetsDxf(plans, '12'));
        break;
      case 'hpgl':
        for (const plan of plans) yield text(kind, `${ended(suffixOf(plan, plans))}.hpgl`, plotterFile(job, plan));
        break;
      case 'pdf': {
        const bytes = cut.print === undefined ? await sheetsPdf(plans, job.name, !isNested(job.layout) && job.layout.byFilm === undefined) : await printFile(job, cut, of.arts, (each) => of.encode(each));
        yield { name: `${name}.pdf`, kind, bytes };
        break;
      }
      case 'png':
        yield* pictures(of);
    }
  }
}

const ended = (suffix: string): string => (suffix === '' ? '' : `-${suffix}`);

/** A sheet in plotter language, as its film's material and the job's choices want it. */
function plotterFile(job: Job, plan: CutPlan): string {
  const { fine, relative, tells = false, compensated = false } = job.handOff.plotter ?? {};
  const { cut } = materialOf(job, plan.film.id);
  return writePlotter(plan, { fine, relative, ...(tells ? { cut } : {}), ...(compensated ? { compensated: cut } : {}) });
}

/** The art, each film where the job is cut, and the finished blank. */
async function* pictures({ job, cut, arts, art, name, date, tools, encode }: FilesOf): AsyncGenerator<JobFile> {
  const file = async (ending: string, picture: Rgba8, scale: number): Promise<JobFile> => ({ name: `${name}${ending}.png`, kind: 'png', bytes: new Uint8Array(await encode(picture, scale)) });
  yield file('', pictureFromArt(art), cut.place.resolution);
  if (cut.print === undefined) {
    const { design } = cut.laid;
    for (const [k, film] of cut.rack.entries()) {
      const { picture, pxPerMm: scale } = filmPicture(layerOf(design, film.id).curves, film.colour, design.widthMm, design.heightMm, cut.place.resolution);
      yield file(`-${k + 1}-${idFromName(film.name)}`, picture, scale);
    }
  }
  const label = await proofLabel(proofWords(job, cut.design, date), capitalMmOf(job.blank), tools);
  const proof = proofOnBlank(job, cut, arts, { sidePx: PROOF_SIDE_PX, label });
  yield file('-proof', proof.picture, pxPerMm(proof.pxPerMm));
}
