<script setup lang="ts">
import { computed } from 'vue';
import { nameOfObject } from '../../core/edit/objectEdits.ts';
import type { Job } from '../../core/job/job.ts';
import { plainObjects } from '../../core/job/objects.ts';
import { pictureOf, type TracedPart } from '../../core/job/tracedPart.ts';
import type { FinishedSize } from '../../core/units/finishedSize.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { say } from '../../core/words/say.ts';

/** How large the traced art is, its proportions kept. @see isWhole: it is all of the design, as it is cut. */
const props = defineProps<{ isWhole: boolean }>();
const bench = useBench();
const settings = useSettings();
const part = computed(() => bench.part as TracedPart);
const partCount = computed(() => plainObjects((bench.job as Job).objects).length);
const design = computed(() => bench.result?.cut?.design);
const about = computed(() => (props.isWhole ? say('aspect is locked: one side leads, the other follows') : partCount.value === 1 ? say('of the art alone, without what is done to it') : say`of ${nameOfObject(part.value, pictureOf(bench.job as Job, part.value)?.fileName)}, one of ${partCount.value} parts`));

const drag = (change: Partial<FinishedSize>): void => bench.previewPart({ ...part.value, size: { ...part.value.size, ...change } });
function set(label: string, change: Partial<FinishedSize>): void {
  drag(change);
  bench.commitPreview(label);
}
</script>

<template>
  <TrayCard title="Finished size" :about="about">
    <template v-if="isWhole">
      <QuantityInput
        kind="length" label="Width" :unit="settings.unit" :model-value="design?.widthMm ?? part.size.sizeMm" :least="1" :most="10000"
        @change="drag({ by: 'width', sizeMm: $event })" @done="set($say('Finished width'), { by: 'width', sizeMm: $event })" @cancel="bench.revert"
      />
      <QuantityInput
        kind="length" label="Height" :unit="settings.unit" :model-value="design?.heightMm ?? part.size.sizeMm" :least="1" :most="10000"
        @change="drag({ by: 'height', sizeMm: $event })" @done="set($say('Finished height'), { by: 'height', sizeMm: $event })" @cancel="bench.revert"
      />
    </template>
    <QuantityInput
      v-else kind="length" :label="part.size.by === 'width' ? $say('Its width') : $say('Its height')" :unit="settings.unit" :model-value="part.size.sizeMm" :least="1" :most="10000"
      @change="drag({ sizeMm: $event })" @done="set(part.size.by === 'width' ? $say('Finished width') : $say('Finished height'), { sizeMm: $event })" @cancel="bench.revert"
    />
    <QuantityInput label="Turn" suffix="°" :model-value="part.size.turnDeg" :least="-360" :most="360" @change="drag({ turnDeg: $event })" @done="set($say('Turn'), { turnDeg: $event })" @cancel="bench.revert" />
  </TrayCard>
</template>
