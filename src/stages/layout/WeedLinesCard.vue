<script setup lang="ts">
import { Rows3 } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { USUAL_WEED_LINES, type Layout } from '../../core/layout/layout.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';

/** Cuts through large waste. */
const { layout, drag, set, cancel, unit } = useLayoutEdits();
const weed = computed(() => layout.value.weedLines ?? { ...USUAL_WEED_LINES, on: false });
const setWeed = (change: Partial<NonNullable<Layout['weedLines']>>): void => set('Weed lines', { weedLines: { ...weed.value, ...change } });
</script>

<template>
  <TrayCard title="Weed lines" about="cuts that part large waste into strips">
    <template #icon><Rows3 /></template>
    <template #switch><ElSwitch size="small" :model-value="weed.on" aria-label="Weed lines" @change="setWeed({ on: $event === true })" /></template>
    <template v-if="weed.on">
      <QuantityInput kind="length" label="Strips about" :unit="unit" :model-value="weed.everyMm" :least="10" :most="1000" :step="5" @change="drag({ weedLines: { ...weed, everyMm: $event } })" @done="setWeed({ everyMm: $event })" @cancel="cancel" />
      <QuantityInput kind="length" label="Away from pieces" :unit="unit" :model-value="weed.awayMm" :least="0.2" :most="20" :step="0.1" @change="drag({ weedLines: { ...weed, awayMm: $event } })" @done="setWeed({ awayMm: $event })" @cancel="cancel" />
    </template>
  </TrayCard>
</template>
