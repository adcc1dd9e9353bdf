import { computed, reactive, ref, watch } from 'vue';
import { jobText, wordsOfSearch } from '../../core/job/jobText.ts';
import { ORDER_STATES, stateWord, type OrderState } from '../../core/job/order.ts';
import { PROCESSES, type Process } from '../../core/process/processes.ts';
import type { ShelfEntry } from '../../storage/ports.ts';
import { useShelf } from '../../stores/shelf.ts';
import { say } from '../../core/words/say.ts';

const DAY_MS = 24 * 3600 * 1000;
/** How long ago a job was changed last. */
export const SINCE = { any: say('changed at any time'), week: say('changed this week'), month: say('changed this month'), year: say('changed this year') } as const;
export type Since = keyof typeof SINCE;
const SINCE_DAYS: Readonly<Record<Since, number>> = { any: Infinity, week: 7, month: 31, year: 366 };
const ANY = 'any';
/** Cards that are shown before one looks further down. */
const FIRST = 30;

/** What jobs are found by, kept as long as the page lives: one comes back to the shelf as one left it. */
const find = reactive({ typed: '', process: ANY as Process | 'any', state: ANY as OrderState | 'any', blank: ANY, film: ANY, collection: ANY, since: 'any' as Since });

/** Texts of jobs: an entry that did not change is not read again. */
const texts = new WeakMap<ShelfEntry, string>();
function textOf(entry: ShelfEntry): string {
  const known = texts.get(entry) ?? jobText(entry.job);
  texts.set(entry, known);
  return known;
}

/** Which jobs of the shelf are shown: those that hold every word that was typed and are as is asked for. */
export function useShelfFind() {
  const shelf = useShelf();
  const shown = computed(() => {
    const words = wordsOfSearch(find.typed);
    const from = Date.now() - SINCE_DAYS[find.since] * DAY_MS;
    return shelf.entries.filter((entry) => {
      const { job } = entry;
      return (
        (find.process === ANY || job.process === find.process) &&
        (find.state === ANY || (job.order?.state ?? 'asked') === find.state) &&
        (find.blank === ANY || job.blank.name === find.blank) &&
        (find.film === ANY || job.films.some(({ name }) => name === find.film)) &&
        (find.collection === ANY || job.collections?.includes(find.collection) === true) &&
        entry.updatedAt >= from &&
        words.every((word) => textOf(entry).includes(word))
      );
    });
  });
  const most = ref(FIRST);
  watch(find, () => (most.value = FIRST));
  const first = computed(() => shown.value.slice(0, most.value));
  const more = (): void => void (most.value = Math.min(most.value + FIRST, shown.value.length));

  const named = (all: string, names: readonly string[]): Readonly<Record<string, string>> => Object.fromEntries([[ANY, all], ...[...new Set(names)].sort((a, b) => a.localeCompare(b)).map((name) => [name, name])]);
  const choices = computed(() => ({
    process: { [ANY]: say('every process'), ...Object.fromEntries(Object.entries(PROCESSES).filter(([process]) => shelf.entries.some(({ job }) => job.process === process)).map(([process, { name }]) => [process, name])) },
    state: { [ANY]: say('in any state'), ...Object.fromEntries(ORDER_STATES.map((state) => [state, stateWord(state, 'htv')])) },
    blank: named(say('on every blank'), shelf.entries.map(({ job }) => job.blank.name)),
    film: named(say('of every film'), shelf.entries.flatMap(({ job }) => job.films.map(({ name }) => name))),
    ...(shelf.entries.some(({ job }) => job.collections !== undefined) ? { collection: named(say('of every collection'), shelf.entries.flatMap(({ job }) => job.collections ?? [])) } : {}),
    since: SINCE,
  }));
  const isNarrowed = computed(() => find.process !== ANY || find.state !== ANY || find.blank !== ANY || find.film !== ANY || find.collection !== ANY || find.since !== 'any');
  function showAll(): void {
    Object.assign(find, { typed: '', process: ANY, state: ANY, blank: ANY, film: ANY, collection: ANY, since: 'any' });
  }
  return { find, shown, first, more, choices, isNarrowed, showAll };
}
