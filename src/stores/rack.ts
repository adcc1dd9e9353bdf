import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { FilmView } from '../engine/protocol.ts';
import { useBench } from './bench.ts';

/** The films that the job on the bench is cut from, in the order in which they go on, and which of them is looked at. */
export const useRack = defineStore('rack', () => {
  const bench = useBench();
  const films = computed<readonly FilmView[]>(() => bench.result?.cut?.films ?? []);
  const wanted = ref<string>();
  /** Place of the film that is looked at; the lowest one as long as none was chosen. */
  const at = computed(() => Math.max(0, films.value.findIndex(({ film }) => film.id === wanted.value)));
  const chosen = computed<FilmView | undefined>(() => films.value[at.value]);
  /** Whether a film was chosen, to be looked at alone. */
  const isAlone = computed(() => films.value.length > 1 && films.value.some(({ film }) => film.id === wanted.value));

  /** Looks at a film; choosing the one that is looked at shows all again. */
  function choose(id: string): void {
    wanted.value = wanted.value === id ? undefined : id;
  }
  return { films, at, chosen, isAlone, choose };
});
