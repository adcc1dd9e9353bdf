<script setup lang="ts">
import { computed } from 'vue';
import { mm } from '../../core/units/length.ts';
import { formatArea, formatLength } from '../../core/units/parseLength.ts';
import { useSettings } from '../../stores/settings.ts';
import TrayCard from '../../ui/TrayCard.vue';
import FilmChoice from './FilmChoice.vue';
import { useFontLikeness } from './useFontLikeness.ts';
import type { Parts } from './useParts.ts';
import type { Pieces } from './usePieces.ts';
import { counted, say } from '../../core/words/say.ts';

/** The pieces that are selected: what they measure, and what can be done with them. */
const props = defineProps<{ parts: Parts; pieces: Pieces }>();
const settings = useSettings();
const facts = computed(() => props.pieces.facts.value);
const length = (value: number): string => formatLength(mm(value), settings.unit);
const title = computed(() => (facts.value === undefined ? '' : facts.value.pieces === 1 ? say('One piece') : counted(facts.value.pieces, say('piece'), say('pieces'))));
const films = computed(() => (facts.value?.films ?? []).map((id) => props.parts.films.value.find((film) => film.id === id)?.name ?? id).join(', '));
const oneFilm = computed(() => (facts.value?.films.length === 1 ? facts.value.films[0] : undefined));
const otherAlike = computed(() => (props.pieces.alike.value === undefined || props.pieces.alike.value < 2 ? undefined : props.pieces.alike.value));
const likeness = useFontLikeness(props.parts, props.pieces);
const filmOf = (): void => {
  const id = props.pieces.partId.value;
  if (id !== undefined && oneFilm.value !== undefined) props.pieces.pickFilm(id, oneFilm.value);
};
</script>

<template>
  <TrayCard v-if="facts !== undefined" :title="title" :about="`${length(facts.box.right - facts.box.left)} × ${length(facts.box.bottom - facts.box.top)}, ${films}`">
    <dl class="facts">
      <dt>Area</dt><dd>{{ formatArea(facts.areaMm2, settings.unit, 1) }}</dd>
      <dt>Nodes</dt><dd>{{ facts.nodes }}</dd>
      <dt>Narrowest</dt><dd>{{ facts.narrowestMm === undefined ? $say('over 4 mm') : length(facts.narrowestMm) }}</dd>
    </dl>
    <p v-if="otherAlike !== undefined" class="alike" role="status">Found {{ otherAlike }} times. <button type="button" class="plain-button" @click="pieces.pickAlike">Select all like it</button></p>
    <FilmChoice :films="parts.films.value" :model-value="oneFilm" aria-label="Film of the pieces" @choose="pieces.setFilm" />
    <div class="acts">
      <button type="button" class="plain-button" @click="pieces.takeOff">Take off</button>
      <button v-if="oneFilm !== undefined" type="button" class="plain-button" @click="filmOf">All of its film</button>
      <button type="button" class="plain-button" @click="pieces.operate($say('Thicken or thin'), (id, own) => ({ id, kind: 'thicken', byMm: 0.3, pieces: own }))">Thicken</button>
      <button type="button" class="plain-button" @click="pieces.operate($say('Seam allowance'), (id, own) => ({ id, kind: 'allowance', widthMm: 6, corners: 'round', pieces: own }))">Seam allowance</button>
      <button type="button" class="plain-button" @click="pieces.operate($say('Tidy'), (id, own) => ({ id, kind: 'tidy', withinMm: 0.05, leastMm2: 0, gapMm: 0, straight: true, pieces: own }))">Tidy</button>
      <button type="button" class="plain-button" :disabled="likeness.busy.value" @click="likeness.ask">Which font is this?</button>
    </div>
    <p v-if="likeness.busy.value" role="status" class="alike">Comparing with the shipped fonts…</p>
    <ol v-else-if="likeness.found.value.length > 0" class="likely" aria-label="Likely fonts">
      <li v-for="each in likeness.found.value" :key="each.font">
        <button type="button" :title="$say`Set “${each.text}” in ${each.font}`" @click="likeness.take(each)"><b>{{ each.font }}</b><span>{{ Math.round(100 * each.score) }} % alike, capitals {{ length(each.heightMm) }}</span></button>
      </li>
    </ol>
  </TrayCard>
</template>

<style scoped>
.facts {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  margin: 0;
}
dd {
  margin: 0;
  text-align: right;
  font-weight: 600;
  font-variant-numeric: tabular-nums;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.likely {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}
.likely button {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  padding: 4px 0;
  border: 0;
  border-top: 1px solid var(--rule);
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.likely button:hover {
  background: var(--felt);
}
.likely button:focus-visible {
  outline: 2px solid var(--madder);
}
.likely span {
  color: var(--ink-soft);
  font-size: 12.5px;
}
.alike {
  margin: 2px 0;
}
</style>
