import { Dexie, type Table } from 'dexie';
import { AppError, isAppError } from '../core/errors/appError.ts';
import { rowsToDrop, type KeptRow } from './keptRows.ts';
import { newestFirst, sortedByName, type DamagedEntry, type JobStorage, type JobVersion, type NamedRecipe, type PictureFile, type ShelfEntry, type StoredJobs } from './ports.ts';
import { checkedEntry, checkedRecipe, checkedVersion, damagedEntry, pictureIdsOf, plainEntry, presentEntry, type StoredEntry } from './storedRows.ts';

interface Note {
  readonly name: string;
  readonly value: string;
}

interface Thumbnail {
  readonly id: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

type ResultSize = Pick<KeptRow, 'jobId' | 'bytes' | 'usedAt'>;

class Database extends Dexie {
  entries!: Table<StoredEntry, string>;
  pictures!: Table<PictureFile, string>;
  notes!: Table<Note, string>;
  recipes!: Table<NamedRecipe, string>;
  results!: Table<KeptRow, string>;
  /** What each row of `results` takes, so that room is made without reading them. */
  resultSizes!: Table<ResultSize, string>;
  /** Small pictures, which all jobs are listed without. */
  thumbnails!: Table<Thumbnail, string>;
  versions!: Table<JobVersion, string>;
  folders!: Table<{ readonly name: string; readonly handle: FileSystemDirectoryHandle }, string>;

  constructor(name: string) {
    super(name);
    this.version(1).stores({ entries: 'id, updatedAt, pictureId', pictures: 'id', notes: 'name' });
    this.version(2).stores({ recipes: 'id' });
    this.version(3).stores({ results: 'jobId', resultSizes: 'jobId' });
    this.version(4).stores({ entries: 'id, updatedAt' });
    this.version(5).stores({ versions: 'id, jobId', folders: 'name' });
    this.version(6)
      .stores({ thumbnails: 'id' })
      .upgrade(async (transaction) => {
        const thumbnails = transaction.table<Thumbnail, string>('thumbnails');
        await transaction.table<StoredEntry & { thumbnail?: Uint8Array<ArrayBuffer> }, string>('entries').toCollection().modify((row) => {
          if (row.thumbnail !== undefined) void thumbnails.put({ id: row.id, bytes: row.thumbnail });
          delete row.thumbnail;
        });
      });
  }
}

const NOTED_AT_ONCE = 200;
/** The folder for copies, as its row is called. */
const COPIES = 'copies';

/** Jobs in the browser's own database. */
export class DexieStorage implements JobStorage {
  private readonly db: Database;

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
      const rows = await this.db.entries.toArray();
      const passed: StoredEntry[] = [];
      const damaged: DamagedEntry[] = [];
      const entries = rows.flatMap((row): ShelfEntry[] => {
        if (this.isChecked(row)) return [plainEntry(row)];
        const entry = checkedEntry(row);
        if (entry === undefined) {
          const told = damagedEntry(row);
          if (told !== undefined) damaged.push(told);
          return [];
        }
        if (this.build !== undefined) passed.push({ ...entry, checkedBy: this.build });
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
  private async noteChecked(rows: readonly StoredEntry[]): Promise<void> {
    for (let from = 0; from < rows.length; from += NOTED_AT_ONCE) {
      const some = rows.slice(from, from + NOTED_AT_ONCE);
      await this.db.transaction('rw', this.db.entries, async () => {
        const now = await this.db.entries.bulkGet(some.map(({ id }) => id));
        await this.db.entries.bulkPut(some.filter(({ updatedAt }, k) => now[k]?.updatedAt === updatedAt && now[k]?.checkedBy !== this.build));
      });
    }
  }

  get(id: string): Promise<ShelfEntry | undefined> {
    return guarded(async () => {
      const row = await this.db.entries.get(id);
      return row === undefined ? undefined : presentEntry(row);
    });
  }

  thumbnail(id: string): Promise<Uint8Array<ArrayBuffer> | undefined> {
    return guarded(async () => (await this.db.thumbnails.get(id))?.bytes);
  }

  keepThumbnail(id: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
    return guarded(() =>
      this.db.transaction('rw', this.db.entries, this.db.thumbnails, async () => {
        if ((await this.db.entries.where('id').equals(id).count()) > 0) await this.db.thumbnails.put({ id, bytes });
      }),
    );
  }

  put({ thumbnail, ...entry }: ShelfEntry, pictures: readonly PictureFile[] = []): Promise<void> {
    return this.makingRoom(() =>
      this.db.transaction('rw', this.db.entries, this.db.pictures, this.db.thumbnails, async () => {
        if (thumbnail !== undefined) await this.db.thumbnails.put({ id: entry.id, bytes: thumbnail });
        await this.db.pictures.bulkPut([...pictures]);
        await this.db.entries.put(this.build === undefined ? entry : { ...entry, checkedBy: this.build });
      }),
    );
  }

  purge(ids: readonly string[]): Promise<void> {
    return guarded(() =>
      this.db.transaction('rw', [this.db.entries, this.db.thumbnails, this.db.versions, this.db.pictures, this.db.results, this.db.resultSizes], async () => {
        await this.db.entries.bulkDelete([...ids]);
        await this.db.thumbnails.bulkDelete([...ids]);
        await this.db.versions.where('jobId').anyOf([...ids]).delete();
        await this.dropResults(ids);
        const used = new Set([...(await this.db.entries.toArray()), ...(await this.db.versions.toArray())].flatMap(pictureIdsOf));
        const unused = (await this.db.pictures.toCollection().primaryKeys()).filter((id) => !used.has(id));
        await this.db.pictures.bulkDelete(unused);
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
    return guarded(async () => newestFirst((await this.db.versions.where('jobId').equals(jobId).toArray()).flatMap((row) => checkedVersion(row) ?? [])));
  }

  putVersion(version: JobVersion): Promise<void> {
    return this.makingRoom(async () => void (await this.db.versions.put(version)));
  }

  removeVersion(id: string): Promise<void> {
    return guarded(() => this.db.versions.delete(id));
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
