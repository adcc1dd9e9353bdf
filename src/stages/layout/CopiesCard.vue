<script setup lang="ts">
import { Copy } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { Sheet } from '../../core/layout/laySheet.ts';
import { USUAL_REGISTER } from '../../core/layout/layout.ts';
import { isNested } from '../../core/layout/nestSheets.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { useFlaws } from './useFlaws.ts';
import type { useNesting } from './useNesting.ts';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** How many copies, and whether they lie in rows or nested by their outlines. */
const props = defineProps<{ sheet: Sheet | undefined; sheets: number; filmId: string; nesting: ReturnType<typeof useNesting>; flaws: ReturnType<typeof useFlaws> }>();
const { layout, byItself, drag, set, cancel, unit, length } = useLayoutEdits();
const { isNesting, share } = props.nesting;
const { isMarking } = props.flaws;
const ARRANGE = { rows: say('in rows, from the origin corner'), nested: say('nested by their outlines') } as const;
const TURNS = { free: say('any way'), quarter: say('by quarters'), none: say('not at all: grain, shine') } as const;
const nested = computed(() => isNested(layout.value));
const used = computed(() => (props.sheet === undefined ? '' : say`${length(props.sheet.widthMm > props.sheet.heightMm ? props.sheet.used.widthMm : props.sheet.used.heightMm)} of its length used${props.sheets > 1 ? say` of this one, ${props.sheets} sheets` : ''}`));
</script>

<template>
  <TrayCard title="Copies" :about="nested ? used : $say('in rows, from the origin corner')">
    <template #icon><Copy /></template>
    <ChoiceInput :model-value="layout.arrange ?? 'rows'" :choices="ARRANGE" label="How they lie" @choose="set($say('How copies lie'), { arrange: $event })" />
    <QuantityInput :label="nested ? $say('Copies') : $say('On this sheet')" :model-value="layout.copies" :least="1" :most="2000" :digits="0" @change="drag({ copies: Math.round($event) })" @done="set($say('Copies'), { copies: Math.round($event) })" @cancel="cancel" />
    <QuantityInput kind="length" label="Gap between copies" :unit="unit" :model-value="layout.gapMm" :least="0" :most="500" :step="0.5" @change="drag({ gapMm: $event })" @done="set($say('Gap between copies'), { gapMm: $event })" @cancel="cancel" />
    <template v-if="nested">
      <label class="row"><span>May be turned</span><ChoiceInput class="narrow" small :model-value="layout.turns ?? 'free'" :choices="TURNS" label="May be turned" @choose="set($say('May be turned'), { turns: $event })" /></label>
      <label class="row"><span>Each piece by itself</span><ElSwitch size="small" :model-value="layout.apart === true" aria-label="Each piece by itself" @change="set($say('Each piece by itself'), { apart: $event === true })" /></label>
      <div class="row">
        <span>{{ isNesting ? $say`looking, ${Math.round(100 * share)} %` : $say('laid as they fit') }}</span>
        <button v-if="isNesting" type="button" class="plain-button" @click="nesting.stop">Stop</button>
        <span v-else><button v-if="layout.apart !== true && !byItself" type="button" class="plain-button" :disabled="sheet === undefined" @click="nesting.fill">Fill the sheet</button> <button type="button" class="plain-button" :disabled="sheet === undefined" @click="nesting.improve(filmId)">Lay closer</button></span>
      </div>
    </template>
    <template v-if="nested">
      <div class="row">
        <span>{{ isMarking ? $say('drag over what cannot be used') : flaws.count.value === 0 ? $say('no flaws marked') : flaws.count.value === 1 ? $say('1 flaw') : $say`${flaws.count.value} flaws` }}</span>
        <button v-if="isMarking" type="button" class="plain-button" @click="isMarking = false">Done</button>
        <span v-else><button v-if="flaws.count.value > 0" type="button" class="plain-button" @click="set($say('No flaws'), { flaws: undefined })">Forget</button> <button type="button" class="plain-button" @click="isMarking = true">Mark a flaw</button></span>
      </div>
    </template>
    <template v-else>
      <label class="row"><span>Turned by a quarter</span><ElSwitch size="small" :model-value="layout.turned === true" aria-label="Turned by a quarter" @change="set($say('Lies turned'), { turned: $event === true })" /></label>
      <label class="row"><span>Register marks</span><ElSwitch size="small" :model-value="layout.register?.on === true" aria-label="Register marks" @change="set($say('Register marks'), { register: { ...(layout.register ?? USUAL_REGISTER), on: $event === true } })" /></label>
      <QuantityInput v-if="layout.register?.on === true" kind="length" label="Size of marks" :unit="unit" :model-value="layout.register.sizeMm" :least="2" :most="40" :step="0.5" @change="drag({ register: { on: true, sizeMm: $event } })" @done="set($say('Size of marks'), { register: { on: true, sizeMm: $event } })" @cancel="cancel" />
    </template>
    <div v-if="!nested" class="row"><span>{{ sheet === undefined ? '' : sheet.room === 0 ? $say('none fits whole') : $say`${sheet.room} would fit` }}</span><button type="button" class="plain-button" :disabled="sheet === undefined || sheet.room === 0 || sheet.room === layout.copies" @click="set($say('Fill the sheet'), { copies: Math.min(2000, sheet?.room ?? 1) })">Fill the sheet</button></div>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.narrow {
  width: 150px;
}
</style>
