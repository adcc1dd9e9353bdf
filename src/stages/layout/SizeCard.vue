<script setup lang="ts">
import { Ruler } from '@lucide/vue';
import { computed, shallowRef } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { Finding } from '../../core/check/cutCheck.ts';
import type { WorkingSize } from '../../core/check/workingSize.ts';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import TrayCard from '../../ui/TrayCard.vue';
import { tellError } from '../shared/tellError.ts';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** Down to which size the design works, and what would have to go for a smaller one. */
const emit = defineEmits<{ show: [places: readonly Finding[]] }>();
const bench = useBench();
const { length } = useLayoutEdits();
const answer = shallowRef<{ readonly job: Job; readonly size: WorkingSize }>();
const shown = computed(() => (answer.value !== undefined && answer.value.job === bench.job ? answer.value.size : undefined));
async function look(): Promise<void> {
  const [of, job] = [bench.ofJob(), bench.job];
  if (of === undefined || job === undefined) return;
  try {
    answer.value = { job, size: await bench.workingSize(of) };
  } catch (caught) {
    const error = asAppError(caught, 'unexpected');
    if (error.code !== 'cancelled') tellError(error);
  }
}
/** So many places taken away, as far as there are so many. */
const STEPS = [1, 3, 10, 30];
const lines = computed(() => {
  const size = shown.value;
  if (size === undefined) return [];
  const from = (k: number): number => Math.max(size.downToMm, size.blockers[k]?.fromWidthMm ?? 0);
  return STEPS.filter((count) => count <= size.blockers.length && from(count) < from(count - 1) - 0.05).map((count) => ({ count, words: say`${count === 1 ? say('without the weakest place') : say`without the ${count} weakest places`}: from ${length(from(count))}` }));
});
const words = computed(() => {
  const size = shown.value;
  if (size === undefined) return undefined;
  return size.leastWidthMm <= size.downToMm ? say`Works at every width from ${length(size.downToMm)} on.` : say`Works from ${length(size.leastWidthMm)} wide.`;
});
</script>

<template>
  <TrayCard title="Smallest size" :about="words ?? $say('down to which width everything cuts and weeds')">
    <template #icon><Ruler /></template>
    <div v-for="line in lines" :key="line.count" class="row"><span>{{ line.words }}</span><button type="button" class="plain-button" :aria-label="$say`Show ${line.count} weakest`" @click="emit('show', (shown?.blockers ?? []).slice(0, line.count).map(({ finding }) => finding))">Show</button></div>
    <button v-if="shown === undefined" type="button" class="plain-button" :disabled="!bench.isCurrent" @click="look">Find it</button>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />
