import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import type { Job } from '../core/job/job.ts';
import { isAppError } from '../core/errors/appError.ts';
import { withoutOrder } from '../core/edit/sameAgain.ts';
import { newJob } from '../core/job/newJob.ts';
import type { PictureInfo } from '../core/job/picture.ts';
import { pictureOf, tracedPart, withPart, withPicture, withPicturesOnly } from '../core/job/tracedPart.ts';
import { pictureKeyOf } from '../engine/protocol.ts';
import { startedWith } from '../core/propose/propose.ts';
import { salvageJob } from '../core/job/salvageJob.ts';
import { ARCHIVE_ENDING, readArchive, writeArchive, type JobArchive } from '../formats/archive/archive.ts';
import { jobsZip, type JobFileOf } from '../formats/archive/jobsZip.ts';
import { checkFileSize } from '../formats/picture/checkPicture.ts';
import type { DamagedEntry, PictureFile, ShelfEntry } from '../storage/ports.ts';
import { pictureInfoOf } from './pictureInfo.ts';
import { useServices } from './services.ts';
import { useStock } from './stock.ts';
import { say } from '../core/words/say.ts';

const SEEDED = 'demoOffered';
/** Names of the demo's archives that the first start has put on the shelf so far. */
const BEGUN = 'demoBegun';
/** Tabs that stay open longer than this have forgotten what they deleted, ms: a week. */
const KEPT_DELETED_MS = 7 * 24 * 3600 * 1000;

/** `crew-crest.final_2.jpg` to "Crew crest final 2". */
export function nameFromFile(fileName: string): string {
  const words = fileName.replace(/\.[^.]*$/, '').replace(/[-_.]+/g, ' ').trim().slice(0, 120);
  return words === '' ? say('New job') : words[0].toUpperCase() + words.slice(1);
}

export const isArchive = (fileName: string): boolean => fileName.toLowerCase().endsWith(ARCHIVE_ENDING);

/** A new job, with what is not of the picture taken from another one. */
function jobLike(pattern: Job | undefined, name: string): Job {
  const fresh = newJob(name);
  if (pattern === undefined) return fresh;
  const { blank, process, films, layout, handOff } = pattern;
  const { separation, outline, size } = tracedPart(pattern);
  return { ...withPart(fresh, { ...tracedPart(fresh), separation, outline, size, films }), blank, process, layout, handOff };
}

/** What a version calls a picture that the job has no more. */
const fileNameIn = (versions: readonly { readonly job: Job }[], id: string): string => versions.flatMap(({ job }) => job.pictures).find((picture) => picture.id === id)?.fileName ?? 'picture';

/** How a file is brought in. */
export interface AddOptions {
  /** A job whose blank, process, size and layout a picture's job takes. */
  readonly pattern?: Job | undefined;
  /** Whether the job is opened as soon as it lies here: its films are begun with before it does. */
  readonly opensNext?: boolean;
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
    const stored = await storage.all();
    [all.value, damaged.value] = [stored.entries, stored.damaged];
    loaded.value = true;
  }

  /** Makes a job of what can be read of a damaged one, and takes that off the shelf. Gives what could not be read, in words. */
  async function repair({ id, job: stored, oldPictureId }: DamagedEntry): Promise<readonly string[]> {
    const { job, lost } = salvageJob(stored, oldPictureId);
    const now = Date.now();
    await save({ id: crypto.randomUUID(), job, createdAt: now, updatedAt: now, stage: 'picture' });
    await discard(id);
    return lost;
  }

  /** A damaged job as a file: its settings as they are stored, and its pictures. */
  async function damagedFile({ name, job, pictureIds }: DamagedEntry): Promise<{ fileName: string; bytes: Uint8Array<ArrayBuffer> }> {
    return { fileName: `${name}${ARCHIVE_ENDING}`, bytes: await writeArchive({ job: job as Job, pictures: await picturesOf(pictureIds) }) };
  }

  /** The picture files that are there, by their ids. */
  async function picturesOf(ids: readonly string[]): Promise<Map<string, Uint8Array<ArrayBuffer>>> {
    const files = await Promise.all(ids.map((id) => storage.picture(id)));
    return new Map(files.flatMap((file) => (file === undefined ? [] : [[file.id, file.bytes] as const])));
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

  async function save(entry: ShelfEntry, pictures: readonly PictureFile[] = []): Promise<ShelfEntry> {
    await storage.put(entry, pictures);
    signal.tell(entry.id);
    const others = all.value.filter((other) => other.id !== entry.id);
    all.value = [entry, ...others].sort((a, b) => b.updatedAt - a.updatedAt);
    return entry;
  }

  /** Keeps a small picture of a job, which stays as it is. */
  async function keepThumbnail(id: string, thumbnail: Uint8Array<ArrayBuffer>): Promise<void> {
    await storage.keepThumbnail(id, thumbnail);
    signal.tell(id);
    all.value = all.value.map((entry) => (entry.id === id ? { ...entry, thumbnail } : entry));
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

  async function put(job: Job, pictures: readonly PictureFile[], thumbnail?: Uint8Array<ArrayBuffer>): Promise<ShelfEntry> {
    const now = Date.now();
    return save({ id: crypto.randomUUID(), job, createdAt: now, updatedAt: now, stage: 'picture', ...(thumbnail === undefined ? {} : { thumbnail }) }, pictures);
  }

  /** A job with a picture that it has not had before. @param asProposed whether a sure proposal is taken up. */
  async function addPicture(job: Job, bytes: Uint8Array<ArrayBuffer>, fileName: string, { asProposed, opensNext }: { asProposed: boolean; opensNext: boolean }): Promise<ShelfEntry> {
    const opened = await engine.open(bytes.slice(), fileName);
    const { pictureKey, pictureId } = opened;
    const begun = asProposed ? await started(job, pictureKey) : job;
    const whole = withPicture(begun, tracedPart(begun).id, pictureInfoOf(fileName, opened));
    if (opensNext) void engine.prepare({ pictureKey, job: whole }).catch(() => 'what is wrong is told once it is opened');
    const thumbnail = await engine.export({ pictureKey, job: whole, kind: 'thumbnail' });
    return put(whole, [{ id: pictureId, fileName, bytes }], thumbnail);
  }

  /** A job of a picture alone, started as it proposes, for a design that another job has already: on the same blank and by the same process, half as broad. */
  async function traced(file: File, { blank, process, ...beside }: Job): Promise<{ readonly started: Job; readonly info: PictureInfo; readonly kept: PictureFile }> {
    checkFileSize(file.size, file.name);
    const bytes = new Uint8Array(await file.arrayBuffer());
    const opened = await engine.open(bytes.slice(), file.name);
    const { size } = tracedPart({ ...beside });
    const fresh = newJob(nameFromFile(file.name), process);
    const own: Job = { ...fresh, blank, objects: fresh.objects.map((object) => (object.kind === 'traced' ? { ...object, id: `art-${crypto.randomUUID().slice(0, 8)}` } : object)) };
    const begun = await started(own, opened.pictureKey);
    const sized = withPart(begun, { ...tracedPart(begun), size: { by: 'width', sizeMm: Math.max(5, Math.round(size.sizeMm / 2)), turnDeg: 0 } });
    return { started: sized, info: pictureInfoOf(file.name, opened), kept: { id: opened.pictureId, fileName: file.name, bytes } };
  }

  /** A whole job from an archive. Its pictures are opened once, so that none that cannot be read is stored. */
  async function addWhole({ job: named, pictures, versions = [] }: JobArchive): Promise<ShelfEntry> {
    const files: PictureFile[] = [];
    const known: PictureInfo[] = [];
    for (const { id, fileName, drawnSidePx } of named.pictures) {
      const bytes = pictures.get(id);
      if (bytes === undefined) continue;
      // What the file itself says holds.
      known.push(pictureInfoOf(fileName, await engine.open(bytes.slice(), fileName, { id, drawnSidePx })));
      files.push({ id, fileName, bytes });
    }
    const job = withPicturesOnly(named, known);
    const info = pictureOf(job, tracedPart(job));
    const thumbnail = info === undefined ? undefined : await engine.export({ pictureKey: pictureKeyOf(info), job, kind: 'thumbnail' });
    for (const [id, bytes] of pictures) if (files.every((file) => file.id !== id)) files.push({ id, fileName: fileNameIn(versions, id), bytes });
    const entry = await put(job, files, thumbnail);
    for (const version of versions) await storage.putVersion({ ...version, id: crypto.randomUUID(), jobId: entry.id });
    return entry;
  }

  /**
   * Starts a job from a file: a picture, or a whole job from an archive. The file is checked before anything is stored. A picture's job starts as the first
   * look proposes, where it is sure.
   */
  async function addFile(file: File, { pattern, opensNext = false }: AddOptions = {}): Promise<ShelfEntry> {
    checkFileSize(file.size, file.name);
    const bytes = new Uint8Array(await file.arrayBuffer());
    if (!isArchive(file.name)) return addPicture(jobLike(pattern, nameFromFile(file.name)), bytes, file.name, { asProposed: pattern === undefined, opensNext });
    return addWhole(await readArchive(bytes, file.name));
  }

  async function duplicate(id: string): Promise<ShelfEntry | undefined> {
    const entry = await storage.get(id);
    return entry === undefined ? undefined : putBeside(entry, withoutOrder({ ...entry.job, name: say`${entry.job.name}, copy`.slice(0, 120) }));
  }

  /** Puts a job that was made of another one on the shelf as one of its own, of the same pictures. */
  async function putBeside(entry: ShelfEntry, job: Job): Promise<ShelfEntry> {
    const now = Date.now();
    const { deletedAt: _deletedAt, ...kept } = entry;
    const thumbnail = entry.thumbnail ?? (await storage.thumbnail(entry.id));
    return save({ ...kept, ...(thumbnail === undefined ? {} : { thumbnail }), id: crypto.randomUUID(), createdAt: now, updatedAt: now, job });
  }

  /** Puts a job into collections, and out of all others. */
  async function collect(id: string, collections: readonly string[]): Promise<void> {
    const entry = await storage.get(id);
    if (entry === undefined) return;
    const names = [...new Set(collections.map((name) => name.trim().slice(0, 60)).filter((name) => name !== ''))].slice(0, 20);
    const { collections: _collections, ...job } = entry.job;
    await save({ ...entry, updatedAt: Date.now(), job: names.length === 0 ? job : { ...job, collections: names } });
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

  /** The small picture of a job. */
  const thumbnailOf = async ({ id, thumbnail }: ShelfEntry): Promise<Uint8Array<ArrayBuffer> | undefined> => thumbnail ?? storage.thumbnail(id);

  async function archiveOf(id: string): Promise<{ fileName: string; bytes: Uint8Array<ArrayBuffer> } | undefined> {
    const entry = await storage.get(id);
    if (entry === undefined) return undefined;
    const versions = (await storage.versions(id)).map(({ at, note, job }) => ({ at, note, job }));
    const ids = new Set([entry.job, ...versions.map(({ job }) => job)].flatMap(({ pictures }) => pictures.map((picture) => picture.id)));
    const bytes = await writeArchive({ job: entry.job, pictures: await picturesOf([...ids]), versions });
    return { fileName: `${entry.job.name}${ARCHIVE_ENDING}`, bytes };
  }

  /** Some jobs as one file, each an archive in it. */
  async function archiveOfAll(ids: readonly string[]): Promise<Uint8Array<ArrayBuffer>> {
    const files: JobFileOf[] = [];
    for (const id of ids) {
      const file = await archiveOf(id);
      if (file !== undefined) files.push(file);
    }
    return jobsZip(files);
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
    // Of two tabs on the first start one does it.
    if (!onlyFirstTime || typeof navigator === 'undefined' || navigator.locks === undefined) return putDemo(onlyFirstTime);
    return navigator.locks.request('limner-demo', { ifAvailable: true }, (lock) => (lock === null ? 0 : putDemo(true)));
  }
  async function putDemo(onlyFirstTime: boolean): Promise<number> {
    if (onlyFirstTime && (await storage.note(SEEDED)) !== undefined) return 0;
    const response = await fetch('/demo/index.json');
    if (!response.ok) return 0;
    const names = (await response.json()) as unknown;
    if (!Array.isArray(names)) return 0;
    // What is there by now is noted one by one: a first start that is broken off goes on with the rest.
    const begun = onlyFirstTime ? ((await storage.note(BEGUN)) ?? '').split(' ') : [];
    for (const name of [...names].reverse()) {
      if (typeof name !== 'string' || !/^[\w-]+\.limner$/.test(name) || begun.includes(name)) continue;
      const archive = await fetch(`/demo/${name}`);
      if (archive.ok) await addFile(new File([await archive.arrayBuffer()], name));
      begun.push(name);
      if (onlyFirstTime) await storage.setNote(BEGUN, begun.join(' '));
    }
    await storage.setNote(SEEDED, 'yes');
    return names.length;
  }

  return { entries, damaged, loaded, load, repair, damagedFile, discard, save, keepThumbnail, addFile, traced, duplicate, putBeside, collect, rename, remove, restore, thumbnailOf, archiveOf, archiveOfAll, purgeDeleted, addDemo };
});
