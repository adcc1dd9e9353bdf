<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { TonesSeparation } from '../../core/separate/separation.ts';
import { useBench } from '../../stores/bench.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import StepsHistogram from '../../ui/StepsHistogram.vue';
import TrayCard from '../../ui/TrayCard.vue';

/** A photo as a few tones of lightness. */
const props = defineProps<{ separation: TonesSeparation }>();
const bench = useBench();

const changed = (change: Partial<TonesSeparation>): TracedPart => {
  const { steps, ...rest } = { ...props.separation, ...change };
  return { ...(bench.part as TracedPart), separation: steps === undefined ? rest : { ...rest, steps } };
};
const drag = (change: Partial<TonesSeparation>): void => bench.previewPart(changed(change));
function set(label: string, change: Partial<TonesSeparation>): void {
  bench.previewPart(changed(change));
  bench.commitPreview(label);
}
const found = computed(() => props.separation.steps ?? bench.result?.cut?.steps ?? []);
/** What is cut of each tone, darkest first; the lightest is the blank. */
const greys = computed(() => (bench.result?.cut?.tones ?? []).map(({ film, colour }) => bench.result?.cut?.films.find((each) => each.film.id === film)?.film.colour ?? colour));
/** The steps with one of them set, those beside it pushed along so that they stay in order. */
const withStep = (at: number, value: number): number[] => found.value.map((step, k) => (k === at ? value : k < at ? Math.min(step, value - 1) : Math.max(step, value + 1))).map((step) => Math.max(0, Math.min(255, Math.round(step))));
</script>

<template>
  <TrayCard title="Tones" about="each darker film lies on the lighter ones; the lightest is the blank">
    <QuantityInput label="Tones with the blank" :model-value="separation.count" :least="2" :most="6" :digits="0" @change="drag({ count: Math.round($event), steps: undefined })" @done="set($say('Tones'), { count: Math.round($event), steps: undefined })" @cancel="bench.revert" />
    <label class="row"><span>Automatic steps</span><ElSwitch size="small" :model-value="separation.steps === undefined" :disabled="found.length === 0" @change="set($say('Steps between tones'), { steps: $event === true ? undefined : found.map(Math.round) })" /></label>
    <StepsHistogram
      v-if="bench.result?.cut?.histogram !== undefined" :histogram="bench.result.cut.histogram" :steps="found" :greys="greys"
      @change="(at: number, value: number) => drag({ steps: withStep(at, value) })" @done="(at: number, value: number) => set($say`Step ${at + 1}`, { steps: withStep(at, value) })" @cancel="bench.revert"
    />
    <QuantityInput
      v-for="(step, k) in found" :key="k" :label="$say`Step ${k + 1}, lightness`" :model-value="step" :least="0" :most="255" :digits="0"
      @change="drag({ steps: withStep(k, $event) })" @done="set($say`Step ${k + 1}`, { steps: withStep(k, $event) })" @cancel="bench.revert"
    />
  </TrayCard>
</template>

<style scoped src="./cards.css" />
