import type { PlainError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import type { Recipe } from '../core/clean/recipe.ts';
import type { KeptRow } from './keptRows.ts';

/** A job as it lies on the shelf, without its pixels. */
export interface ShelfEntry {
  readonly id: string;
  readonly job: Job;
  readonly createdAt: number;
  readonly updatedAt: number;
  /** Stage that was open last. */
  readonly stage: string;
  /** Small PNG for the shelf, where it was made just now; storage keeps it apart. */
  readonly thumbnail?: Uint8Array<ArrayBuffer>;
  /** Set when it was deleted and can still come back. */
  readonly deletedAt?: number;
}

/** A stored row that does not pass as a job: of a newer version, or broken. It stays as it is. */
export interface DamagedEntry {
  readonly id: string;
  /** What it calls itself, as far as that can be read. */
  readonly name: string;
  readonly reason: PlainError;
  /** The job as it is stored. */
  readonly job: unknown;
  /** The picture files that it names, as far as that can be read. */
  readonly pictureIds: readonly string[];
  /** What its picture is known by, where the job is of a version that did not say so itself. */
  readonly oldPictureId?: string;
  readonly updatedAt: number;
}

export interface StoredJobs {
  readonly entries: ShelfEntry[];
  readonly damaged: DamagedEntry[];
}

/** A job as it was at some time, kept beside it with a note. */
export interface JobVersion {
  readonly id: string;
  readonly jobId: string;
  /** When it was kept, ms since 1970. */
  readonly at: number;
  /** Why, in the decorator’s words; may be empty. */
  readonly note: string;
  readonly job: Job;
}

/** A recipe that is kept under a name to be used on other pictures. */
export interface NamedRecipe {
  readonly id: string;
  readonly name: string;
  readonly recipe: Recipe;
  readonly savedAt: number;
}

/** A picture file as it came; several jobs may share one. */
export interface PictureFile {
  /** As the jobs know it. */
  readonly id: string;
  readonly fileName: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/**
 * Where jobs live. Every call is one transaction: it happens wholly or not at all.
 * @throws AppError `storageFull` or `storageFailed`.
 */
export interface JobStorage {
  /** All jobs, those that were changed last first, and the rows that are not listed because they do not pass as jobs. Without thumbnails. */
  all(): Promise<StoredJobs>;
  get(id: string): Promise<ShelfEntry | undefined>;
  thumbnail(id: string): Promise<Uint8Array<ArrayBuffer> | undefined>;
  /** Writes the small picture alone of an entry that is there; its job stays as whoever saved it last left it. */
  keepThumbnail(id: string, bytes: Uint8Array<ArrayBuffer>): Promise<void>;
  /** What a job says as a value that is small and equal for equal jobs: its long outlines are named by their hash. */
  keyed(job: Job): Promise<unknown>;
  /** Writes an entry, its thumbnail where it has one (that from before stays else) and, when given, new picture files of it; kept results make room where it is short. */
  put(entry: ShelfEntry, pictures?: readonly PictureFile[]): Promise<void>;
  /** The versions of a job, newest first. Those that no longer pass as jobs are left out. */
  versions(jobId: string): Promise<JobVersion[]>;
  putVersion(version: JobVersion): Promise<void>;
  removeVersion(id: string): Promise<void>;
  /** Removes entries for good with their versions and kept results, and pictures that nothing uses any more. */
  purge(ids: readonly string[]): Promise<void>;
  picture(id: string): Promise<PictureFile | undefined>;
  /** What was kept of a job's results. */
  kept(jobId: string): Promise<KeptRow | undefined>;
  /** Keeps a job's results instead of those before; those used longest ago make room. */
  keep(row: KeptRow): Promise<void>;
  /** The kept recipes, by name. Those that no longer pass as recipes are left out. */
  recipes(): Promise<NamedRecipe[]>;
  putRecipe(recipe: NamedRecipe): Promise<void>;
  removeRecipe(id: string): Promise<void>;
  /** A small note under a name, such as whether the demo was offered. */
  note(name: string): Promise<string | undefined>;
  setNote(name: string, value: string): Promise<void>;
  /** The folder that copies of all jobs are written into, as the browser lets it be kept. */
  folder(): Promise<FileSystemDirectoryHandle | undefined>;
  setFolder(folder: FileSystemDirectoryHandle | undefined): Promise<void>;
}

/** Recipes as they are listed. */
export const sortedByName = (recipes: readonly NamedRecipe[]): NamedRecipe[] => [...recipes].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));

/** Versions as they are listed. */
export const newestFirst = (versions: readonly JobVersion[]): JobVersion[] => [...versions].sort((a, b) => b.at - a.at);
