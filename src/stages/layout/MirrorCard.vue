<script setup lang="ts">
import { TrianglesCenterlineDashedVertical } from '@lucide/vue';
import { computed } from 'vue';
import { mirroringOf } from '../../core/layout/mirroringOf.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { useBench } from '../../stores/bench.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import ReadsAs from './ReadsAs.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { inSentence, say } from '../../core/words/say.ts';

/** Whether sheets are mirrored: as the process wants it, or against it. */
const bench = useBench();
const { job, layout, set } = useLayoutEdits();
const cut = computed(() => bench.result?.cut);
const rules = computed(() => PROCESSES[job.value.process]);
const mirroring = computed(() => mirroringOf(layout.value, job.value.process));
const MIRRORS = computed(() => ({ process: say`as ${inSentence(rules.value.name)} wants it`, always: say('mirrored'), never: say('not mirrored') }));
</script>

<template>
  <TrayCard :title="mirroring.mirrored ? $say('Mirrored') : $say('Not mirrored')" :about="$say`${inSentence(rules.name)} is ${rules.lies}`" :mark="mirroring.against ? 'warning' : undefined">
    <template #icon><TrianglesCenterlineDashedVertical /></template>
    <ChoiceInput :model-value="layout.mirror" :choices="MIRRORS" label="Mirroring" @choose="set($say('Mirroring'), { mirror: $event })" />
    <p v-if="mirroring.against" class="warn">This goes against the process and stays marked on the ticket.</p>
    <ReadsAs v-if="cut !== undefined && !rules.isPrinted" :design="cut.design" :colours="cut.rack.map(({ film }) => film.colour)" :blank="job.blank.colour" :words="mirroring.mirrored === rules.mirrored ? $say('on the blank it reads:') : $say('pressed, it would read backwards; meant to read:')" />
  </TrayCard>
</template>

<style scoped>
.warn {
  margin: 2px 0;
  color: var(--ochre-text);
}
</style>
