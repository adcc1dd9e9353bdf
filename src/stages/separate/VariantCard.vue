<script setup lang="ts">
import { computed } from 'vue';
import { explain } from '../../core/errors/explain.ts';
import type { Figures } from '../../core/check/figures.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { formatArea, formatLength } from '../../core/units/parseLength.ts';
import { mm } from '../../core/units/length.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { useVariant } from './useVariant.ts';
import { mayLetGo } from './ways.ts';
import { grouped, say } from '../../core/words/say.ts';

/** The figures of what is on the bench and of a variant side by side. */
const props = defineProps<{ variants: ReturnType<typeof useVariant> }>();
const bench = useBench();
const settings = useSettings();
const { choices, variant, view, error, here, choose, take } = props.variants;

const names = computed<Readonly<Record<string, string>>>(() => Object.fromEntries(choices.value.map(({ id, name }) => [id, name])));
const timeWords = (seconds: number): string => (seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`);
const ROWS: readonly (readonly [string, (figures: Figures) => string])[] = [
  [say('Pieces'), ({ pieces }) => grouped(pieces)],
  [say('Nodes'), ({ nodes }) => grouped(nodes)],
  [say('Cut length'), ({ cutLengthMm }) => formatLength(mm(cutLengthMm), settings.unit, 0)],
  [say('Smallest piece'), ({ smallestMm2 }) => formatArea(smallestMm2, settings.unit, smallestMm2 < 10 ? 1 : 0)],
  [say('Weeding, about'), ({ weedingS }) => timeWords(weedingS)],
];
async function takeIt(): Promise<void> {
  const next = variant.value?.part;
  if (next === undefined) return;
  // Held outlines go only where the films are others.
  if (next.outline.held !== undefined || (await mayLetGo(bench.part as TracedPart))) take();
}
</script>

<template>
  <TrayCard title="Two variants" about="the one on the bench, and another of the same art">
    <label class="row"><span>The other</span><ChoiceInput class="narrow" small :model-value="variant?.id ?? ''" :choices="names" label="The other variant" @choose="choose" /></label>
    <table>
      <thead><tr><th /><th scope="col">on the bench</th><th scope="col">the other</th></tr></thead>
      <tbody>
        <tr><th scope="row">Films</th><td>{{ bench.result?.cut?.films.length ?? '–' }}</td><td>{{ view?.films.length ?? '…' }}</td></tr>
        <tr v-for="[name, words] in ROWS" :key="name"><th scope="row">{{ name }}</th><td>{{ words(here) }}</td><td>{{ view === undefined ? '…' : words(view.together) }}</td></tr>
      </tbody>
    </table>
    <p v-if="view?.isReduced">The other was read on a reduced picture: its figures are near, not exact.</p>
    <p v-if="error !== undefined" role="alert">{{ explain(error).what }} {{ explain(error).todo }}</p>
    <button type="button" class="plain-button main" :disabled="view === undefined" @click="takeIt">Use the other</button>
  </TrayCard>
</template>

<style scoped src="./cards.css" />

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
}
th {
  font-weight: 400;
  text-align: left;
}
thead th,
td {
  text-align: right;
}
thead th {
  color: var(--ink-soft);
  font-size: 12px;
}
td,
tbody th {
  padding: 3px 0;
  border-top: 1px solid var(--rule);
}
</style>
