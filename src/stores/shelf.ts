import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { hashBytes } from '../core/task/hash.ts';
import type { Job } from '../core/job/job.ts';
import { isAppError } from '../core/errors/appError.ts';
import { newJob } from '../core/job/newJob.ts';
import { startedWith } from '../core/propose/propose.ts';
import { salvageJob } from '../core/job/salvageJob.ts';
import { ARCHIVE_ENDING, readArchive, writeArchive } from '../formats/archive/archive.ts';
import { checkFileSize } from '../formats/picture/checkPicture.ts';
import type { DamagedEntry, PictureFile, ShelfEntry } from '../storage/ports.ts';
import { pictureInfo } from './pictureInfo.ts';
import { useServices } from './services.ts';
import { useStock } from './stock.ts';

const SEEDED = 'demoOffered';
/** Tabs that stay open longer than this have forgotten what they deleted, ms: a week. */
const KEPT_DELETED_MS = 7 * 24 * 3600 * 1000;

/** `crew-crest.final_2.jpg` to "Crew crest final 2". */
export function nameFromFile(fileName: string): string {
  const words = fileName.replace(/\.[^.]*$/, '').replace(/[-_.]+/g, ' ').trim().slice(0, 120);
  return words === '' ? 'New job' : words[0].toUpperCase() + words.slice(1);
}

export const isArchive = (fileName: string): boolean => fileName.toLowerCase().endsWith(ARCHIVE_ENDING);

/** A new job, with what is not of the picture taken from another one. */
function jobLike(pattern: Job | undefined, name: string): Job {
  const fresh = newJob(name);
  if (pattern === undefined) return fresh;
  const { blank, process, separation, outline, assembly, layout, handOff } = pattern;
  const { place: _place, ...size } = assembly;
  return { ...fresh, blank, process, separation, outline, assembly: size, layout, handOff };
}

/** The shelf: all jobs, and what can be done with one as a whole. */
export const useShelf = defineStore('shelf', () => {
  const { engine, storage, signal } = useServices();
  const stock = useStock();
  const all = shallowRef<readonly ShelfEntry[]>([]);
  const loaded = ref(false);
  const entries = computed(() => all.value.filter((entry) => entry.deletedAt === undefined));

  /** Rows that do not pass as jobs. */
  const damaged = shallowRef<readonly DamagedEntry[]>([]);

  async function load(): Promise<void> {
    all.value = await storage.list();
    damaged.value = await storage.damaged();
    loaded.value = true;
  }

  /** Makes a job of what can be read of a damaged one, and takes that off the shelf. Gives what could not be read, in words. */
  async function repair({ id, job: stored, pictureId }: DamagedEntry): Promise<readonly string[]> {
    const { job, lost } = salvageJob(stored);
    const now = Date.now();
    await save({ id: crypto.randomUUID(), job, createdAt: now, updatedAt: now, stage: 'picture', ...(pictureId === undefined ? {} : { pictureId }) });
    await discard(id);
    return lost;
  }

  /** A damaged job as a file: its settings as they are stored, and its picture. */
  async function damagedFile({ name, job, pictureId }: DamagedEntry): Promise<{ fileName: string; bytes: Uint8Array<ArrayBuffer> }> {
    const picture = pictureId === undefined ? undefined : await storage.picture(pictureId);
    return { fileName: `${name}${ARCHIVE_ENDING}`, bytes: writeArchive({ job: job as Job, ...(picture === undefined ? {} : { picture: picture.bytes }) }) };
  }

  /** Removes a damaged row for good. */
  async function discard(id: string): Promise<void> {
    await storage.purge([id]);
    damaged.value = damaged.value.filter((other) => other.id !== id);
  }

  // What another tab saved is shown here too.
  signal.listen((id) => void refresh(id));
  async function refresh(id: string): Promise<void> {
    const found = await storage.get(id).catch(() => undefined);
    if (found === undefined || !loaded.value) return;
    all.value = [found, ...all.value.filter((other) => other.id !== id)].sort((a, b) => b.updatedAt - a.updatedAt);
  }

  async function save(entry: ShelfEntry, picture?: PictureFile): Promise<ShelfEntry> {
    await storage.put(entry, picture);
    signal.tell(entry.id);
    const others = all.value.filter((other) => other.id !== entry.id);
    all.value = [entry, ...others].sort((a, b) => b.updatedAt - a.updatedAt);
    return entry;
  }

  /** The job as its picture proposes, where that is sure; as it is otherwise, also when the look fails. */
  async function started(job: Job, pictureKey: string): Promise<Job> {
    await stock.load();
    try {
      const { isSure, proposals } = await engine.propose({ pictureKey, job, stock: stock.films });
      return isSure && proposals.length > 0 ? startedWith(job, proposals[0]) : job;
    } catch (error) {
      if (!isAppError(error)) throw error;
      return job;
    }
  }

  /** @param asProposed whether a sure proposal is taken up. */
  async function add(job: Job, bytes: Uint8Array<ArrayBuffer> | undefined, fileName: string, asProposed = false): Promise<ShelfEntry> {
    const now = Date.now();
    const fresh: ShelfEntry = { id: crypto.randomUUID(), job, createdAt: now, updatedAt: now, stage: 'picture' };
    if (bytes === undefined) return save(fresh);
    const picture: PictureFile = { id: hashBytes(bytes), fileName, bytes };
    const opened = await engine.open(bytes.slice(), fileName, { drawnSidePx: job.picture?.drawnSidePx });
    const withPicture: Job = { ...(asProposed ? await started(job, opened.pictureKey) : job), picture: pictureInfo(fileName, opened) };
    const thumbnail = await engine.export({ pictureKey: opened.pictureKey, job: withPicture, kind: 'thumbnail' });
    return save({ ...fresh, job: withPicture, pictureId: picture.id, thumbnail }, picture);
  }

  /**
   * Starts a job from a file: a picture, or a whole job from an archive. The file is checked before anything is stored. A picture's job starts as the first look proposes, where it is sure.
   * @param pattern a job whose blank, process, size and layout a picture's job takes.
   */
  async function addFile(file: File, pattern?: Job): Promise<ShelfEntry> {
    checkFileSize(file.size, file.name);
    const bytes = new Uint8Array(await file.arrayBuffer());
    if (!isArchive(file.name)) return add(jobLike(pattern, nameFromFile(file.name)), bytes, file.name, pattern === undefined);
    const { job, picture } = readArchive(bytes, file.name);
    return add(job, picture, job.picture?.fileName ?? 'picture');
  }

  async function duplicate(id: string): Promise<ShelfEntry | undefined> {
    const entry = await storage.get(id);
    if (entry === undefined) return undefined;
    const now = Date.now();
    return save({ ...entry, id: crypto.randomUUID(), createdAt: now, updatedAt: now, job: { ...entry.job, name: `${entry.job.name}, copy`.slice(0, 120) } });
  }

  async function rename(id: string, name: string): Promise<void> {
    const entry = await storage.get(id);
    if (entry !== undefined && name.trim() !== '') await save({ ...entry, updatedAt: Date.now(), job: { ...entry.job, name: name.trim().slice(0, 120) } });
  }

  /** Takes a job off the shelf; `restore` brings it back until the page is loaded anew. */
  async function remove(id: string): Promise<void> {
    const entry = await storage.get(id);
    if (entry !== undefined) await save({ ...entry, deletedAt: Date.now() });
  }

  async function restore(id: string): Promise<void> {
    const entry = await storage.get(id);
    if (entry === undefined) return;
    const { deletedAt: _deletedAt, ...kept } = entry;
    await save(kept);
  }

  async function archiveOf(id: string): Promise<{ fileName: string; bytes: Uint8Array<ArrayBuffer> } | undefined> {
    const entry = await storage.get(id);
    if (entry === undefined) return undefined;
    const picture = entry.pictureId === undefined ? undefined : await storage.picture(entry.pictureId);
    const bytes = writeArchive(picture === undefined ? { job: entry.job } : { job: entry.job, picture: picture.bytes });
    return { fileName: `${entry.job.name}${ARCHIVE_ENDING}`, bytes };
  }

  /** Removes for good what was deleted before this start, but nothing that another tab can still undo. */
  async function purgeDeleted(): Promise<void> {
    const old = Date.now() - KEPT_DELETED_MS;
    const alone = await signal.isAlone();
    const gone = all.value.filter(({ deletedAt }) => deletedAt !== undefined && (alone || deletedAt < old)).map((entry) => entry.id);
    if (gone.length > 0) await storage.purge(gone);
    all.value = entries.value;
  }

  /** Puts the demo jobs on the shelf: on the very first start, or when asked. */
  async function addDemo(onlyFirstTime: boolean): Promise<number> {
    if (onlyFirstTime && (await storage.note(SEEDED)) !== undefined) return 0;
    const response = await fetch('/demo/index.json');
    if (!response.ok) return 0;
    const names = (await response.json()) as unknown;
    if (!Array.isArray(names)) return 0;
    await storage.setNote(SEEDED, 'yes');
    for (const name of [...names].reverse()) {
      if (typeof name !== 'string' || !/^[\w-]+\.limner$/.test(name)) continue;
      const archive = await fetch(`/demo/${name}`);
      if (archive.ok) await addFile(new File([await archive.arrayBuffer()], name));
    }
    return names.length;
  }

  return { entries, damaged, loaded, load, repair, damagedFile, discard, save, addFile, duplicate, rename, remove, restore, archiveOf, purgeDeleted, addDemo };
});
