<script setup lang="ts">
import { Stamp } from '@lucide/vue';
import { computed } from 'vue';
import { withoutWorkPlace, withWorkInPlace, workPlaceOf } from '../../core/edit/workInPlace.ts';
import { useBench } from '../../stores/bench.ts';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** Work that was photographed on the mark sheet: cut around where it lies, with blanks for the next time beside it. */
const { job, layout, commit, length } = useLayoutEdits();
const bench = useBench();
const found = computed(() => {
  const result = bench.result;
  const squaring = bench.part?.recipe.find((step) => step.kind === 'squaring' && step.enabled && step.marks.by === 'sheet');
  const facts = result?.clean.steps.find(({ id }) => id === squaring?.id)?.facts;
  if (facts === undefined || result?.cut === undefined) return undefined;
  return workPlaceOf(facts, result.cut.place, result.clean.frame, result.cut.design);
});
/** Blanks that the sheet does not hold are not laid. */
const missing = computed(() => (layout.value.work === undefined ? 0 : Math.max(0, layout.value.copies - (bench.result?.cut?.sheets[0]?.room ?? layout.value.copies))));
const inPlace = computed(() => layout.value.work !== undefined);
const about = computed(() => {
  const { work } = layout.value;
  if (work !== undefined) return say`cut where it lies, ${length(work.xMm)} from the left and ${length(work.yMm)} from the top; further copies are blanks on what is free`;
  return found.value === undefined ? '' : say`it lies ${length(found.value.xMm)} from the left and ${length(found.value.yMm)} from the top of the mark sheet`;
});
const lay = (): void => {
  if (found.value !== undefined && bench.part !== undefined) commit(say('Cut where the work lies'), withWorkInPlace(job.value, bench.part.id, found.value));
};
</script>

<template>
  <TrayCard v-if="inPlace || found !== undefined" title="Work on the sheet" :about="about">
    <template #icon><Stamp /></template>
    <p v-if="missing > 0" class="warn">{{ missing === 1 ? $say('1 blank has') : $say`${missing} blanks have` }} no room beside the work: not laid.</p>
    <div>
      <button v-if="inPlace" type="button" class="plain-button" @click="commit($say('From the corner of the machine'), withoutWorkPlace(job))">From the machine’s corner instead</button>
      <button v-else type="button" class="plain-button" @click="lay">Cut it where it lies</button>
    </div>
  </TrayCard>
</template>

<style scoped>
.warn {
  margin: 2px 0;
  color: var(--ochre-text);
}
</style>
