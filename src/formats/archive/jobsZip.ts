import { unzipSync, zipSync } from 'fflate';
import { AppError } from '../../core/errors/appError.ts';
import { ARCHIVE_ENDING } from './archive.ts';
import { say } from '../../core/words/say.ts';

type Bytes = Uint8Array<ArrayBuffer>;

/** A job's archive under its name. */
export interface JobFileOf {
  readonly fileName: string;
  readonly bytes: Bytes;
}

export const JOBS_ENDING = '.zip';
const MOST_JOBS = 5000;
/** All of them unpacked: what a browser holds at once. */
const MOST_BYTES = 1_500_000_000;

/** Many jobs as one zip: each is an archive of its own, and none writes over another of its name. */
export function jobsZip(files: readonly JobFileOf[]): Bytes {
  const entries: Record<string, [Uint8Array, { level: 0 }]> = {};
  for (const { fileName, bytes } of files) {
    const plain = fileName.replace(/[\\/]/g, '-').slice(0, -ARCHIVE_ENDING.length);
    let name = plain;
    // Object keys that are whole numbers would change their order, which is nothing to anyone.
    for (let k = 2; Object.hasOwn(entries, `${name}${ARCHIVE_ENDING}`); k++) name = `${plain}, ${k}`;
    // Archives are packed already.
    entries[`${name}${ARCHIVE_ENDING}`] = [bytes, { level: 0 }];
  }
  return new Uint8Array(zipSync(entries, { mtime: new Date(Date.UTC(2026, 0, 1, 12)) }));
}

/** The jobs of a zip that `jobsZip` wrote, or that someone put together. @throws AppError `badArchive` for what is no zip, or holds none; sizes are checked before anything is unpacked. */
export function jobsInZip(bytes: Uint8Array, file: string): JobFileOf[] {
  let [count, total] = [0, 0];
  let entries: Record<string, Uint8Array>;
  try {
    entries = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!name.toLowerCase().endsWith(ARCHIVE_ENDING)) return false;
        total += originalSize;
        if (++count > MOST_JOBS || total > MOST_BYTES) throw new AppError('badArchive', { file, reason: say('it holds too many jobs at once') });
        return true;
      },
    });
  } catch (error) {
    if (error instanceof AppError) throw error;
    throw new AppError('badArchive', { file, reason: say('it is not a whole zip file') }, error);
  }
  const found = Object.entries(entries).map(([name, content]): JobFileOf => ({ fileName: name.slice(name.lastIndexOf('/') + 1), bytes: new Uint8Array(content) }));
  if (found.length === 0) throw new AppError('badArchive', { file, reason: say('it holds no job') });
  return found;
}
