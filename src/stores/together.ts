import { strToU8, zipSync } from 'fflate';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { asAppError, errorFromPlain, type AppError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import { USUAL_MACHINES } from '../core/layout/machine.ts';
import type { JobFilm, TogetherSettings } from '../core/layout/together.ts';
import { PROCESSES } from '../core/process/processes.ts';
import { jobFilms } from '../core/run/jobFilms.ts';
import type { FilmTogetherView } from '../engine/layoutProtocol.ts';
import { openPicturesOf } from './openPicturesOf.ts';
import { useServices } from './services.ts';
import { useShelf } from './shelf.ts';
import { say } from '../core/words/say.ts';

/** How long is looked for a better arrangement, s. */
const SECONDS = 5;
/** Of the whole, what goes to taking the jobs to their films. */
const FILMS_SHARE = 0.5;

/** A job that is laid together with others, and how often. */
export interface Picked {
  readonly entryId: string;
  readonly copies: number;
}

/** Several jobs of the shelf laid together on the sheets of the films that they share. */
export const useTogether = defineStore('together', () => {
  const services = useServices();
  const { engine, storage } = services;
  const shelf = useShelf();
  const picked = ref<readonly Picked[]>([]);
  const settings = shallowRef<TogetherSettings>({ sheet: USUAL_MACHINES[2].sheet, gapMm: 4, turns: 'free', box: { on: true, marginMm: 6 } });
  const laid = shallowRef<readonly FilmTogetherView[]>([]);
  /** What the sheets were made of; others by now are told. */
  const madeOf = shallowRef('');
  const error = shallowRef<AppError>();
  const share = ref<number>();
  let turn = 0;

  /** Jobs that are cut of film. */
  const choices = computed(() => shelf.entries.filter(({ job }) => job.pictures.length > 0 && !PROCESSES[job.process].isPrinted));
  const key = computed(() => JSON.stringify([picked.value, settings.value]));
  const isCurrent = computed(() => madeOf.value === key.value);

  function pick(entryId: string, copies: number): void {
    const others = picked.value.filter((each) => each.entryId !== entryId);
    const before = picked.value.find((each) => each.entryId === entryId);
    if (copies === 0) picked.value = others;
    else picked.value = before === undefined ? [...others, { entryId, copies }] : picked.value.map((each) => (each === before ? { entryId, copies } : each));
  }

  async function lay(): Promise<void> {
    const mine = ++turn;
    const of = key.value;
    [error.value, share.value] = [undefined, 0];
    try {
      const films: JobFilm[] = [];
      for (const [k, { entryId, copies }] of picked.value.entries()) {
        const entry = await storage.get(entryId);
        if (entry === undefined) continue;
        films.push(...(await filmsOf(entry.job, k + 1, copies)));
        if (mine !== turn) return;
        share.value = (FILMS_SHARE * (k + 1)) / picked.value.length;
      }
      const found = await engine.together({ ...settings.value, films, seconds: SECONDS }, (done) => {
        if (mine === turn) share.value = FILMS_SHARE + (1 - FILMS_SHARE) * done;
      });
      if (mine !== turn) return;
      [laid.value, madeOf.value] = [found, of];
    } catch (caught) {
      const told = asAppError(caught, 'unexpected');
      if (mine === turn && told.code !== 'cancelled') error.value = told;
    } finally {
      if (mine === turn) share.value = undefined;
    }
  }

  async function filmsOf(job: Job, number: number, copies: number): Promise<JobFilm[]> {
    const pictureKey = await openPicturesOf(job, services);
    const { cut, problem } = await engine.run({ pictureKey, job, quality: 'final' });
    if (problem !== undefined) throw errorFromPlain(problem);
    return cut === undefined ? [] : jobFilms(job, number, cut.bent?.design ?? cut.design, cut.rack.map(({ film }) => film), copies);
  }

  function stop(): void {
    turn++;
    share.value = undefined;
    void engine.cancel();
  }
  const nameOf = (entryId: string): string => shelf.entries.find(({ id }) => id === entryId)?.job.name ?? say('a job that is gone');
  const zip = (): Uint8Array<ArrayBuffer> => new Uint8Array(zipSync(Object.fromEntries(laid.value.flatMap(({ files }) => files.map(({ name, svg }) => [name, strToU8(svg)])))));
  return { picked, settings, laid, isCurrent, error, share, choices, pick, lay, stop, nameOf, zip };
});
