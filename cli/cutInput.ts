import { basename } from 'node:path';
import { AppError } from '../src/core/errors/appError.ts';
import { USUAL_STOCK } from '../src/core/film/stock.ts';
import type { Job } from '../src/core/job/job.ts';
import { plainObjects } from '../src/core/job/objects.ts';
import { pictureOf, tracedPart, type TracedPart } from '../src/core/job/tracedPart.ts';
import { proposedJob } from '../src/core/propose/propose.ts';
import type { CleanResult } from '../src/core/run/applyRecipe.ts';
import { cleanPart, cutJob, type CutResult, type KeyedArt } from '../src/core/run/runJob.ts';
import { hashBytes } from '../src/core/task/hash.ts';
import { finish } from '../src/core/task/task.ts';
import { ShapeMaker } from '../src/engine/designShapes.ts';
import type { DecodedPicture } from '../src/formats/picture/decodedPicture.ts';
import { decodeFile } from './decodeFile.ts';
import { readBytes } from './files.ts';
import { shapeTools } from './shapeTools.ts';
import { Timings } from './timings.ts';

/** A picture to which a job is applied: a file, or what the job's archive holds. */
export type JobInput = { readonly path: string } | { readonly name: string; readonly bytes: Uint8Array<ArrayBuffer> };

export interface CutOptions {
  /** The job is started as its picture proposes, at this width if any. */
  readonly proposed?: { readonly widthMm?: number | undefined } | undefined;
  /** Pictures of its other objects, by the ids that the job knows them by. */
  readonly pictures?: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
  readonly timings?: Timings;
  /** Is told of the clean art before anything is cut. */
  readonly onClean?: (part: TracedPart, clean: CleanResult) => void;
}

/** A picture taken the whole way to its films. */
export interface CutOfInput {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly decoded: DecodedPicture;
  readonly job: Job;
  readonly part: TracedPart;
  readonly clean: CleanResult;
  /** Of all traced objects, by their ids. */
  readonly arts: ReadonlyMap<string, KeyedArt>;
  readonly cut: CutResult;
}

export const nameOfInput = (input: JobInput): string => ('path' in input ? basename(input.path) : input.name);

/** Takes a picture, and those of the job's other objects, the whole way to films. @throws AppError of whatever stage cannot go on. */
export async function cutInput(asked: Job, input: JobInput, { proposed, pictures = new Map(), timings = new Timings(), onClean }: CutOptions = {}): Promise<CutOfInput> {
  const bytes = 'path' in input ? await readBytes(input.path) : input.bytes;
  const decoded = await timings.measure('decode', () => decodeFile(bytes.slice(), nameOfInput(input), { drawnSidePx: pictureOf(asked, tracedPart(asked))?.drawnSidePx }));
  const { picture } = decoded;
  const job = proposed === undefined ? asked : await timings.measure('propose', () => proposedJob(asked, picture, USUAL_STOCK, proposed.widthMm));
  const part = tracedPart(job);
  const clean = await timings.measure('clean', () => finish(cleanPart(part, picture, hashBytes(picture.data as Uint8Array))));
  onClean?.(part, clean);
  const arts = new Map<string, KeyedArt>([[part.id, clean], ...(await timings.measure('clean', () => otherArts(job, part.id, pictures)))]);
  const shapes = await new ShapeMaker(shapeTools).of(job);
  const cut = await timings.measure('cut', () => finish(cutJob(job, arts, part.id, undefined, shapes)));
  return { bytes, decoded, job, part, clean, arts, cut };
}

/** The clean art of the traced objects besides one. @throws AppError `pictureMissing` where the picture of one is not at hand. */
async function otherArts(job: Job, besides: string, pictures: ReadonlyMap<string, Uint8Array<ArrayBuffer>>): Promise<[string, KeyedArt][]> {
  const arts: [string, KeyedArt][] = [];
  for (const object of plainObjects(job.objects)) {
    if (object.kind !== 'traced' || object.id === besides || object.picture === undefined) continue;
    const [info, bytes] = [pictureOf(job, object), pictures.get(object.picture)];
    if (bytes === undefined) throw new AppError('pictureMissing');
    const { picture } = await decodeFile(bytes.slice(), info?.fileName ?? 'picture', { drawnSidePx: info?.drawnSidePx });
    arts.push([object.id, finish(cleanPart(tracedPart(job, object.id), picture, object.picture))]);
  }
  return arts;
}
