<script setup lang="ts">
import { Layers } from '@lucide/vue';
import { computed } from 'vue';
import { withMaterial } from '../../core/edit/withMaterial.ts';
import type { Film } from '../../core/film/film.ts';
import { PEEL_WORDS, PRESSURE_WORDS, TOOL_WORDS } from '../../core/process/material.ts';
import { materialOf } from '../../core/job/materials.ts';
import { useWorkshop } from '../../stores/workshop.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { inSentence, say } from '../../core/words/say.ts';

/** What the film on the table is made of, which decides how fine it may be and how it is cut and pressed. */
const props = defineProps<{ film: Film; films: number }>();
const { job, commit, length } = useLayoutEdits();
const workshop = useWorkshop();
void workshop.load();
const material = computed(() => materialOf(job.value, props.film.id));
const choices = computed<Readonly<Record<string, string>>>(() => Object.fromEntries([material.value, ...workshop.shelves.materials.filter(({ process }) => process === job.value.process)].map(({ id, name }) => [id, name])));
/** Those of the other films differ. */
const isAlone = computed(() => job.value.materials?.ofFilms?.some(({ film }) => film === props.film.id) === true);
function choose(id: string): void {
  const next = workshop.shelves.materials.find((each) => each.id === id);
  if (next !== undefined) commit(say`Material: ${next.name}`, withMaterial(job.value, next, props.films > 1 ? props.film.id : undefined));
}
function forAll(): void {
  const { materials: _, ...rest } = job.value;
  commit(say`All films: ${material.value.name}`, withMaterial(rest, material.value));
}
const cutWords = computed(() => {
  const { forceG, speedMmS, passes, tool } = material.value.cut;
  return `${TOOL_WORDS[tool]}, ${forceG} g, ${speedMmS} mm/s${passes > 1 ? say`, ${passes} passes` : ''}`;
});
const pressWords = computed(() => {
  const { press } = material.value;
  return press === undefined ? undefined : say`${press.temperatureC} °C, ${press.timeS} s, ${PRESSURE_WORDS[press.pressure]}, peel ${PEEL_WORDS[press.peel]}`;
});
</script>

<template>
  <TrayCard title="Material" about="what it is made of decides how fine it may be" fold="Material" :folded-as="inSentence(material.name)">
    <template #icon><Layers /></template>
    <ChoiceInput :model-value="material.id" :choices="choices" label="Material" @choose="choose" />
    <dl>
      <dt>Strips from</dt><dd>{{ length(material.least.stripMm) }}</dd>
      <dt>Gaps from</dt><dd>{{ length(material.least.gapMm) }}</dd>
      <dt>Cut</dt><dd>{{ cutWords }}</dd>
      <template v-if="pressWords !== undefined"><dt>Press</dt><dd>{{ pressWords }}</dd></template>
    </dl>
    <div class="row">
      <button v-if="films > 1 && isAlone" type="button" class="plain-button" @click="forAll">For all films</button><span v-else />
      <RouterLink class="plain-button" :to="{ name: 'workshop' }">Workshop…</RouterLink>
    </div>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped src="../shared/facts.css" />
