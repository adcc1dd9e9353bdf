<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { OneToneSeparation } from '../../core/separate/separation.ts';
import { useBench } from '../../stores/bench.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import ThresholdHistogram from '../../ui/ThresholdHistogram.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { say } from '../../core/words/say.ts';

/** What of the clean art becomes film when it is one colour. */
const props = defineProps<{ separation: OneToneSeparation }>();
const bench = useBench();

const changed = (change: Partial<OneToneSeparation>): TracedPart => ({ ...(bench.part as TracedPart), separation: { ...props.separation, ...change } });
const drag = (change: Partial<OneToneSeparation>): void => bench.previewPart(changed(change));
function set(label: string, change: Partial<OneToneSeparation>): void {
  bench.previewPart(changed(change));
  bench.commitPreview(label);
}
const threshold = computed(() => (props.separation.threshold === 'auto' ? (bench.result?.tone?.threshold ?? 127) : props.separation.threshold));
const SOURCES = { threshold: say('what is darker than a threshold'), notClear: say('everything that is not clear') } as const;
const INKS = { auto: say('found from the ground'), dark: say('the dark tone'), light: say('the light tone') } as const;
</script>

<template>
  <TrayCard title="What becomes film" about="one tone of the clean art">
    <ChoiceInput :model-value="separation.source" :choices="SOURCES" label="What becomes film" @choose="set($say('What becomes film'), { source: $event })" />
    <template v-if="separation.source === 'threshold'">
      <ThresholdHistogram
        v-if="bench.result?.tone !== undefined" :histogram="bench.result.tone.histogram" :threshold="threshold"
        @change="drag({ threshold: $event })" @done="set($say('Threshold'), { threshold: $event })" @cancel="bench.revert"
      />
      <label class="row"><span>Automatic threshold</span><ElSwitch size="small" :model-value="separation.threshold === 'auto'" @change="set($say('Threshold'), { threshold: $event === true ? 'auto' : Math.round(threshold) })" /></label>
      <label class="row"><span>Ink is</span><ChoiceInput class="narrow" small :model-value="separation.inkIs" :choices="INKS" label="Ink is" @choose="set($say('Ink is'), { inkIs: $event })" /></label>
    </template>
  </TrayCard>
</template>

<style scoped src="./cards.css" />
