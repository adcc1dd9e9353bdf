<script setup lang="ts">
import { computed } from 'vue';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { FlatSeparation } from '../../core/separate/separation.ts';
import { forgetSpots, type FoundFilms } from '../../core/edit/paletteEdits.ts';
import { useBench } from '../../stores/bench.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { Target } from './usePointing.ts';
import { say } from '../../core/words/say.ts';

/** Single areas that get another film than their tone has. */
const props = defineProps<{ separation: FlatSeparation; found: FoundFilms; pointing: boolean }>();
const target = defineModel<Target>('target', { required: true });
const emit = defineEmits<{ toggle: [] }>();
const bench = useBench();

const targets = computed<Readonly<Record<string, string>>>(() => ({ none: say('not cut'), own: say('a cut of its own'), ...Object.fromEntries(props.found.films.map(({ id, name }) => [`film:${id}`, name])) }));
const count = computed(() => props.separation.spots?.length ?? 0);
</script>

<template>
  <TrayCard title="Single areas" :about="count === 0 ? $say('as their tones say') : count === 1 ? $say('1 is not as its tone says') : $say`${count} are not as their tones say`">
    <label class="row"><span>An area becomes</span><ChoiceInput class="narrow" small :model-value="target" :choices="targets" label="What a pointed area becomes" @choose="target = $event as Target" /></label>
    <p v-if="target === 'own'">An area of background is filled with a new film, under lines as far as their middle.</p>
    <div class="row">
      <button type="button" class="plain-button" :aria-pressed="pointing" @click="emit('toggle')">{{ pointing ? $say('Click areas; Esc leaves') : $say('Pick areas') }}</button>
      <button v-if="count > 0" type="button" class="plain-button" @click="bench.commitPart($say('All areas as their tones say'), forgetSpots(bench.part as TracedPart))">Reset all areas</button>
    </div>
  </TrayCard>
</template>

<style scoped src="./cards.css" />
