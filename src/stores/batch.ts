import { unzipSync, zipSync } from 'fflate';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { asAppError, isAppError, plainFromError, type PlainError } from '../core/errors/appError.ts';
import type { StepReport } from '../core/run/applyRecipe.ts';
import type { Job } from '../core/job/job.ts';
import { tracedPart, withPart } from '../core/job/tracedPart.ts';
import type { Recipe } from '../core/clean/recipe.ts';
import type { ShelfEntry } from '../storage/ports.ts';
import { openPicturesOf } from './openPicturesOf.ts';
import { asNewSteps } from './recipes.ts';
import { useServices } from './services.ts';
import { useShelf } from './shelf.ts';
import { say } from '../core/words/say.ts';

/** A picture that a recipe is applied to: a job on the shelf, or a file that becomes one. */
export type BatchInput = { readonly entryId: string } | { readonly file: File };

/** What became of one picture. */
export interface BatchOutcome {
  readonly name: string;
  /** The job, once there is one. */
  readonly entryId?: string;
  readonly steps: readonly StepReport[];
  /** Why there is no cut file; the job is kept all the same. */
  readonly noCut?: PlainError;
  /** Places that the cut check would look at; absent where there is no cut. */
  readonly findings?: number;
  /** Why nothing was done; what was there is as it was. */
  readonly error?: PlainError;
}

/** Applies one recipe to many pictures, one after the other. Each is saved as it is done, so that leaving off loses nothing. */
export const useBatch = defineStore('batch', () => {
  const { engine, storage } = useServices();
  const shelf = useShelf();
  const outcomes = shallowRef<readonly BatchOutcome[]>([]);
  const total = ref(0);
  const running = ref(false);
  const stopped = ref(false);
  /** The jobs as they were, by id, to put back. */
  let before = new Map<string, ShelfEntry>();
  let made: string[] = [];

  const share = computed(() => (total.value === 0 ? 0 : outcomes.value.length / total.value));

  /** @param pattern the job whose blank, process and layout the files' jobs take. */
  async function run(recipe: Recipe, inputs: readonly BatchInput[], pattern: Job | undefined): Promise<void> {
    outcomes.value = [];
    total.value = inputs.length;
    running.value = true;
    stopped.value = false;
    before = new Map();
    made = [];
    try {
      for (const input of inputs) {
        if (stopped.value) break;
        const outcome = await one(recipe, input, pattern);
        outcomes.value = [...outcomes.value, outcome];
      }
    } finally {
      running.value = false;
    }
  }

  async function one(recipe: Recipe, input: BatchInput, pattern: Job | undefined): Promise<BatchOutcome> {
    let name = 'file' in input ? input.file.name : '';
    try {
      const entry = 'file' in input ? await shelf.addFile(input.file, { pattern }) : await storage.get(input.entryId);
      if (entry === undefined) return { name, steps: [], error: { code: 'badJob', details: { reason: say('it is not on this shelf any more') }, message: '' } };
      name = entry.job.name;
      if ('file' in input) made.push(entry.id);
      else before.set(entry.id, entry);
      return { name, entryId: entry.id, ...(await clean(entry, recipe)) };
    } catch (caught) {
      return { name, steps: [], error: plainFromError(asAppError(caught, 'unexpected')) };
    }
  }

  async function clean(entry: ShelfEntry, recipe: Recipe): Promise<Pick<BatchOutcome, 'steps' | 'noCut' | 'findings'>> {
    const part = tracedPart(entry.job);
    const fresh = asNewSteps(recipe);
    const job = withPart(entry.job, { ...part, recipe: fresh });
    const pictureKey = await openPicturesOf(entry.job, { engine, storage });
    const { steps } = await engine.moment({ pictureKey, job, recipe: fresh });
    const thumbnail = await engine.export({ pictureKey, job, kind: 'thumbnail' });
    await shelf.save({ ...entry, job, thumbnail, updatedAt: Date.now() });
    try {
      await engine.export({ pictureKey, job, kind: 'svgs' });
      return { steps, findings: (await engine.variant({ pictureKey, job, size: 'full' })).findings };
    } catch (caught) {
      if (!isAppError(caught)) throw caught;
      return { steps, noCut: plainFromError(caught) };
    }
  }

  /** Stops after the picture that is under way. */
  const stop = (): void => void (stopped.value = true);

  /** Puts every job back as it was before; jobs that were made from files leave the shelf. */
  async function putBack(): Promise<void> {
    for (const entry of before.values()) await shelf.save({ ...entry, updatedAt: Date.now() });
    for (const id of made) await shelf.remove(id);
    before = new Map();
    made = [];
    outcomes.value = [];
  }

  /** Cut files, one for each film, and cleaned art of all pictures that went well, in one zip. */
  async function files(onDone: (share: number) => void): Promise<Uint8Array<ArrayBuffer>> {
    const entries: Record<string, [Uint8Array, { level: 0 | 6 }]> = {};
    const good = outcomes.value.filter(({ entryId, error }) => entryId !== undefined && error === undefined);
    for (const [k, { entryId, noCut }] of good.entries()) {
      const entry = await storage.get(entryId as string);
      if (entry === undefined) continue;
      const pictureKey = await openPicturesOf(entry.job, { engine, storage });
      const name = uniqueName(entry.job.name, entries);
      if (noCut === undefined) {
        const sheets = Object.entries(unzipSync(await engine.export({ pictureKey, job: entry.job, kind: 'svgs' })));
        for (const [sheet, bytes] of sheets) entries[sheets.length === 1 ? `${name}.svg` : `${name}-${sheet}`] = [bytes, { level: 6 }];
        entries[`${name}.png`] = [await engine.export({ pictureKey, job: entry.job, kind: 'png' }), { level: 0 }];
      }
      onDone((k + 1) / good.length);
    }
    return new Uint8Array(zipSync(entries));
  }

  return { outcomes, total, running, share, run, stop, putBack, files };
});

/** A file name that is not taken yet. */
function uniqueName(name: string, taken: Readonly<Record<string, unknown>>): string {
  const plain = name.replace(/[\\/:*?"<>|]/g, '-');
  for (let k = 1; ; k++) {
    const candidate = k === 1 ? plain : `${plain} ${k}`;
    if (!Object.hasOwn(taken, `${candidate}.png`)) return candidate;
  }
}
