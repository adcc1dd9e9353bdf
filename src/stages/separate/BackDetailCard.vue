<script setup lang="ts">
import { ElSlider, ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { BackDetailSeparation } from '../../core/separate/separation.ts';
import { useBench } from '../../stores/bench.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ThresholdHistogram from '../../ui/ThresholdHistogram.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { say } from '../../core/words/say.ts';

/** A full back and one layer of detail on it, whose fineness is one slider. */
const props = defineProps<{ separation: BackDetailSeparation }>();
const bench = useBench();

const changed = (change: Partial<BackDetailSeparation>): TracedPart => ({ ...(bench.part as TracedPart), separation: { ...props.separation, ...change } });
const drag = (change: Partial<BackDetailSeparation>): void => bench.previewPart(changed(change));
function set(label: string, change: Partial<BackDetailSeparation>): void {
  bench.previewPart(changed(change));
  bench.commitPreview(label);
}
const threshold = computed(() => (props.separation.threshold === 'auto' ? (bench.result?.cut?.steps?.[0] ?? 127) : props.separation.threshold));
const BACKS = { open: say('with its openings'), full: say('full, without openings') } as const;
const one = (value: number | number[]): number => (Array.isArray(value) ? value[0] : value);
</script>

<template>
  <TrayCard title="Back and detail" about="all that is not ground, and what is dark on it">
    <div class="slider">
      <span>broad</span>
      <ElSlider :model-value="separation.fineness" :min="0" :max="100" :show-tooltip="false" aria-label="Fineness of the detail" @input="drag({ fineness: one($event) })" @change="set($say('Fineness of the detail'), { fineness: one($event) })" />
      <span>fine</span>
    </div>
    <QuantityInput label="Fineness" suffix="%" :model-value="separation.fineness" :least="0" :most="100" :digits="0" @change="drag({ fineness: $event })" @done="set($say('Fineness of the detail'), { fineness: $event })" @cancel="bench.revert" />
    <ThresholdHistogram
      v-if="bench.result?.cut?.histogram !== undefined" :histogram="bench.result.cut.histogram" :threshold="threshold"
      @change="drag({ threshold: $event })" @done="set($say('Detail threshold'), { threshold: $event })" @cancel="bench.revert"
    />
    <label class="row"><span>Automatic detail threshold</span><ElSwitch size="small" :model-value="separation.threshold === 'auto'" @change="set($say('Detail threshold'), { threshold: $event === true ? 'auto' : Math.round(threshold) })" /></label>
    <label class="row"><span>The back is cut</span><ChoiceInput class="narrow" small :model-value="separation.back" :choices="BACKS" label="How the back is cut" @choose="set($say('How the back is cut'), { back: $event })" /></label>
  </TrayCard>
</template>

<style scoped src="./cards.css" />

<style scoped>
.slider {
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: center;
  gap: 14px;
  color: var(--ink-soft);
  font-size: 12.5px;
}
</style>
