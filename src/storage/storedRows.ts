import { isAppError, plainFromError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import { readJob, readRecipe } from '../core/job/readJob.ts';
import { say } from '../core/words/say.ts';
import type { DamagedEntry, JobVersion, NamedRecipe, ShelfEntry } from './ports.ts';

/** An entry as it is stored: its job may be of an older version, which left it to the row to say what its picture is known by. */
export type StoredEntry = Omit<ShelfEntry, 'job' | 'thumbnail'> & {
  readonly job: unknown;
  readonly pictureId?: string;
  /** The files of the outlines that lie beside its job. */
  readonly outlineIds?: readonly string[];
  /** The build that has written it, or has checked that it passes: that one need not check it again to list it. */
  readonly checkedBy?: string;
};

/** A version as it is stored. */
export type StoredVersion = Omit<JobVersion, 'job'> & { readonly job: unknown; readonly outlineIds?: readonly string[] };

/** Gives a stored job back its long outlines. */
export type Joined = (job: unknown) => unknown;

/** A row whose job was checked by this build. @throws AppError `badJob` when an outline of it is missing. */
export const plainEntry = ({ pictureId: _picture, outlineIds: _outlines, checkedBy: _, ...row }: StoredEntry, joined: Joined): ShelfEntry => ({ ...row, job: joined(row.job) as Job });

/** @throws AppError of `readJob`. */
export function presentEntry({ pictureId, outlineIds: _outlines, checkedBy: _, ...row }: StoredEntry, joined: Joined): ShelfEntry {
  return { ...row, job: readJob(joined(row.job), undefined, pictureId) };
}

/** The picture files that a row names, whatever its version and state. */
export function pictureIdsOf({ job, pictureId }: Pick<StoredEntry, 'job' | 'pictureId'>): string[] {
  const pictures: unknown = (job as { pictures?: unknown } | undefined)?.pictures;
  const named = Array.isArray(pictures) ? pictures.flatMap((picture: unknown) => (typeof picture === 'object' && picture !== null && 'id' in picture && typeof picture.id === 'string' ? [picture.id] : [])) : [];
  return pictureId === undefined ? named : [...named, pictureId];
}

/** What is read of a row; undefined when it does not pass. */
function ifWhole<Value>(read: () => Value): Value | undefined {
  try {
    return read();
  } catch (error) {
    if (!isAppError(error)) throw error;
    return undefined;
  }
}

/** The entry of a row as it can be listed: one whose job was checked before is not checked again. */
export const listedEntry = (row: StoredEntry, isChecked: boolean, joined: Joined): ShelfEntry | undefined => ifWhole(() => (isChecked ? plainEntry(row, joined) : presentEntry(row, joined)));

export function damagedEntry({ id, job: stored, pictureId, updatedAt, deletedAt }: StoredEntry, joined: Joined): DamagedEntry | undefined {
  if (deletedAt !== undefined) return undefined;
  let job = stored;
  try {
    job = joined(stored);
    readJob(job, undefined, pictureId);
    return undefined;
  } catch (error) {
    const name: unknown = (job as { name?: unknown } | undefined)?.name;
    const row = { id, name: typeof name === 'string' && name.trim() !== '' ? name.slice(0, 120) : say('A job without a name'), reason: plainFromError(error), job, pictureIds: pictureIdsOf({ job, ...(pictureId === undefined ? {} : { pictureId }) }), updatedAt: Number(updatedAt) || 0 };
    return pictureId === undefined ? row : { ...row, oldPictureId: pictureId };
  }
}

export const checkedVersion = ({ outlineIds: _outlines, ...row }: StoredVersion, joined: Joined): JobVersion | undefined => ifWhole(() => ({ ...row, job: readJob(joined(row.job)) }));

export const checkedRecipe = (row: NamedRecipe): NamedRecipe | undefined => ifWhole(() => ({ ...row, recipe: readRecipe(row.recipe) }));
