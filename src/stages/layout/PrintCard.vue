<script setup lang="ts">
import { Printer } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { USUAL_CONTOUR, USUAL_WEED_LINES, USUAL_WHITE } from '../../core/layout/layout.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** How a job is laid on print pages. */
const props = defineProps<{ pages: number; count: number; parts: number; warnings: readonly string[]; behind: 'paper' | 'blank' }>();
const emit = defineEmits<{ behind: [value: 'paper' | 'blank'] }>();
const { layout, drag, set, cancel, unit } = useLayoutEdits();
const PAPERS = { clear: say('clear paper: white is not printed'), white: say('white paper') } as const;
const BEHIND = { paper: say('ink on the paper'), blank: say('as it looks on the blank') } as const;
const white = computed(() => layout.value.white ?? { ...USUAL_WHITE, on: false });
const contour = computed(() => layout.value.contour ?? { ...USUAL_CONTOUR, on: false });
/** Through what is left between cut lines, so that it lifts in pieces. */
const slits = computed(() => layout.value.weedLines ?? { ...USUAL_WEED_LINES, on: false });
const about = computed(() => say`${props.count === 1 ? say('1 motif') : say`${props.count} motifs`} on ${props.pages === 1 ? say('1 page') : say`${props.pages} pages`}`);
</script>

<template>
  <TrayCard title="Print pages" :about="about" :mark="warnings.length > 0 ? 'warning' : undefined">
    <template #icon><Printer /></template>
    <ChoiceInput :model-value="layout.paper ?? 'clear'" :choices="PAPERS" label="Decal paper" @choose="set($say('Decal paper'), { paper: $event })" />
    <ChoiceInput :model-value="behind" :choices="BEHIND" label="Shown" @choose="emit('behind', $event)" />
    <label class="row"><span>Fill the page</span><ElSwitch size="small" :model-value="layout.fill === true" aria-label="Fill the page" @change="set($say('Fill the page'), { fill: $event === true })" /></label>
    <QuantityInput label="Copies of each" :model-value="layout.copies" :least="1" :most="2000" :digits="0" :disabled="layout.fill === true" @change="drag({ copies: Math.round($event) })" @done="set($say('Copies'), { copies: Math.round($event) })" @cancel="cancel" />
    <QuantityInput kind="length" label="Safe distance" :unit="unit" :model-value="layout.gapMm" :least="0" :most="100" :step="0.5" @change="drag({ gapMm: $event })" @done="set($say('Safe distance'), { gapMm: $event })" @cancel="cancel" />
    <label v-if="parts > 1" class="row"><span>Each part by itself</span><ElSwitch size="small" :model-value="layout.eachPart === true" aria-label="Each part by itself" @change="set($say('Each part by itself'), { eachPart: $event === true })" /></label>
    <label class="row"><span>White back</span><ElSwitch size="small" :model-value="white.on" aria-label="White back" @change="set($say('White back'), { white: { ...white, on: $event === true } })" /></label>
    <QuantityInput v-if="white.on" label="Within the edge by" suffix="mm" :model-value="white.chokeMm" :least="0" :most="5" :step="0.05" :digits="2" @change="drag({ white: { ...white, chokeMm: $event } })" @done="set($say('White back'), { white: { ...white, chokeMm: $event } })" @cancel="cancel" />
    <p v-if="white.on && layout.machine?.printsWhite !== true" class="warn">Only a printer with white ink or toner prints it; it is a colour of its own in the PDF, called White.</p>
    <label class="row"><span>Cut line for a cutter</span><ElSwitch size="small" :model-value="contour.on" aria-label="Cut line for a cutter" @change="set($say('Cut line'), { contour: { ...contour, on: $event === true } })" /></label>
    <QuantityInput v-if="contour.on" kind="length" label="Away from the ink" :unit="unit" :model-value="contour.awayMm" :least="0" :most="50" :step="0.5" @change="drag({ contour: { ...contour, awayMm: $event } })" @done="set($say('Cut line'), { contour: { ...contour, awayMm: $event } })" @cancel="cancel" />
    <template v-if="contour.on">
      <label class="row"><span>Slits through the waste</span><ElSwitch size="small" :model-value="slits.on" aria-label="Slits through the waste" @change="set($say('Slits'), { weedLines: { ...slits, on: $event === true } })" /></label>
      <QuantityInput v-if="slits.on" kind="length" label="Slits about every" :unit="unit" :model-value="slits.everyMm" :least="10" :most="1000" :step="5" @change="drag({ weedLines: { ...slits, everyMm: $event } })" @done="set($say('Slits'), { weedLines: { ...slits, everyMm: $event } })" @cancel="cancel" />
    </template>
    <QuantityInput kind="length" label="Bleed" :unit="unit" :model-value="layout.bleedMm ?? 0" :least="0" :most="10" :step="0.5" @change="drag({ bleedMm: $event })" @done="set($say('Bleed'), { bleedMm: $event === 0 ? undefined : $event })" @cancel="cancel" />
    <p v-for="words in warnings" :key="words" class="warn">{{ words[0]?.toUpperCase() }}{{ words.slice(1) }}.</p>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.warn {
  margin: 2px 0;
  color: var(--ochre-text);
}
</style>
