<script setup lang="ts">
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { Film } from '../../core/film/film.ts';
import { changeFilm, type FoundFilms } from '../../core/edit/paletteEdits.ts';
import { useBench } from '../../stores/bench.ts';
import { say } from '../../core/words/say.ts';

/** Name and colour of a film. */
const props = defineProps<{ film: Film; found: FoundFilms; of: string }>();
const bench = useBench();

function change(label: string, changes: Partial<Film>): void {
  bench.commitPart(label, changeFilm(bench.part as TracedPart, props.found, props.film.id, changes));
}
function rename({ target }: Event): void {
  const input = target as HTMLInputElement;
  const name = input.value.trim().slice(0, 120);
  if (name !== '' && name !== props.film.name) change(say('Film name'), { name });
  else input.value = props.film.name;
}
</script>

<template>
  <span class="look">
    <input :value="film.name" maxlength="120" :aria-label="$say`Name of ${of}`" @change="rename" />
    <input type="color" :value="film.colour" :aria-label="$say`Colour of ${of}`" @change="change($say('Film colour'), { colour: ($event.target as HTMLInputElement).value })" />
  </span>
</template>

<style scoped src="./cards.css" />

<style scoped>
.look {
  display: flex;
  align-items: center;
  gap: 6px;
}
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
