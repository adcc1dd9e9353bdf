import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { AppError } from '../../core/errors/appError.ts';
import type { Job } from '../../core/job/job.ts';
import { MAX_HELD_CHARS } from '../../core/outline/outlineSettings.ts';
import { readJob } from '../../core/job/readJob.ts';
import { MAX_FILE_BYTES } from '../picture/checkPicture.ts';

/** A whole job in one piece: its settings and the picture file as it came. */
export interface JobArchive {
  readonly job: Job;
  readonly picture?: Uint8Array<ArrayBuffer>;
}

export const ARCHIVE_ENDING = '.limner';
const JOB_ENTRY = 'job.json';
const PICTURE_ENTRY = 'picture';
/** A job's settings with tens of thousands of brush strokes, and all outlines that it may hold by hand, are below this. */
const MAX_JOB_BYTES = MAX_HELD_CHARS + 30_000_000;
const MAX_ENTRIES = 20;

/** Writes a zip (PKWARE APPNOTE 6.3.3 subset that every unpacker reads) with `job.json` and the untouched picture file. */
export function writeArchive({ job, picture }: JobArchive): Uint8Array<ArrayBuffer> {
  const entries: Record<string, [Uint8Array, { level: 0 | 6 }]> = { [JOB_ENTRY]: [strToU8(JSON.stringify(job, null, 1)), { level: 6 }] };
  if (picture !== undefined) entries[PICTURE_ENTRY] = [picture, { level: 0 }];
  return new Uint8Array(zipSync(entries, { mtime: new Date(Date.UTC(2026, 0, 1, 12)) }));
}

/** @throws AppError `emptyFile`, `badArchive`, `newerVersion` or `badJob`. Sizes are checked before anything is unpacked. */
export function readArchive(bytes: Uint8Array, file: string): JobArchive {
  if (bytes.length === 0) throw new AppError('emptyFile', { file });
  const entries = unpack(bytes, file);
  const text = entries[JOB_ENTRY];
  if (text === undefined) throw new AppError('badArchive', { file, reason: 'it holds no job' });
  let value: unknown;
  try {
    value = JSON.parse(strFromU8(text));
  } catch (error) {
    throw new AppError('badArchive', { file, reason: 'its job cannot be read' }, error);
  }
  const job = readJob(value, file);
  const picture = entries[PICTURE_ENTRY];
  return picture === undefined ? { job } : { job, picture: new Uint8Array(picture) };
}

function unpack(bytes: Uint8Array, file: string): Record<string, Uint8Array> {
  let seen = 0;
  try {
    return unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (++seen > MAX_ENTRIES) throw new AppError('badArchive', { file, reason: 'it holds too many files' });
        if (name === JOB_ENTRY && originalSize > MAX_JOB_BYTES) throw new AppError('badArchive', { file, reason: 'its job is too large' });
        if (name === PICTURE_ENTRY && originalSize > MAX_FILE_BYTES) throw new AppError('badArchive', { file, reason: 'its picture is too large' });
        return name === JOB_ENTRY || name === PICTURE_ENTRY;
      },
    });
  } catch (error) {
    if (error instanceof AppError) throw error;
    throw new AppError('badArchive', { file, reason: 'it is not a whole zip file' }, error);
  }
}
