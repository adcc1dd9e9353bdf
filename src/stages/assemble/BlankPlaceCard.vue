<script setup lang="ts">
import { computed } from 'vue';
import { overBlankMm, type PlaceMm } from '../../core/assemble/placeOnBlank.ts';
import type { Job } from '../../core/job/job.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { say } from '../../core/words/say.ts';

/** Where the whole design lies on the blank. */
const props = defineProps<{ place: PlaceMm }>();
const bench = useBench();
const settings = useSettings();
const job = computed(() => bench.job as Job);
const design = computed(() => bench.result?.cut?.design);
const over = computed(() => (design.value === undefined ? 0 : overBlankMm(props.place, job.value.blank, design.value)));

const drag = (change: Partial<PlaceMm>): void => bench.preview({ ...job.value, place: { ...props.place, ...change } });
function set(change: Partial<PlaceMm>): void {
  drag(change);
  bench.commitPreview(say('Place'));
}
function centre(): void {
  const { place: _place, ...rest } = job.value;
  bench.commit(say('Place: centred'), rest);
}
</script>

<template>
  <TrayCard title="Place on the blank" :about="$say`printable area ${formatLength(mm(job.blank.widthMm), settings.unit)} × ${formatLength(mm(job.blank.heightMm), settings.unit)}`" :mark="over > 0 ? 'warning' : undefined">
    <QuantityInput kind="length" label="From the left" :unit="settings.unit" :model-value="place.xMm" :least="-20000" :most="20000" @change="drag({ xMm: $event })" @done="set({ xMm: $event })" @cancel="bench.revert" />
    <QuantityInput kind="length" label="From the top" :unit="settings.unit" :model-value="place.yMm" :least="-20000" :most="20000" @change="drag({ yMm: $event })" @done="set({ yMm: $event })" @cancel="bench.revert" />
    <p v-if="over > 0" class="over">Reaches {{ formatLength(mm(over), settings.unit) }} over the printable area.</p>
    <div><button type="button" class="plain-button" :disabled="job.place === undefined" @click="centre">Centre</button></div>
  </TrayCard>
</template>

<style scoped>
.over {
  margin: 2px 0;
  color: var(--ochre-text);
}
</style>
