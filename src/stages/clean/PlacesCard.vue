<script setup lang="ts">
import { ChevronLeft, ChevronRight } from '@lucide/vue';
import { computed, nextTick, ref, watch } from 'vue';
import { useSettings } from '../../stores/settings.ts';
import TrayCard from '../../ui/TrayCard.vue';
import { findingLines } from '../layout/findingGroups.ts';
import type { Place } from './usePlaces.ts';
import { grouped, say } from '../../core/words/say.ts';

/** The places to look at: one after the other by buttons or keys, or out of the list; finds of a step can be left alone. */
const props = defineProps<{ places: readonly Place[]; chosen: number | undefined; ofStep: boolean }>();
const emit = defineEmits<{ choose: [index: number | undefined]; go: [by: 1 | -1]; spare: [index: number]; mend: [index: number]; spareAll: [spared: boolean] }>();

const SHOWN = 100;
const from = computed(() => (props.chosen === undefined ? 0 : Math.max(0, Math.min(props.places.length - SHOWN, props.chosen - SHOWN / 2))));
const settings = useSettings();
/** Finds of a step one by one, since each can be left alone; places of the cut check by kind where they are many. */
const lines = computed<readonly Line[]>(() => {
  const findings = props.places.flatMap(({ finding }) => finding ?? []);
  if (!props.ofStep && findings.length === props.places.length) return findingLines(findings, settings.unit).map(({ places, worst, words }) => ({ places, words, acts: findings.indexOf(worst) }));
  return props.places.slice(from.value, from.value + SHOWN).map(({ words }, k) => ({ places: [from.value + k], words, acts: from.value + k }));
});
interface Line {
  readonly places: readonly number[];
  readonly words: string;
  /** The place on which its button acts. */
  readonly acts: number;
}
const isChosen = ({ places }: Line): boolean => props.chosen !== undefined && places.includes(props.chosen);
function choose({ places }: Line): void {
  const at = props.chosen === undefined ? -1 : places.indexOf(props.chosen);
  emit('choose', at < 0 ? places[0] : places.length === 1 ? undefined : places[(at + 1) % places.length]);
}
const spared = computed(() => props.places.filter((place) => place.hollow === true).length);
const about = computed(() => {
  const count = props.places.length;
  if (count === 0) return props.ofStep ? say('nothing found') : say('nothing that would cut badly');
  const place = props.chosen === undefined ? `${grouped(count)}` : say`${props.chosen + 1} of ${grouped(count)}`;
  return spared.value === 0 ? place : say`${place}, ${grouped(spared.value)} left alone`;
});

const list = ref<HTMLElement>();
watch(() => props.chosen, async () => {
  await nextTick();
  list.value?.querySelector('.chosen')?.scrollIntoView({ block: 'nearest' });
});
</script>

<template>
  <TrayCard :title="ofStep ? $say('Found') : $say('Cut check')" :about="about" :mark="!ofStep && places.length > 0 ? 'warning' : undefined">
    <template v-if="places.length > 0" #switch>
      <span class="ways">
        <button type="button" class="plain-button" title="Previous place (Shift+N)" aria-label="Previous place" @click="emit('go', -1)"><ChevronLeft /></button>
        <button type="button" class="plain-button" title="Next place (N)" aria-label="Next place" @click="emit('go', 1)"><ChevronRight /></button>
      </span>
    </template>
    <template v-if="places.length > 0">
      <ol ref="list" aria-label="Places to look at">
        <li v-for="line in lines" :key="line.places[0]" :class="{ chosen: isChosen(line), spared: places[line.acts].hollow }">
          <button type="button" class="words" :aria-pressed="isChosen(line)" :title="line.places.length > 1 ? $say('Click again for the next one') : undefined" @click="choose(line)"><b v-if="line.places.length === 1">{{ line.places[0] + 1 }}</b> {{ line.words }}</button>
          <button v-if="places[line.acts].find !== undefined" type="button" class="spare" :title="places[line.acts].hollow ? $say('Apply here again (X)') : $say('Skip this place (X)')" @click="emit('spare', line.acts)">{{ places[line.acts].hollow ? $say('take') : $say('leave') }}</button>
          <button v-else-if="places[line.acts].mend !== undefined" type="button" class="spare" :title="places[line.acts].mend === 'sweep' ? $say('Sweep everything up to this size') : $say('Tidy edges by this much')" @click="emit('mend', line.acts)">{{ places[line.acts].mend === 'sweep' ? $say('sweep') : $say('tidy') }}</button>
        </li>
      </ol>
      <div v-if="ofStep" class="all">
        <button type="button" class="plain-button" :disabled="spared === places.length" @click="emit('spareAll', true)">Skip all</button>
        <button type="button" class="plain-button" :disabled="spared === 0" @click="emit('spareAll', false)">Apply to all</button>
      </div>
    </template>
  </TrayCard>
</template>

<style scoped>
ol {
  margin: 0;
  padding: 0;
  max-height: 168px;
  overflow-y: auto;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 2px 4px;
}
li.chosen {
  background: var(--madder-wash);
}
.words,
.spare {
  border: 0;
  padding: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.words {
  flex: 1;
  font-size: 12.5px;
}
.spared .words {
  color: var(--ink-soft);
}
.spare {
  color: var(--madder-text);
  font-size: 12.5px;
}
.words:focus-visible,
.spare:focus-visible {
  outline: 2px solid var(--madder);
}
.ways,
.all {
  display: flex;
  gap: 6px;
}
.ways .plain-button {
  padding: 2px 7px;
}
.ways :deep(svg) {
  width: 14px;
}
</style>
