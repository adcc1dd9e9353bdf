<script setup lang="ts">
import { computed } from 'vue';
import type { ApplyStep } from '../../core/ticket/ticket.ts';
import { stepWords } from '../../core/ticket/ticketWords.ts';
import { waitWords } from '../../core/units/timeWords.ts';
import { useStepTimer } from './useStepTimer.ts';

/** What is done with a job after cutting or printing, step by step, with a timer for each wait. */
const props = defineProps<{ jobId: string; steps: readonly ApplyStep[] }>();
const { running, leftMin, start, stop } = useStepTimer(props.jobId, computed(() => props.steps.map(({ waitMin }) => waitMin)));
const left = computed(() => leftMin.value ?? 0);
</script>

<template>
  <ol>
    <li v-for="(step, k) in steps" :key="k" :class="{ now: running?.step === k }">
      <span>{{ stepWords(step) }}</span>
      <template v-if="running?.step === k">
        <b role="timer">{{ left > 0 ? $say`${waitWords(left)} left` : $say('done') }}</b>
        <button v-if="left > 0 || k + 1 === steps.length" type="button" class="plain-button" @click="stop">{{ left > 0 ? $say('Stop') : $say('Clear') }}</button>
        <button v-else type="button" class="plain-button" @click="start(k + 1)">Next</button>
      </template>
      <template v-else-if="step.waitMin > 0">
        <b>{{ waitWords(step.waitMin) }}</b>
        <button type="button" class="plain-button" :aria-label="$say`Start ${stepWords(step)}`" @click="start(k)">Start</button>
      </template>
    </li>
  </ol>
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
  white-space: nowrap;
}
.now span {
  color: var(--madder-text);
}
</style>
