import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import type { Job } from '../core/job/job.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import type { JobVersion } from '../storage/ports.ts';
import { openPicturesOf } from './openPicturesOf.ts';
import { useServices } from './services.ts';
import { useShelf } from './shelf.ts';

/** The versions of a job: as it was at some time, each with a note. */
export const useVersions = defineStore('versions', () => {
  const services = useServices();
  const { engine, storage } = services;
  const shelf = useShelf();
  const versions = shallowRef<readonly JobVersion[]>([]);
  let shownOf: string | undefined;

  async function load(jobId: string): Promise<void> {
    shownOf = jobId;
    const found = await storage.versions(jobId);
    if (shownOf === jobId) versions.value = found;
  }

  /** Keeps a job as it is now. One that is the same as the newest is not kept twice: it takes the note. */
  async function keep(jobId: string, job: Job, note: string): Promise<void> {
    const [newest] = await storage.versions(jobId);
    const isSame = newest !== undefined && JSON.stringify(newest.job) === JSON.stringify(job);
    // A clock that was set back does not put it behind those that were kept before.
    const at = Math.max(Date.now(), newest === undefined || isSame ? 0 : newest.at + 1);
    await storage.putVersion({ id: isSame ? newest.id : crypto.randomUUID(), jobId, at, note: note.trim().slice(0, 2000), job });
    await tellCopies(jobId);
    if (shownOf === jobId) await load(jobId);
  }

  /** A job whose versions have changed is newer than its copy in a folder. */
  async function tellCopies(jobId: string): Promise<void> {
    const entry = await storage.get(jobId);
    if (entry !== undefined) await shelf.save({ ...entry, updatedAt: Math.max(Date.now(), entry.updatedAt + 1) });
  }

  /** Puts a version that was taken away back. */
  async function putBack(version: JobVersion): Promise<void> {
    await storage.putVersion(version);
    await tellCopies(version.jobId);
    await load(version.jobId);
  }

  async function remove({ id, jobId }: JobVersion): Promise<void> {
    await storage.removeVersion(id);
    await tellCopies(jobId);
    await load(jobId);
  }

  /** The finished blank as a job would have it. @throws AppError of the engine, `pictureMissing`. */
  async function onBlank(job: Job, sidePx: number): Promise<Rgba8> {
    return (await engine.onBlank({ pictureKey: await openPicturesOf(job, services), job, sidePx })).picture;
  }

  return { versions, load, keep, putBack, remove, onBlank };
});
