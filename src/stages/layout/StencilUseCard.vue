<script setup lang="ts">
import { Repeat2 } from '@lucide/vue';
import { computed } from 'vue';
import { leastDownMm, MOST_DIFFERENT } from '../../core/layout/stencilUse.ts';
import { USUAL_STENCIL_HOLE_MM, type StencilUse } from '../../core/layout/layout.ts';
import type { Sheet } from '../../core/layout/laySheet.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** A stencil that is laid more than once: turned over, or a step further. */
const props = defineProps<{ sheet: Sheet | undefined; design: { readonly widthMm: number; readonly heightMm: number } }>();
const { layout, set, drag, cancel, unit } = useLayoutEdits();
const USES = { once: say('once'), half: say('half of it, turned over'), row: say('again and again, in a row'), surface: say('again and again, over a surface') } as const;
const use = computed(() => layout.value.stencil);
const isTooDifferent = computed(() => (props.sheet?.halvesDiffer ?? 0) > MOST_DIFFERENT);
const about = computed(() => {
  if (use.value === undefined) return say('laid once');
  if (isTooDifferent.value) return say`its halves differ by ${Math.round(100 * (props.sheet?.halvesDiffer ?? 0))} %: all of it is cut`;
  return use.value.manner === 'half' ? say('paint, turn it over on its holes, paint again') : use.value.downMm === undefined ? say('mark its right holes, lay its left ones there') : say('mark its right and lower holes, lay its left or upper ones there');
});
function choose(value: string): void {
  if (value === 'once') return set(say('How the stencil is laid'), { stencil: undefined });
  const { downMm, ...before } = { holeMm: USUAL_STENCIL_HOLE_MM, ...use.value };
  const rows = value === 'surface' ? { downMm: downMm ?? leastDownMm(props.design.heightMm, before.holeMm) } : {};
  set(say('How the stencil is laid'), { stencil: { ...before, ...rows, manner: value === 'half' ? 'half' : 'repeat' } });
}
const chosen = computed(() => (use.value === undefined ? 'once' : use.value.manner === 'half' ? 'half' : use.value.downMm === undefined ? 'row' : 'surface'));
const change = (by: Partial<StencilUse>) => ({ stencil: { manner: 'half' as const, holeMm: USUAL_STENCIL_HOLE_MM, ...use.value, ...by } });
</script>

<template>
  <TrayCard title="Laid more than once" :about="about" :mark="isTooDifferent ? 'warning' : undefined">
    <template #icon><Repeat2 /></template>
    <label class="row"><span>Is laid</span><ChoiceInput class="wide" small :model-value="chosen" :choices="USES" label="Is laid" @choose="choose" /></label>
    <QuantityInput v-if="use?.manner === 'repeat'" kind="length" label="One step" :unit="unit" :model-value="use.everyMm ?? design.widthMm" :least="1" :most="20000" @change="drag(change({ everyMm: $event }))" @done="set($say('Step of the stencil'), change({ everyMm: $event }))" @cancel="cancel" />
    <QuantityInput v-if="use?.manner === 'repeat' && use.downMm !== undefined" kind="length" label="One step down" :unit="unit" :model-value="use.downMm" :least="Math.min(20000, Math.ceil(leastDownMm(design.heightMm, use.holeMm)))" :most="20000" @change="drag(change({ downMm: $event }))" @done="set($say('Step of the stencil down'), change({ downMm: $event }))" @cancel="cancel" />
    <QuantityInput v-if="use !== undefined" kind="length" label="Holes to lay it by" :unit="unit" :model-value="use.holeMm" :least="1" :most="20" :step="0.5" @change="drag(change({ holeMm: $event }))" @done="set($say('Holes to lay it by'), change({ holeMm: $event }))" @cancel="cancel" />
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.wide {
  width: 190px;
}
</style>
