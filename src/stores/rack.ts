import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { FilmView, RackFilm } from '../engine/protocol.ts';
import { useBench } from './bench.ts';

/** The films that the job on the bench is cut from, in the order in which they go on, and which of them is looked at. */
export const useRack = defineStore('rack', () => {
  const bench = useBench();
  /** Of the whole design. */
  const rolls = computed<readonly RackFilm[]>(() => bench.result?.cut?.rack ?? []);
  /** Of the part that is worked on. */
  const films = computed<readonly FilmView[]>(() => bench.result?.cut?.films ?? []);
  const wanted = ref<string>();
  /** Place of the film that is looked at; the lowest one as long as none was chosen. */
  const at = computed(() => Math.max(0, rolls.value.findIndex(({ film }) => film.id === wanted.value)));
  const roll = computed<RackFilm | undefined>(() => rolls.value[at.value]);
  /** What that film is of the part; its lowest where it has none of it. */
  const chosen = computed<FilmView | undefined>(() => films.value.find(({ film }) => film.id === roll.value?.film.id) ?? films.value[0]);
  /** Whether a film was chosen, to be looked at alone. */
  const isAlone = computed(() => rolls.value.length > 1 && rolls.value.some(({ film }) => film.id === wanted.value));

  /** Looks at a film; choosing the one that is looked at shows all again. */
  function choose(id: string): void {
    wanted.value = wanted.value === id ? undefined : id;
  }
  return { rolls, films, at, roll, chosen, isAlone, choose };
});
