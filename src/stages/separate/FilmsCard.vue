<script setup lang="ts">
import { computed } from 'vue';
import type { Film, Job } from '../../core/job/job.ts';
import { changeFilm, type FoundFilms } from '../../core/job/paletteEdits.ts';
import { AROUND_FILM } from '../../core/job/finishFilms.ts';
import { useBench } from '../../stores/bench.ts';
import TrayCard from '../../ui/TrayCard.vue';

/** Names and colours of films that no tone of the palette has: those of tones of lightness, of a back and its detail, and of areas that were pointed at. */
const props = defineProps<{ found: FoundFilms }>();
const bench = useBench();

const films = computed<readonly Film[]>(() => {
  const isFlat = bench.job?.separation.way === 'flat';
  return props.found.films.filter(({ id }) => id !== AROUND_FILM.id && !(isFlat && props.found.tones.some(({ film }) => film === id)));
});
const valueOf = (event: Event): string => (event.target as HTMLInputElement).value;
function rename(film: Film, event: Event): void {
  const name = valueOf(event).trim().slice(0, 120);
  if (name !== '' && name !== film.name) bench.commit('Film name', changeFilm(bench.job as Job, props.found, film.id, { name }));
  else (event.target as HTMLInputElement).value = film.name;
}
const recolour = (film: Film, event: Event): void => bench.commit('Film colour', changeFilm(bench.job as Job, props.found, film.id, { colour: valueOf(event) }));
</script>

<template>
  <TrayCard v-if="films.length > 0" title="Their films" about="names and colours">
    <div v-for="film in films" :key="film.id" class="row">
      <input :value="film.name" maxlength="120" :aria-label="`Name of film ${film.name}`" @change="rename(film, $event)" />
      <input type="color" :value="film.colour" :aria-label="`Colour of film ${film.name}`" @change="recolour(film, $event)" />
    </div>
  </TrayCard>
</template>

<style scoped src="./cards.css" />

<style scoped>
input:not([type='color']) {
  flex: 1;
  min-width: 0;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 2px 6px;
  background: none;
  color: var(--ink);
  font: inherit;
}
</style>
