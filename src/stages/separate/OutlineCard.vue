<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { mmFromInch } from '../../core/units/length.ts';
import { formatArea, numberWords } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { say } from '../../core/words/say.ts';

/** How the curves follow the edge. */
const bench = useBench();
const settings = useSettings();
const outline = computed(() => (bench.part as TracedPart).outline);
/** How closely edges are followed is kept in px of the picture: it is the picture that tells where they are. */
const pxPerUnit = computed(() => (bench.resolutionPxPerMm === undefined ? undefined : bench.resolutionPxPerMm * (settings.unit === 'mm' ? 1 : mmFromInch(1))));
const inPx = (length: number): number => Math.max(0.05, Math.min(5, length * (pxPerUnit.value ?? 1)));
const changed = (change: Partial<TracedPart['outline']>): TracedPart => ({ ...(bench.part as TracedPart), outline: { ...outline.value, ...change } });
const drag = (change: Partial<TracedPart['outline']>): void => bench.previewPart(changed(change));
function set(label: string, change: Partial<TracedPart['outline']>): void {
  bench.previewPart(changed(change));
  bench.commitPreview(label);
}
const state = computed(() => {
  const { followPx, cornerDeg, leastPieceMm2, smoothPx = 0 } = outline.value;
  const calmed = smoothPx > 0 ? say`, calmed over ${numberWords(smoothPx, 2)} px` : '';
  return say`within ${numberWords(followPx, 2)} px, corners from ${numberWords(cornerDeg, 0)}°${calmed}, no pieces under ${formatArea(leastPieceMm2, settings.unit)}`;
});
</script>

<template>
  <TrayCard title="Outline" about="how the curves follow the edge" fold="Outline" :folded-as="state">
    <QuantityInput label="Trace tolerance" suffix="px" :model-value="outline.followPx" :least="0.05" :most="5" :step="0.05" :digits="2" @change="drag({ followPx: $event })" @done="set($say('Outline: trace tolerance'), { followPx: $event })" @cancel="bench.revert" />
    <QuantityInput v-if="pxPerUnit !== undefined" label="at the finished size" :suffix="settings.unit" :model-value="outline.followPx / pxPerUnit" :least="0.05 / pxPerUnit" :most="5 / pxPerUnit" :step="0.01" :digits="settings.unit === 'mm' ? 3 : 4" @change="drag({ followPx: inPx($event) })" @done="set($say('Outline: trace tolerance'), { followPx: inPx($event) })" @cancel="bench.revert" />
    <QuantityInput label="Smooth edges over" suffix="px" :model-value="outline.smoothPx ?? 0" :least="0" :most="10" :step="0.25" :digits="2" @change="drag({ smoothPx: $event })" @done="set($say('Outline: smoothed'), { smoothPx: $event })" @cancel="bench.revert" />
    <QuantityInput label="Keep corners sharper than" suffix="°" :model-value="outline.cornerDeg" :least="5" :most="180" :digits="0" @change="drag({ cornerDeg: $event })" @done="set($say('Outline: corners'), { cornerDeg: $event })" @cancel="bench.revert" />
    <QuantityInput kind="area" :unit="settings.unit" label="Drop pieces smaller than" :model-value="outline.leastPieceMm2" :least="0" :most="1000" :step="0.1" :digits="2" @change="drag({ leastPieceMm2: $event })" @done="set($say('Outline: smallest piece'), { leastPieceMm2: $event })" @cancel="bench.revert" />
    <label class="row"><span>Snap to circles and parallel lines</span><ElSwitch size="small" :model-value="outline.shapes ?? true" @change="set($say('Outline: snapped shapes'), { shapes: $event === true })" /></label>
  </TrayCard>
</template>

<style scoped src="./cards.css" />
