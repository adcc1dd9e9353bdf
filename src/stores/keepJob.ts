import { ref, shallowRef, watch, type ShallowRef } from 'vue';
import { isAppError, type AppError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import type { ShelfEntry } from '../storage/ports.ts';
import { useServices } from './services.ts';
import { useShelf } from './shelf.ts';
import { say } from '../core/words/say.ts';

/** Changes are written this long after the last one: a killed tab loses at most that, ms. */
const SAVE_AFTER_MS = 400;

/** What lies on the bench, for keeping. */
export interface OnBench {
  readonly entry: ShallowRef<ShelfEntry | undefined>;
  readonly job: ShallowRef<Job | undefined>;
  /** The job as it stands, also while it is dragged. */
  readonly present: () => Job | undefined;
  readonly pictureKey: () => string | undefined;
  readonly commit: (label: string, next: Job) => void;
}

/** Keeps the job on the bench: saves it a moment after each change, its thumbnail when there is time, and takes over what another tab saved. */
export function keepJob({ entry, job, present, pictureKey, commit }: OnBench) {
  const { engine, storage, signal } = useServices();
  const shelf = useShelf();
  const saving = ref(false);
  const saveError = shallowRef<AppError>();

  let timer: ReturnType<typeof setTimeout> | undefined;
  /** The last of the writings that are under way or wait for one. */
  let last: Promise<void> | undefined;
  watch(job, (next, before) => {
    // What is on the shelf already need not be saved, unless another state is being written over it.
    if (next === undefined || before === undefined || (entry.value?.job === next && last === undefined)) return;
    saving.value = true;
    clearTimeout(timer);
    timer = setTimeout(() => void saveNow(), SAVE_AFTER_MS);
  });

  /**
   * Another tab saved the job that lies here: its state becomes the newest here as well, as a change that undo takes back. So whichever tab saves last, what
   * the other did is not lost.
   */
  signal.listen((id) => void takeOver(id));
  async function takeOver(id: string): Promise<void> {
    if (entry.value?.id !== id) return;
    const found = await storage.get(id).catch(() => undefined);
    if (found === undefined || found.deletedAt !== undefined || entry.value?.id !== id) return;
    const other = JSON.stringify(found.job);
    const isOther = other !== JSON.stringify(entry.value.job);
    entry.value = isOther ? found : { ...found, job: entry.value.job };
    if (!isOther || other === JSON.stringify(present())) return;
    commit(say('Changed in another tab'), found.job);
  }

  /** Saves what has changed; one writing after the other, each of the job as it stands when its turn comes. */
  async function saveNow(stage?: string): Promise<void> {
    clearTimeout(timer);
    timer = undefined;
    const own = last === undefined ? write(stage) : last.then(() => write(stage), () => write(stage));
    last = own;
    try {
      await own;
    } finally {
      if (last === own) last = undefined;
      // What has changed while this was written waits for its own turn.
      saving.value = timer !== undefined || last !== undefined;
    }
  }

  async function write(stage?: string): Promise<void> {
    const current = entry.value;
    const now = present();
    if (current === undefined || now === undefined) return;
    const changed = current.job !== now;
    if (!changed && (stage === undefined || stage === current.stage)) return;
    try {
      const saved = await shelf.save({ ...current, job: now, updatedAt: changed ? Date.now() : current.updatedAt, stage: stage ?? current.stage });
      // Its picture may have become another one meanwhile.
      if (entry.value?.id === saved.id) entry.value = entry.value === current ? saved : { ...entry.value, job: saved.job, stage: saved.stage, updatedAt: saved.updatedAt };
      saveError.value = undefined;
      if (changed) void refreshThumbnail(saved);
    } catch (caught) {
      if (!isAppError(caught)) throw caught;
      saveError.value = caught;
    }
  }

  /** The shelf's picture of the job follows when the engine finds time; the job itself is safe by then. */
  async function refreshThumbnail({ id, job: saved }: ShelfEntry): Promise<void> {
    const key = pictureKey();
    if (key === undefined) return;
    const thumbnail = await engine.export({ pictureKey: key, job: saved, kind: 'thumbnail' }).catch(() => undefined);
    // A newer job brings its own.
    if (thumbnail === undefined || (entry.value?.id === id && present() !== saved)) return;
    await shelf.keepThumbnail(id, thumbnail).catch(() => 'it is made again after the next change');
    if (entry.value?.id === id) entry.value = { ...entry.value, thumbnail };
  }

  return { saving, saveError, saveNow };
}
