<script setup lang="ts">
import { computed } from 'vue';
import type { MarkFault } from '../../core/print/findMark.ts';
import type { MarkSeen } from '../../core/print/readPage.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { useMachine } from './useMachine.ts';
import type { Printed } from './usePrinted.ts';
import { decimals, say } from '../../core/words/say.ts';

/** Printed first, cut afterwards: the page is printed, laid in the cutter, found by its marks and cut around what is on it. */
const props = defineProps<{ printed: Printed; machine: ReturnType<typeof useMachine>; busy: boolean; missed: boolean }>();
const { printerState, order, printing, printedPages, address, page, laid, seen, looking, print, pageCount, printIt, layIn, look, cutIt, told, fault } = props.printed;

const papers = computed<Readonly<Record<string, string>>>(() => Object.fromEntries((printerState.value?.papers ?? []).map(({ paper, name, widthMm, heightMm }) => [paper, `${name}, ${widthMm} × ${heightMm} mm`])));
const KINDS = { clear: say('clear decal paper'), white: say('white decal paper'), plain: say('plain paper, to try') } as const;
const QUALITIES = { draft: say('draft'), photo: say('photo quality') } as const;
const pages = computed(() => Object.fromEntries(Array.from({ length: pageCount.value }, (_, k) => [String(k + 1), say`page ${k + 1}`])));
const WHY: Readonly<Record<MarkFault, string>> = {
  nothingDark: say('nothing dark there: it is covered, or the ink is too pale or missing'),
  hidden: say('not whole: something lies over it, or it was not printed to its end'),
  cutOff: say('only a part of it is in sight: the page lies too far off'),
};
const words = (mark: MarkSeen): string => ('why' in mark ? WHY[mark.why] : 'found');
const isCut = computed(() => props.machine.isPageCut(page.value));
const canLook = computed(() => props.machine.port.value.look !== undefined);
</script>

<template>
  <TrayCard title="Print" :about="printerState === undefined ? $say('no printer answers') : $say`${printerState.name}: it leaves ${printerState.marginMm} mm bare at every edge`">
    <ChoiceInput :model-value="order.paper" :choices="papers" label="Paper size" @choose="order = { ...order, paper: $event }" />
    <ChoiceInput :model-value="order.kind" :choices="KINDS" label="What it is printed on" @choose="order = { ...order, kind: $event }" />
    <ChoiceInput :model-value="order.quality" :choices="QUALITIES" label="Quality" @choose="order = { ...order, quality: $event }" />
    <p v-if="told !== undefined" class="told" role="alert">{{ told.what }} {{ told.todo }}</p>
    <div class="buttons"><button type="button" class="plain-button" :class="{ main: printedPages === 0 }" :disabled="printing || pageCount === 0" @click="printIt">{{ printing ? $say('Printing…') : printedPages === 0 ? $say('Print') : $say('Print again') }}</button></div>
    <template v-if="printedPages > 0 && address !== undefined">
      <ChoiceInput v-if="pageCount > 1" :model-value="String(page)" :choices="pages" label="Page" @choose="page = Number($event)" />
      <a :href="address" target="_blank" rel="noopener" class="came"><img :src="address" :alt="$say`Page ${page} as it came out of the printer`" /></a>
    </template>
  </TrayCard>
  <TrayCard title="Cut what was printed" about="by the marks in the corners of the page">
    <p v-if="print?.hasMarks !== true" class="soft">The page has no marks. Switch on <b>Cut line for a cutter</b> in Lay out: each motif gets its line, the page its marks.</p>
    <p v-else-if="!canLook" class="soft">This cutter has no camera that Limner can look through: let it find the marks by itself, and send the cut lines as a file.</p>
    <p v-else-if="printedPages === 0" class="soft">Print the page first.</p>
    <template v-else>
      <p v-if="laid === undefined" class="now">Now lay page {{ page }} in the cutter, its lower left at the corner.</p>
      <p v-if="fault !== undefined" class="told" role="alert">{{ fault.what }} {{ fault.todo }}</p>
      <ul v-if="seen !== undefined" aria-label="Marks">
        <li v-for="mark in seen.marks" :key="mark.corner" :class="{ lost: 'why' in mark }"><b>{{ mark.corner }}</b> {{ words(mark) }}</li>
      </ul>
      <p v-if="seen?.toBed !== undefined" class="soft">{{ seen.marks.some((mark) => 'why' in mark) ? $say('Three marks are enough, but none tells whether they agree.') : $say`They agree within ${decimals(Math.max(0.01, seen.worstMm ?? 0), 2)} mm.` }}</p>
      <div class="buttons">
        <button v-if="laid === undefined" type="button" class="plain-button main" :disabled="busy" @click="layIn">It is laid in</button>
        <template v-else-if="!busy">
          <button type="button" class="plain-button" :class="{ main: seen?.toBed === undefined }" :disabled="looking" @click="look">{{ looking ? $say('Looking…') : seen === undefined ? $say('Look for the marks') : $say('Look again') }}</button>
          <button v-if="missed" type="button" class="plain-button" @click="machine.missed">Send only what was missed</button>
          <button v-if="seen?.toBed !== undefined" type="button" class="plain-button" :class="{ main: !isCut }" @click="cutIt">{{ isCut ? $say('Cut again') : $say('Cut along it') }}</button>
          <button type="button" class="plain-button" @click="layIn">Lay it in anew</button>
        </template>
      </div>
    </template>
  </TrayCard>
</template>

<style scoped>
.told {
  margin: 4px 0;
  color: var(--ochre-text);
}
.soft {
  margin: 4px 0;
  color: var(--ink-soft);
}
.now {
  margin: 4px 0 6px;
  font-weight: 600;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 6px;
}
.came img {
  display: block;
  width: 130px;
  margin-top: 8px;
  border: 1px solid var(--rule-strong);
}
ul {
  margin: 4px 0;
  padding: 0;
  list-style: none;
}
.lost {
  color: var(--ochre-text);
}
</style>
