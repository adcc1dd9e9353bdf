import { z } from 'zod';
import { plainName } from '../core/job/fileName.ts';
import type { ShelfEntry } from './ports.ts';

/** The last copy of a job in the folder: the file that holds it, and how new it is. */
const copySchema = z.strictObject({ fileName: z.string(), updatedAt: z.number() });
const copiesSchema = z.record(z.string(), copySchema);
/** The last copies, by the ids of their jobs. */
export type Copies = z.infer<typeof copiesSchema>;

/** What is noted of the folder; nothing where that cannot be read, so that all is copied anew. */
export function readCopies(text: string | undefined): Copies {
  if (text === undefined) return {};
  try {
    const parsed = copiesSchema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : {};
  } catch {
    return {};
  }
}

type Listed = Pick<ShelfEntry, 'id' | 'updatedAt' | 'job'>;

/** Jobs whose copy is missing or older; one that is newer than its job was made by a clock that went wrong, and is made again too. */
export const jobsToCopy = <Entry extends Listed>(entries: readonly Entry[], copies: Copies): Entry[] => entries.filter(({ id, updatedAt }) => copies[id]?.updatedAt !== updatedAt);

/** A job's file in the folder: its name, and a part of its id, so that two of one name have a file each. */
export const copyName = ({ id, job }: Pick<ShelfEntry, 'id' | 'job'>): string => `${plainName(job.name)} ${id.slice(0, 8)}.limner`;

/**
 * Writes the jobs whose copies are not as new into the folder, and gives what is noted of it afterwards. A file is there whole or not at all; what a renamed job was
 * called before goes when the new one is there. Nothing else in the folder is touched: jobs that left the shelf keep their copies.
 * @param done told after each job, so that what is written is noted even when the next fails.
 */
export async function writeCopies(
  entries: readonly ShelfEntry[],
  copies: Copies,
  folder: FileSystemDirectoryHandle,
  archiveOf: (id: string) => Promise<Uint8Array<ArrayBuffer> | undefined>,
  done: (copies: Copies, count: number) => Promise<void>,
): Promise<Copies> {
  let noted = copies;
  let count = 0;
  for (const entry of jobsToCopy(entries, copies)) {
    const bytes = await archiveOf(entry.id);
    if (bytes === undefined) continue;
    const fileName = copyName(entry);
    const file = await (await folder.getFileHandle(fileName, { create: true })).createWritable();
    await file.write(bytes);
    await file.close();
    const before = noted[entry.id]?.fileName;
    if (before !== undefined && before !== fileName) await folder.removeEntry(before).catch(() => 'somebody has moved it');
    noted = { ...noted, [entry.id]: { fileName, updatedAt: entry.updatedAt } };
    await done(noted, ++count);
  }
  return noted;
}

const DAY_MS = 24 * 3600 * 1000;
/** Work of so many days without a copy is worth a word. */
const REMIND_AFTER_DAYS = 7;

/** Since when there is work without a copy, days; undefined while that is not worth a word. A job that was brought in and never changed is no work. A time that lies ahead is a wrong clock’s, and counts as none. */
export function daysWithoutCopy(entries: readonly Pick<ShelfEntry, 'createdAt' | 'updatedAt'>[], { copiedAt, laterUntil, now }: { readonly copiedAt: number | undefined; readonly laterUntil: number | undefined; readonly now: number }): number | undefined {
  if (laterUntil !== undefined && laterUntil > now && laterUntil < now + 2 * REMIND_AFTER_DAYS * DAY_MS) return undefined;
  const since = copiedAt === undefined || copiedAt > now ? 0 : copiedAt;
  const changed = entries.filter(({ createdAt, updatedAt }) => updatedAt > createdAt && updatedAt > since && updatedAt <= now).map(({ updatedAt }) => updatedAt);
  if (changed.length === 0) return undefined;
  const days = Math.floor((now - Math.min(...changed)) / DAY_MS);
  return days >= REMIND_AFTER_DAYS ? days : undefined;
}
