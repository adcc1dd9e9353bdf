import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { z } from 'zod';
import { AppError } from '../../core/errors/appError.ts';
import { MAX_PICTURES, type Job } from '../../core/job/job.ts';
import { UNKNOWN_PICTURE_ID } from '../../core/job/migrations.ts';
import { readJob } from '../../core/job/readJob.ts';
import { withPictureIds } from '../../core/job/tracedPart.ts';
import { MAX_HELD_CHARS } from '../../core/outline/outlineSettings.ts';
import { MAX_FILE_BYTES } from '../picture/checkPicture.ts';
import { pictureIdOf } from '../picture/pictureId.ts';
import { say } from '../../core/words/say.ts';
import { OutlineFiles, type OutlineFile } from './outlineFiles.ts';

type Bytes = Uint8Array<ArrayBuffer>;

/** The job as it was at some time, with a note. */
export interface ArchivedVersion {
  /** When it was kept, ms since 1970. */
  readonly at: number;
  readonly note: string;
  readonly job: Job;
}

/** A whole job in one piece: its settings, its picture files as they came, by the ids that the job knows them by, and its versions. */
export interface JobArchive {
  readonly job: Job;
  readonly pictures: ReadonlyMap<string, Bytes>;
  readonly versions?: readonly ArchivedVersion[];
}

export const ARCHIVE_ENDING = '.limner';
const JOB_ENTRY = 'job.json';
const VERSIONS_ENTRY = 'versions.json';
/** Versions that an archive may hold. */
const MAX_VERSIONS = 200;
const versionsSchema = z.array(z.object({ at: z.number().int().min(0), note: z.string().max(2000), job: z.unknown() })).max(MAX_VERSIONS);
const PICTURE_FOLDER = 'pictures/';
const OUTLINE_FOLDER = 'outlines/';
/** The one picture of a job from before version 4. */
const OLD_PICTURE_ENTRY = 'picture';
/** A job's settings with tens of thousands of brush strokes, and all outlines that it may hold by hand, are below this. */
const MAX_JOB_BYTES = MAX_HELD_CHARS + 30_000_000;
/** All pictures of a job together. */
const MAX_PICTURE_BYTES = 4 * MAX_FILE_BYTES;
/** All outlines of a job and its versions that lie beside it. */
const MAX_OUTLINE_BYTES = 200_000_000;
/** The same as text: what a browser holds without harm. */
const MAX_OUTLINE_CHARS = 4 * MAX_HELD_CHARS;
/** The outlines of a job and of as many of its versions as go into an archive, the newest first: a third of what they are as text, and so within what is read. */
const MAX_VERSIONS_BYTES = 60_000_000;
const MAX_OUTLINES = 4000;
/** Versions may name pictures that the job has no more. */
const MAX_ENTRIES = 4 * MAX_PICTURES + MAX_OUTLINES + 20;

/**
 * Writes a zip (PKWARE APPNOTE 6.3.3 subset that every unpacker reads) with `job.json`, the untouched picture files under `pictures/`, long outlines as bytes
 * under `outlines/`, and `versions.json` where there are versions.
 */
export async function writeArchive({ job, pictures, versions = [] }: JobArchive): Promise<Bytes> {
  const outlines = new OutlineFiles();
  const own = await outlines.apart(job);
  const entries: Record<string, [Uint8Array, { level: 0 | 6 }]> = { [JOB_ENTRY]: [strToU8(JSON.stringify(own.value, null, 1)), { level: 6 }] };
  let files = own.files;
  if (versions.length > 0) {
    const kept: unknown[] = [];
    for (const { at, note, job: older } of versions.slice(0, MAX_VERSIONS)) {
      const apart = await outlines.apart(older);
      const all = withNew(files, apart.files);
      if (all.length > MAX_OUTLINES || bytesIn(all) > MAX_VERSIONS_BYTES) break;
      files = all;
      kept.push({ at, note, job: apart.value });
    }
    entries[VERSIONS_ENTRY] = [strToU8(JSON.stringify(kept)), { level: 6 }];
  }
  for (const { id, bytes } of files) entries[`${OUTLINE_FOLDER}${id}`] = [bytes, { level: 6 }];
  for (const [id, bytes] of pictures) entries[`${PICTURE_FOLDER}${encodeURIComponent(id)}`] = [bytes, { level: 0 }];
  return new Uint8Array(zipSync(entries, { mtime: new Date(Date.UTC(2026, 0, 1, 12)) }));
}

const withNew = (files: readonly OutlineFile[], more: readonly OutlineFile[]): readonly OutlineFile[] => [...files, ...more.filter(({ id }) => files.every((file) => file.id !== id))];
const bytesIn = (files: readonly OutlineFile[]): number => files.reduce((sum, { bytes }) => sum + bytes.length, 0);

/**
 * Reads what `writeArchive` writes, and archives of older versions. Pictures are known by what their bytes say, whatever the archive calls them.
 * @throws AppError `emptyFile`, `badArchive`, `newerVersion` or `badJob`. Sizes are checked before anything is unpacked.
 */
export async function readArchive(bytes: Uint8Array, file: string): Promise<JobArchive> {
  if (bytes.length === 0) throw new AppError('emptyFile', { file });
  const entries = unpack(bytes, file);
  const text = entries[JOB_ENTRY];
  if (text === undefined) throw new AppError('badArchive', { file, reason: say('it holds no job') });
  let value: unknown;
  try {
    value = JSON.parse(strFromU8(text));
  } catch (error) {
    throw new AppError('badArchive', { file, reason: say('its job cannot be read') }, error);
  }
  const outlines = Object.entries(entries).flatMap(([name, content]) => (name.startsWith(OUTLINE_FOLDER) ? [{ id: name.slice(OUTLINE_FOLDER.length), bytes: new Uint8Array(content) }] : []));
  const joined = await new OutlineFiles().read(outlines, MAX_OUTLINE_CHARS);
  const job = readJob(joined(value, file), file);
  const versions = versionsIn(entries[VERSIONS_ENTRY], (version) => readJob(joined(version)));
  const known = new Set([job, ...versions.map((version) => version.job)].flatMap((each) => each.pictures.map(({ id }) => id)));
  const ids = new Map<string, string>();
  const pictures = new Map<string, Bytes>();
  for (const [name, entry] of Object.entries(entries)) {
    const named = name === OLD_PICTURE_ENTRY ? UNKNOWN_PICTURE_ID : [...known].find((id) => name === `${PICTURE_FOLDER}${encodeURIComponent(id)}`);
    if (named === undefined) continue;
    const own = new Uint8Array(entry);
    const id = await pictureIdOf(own);
    ids.set(named, id);
    pictures.set(id, own);
  }
  const whole = { job: withPictureIds(job, ids), pictures };
  return versions.length === 0 ? whole : { ...whole, versions: versions.map((version) => ({ ...version, job: withPictureIds(version.job, ids) })) };
}

/** The versions that can be read; what is wrong with one keeps nobody from the job itself. */
function versionsIn(bytes: Uint8Array | undefined, read: (job: unknown) => Job): ArchivedVersion[] {
  if (bytes === undefined) return [];
  try {
    return versionsSchema.parse(JSON.parse(strFromU8(bytes))).flatMap(({ at, note, job }) => {
      try {
        return [{ at, note, job: read(job) }];
      } catch (error) {
        if (error instanceof AppError) return [];
        throw error;
      }
    });
  } catch (error) {
    if (error instanceof SyntaxError || error instanceof z.ZodError) return [];
    throw error;
  }
}

function unpack(bytes: Uint8Array, file: string): Record<string, Uint8Array> {
  let seen = 0;
  let pictureBytes = 0;
  let outlineBytes = 0;
  try {
    return unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (++seen > MAX_ENTRIES) throw new AppError('badArchive', { file, reason: say('it holds too many files') });
        if ((name === JOB_ENTRY || name === VERSIONS_ENTRY) && originalSize > MAX_JOB_BYTES) throw new AppError('badArchive', { file, reason: say('its job is too large') });
        const isPicture = name === OLD_PICTURE_ENTRY || (name.startsWith(PICTURE_FOLDER) && name.length > PICTURE_FOLDER.length);
        if (isPicture) pictureBytes += originalSize;
        if (isPicture && originalSize > MAX_FILE_BYTES) throw new AppError('badArchive', { file, reason: say('its picture is too large') });
        if (pictureBytes > MAX_PICTURE_BYTES) throw new AppError('badArchive', { file, reason: say('its pictures are too large together') });
        const isOutline = name.startsWith(OUTLINE_FOLDER);
        if (isOutline) outlineBytes += originalSize;
        if (outlineBytes > MAX_OUTLINE_BYTES) throw new AppError('badArchive', { file, reason: say('its outlines are too large together') });
        return name === JOB_ENTRY || name === VERSIONS_ENTRY || isPicture || isOutline;
      },
    });
  } catch (error) {
    if (error instanceof AppError) throw error;
    throw new AppError('badArchive', { file, reason: say('it is not a whole zip file') }, error);
  }
}
