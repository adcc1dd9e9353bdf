import { AppError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import { rowsToDrop, type KeptRow } from './keptRows.ts';
import { newestFirst, sortedByName, type JobStorage, type JobVersion, type NamedRecipe, type PictureFile, type ShelfEntry, type StoredJobs } from './ports.ts';

/** Storage that forgets: for tests, and for browsers that allow none. `roomBytes` imitates a full disk. */
export class MemoryStorage implements JobStorage {
  private readonly entries = new Map<string, ShelfEntry>();
  private readonly pictures = new Map<string, PictureFile>();
  private readonly thumbnails = new Map<string, Uint8Array<ArrayBuffer>>();
  private readonly named = new Map<string, NamedRecipe>();
  private readonly results = new Map<string, KeptRow>();
  private readonly older = new Map<string, JobVersion>();
  private copies: FileSystemDirectoryHandle | undefined;
  private readonly notes = new Map<string, string>();

  constructor(private readonly roomBytes = Infinity) {}

  /** What was put as a value is a job. */
  async all(): Promise<StoredJobs> {
    return { entries: [...this.entries.values()].sort((a, b) => b.updatedAt - a.updatedAt), damaged: [] };
  }

  async keyed(job: Job): Promise<unknown> {
    return job;
  }

  async get(id: string): Promise<ShelfEntry | undefined> {
    return this.entries.get(id);
  }

  async thumbnail(id: string): Promise<Uint8Array<ArrayBuffer> | undefined> {
    return this.thumbnails.get(id);
  }

  async keepThumbnail(id: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
    if (this.entries.has(id)) this.thumbnails.set(id, bytes);
  }

  async put({ thumbnail, ...entry }: ShelfEntry, pictures: readonly PictureFile[] = []): Promise<void> {
    const stored = [...this.pictures.values(), ...pictures].reduce((sum, file) => sum + file.bytes.length, 0);
    if (pictures.length > 0 && stored > this.roomBytes) throw new AppError('storageFull');
    for (const picture of pictures) this.pictures.set(picture.id, picture);
    if (thumbnail !== undefined) this.thumbnails.set(entry.id, thumbnail);
    this.entries.set(entry.id, structuredClone(entry));
  }

  async purge(ids: readonly string[]): Promise<void> {
    for (const id of ids) {
      this.entries.delete(id);
      this.thumbnails.delete(id);
      this.results.delete(id);
      for (const version of this.older.values()) if (version.jobId === id) this.older.delete(version.id);
    }
    const used = new Set([...this.entries.values(), ...this.older.values()].flatMap(({ job }) => job.pictures.map(({ id }) => id)));
    for (const id of this.pictures.keys()) if (!used.has(id)) this.pictures.delete(id);
  }

  async versions(jobId: string): Promise<JobVersion[]> {
    return newestFirst([...this.older.values()].filter((version) => version.jobId === jobId));
  }

  async putVersion(version: JobVersion): Promise<void> {
    this.older.set(version.id, structuredClone(version));
  }

  async removeVersion(id: string): Promise<void> {
    this.older.delete(id);
  }

  async folder(): Promise<FileSystemDirectoryHandle | undefined> {
    return this.copies;
  }

  async setFolder(folder: FileSystemDirectoryHandle | undefined): Promise<void> {
    this.copies = folder;
  }

  async picture(id: string): Promise<PictureFile | undefined> {
    return this.pictures.get(id);
  }

  /** Whether something is kept of a job. */
  hasKept(jobId: string): boolean {
    return this.results.has(jobId);
  }

  async kept(jobId: string): Promise<KeptRow | undefined> {
    return this.results.get(jobId);
  }

  async keep(row: KeptRow): Promise<void> {
    this.results.set(row.jobId, structuredClone(row));
    for (const id of rowsToDrop([...this.results.values()])) this.results.delete(id);
  }

  async recipes(): Promise<NamedRecipe[]> {
    return sortedByName([...this.named.values()]);
  }

  async putRecipe(recipe: NamedRecipe): Promise<void> {
    this.named.set(recipe.id, structuredClone(recipe));
  }

  async removeRecipe(id: string): Promise<void> {
    this.named.delete(id);
  }

  async note(name: string): Promise<string | undefined> {
    return this.notes.get(name);
  }

  async setNote(name: string, value: string): Promise<void> {
    this.notes.set(name, value);
  }
}
