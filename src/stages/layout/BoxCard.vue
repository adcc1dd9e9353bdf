<script setup lang="ts">
import { SquareDashed } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { BOX_AROUND, Layout } from '../../core/layout/layout.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** What the waste is lifted by, and the layers of a design lined up by. */
const { layout, drag, set, cancel, unit } = useLayoutEdits();
const AROUND: Readonly<Record<(typeof BOX_AROUND)[number], string>> = { copy: say('around each copy'), all: say('one around all'), piece: say('around each piece or group'), blank: say('as large as the blank’s area') };
const box = computed(() => layout.value.box);
const changed = (change: Partial<Layout['box']>): Partial<Layout> => ({ box: { ...box.value, ...change } });
</script>

<template>
  <TrayCard title="Weeding box" about="an edge to lift the waste by, and corners to line layers up by">
    <template #icon><SquareDashed /></template>
    <template #switch><ElSwitch size="small" :model-value="box.on" aria-label="Weeding box" @change="set($say('Weeding box'), changed({ on: $event === true }))" /></template>
    <template v-if="box.on">
      <ChoiceInput :model-value="box.around ?? 'copy'" :choices="AROUND" label="Box around" @choose="set($say('Weeding box around'), changed({ around: $event }))" />
      <QuantityInput v-if="box.around !== 'blank'" kind="length" label="Margin" :unit="unit" :model-value="box.marginMm" :least="0" :most="200" :step="0.5" @change="drag(changed({ marginMm: $event }))" @done="set($say('Box margin'), changed({ marginMm: $event }))" @cancel="cancel" />
      <QuantityInput kind="length" label="Round corners" :unit="unit" :model-value="box.roundMm ?? 0" :least="0" :most="50" :step="0.5" @change="drag(changed({ roundMm: $event }))" @done="set($say('Box corners'), changed({ roundMm: $event }))" @cancel="cancel" />
    </template>
  </TrayCard>
</template>
