<script setup lang="ts">
import { computed } from 'vue';
import { fittedToSheet } from '../../core/edit/fitToSheet.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { cutAreaOf } from '../../core/layout/laySheet.ts';
import { USUAL_TILES } from '../../core/layout/layout.ts';
import { isNested } from '../../core/layout/nestSheets.ts';
import { misfitOf } from '../../core/run/isLaidOut.ts';
import { useBench } from '../../stores/bench.ts';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** By how much a layout does not fit, and the ways out. */
const props = defineProps<{ isPrinted: boolean }>();
const bench = useBench();
const cut = computed(() => bench.result?.cut);
const sheet = computed(() => cut.value?.sheets.find(({ over }) => over.widthMm > 0 || over.heightMm > 0));
const { job, layout, set, commit, length } = useLayoutEdits(computed(() => sheet.value?.filmId));
const error = computed(() => (cut.value === undefined ? undefined : misfitOf(cut.value)));
const area = computed(() => cutAreaOf(layout.value.sheet));
const words = computed(() => {
  if (error.value === undefined) return undefined;
  if (area.value.widthMm < 1 || area.value.heightMm < 1) return say('The machine reaches nothing of this sheet: its margins take all of it. Take another machine, or set its margins in the workshop.');
  const [over, high] = [Number(error.value.details['overWidthMm']), Number(error.value.details['overHeightMm'])];
  const parts = [over > 0 ? say`${length(over)} too wide` : '', high > 0 ? say`${length(high)} too high` : ''].filter((part) => part !== '');
  return props.isPrinted ? say`Does not fit the page: ${parts.join(say(' and '))}. Make it smaller in Assemble, or take a larger page.` : say`Does not fit the cut area: ${parts.join(say(' and '))}.`;
});
/** Whether one copy fits when it lies the other way. */
const fitsTurned = computed(() => {
  const { value: each } = sheet;
  if (each === undefined || layout.value.copies > 1 || isNested(layout.value)) return false;
  return each.used.heightMm <= each.cutArea.widthMm && each.used.widthMm <= each.cutArea.heightMm;
});
const fitted = computed(() => (sheet.value === undefined || cut.value === undefined ? undefined : fittedToSheet(job.value, bench.part as TracedPart, sheet.value, cut.value.design)));
const isMany = computed(() => sheet.value !== undefined && sheet.value.room > 0 && layout.value.copies > sheet.value.room);
</script>

<template>
  <div v-if="words !== undefined" class="misfit" role="alert">
    <p>{{ words }}</p>
    <div v-if="!isPrinted && sheet !== undefined" class="ways">
      <button v-if="isMany" type="button" class="plain-button" @click="set($say('More sheets'), { arrange: 'nested', turns: layout.turns ?? 'none' })">Go on on more sheets</button>
      <button v-if="fitsTurned" type="button" class="plain-button" @click="set($say('Lies turned'), { turned: layout.turned !== true })">Turn it</button>
      <button v-if="layout.tiles === undefined && !isMany" type="button" class="plain-button" @click="set($say('Tiles'), { tiles: USUAL_TILES, arrange: 'rows' })">Part it into tiles</button>
      <button v-if="fitted !== undefined && !isMany" type="button" class="plain-button" @click="commit($say('Made to fit the sheet'), fitted)">Make it fit</button>
    </div>
  </div>
</template>

<style scoped>
.misfit {
  position: absolute;
  top: 12px;
  left: 50%;
  display: grid;
  gap: 6px;
  max-width: 90%;
  transform: translateX(-50%);
  padding: 8px 14px;
  border: 1px solid var(--ochre);
  border-radius: 4px;
  background: var(--paper);
}
p {
  margin: 0;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
