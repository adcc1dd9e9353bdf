<script setup lang="ts">
import { computed } from 'vue';
import type { Film } from '../../core/film/film.ts';
import type { FoundFilms } from '../../core/edit/paletteEdits.ts';
import { AROUND_FILM } from '../../core/film/filmRoles.ts';
import { useBench } from '../../stores/bench.ts';
import TrayCard from '../../ui/TrayCard.vue';
import FilmLook from './FilmLook.vue';

/** Names and colours of films that no tone of the palette has: those of tones of lightness, of a back and its detail, and of areas that were pointed at. */
const props = defineProps<{ found: FoundFilms }>();
const bench = useBench();

const films = computed<readonly Film[]>(() => {
  const isFlat = bench.part?.separation.way === 'flat';
  return props.found.films.filter(({ id }) => id !== AROUND_FILM.id && !(isFlat && props.found.tones.some(({ film }) => film === id)));
});
</script>

<template>
  <TrayCard v-if="films.length > 0" title="Films of these tones" about="names and colours">
    <div v-for="film in films" :key="film.id" class="row">
      <FilmLook class="look" :film="film" :found="found" :of="$say`film ${film.name}`" />
    </div>
  </TrayCard>
</template>

<style scoped src="./cards.css" />

<style scoped>
.look {
  flex: 1;
}
</style>
