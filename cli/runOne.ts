import { join } from 'node:path';
import { layerOf } from '../src/core/assemble/design.ts';
import { plainFromError, type PlainError } from '../src/core/errors/appError.ts';
import { explain } from '../src/core/errors/explain.ts';
import type { FileKind } from '../src/core/job/handOff.ts';
import type { Job } from '../src/core/job/job.ts';
import type { PictureInfo } from '../src/core/job/picture.ts';
import { withPicture } from '../src/core/job/tracedPart.ts';
import type { CleanResult } from '../src/core/run/applyRecipe.ts';
import { printedPictures, warningsOfPrint } from '../src/core/run/proofOnBlank.ts';
import { STEP_NAMES, type Recipe } from '../src/core/clean/recipe.ts';
import { pictureFromArt } from '../src/core/raster/art.ts';
import { jobFiles } from '../src/engine/jobFiles.ts';
import { ARCHIVE_ENDING, writeArchive } from '../src/formats/archive/archive.ts';
import { filmPicture } from '../src/formats/picture/filmPicture.ts';
import { pictureIdOf } from '../src/formats/picture/pictureId.ts';
import { idFromName } from '../src/formats/svg/writeSvg.ts';
import { cutInput, nameOfInput, type JobInput } from './cutInput.ts';
import { encodeFile } from './encodeFile.ts';
import { Outputs } from './outputs.ts';
import { measuresOf, warningsOf, type ReportKind } from './report.ts';
import { shapeTools } from './shapeTools.ts';
import { Timings } from './timings.ts';

/** A job on one picture. Plain values, so that another thread can be asked for it. */
export interface RunTask {
  readonly job: Job;
  /** The job is started as its picture proposes, at this width if any. */
  readonly proposed?: { readonly widthMm?: number | undefined };
  /** Writes the job with its picture too. */
  readonly keepJob?: boolean;
  /** The picture of the job's lowest traced object: a file, or what the job's archive holds. */
  readonly input: JobInput;
  /** Pictures of its other objects, by the ids that the job knows them by. */
  readonly pictures?: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
  readonly out: string;
  /** What the files' names begin with. */
  readonly name: string;
  readonly wanted: { readonly dxf: boolean; readonly filmPng: boolean; readonly report: ReportKind };
  /** Files that are read and not to be written over, unless that is meant. */
  readonly reads: readonly string[];
  readonly force: boolean;
}

export interface PictureReport {
  readonly input: string;
  readonly ok: boolean;
  readonly error?: PlainError;
  readonly files: readonly string[];
  readonly warnings: readonly string[];
  /** Steps that were passed over, and why. */
  readonly skipped: readonly string[];
  readonly ms: Readonly<Record<string, number>>;
  readonly [measure: string]: unknown;
}

/** Applies a job to one picture and writes its files. What goes wrong is in the report. */
export async function runOne({ job: asked, proposed, keepJob, input, pictures = new Map(), out, name, wanted, reads, force }: RunTask): Promise<PictureReport> {
  const outputs = await Outputs.of(reads, force);
  const timings = new Timings();
  const file = nameOfInput(input);
  const files: string[] = [];
  const warnings: string[] = [];
  const skipped: string[] = [];
  const write = async (end: string, content: Uint8Array | string): Promise<void> => {
    await timings.measure('write', () => outputs.write(join(out, `${name}${end}`), content));
    files.push(`${name}${end}`);
  };
  let measures: Record<string, unknown> = {};
  try {
    const { bytes, decoded, job, part, clean, arts, cut } = await cutInput(asked, input, {
      proposed,
      pictures,
      timings,
      onClean: ({ recipe }, { steps }) => skipped.push(...skippedWords(recipe, steps)),
    });
    const { picture, statedDpi } = decoded;
    const measured = (): Record<string, unknown> => measuresOf(job, clean.art, cut, wanted.report);
    warnings.push(...skipped, ...warningsOf(job, cut), ...warningsOfPrint(job, printedPictures(job, cut, arts) ?? []));
    measures = { ...(await (wanted.report === 'full' ? timings.measure('report', measured) : measured())), steps: clean.steps };
    // What is printed is laid on as many pages as it needs: its contour is one more file.
    const kinds: FileKind[] = ['svg', ...(cut.print === undefined ? [] : (['pdf'] as const)), ...(wanted.dxf ? (['dxf'] as const) : [])];
    const made = jobFiles(kinds, { job, cut, arts, art: clean.art, name, title: `${job.name}: ${name}`, date: '', tools: shapeTools, encode: encodeFile });
    for await (const each of made) await write(each.name.slice(name.length), each.bytes);
    if (wanted.filmPng) {
      for (const [k, film] of cut.rack.entries()) {
        const { picture: png, pxPerMm } = filmPicture(layerOf(cut.design, film.id).curves, film.colour, cut.design.widthMm, cut.design.heightMm, cut.place.resolution);
        await write(`-${k + 1}-${idFromName(film.name)}-film.png`, await encodeFile(png, pxPerMm));
      }
    }
    await write('.png', await encodeFile(pictureFromArt(clean.art), cut.place.resolution));
    if (keepJob === true) await write(ARCHIVE_ENDING, await jobArchive(job, part.id, { fileName: file, widthPx: picture.width, heightPx: picture.height, ...(statedDpi === undefined ? {} : { statedDpi }) }, bytes, pictures));
    return { input: file, ok: true, files, warnings, skipped, ...measures, ms: timings.record };
  } catch (error) {
    return { input: file, ok: false, error: plainFromError(error), files, warnings, skipped, ...measures, ms: timings.record };
  }
}

/** Steps that were passed over, and why. */
const skippedWords = (recipe: Recipe, steps: CleanResult['steps']): string[] =>
  steps.flatMap((step) => {
    if (step.skipped === undefined) return [];
    const kind = recipe.find(({ id }) => id === step.id)?.kind;
    return [`${kind === undefined ? `step ${step.id}` : STEP_NAMES[kind].toLowerCase()} skipped: ${explain({ code: step.skipped, details: {} }).what}`];
  });

/** The job with its pictures, to go on with. */
async function jobArchive(job: Job, partId: string, info: Omit<PictureInfo, 'id'>, bytes: Uint8Array<ArrayBuffer>, others: ReadonlyMap<string, Uint8Array<ArrayBuffer>>): Promise<Uint8Array<ArrayBuffer>> {
  const id = await pictureIdOf(bytes);
  const whole = withPicture(job, partId, { ...info, id });
  const used = [...others].filter(([other]) => whole.pictures.some((picture) => picture.id === other));
  return writeArchive({ job: whole, pictures: new Map([...used, [id, bytes]]) });
}
