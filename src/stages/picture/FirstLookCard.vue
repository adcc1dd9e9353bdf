<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue';
import { isAppError } from '../../core/errors/appError.ts';
import type { FirstLook } from '../../core/job/firstLook.ts';
import type { Job } from '../../core/job/job.ts';
import { STEP_NAMES } from '../../core/job/recipe.ts';
import { useBench } from '../../stores/bench.ts';
import TrayCard from '../../ui/TrayCard.vue';

/** What kind of picture it is, how sure that is, and a recipe to start with, taken over by one click and changed like any other. */
const bench = useBench();
const found = shallowRef<FirstLook>();
watch(() => bench.picture, async (picture) => {
  found.value = undefined;
  if (picture === undefined) return;
  try {
    const look = await bench.look(picture.pictureKey);
    if (bench.picture === picture) found.value = look;
  } catch (error) {
    // Without a look the card stays away; whatever ails the picture is said where it is opened.
    if (!isAppError(error)) throw error;
  }
}, { immediate: true });

const KINDS = { line: 'Line drawing', flat: 'Flat colour', shaded: 'Shaded', photo: 'Photo' } as const;
const isTaken = computed(() => {
  const kinds = (steps: Job['recipe']): string => steps.map((step) => step.kind).join();
  return found.value !== undefined && bench.job !== undefined && kinds(bench.job.recipe) === kinds([...found.value.recipe]);
});
function start(): void {
  const { job } = bench;
  if (found.value === undefined || job === undefined) return;
  bench.commit('Starting recipe', { ...job, recipe: found.value.recipe.map((step) => ({ ...step, id: crypto.randomUUID() })) });
}
</script>

<template>
  <TrayCard v-if="found !== undefined" title="First look" :about="`${KINDS[found.kind]}, ${Math.round(found.sure * 100)} % sure`">
    <p>{{ found.words }}</p>
    <p class="steps">Start with: {{ found.recipe.map((step) => STEP_NAMES[step.kind].toLowerCase()).join(', ') }}</p>
    <button type="button" class="plain-button" :disabled="isTaken" @click="start">{{ isTaken ? 'Started with these steps' : (bench.job?.recipe.length ?? 0) > 0 ? 'Start anew with these steps' : 'Start with these steps' }}</button>
  </TrayCard>
</template>

<style scoped>
p {
  margin: 0 0 6px;
}
.steps {
  color: var(--ink-soft);
  font-size: 12.5px;
}
button {
  justify-self: start;
}
</style>
