<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { SquaringStep } from '../../core/clean/steps/squaring.ts';
import type { StepReport } from '../../core/job/applyRecipe.ts';
import type { Job } from '../../core/job/job.ts';
import { withChanged } from '../../core/job/recipeEdits.ts';
import { trimNumber } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';

const props = defineProps<{ step: SquaringStep; report: StepReport | undefined }>();
const bench = useBench();
const job = computed(() => bench.job as Job);
const pxPerMm = computed(() => props.report?.facts['pxPerMm']);

const setLight = (levelLight: boolean): void => bench.commit('Squaring: settings', { ...job.value, recipe: withChanged<'squaring'>(job.value.recipe, props.step.id, { levelLight }) });

/** The size, mm, at which the art is as large as the work on the photo was. */
const trueSizeMm = computed(() => {
  const resolution = bench.resolutionPxPerMm;
  return pxPerMm.value === undefined || resolution === undefined ? undefined : Math.round(((job.value.assembly.sizeMm * resolution) / pxPerMm.value) * 100) / 100;
});
function useTrueSize(): void {
  if (trueSizeMm.value !== undefined) bench.commit('Cut at true size', { ...job.value, assembly: { ...job.value.assembly, sizeMm: trueSizeMm.value } });
}
</script>

<template>
  <template v-if="step.marks.by === 'sheet'">
    <p>Print the mark sheet at 100 %, lay the work inside its rings and photograph the whole sheet.</p>
    <p class="sheets">
      <a href="/mark-sheet-a4.pdf" download>Mark sheet A4</a>
      <a href="/mark-sheet-letter.pdf" download>Mark sheet Letter</a>
    </p>
  </template>
  <p v-if="report?.facts['marksFound'] !== undefined && step.marks.by === 'sheet'">{{ report.facts['marksFound'] }} marks found; they lie within {{ trimNumber(report.facts['meanMissMm'] ?? 0, 2) }} mm, the worst {{ trimNumber(report.facts['worstMissMm'] ?? 0, 2) }} mm.</p>
  <label class="row"><span>Level the light too</span><ElSwitch size="small" :model-value="step.levelLight" @change="setLight($event === true)" /></label>
  <button v-if="trueSizeMm !== undefined && Math.abs(trueSizeMm - job.assembly.sizeMm) > 0.05" type="button" class="plain-button" @click="useTrueSize">Cut at true size, {{ trimNumber(trueSizeMm, 1) }} mm {{ job.assembly.by === 'width' ? 'wide' : 'high' }}</button>
</template>

<style scoped>
.sheets {
  display: flex;
  gap: 16px;
}
a {
  color: var(--madder);
}
</style>
