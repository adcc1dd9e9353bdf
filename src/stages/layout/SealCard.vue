<script setup lang="ts">
import { Timer } from '@lucide/vue';
import { computed } from 'vue';
import { withMaterial } from '../../core/edit/withMaterial.ts';
import { materialOf } from '../../core/job/materials.ts';
import { sealMinutes, sealPlan } from '../../core/print/sealPlan.ts';
import { waitWords } from '../../core/units/timeWords.ts';
import { useWorkshop } from '../../stores/workshop.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import StepTimers from '../shared/StepTimers.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** What a print needs before it may go into water, with a timer for each wait. */
defineProps<{ jobId: string }>();
const { job, commit } = useLayoutEdits();
const workshop = useWorkshop();
void workshop.load();
const paper = computed(() => materialOf(job.value));
const steps = computed(() => (paper.value.seal === undefined ? [] : sealPlan(paper.value.seal)));
const papers = computed<Readonly<Record<string, string>>>(() => Object.fromEntries([paper.value, ...workshop.shelves.materials.filter(({ process }) => process === job.value.process)].map(({ id, name }) => [id, name])));
function choose(id: string): void {
  const next = workshop.shelves.materials.find((each) => each.id === id);
  if (next !== undefined) commit(say`Paper: ${next.name}`, withMaterial(job.value, next));
}
const about = computed(() => (steps.value.length === 0 ? say('this print needs neither sealing nor drying') : say`${waitWords(sealMinutes(steps.value))} in all`));
</script>

<template>
  <TrayCard title="Seal and dry" :about="about">
    <template #icon><Timer /></template>
    <ChoiceInput :model-value="paper.id" :choices="papers" label="Paper and ink" @choose="choose" />
    <StepTimers :job-id="jobId" :steps="steps" />
  </TrayCard>
</template>
