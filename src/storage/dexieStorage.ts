import type { Table } from 'dexie';
import { AppError, isAppError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import { Database } from './database.ts';
import { rowsToDrop, type KeptRow } from './keptRows.ts';
import { newestFirst, sortedByName, type DamagedEntry, type JobStorage, type JobVersion, type NamedRecipe, type PictureFile, type ShelfEntry, type StoredJobs } from './ports.ts';
import { OutlineFiles, type OutlineFile } from '../formats/archive/outlineFiles.ts';
import { checkedRecipe, checkedVersion, damagedEntry, listedEntry, pictureIdsOf, presentEntry, type Joined, type StoredEntry, type StoredVersion } from './storedRows.ts';

const NOTED_AT_ONCE = 200;
/** The folder for copies, as its row is called. */
const COPIES = 'copies';

/** Jobs in the browser's own database. */
export class DexieStorage implements JobStorage {
  private readonly db: Database;
  private readonly outlines = new OutlineFiles();
  /** The last of the writings that are under way or wait for one. */
  private last: Promise<void> = Promise.resolve();

  /** @param build names the program; rows that it has written itself are listed without being checked again. */
  constructor(
    name = 'limner',
    private readonly build?: string,
  ) {
    this.db = new Database(name);
  }

  /** Rows that no longer pass as jobs are not listed but stay stored, so that a later version may read them. */
  all(): Promise<StoredJobs> {
    return guarded(async () => {
      const [rows, joined] = await this.withOutlines(this.db.entries, (entries) => entries.toArray());
      const passed: ShelfEntry[] = [];
      const damaged: DamagedEntry[] = [];
      const entries = rows.flatMap((row): ShelfEntry[] => {
        const isChecked = this.isChecked(row);
        const entry = listedEntry(row, isChecked, joined);
        if (entry === undefined) {
          const told = damagedEntry(row, joined);
          if (told !== undefined) damaged.push(told);
          return [];
        }
        if (this.build !== undefined && !isChecked) passed.push(entry);
        return [entry];
      });
      // Noted for the next start; a row that was written meanwhile is newer than this and stays.
      void this.noteChecked(passed).catch(() => 'they are checked once more next time');
      const byChange = (a: { readonly updatedAt: number }, b: { readonly updatedAt: number }): number => b.updatedAt - a.updatedAt;
      return { entries: entries.sort(byChange), damaged: damaged.sort(byChange) };
    });
  }

  private isChecked({ checkedBy }: StoredEntry): boolean {
    return this.build !== undefined && checkedBy === this.build;
  }

  /** A few at a time: what is broken off goes on at the next start, and others get their turn. */
  private async noteChecked(entries: readonly ShelfEntry[]): Promise<void> {
    for (let from = 0; from < entries.length; from += NOTED_AT_ONCE) {
      const some = await Promise.all(entries.slice(from, from + NOTED_AT_ONCE).map((entry) => this.rowOf(entry)));
      await this.db.transaction('rw', this.db.entries, this.db.outlines, async () => {
        const now = await this.db.entries.bulkGet(some.map(({ row }) => row.id));
        const unchanged = some.filter(({ row }, k) => now[k]?.updatedAt === row.updatedAt && now[k]?.checkedBy !== this.build);
        await this.db.outlines.bulkPut(unchanged.flatMap(({ files }) => files));
        await this.db.entries.bulkPut(unchanged.map(({ row }) => row));
      });
    }
  }

  /** An entry as its row, and the outlines that lie beside it. */
  private async rowOf(entry: ShelfEntry): Promise<{ readonly row: StoredEntry; readonly files: readonly OutlineFile[] }> {
    const { value, files } = await this.outlines.apart(entry.job);
    return { row: { ...entry, job: value, ...idsOf(files), ...(this.build === undefined ? {} : { checkedBy: this.build }) }, files };
  }

  /** Reads rows with the outlines that lie beside them, as they are at one moment. */
  private async withOutlines<Row extends { readonly outlineIds?: readonly string[] }>(table: Table<Row, string>, read: (table: Table<Row, string>) => PromiseLike<readonly Row[]>): Promise<readonly [readonly Row[], Joined]> {
    const [rows, files] = await this.db.transaction('r', table, this.db.outlines, async () => {
      const found = await read(table);
      const ids = [...new Set(found.flatMap(({ outlineIds = [] }) => outlineIds))];
      return [found, ids.length === 0 ? [] : await this.db.outlines.bulkGet(ids)] as const;
    });
    return [rows, await this.outlines.read(files.filter((file) => file !== undefined))];
  }

  /** Writes new outlines, and takes those away that nothing uses since. Part of the transaction that has written what uses them. */
  private async swapOutlines(before: readonly string[], files: readonly OutlineFile[]): Promise<void> {
    const there = new Set(files.length === 0 ? [] : await this.db.outlines.where('id').anyOf(files.map(({ id }) => id)).primaryKeys());
    await this.db.outlines.bulkPut(files.filter(({ id }) => !there.has(id)));
    if (before.length === 0) return;
    const used = await Promise.all([this.db.entries, this.db.versions].map((table) => table.where('outlineIds').anyOf(before).uniqueKeys()));
    const still = new Set(used.flat());
    await this.db.outlines.bulkDelete(before.filter((id) => !still.has(id)));
  }

  keyed(job: Job): Promise<unknown> {
    return guarded(async () => (await this.outlines.apart(job)).value);
  }

  get(id: string): Promise<ShelfEntry | undefined> {
    return guarded(async () => {
      const [[row], joined] = await this.withOutlines(this.db.entries, (entries) => entries.where('id').equals(id).toArray());
      return (row as StoredEntry | undefined) === undefined ? undefined : presentEntry(row, joined);
    });
  }

  thumbnail(id: string): Promise<Uint8Array<ArrayBuffer> | undefined> {
    return guarded(async () => (await this.db.thumbnails.get(id))?.bytes);
  }

  keepThumbnail(id: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
    return this.inTurn(() =>
      this.db.transaction('rw', this.db.entries, this.db.thumbnails, async () => {
        if ((await this.db.entries.where('id').equals(id).count()) > 0) await this.db.thumbnails.put({ id, bytes });
      }),
    );
  }

  put({ thumbnail, ...entry }: ShelfEntry, pictures: readonly PictureFile[] = []): Promise<void> {
    return this.inTurn(async () => {
      const { row, files } = await this.rowOf(entry);
      await this.makingRoom(() =>
        this.db.transaction('rw', [this.db.entries, this.db.pictures, this.db.thumbnails, this.db.outlines, this.db.versions], async () => {
          const before = await this.db.entries.get(entry.id);
          if (thumbnail !== undefined) await this.db.thumbnails.put({ id: entry.id, bytes: thumbnail });
          await this.db.pictures.bulkPut([...pictures]);
          await this.db.entries.put(row);
          await this.swapOutlines(before?.outlineIds ?? [], files);
        }),
      );
    });
  }

  /** Writes in the order of the calls: long outlines are packed first, and what is asked for later is done later all the same. */
  private inTurn(work: () => PromiseLike<void>): Promise<void> {
    const own = this.last.then(() => guarded(work));
    this.last = own.catch(() => undefined);
    return own;
  }

  purge(ids: readonly string[]): Promise<void> {
    return this.inTurn(() =>
      this.db.transaction('rw', [this.db.entries, this.db.thumbnails, this.db.versions, this.db.pictures, this.db.outlines, this.db.results, this.db.resultSizes], async () => {
        await this.db.entries.bulkDelete([...ids]);
        await this.db.thumbnails.bulkDelete([...ids]);
        await this.db.versions.where('jobId').anyOf([...ids]).delete();
        await this.dropResults(ids);
        const used = new Set([...(await this.db.entries.toArray()), ...(await this.db.versions.toArray())].flatMap(pictureIdsOf));
        const unused = (await this.db.pictures.toCollection().primaryKeys()).filter((id) => !used.has(id));
        await this.db.pictures.bulkDelete(unused);
        await this.swapOutlines(await this.db.outlines.toCollection().primaryKeys(), []);
      }),
    );
  }

  picture(id: string): Promise<PictureFile | undefined> {
    return guarded(() => this.db.pictures.get(id));
  }

  kept(jobId: string): Promise<KeptRow | undefined> {
    return guarded(async () => {
      const row = await this.db.results.get(jobId);
      if (row !== undefined) await this.db.resultSizes.update(jobId, { usedAt: Date.now() });
      return row;
    });
  }

  keep(row: KeptRow): Promise<void> {
    return guarded(() =>
      this.db.transaction('rw', this.db.results, this.db.resultSizes, async () => {
        const { jobId, bytes, usedAt } = row;
        await this.db.results.put(row);
        await this.db.resultSizes.put({ jobId, bytes, usedAt });
        await this.dropResults(rowsToDrop(await this.db.resultSizes.toArray()));
      }),
    );
  }

  private async dropResults(ids: readonly string[]): Promise<void> {
    await this.db.results.bulkDelete([...ids]);
    await this.db.resultSizes.bulkDelete([...ids]);
  }

  /** On a full disk what can be made again goes first, and the work is tried once more. */
  private makingRoom<Value>(work: () => PromiseLike<Value>): Promise<Value> {
    return guarded(async () => {
      try {
        return await work();
      } catch (error) {
        if (!isQuota(error)) throw error;
        await this.db.results.clear();
        await this.db.resultSizes.clear();
        return await work();
      }
    });
  }

  versions(jobId: string): Promise<JobVersion[]> {
    return guarded(async () => {
      const [rows, joined] = await this.withOutlines(this.db.versions, (versions) => versions.where('jobId').equals(jobId).toArray());
      return newestFirst(rows.flatMap((row) => checkedVersion(row, joined) ?? []));
    });
  }

  putVersion(version: JobVersion): Promise<void> {
    return this.inTurn(async () => {
      const { value, files } = await this.outlines.apart(version.job);
      await this.makingRoom(() => this.writeVersion(version.id, files, { ...version, job: value, ...idsOf(files) }));
    });
  }

  removeVersion(id: string): Promise<void> {
    return this.inTurn(() => this.writeVersion(id, []));
  }

  private writeVersion(id: string, files: readonly OutlineFile[], row?: StoredVersion): PromiseLike<void> {
    return this.db.transaction('rw', this.db.versions, this.db.entries, this.db.outlines, async () => {
      const before = await this.db.versions.get(id);
      await (row === undefined ? this.db.versions.delete(id) : this.db.versions.put(row));
      await this.swapOutlines(before?.outlineIds ?? [], files);
    });
  }

  folder(): Promise<FileSystemDirectoryHandle | undefined> {
    return guarded(async () => (await this.db.folders.get(COPIES))?.handle);
  }

  setFolder(handle: FileSystemDirectoryHandle | undefined): Promise<void> {
    return guarded(async () => void (handle === undefined ? await this.db.folders.delete(COPIES) : await this.db.folders.put({ name: COPIES, handle })));
  }

  recipes(): Promise<NamedRecipe[]> {
    return guarded(async () => sortedByName((await this.db.recipes.toArray()).flatMap((row) => checkedRecipe(row) ?? [])));
  }

  putRecipe(recipe: NamedRecipe): Promise<void> {
    return guarded(async () => void (await this.db.recipes.put(recipe)));
  }

  removeRecipe(id: string): Promise<void> {
    return guarded(() => this.db.recipes.delete(id));
  }

  note(name: string): Promise<string | undefined> {
    return guarded(async () => (await this.db.notes.get(name))?.value);
  }

  setNote(name: string, value: string): Promise<void> {
    return guarded(async () => void (await this.db.notes.put({ name, value })));
  }
}

const idsOf = (files: readonly OutlineFile[]): Pick<StoredEntry, 'outlineIds'> => (files.length === 0 ? {} : { outlineIds: files.map(({ id }) => id) });

async function guarded<Value>(work: () => PromiseLike<Value>): Promise<Value> {
  try {
    return await work();
  } catch (error) {
    if (isAppError(error)) throw error;
    throw new AppError(isQuota(error) ? 'storageFull' : 'storageFailed', { message: error instanceof Error ? error.message : String(error) }, error);
  }
}

/** A full disk may come as the error itself, or wrapped in the abort of its transaction. */
function isQuota(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  if (error.name === 'QuotaExceededError') return true;
  return 'inner' in error && isQuota(error.inner);
}
