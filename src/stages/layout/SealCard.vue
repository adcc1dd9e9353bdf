<script setup lang="ts">
import { Timer } from '@lucide/vue';
import { computed } from 'vue';
import { withMaterial } from '../../core/edit/withMaterial.ts';
import { materialOf } from '../../core/job/materials.ts';
import { sealMinutes } from '../../core/print/sealPlan.ts';
import { useWorkshop } from '../../stores/workshop.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { stepName, useSealTimer, waitWords } from './useSealTimer.ts';

/** What a print needs before it may go into water, with a timer for each wait. */
const props = defineProps<{ jobId: string }>();
const { job, commit } = useLayoutEdits();
const workshop = useWorkshop();
void workshop.load();
const { steps, running, leftMin, start, stop } = useSealTimer(props.jobId);
const paper = computed(() => materialOf(job.value));
const papers = computed<Readonly<Record<string, string>>>(() => Object.fromEntries([paper.value, ...workshop.shelves.materials.filter(({ process }) => process === job.value.process)].map(({ id, name }) => [id, name])));
function choose(id: string): void {
  const next = workshop.shelves.materials.find((each) => each.id === id);
  if (next !== undefined) commit(`Paper: ${next.name}`, withMaterial(job.value, next));
}
const about = computed(() => (steps.value.length === 0 ? 'this print needs neither sealing nor drying' : `${waitWords(sealMinutes(steps.value))} in all`));
</script>

<template>
  <TrayCard title="Seal and dry" :about="about">
    <template #icon><Timer /></template>
    <ChoiceInput :model-value="paper.id" :choices="papers" label="Paper and ink" @choose="choose" />
    <ol>
      <li v-for="(step, k) in steps" :key="k" :class="{ now: running?.step === k }">
        <span>{{ stepName(step) }}</span>
        <template v-if="running?.step === k">
          <b role="timer">{{ (leftMin ?? 0) > 0 ? `${waitWords(leftMin ?? 0)} left` : 'done' }}</b>
          <button v-if="(leftMin ?? 0) > 0 || k + 1 === steps.length" type="button" class="plain-button" @click="stop">{{ (leftMin ?? 0) > 0 ? 'Stop' : 'Clear' }}</button>
          <button v-else type="button" class="plain-button" @click="start(k + 1)">Next</button>
        </template>
        <template v-else>
          <b>{{ waitWords(step.waitMin) }}</b>
          <button type="button" class="plain-button" :aria-label="`Start ${stepName(step)}`" @click="start(k)">Start</button>
        </template>
      </li>
    </ol>
  </TrayCard>
</template>

<style scoped>
ol {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 2px 0;
}
li span {
  flex: 1;
}
li b {
  font-variant-numeric: tabular-nums;
}
.now span {
  color: var(--madder-text);
}
</style>
