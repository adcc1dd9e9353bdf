<script setup lang="ts">
import { computed } from 'vue';
import type { Film } from '../../core/film/film.ts';
import { oneFilmOf } from '../../core/film/filmRoles.ts';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import TrayCard from '../../ui/TrayCard.vue';
import { say } from '../../core/words/say.ts';

/** The film of a design of one colour: its name and its colour. */
const bench = useBench();
const job = computed(() => bench.job as Job);
const film = computed(() => oneFilmOf(job.value.films, bench.part?.separation.way === 'oneTone' ? bench.part.separation.film : undefined));
const set = (label: string, change: Partial<Film>): void => bench.commit(label, { ...job.value, films: job.value.films.map((each) => (each.id === film.value.id ? { ...each, ...change } : each)) });
function rename(event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim();
  if (name !== '') set(say('Film name'), { name });
}
</script>

<template>
  <TrayCard title="Film">
    <label class="row"><span>Name</span><input :value="film.name" maxlength="120" @change="rename" /></label>
    <label class="row"><span>Colour</span><input type="color" :value="film.colour" @change="set($say('Film colour'), { colour: ($event.target as HTMLInputElement).value })" /></label>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.row input {
  width: 168px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 4px 8px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
.row input[type='color'] {
  width: 44px;
  height: 26px;
  padding: 1px;
}
</style>
