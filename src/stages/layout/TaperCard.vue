<script setup lang="ts">
import { Cone } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { fanOnBlank } from '../../core/assemble/placeOnBlank.ts';
import { bent } from '../../core/geometry/fan.ts';
import { useBench } from '../../stores/bench.ts';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** A blank that tapers: what lies level on it is cut as an arc. */
const bench = useBench();
const { job, layout, set, length } = useLayoutEdits();
const fan = computed(() => fanOnBlank(job.value.blank, { xMm: 0, yMm: 0 }));
const isBent = computed(() => bench.result?.cut?.bent !== undefined);
/** How far the ends of a level line as wide as the design lie from its middle. */
const sagMm = computed(() => {
  const half = (bench.result?.cut?.design.widthMm ?? 0) / 2;
  return fan.value === undefined ? 0 : Math.abs(bent(fan.value, fan.value.middleMm + half, 0).y);
});
const about = computed(() => {
  if (layout.value.work !== undefined) return say('work that lies on the sheet is cut where it lies, flat');
  return isBent.value ? say`bent by ${length(sagMm.value)}, so that it lies level on the blank` : say('cut flat: on the blank its level lines will sag');
});
</script>

<template>
  <TrayCard v-if="fan !== undefined" title="Taper" :about="about" :mark="layout.unbent === true ? 'warning' : undefined">
    <template #icon><Cone /></template>
    <label v-if="layout.work === undefined" class="row"><span>Bent for the blank</span><ElSwitch size="small" :model-value="layout.unbent !== true" aria-label="Bent for the blank" @change="set($say('Taper'), { unbent: $event === true ? undefined : true })" /></label>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />
