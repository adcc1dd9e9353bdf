<script setup lang="ts">
import { Copy } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { Sheet } from '../../core/layout/laySheet.ts';
import type { Layout } from '../../core/layout/layout.ts';
import { isNested } from '../../core/layout/nestSheets.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';

/** How many copies, and whether they lie in rows or nested by their outlines. */
const props = defineProps<{ layout: Layout; sheet: Sheet | undefined; sheets: number; isNesting: boolean; nestingShare: number }>();
const emit = defineEmits<{ drag: [change: Partial<Layout>]; set: [label: string, change: Partial<Layout>]; cancel: []; improve: []; stop: [] }>();
const settings = useSettings();
const ARRANGE = { rows: 'in rows, from the origin corner', nested: 'nested by their outlines' } as const;
const TURNS = { free: 'any way', quarter: 'by quarters', none: 'not at all: grain, shine' } as const;
const nested = computed(() => isNested(props.layout));
const used = computed(() => (props.sheet === undefined ? '' : `${formatLength(mm(props.sheet.widthMm > props.sheet.heightMm ? props.sheet.used.widthMm : props.sheet.used.heightMm), settings.unit)} of its length used${props.sheets > 1 ? ` of this one, ${props.sheets} sheets` : ''}`));
</script>

<template>
  <TrayCard title="Copies" :about="nested ? used : 'in rows, from the origin corner'">
    <template #icon><Copy /></template>
    <ChoiceInput :model-value="layout.arrange ?? 'rows'" :choices="ARRANGE" label="How they lie" @choose="emit('set', 'How copies lie', { arrange: $event })" />
    <QuantityInput :label="nested ? 'Copies' : 'On this sheet'" :model-value="layout.copies" :least="1" :most="2000" :digits="0" @change="emit('drag', { copies: Math.round($event) })" @done="emit('set', 'Copies', { copies: Math.round($event) })" @cancel="emit('cancel')" />
    <QuantityInput kind="length" label="Gap between copies" :unit="settings.unit" :model-value="layout.gapMm" :least="0" :most="500" :step="0.5" @change="emit('drag', { gapMm: $event })" @done="emit('set', 'Gap between copies', { gapMm: $event })" @cancel="emit('cancel')" />
    <template v-if="nested">
      <label class="row"><span>May be turned</span><ChoiceInput class="narrow" small :model-value="layout.turns ?? 'free'" :choices="TURNS" label="May be turned" @choose="emit('set', 'May be turned', { turns: $event })" /></label>
      <label class="row"><span>Each piece by itself</span><ElSwitch size="small" :model-value="layout.apart === true" aria-label="Each piece by itself" @change="emit('set', 'Each piece by itself', { apart: $event === true })" /></label>
      <div class="row">
        <span>{{ isNesting ? `looking, ${Math.round(100 * nestingShare)} %` : 'laid as they fit' }}</span>
        <button v-if="isNesting" type="button" class="plain-button" @click="emit('stop')">Stop</button>
        <button v-else type="button" class="plain-button" :disabled="sheet === undefined" @click="emit('improve')">Lay closer</button>
      </div>
    </template>
    <div v-else class="row"><span>{{ sheet === undefined ? '' : sheet.room === 0 ? 'none fits whole' : `${sheet.room} would fit` }}</span><button type="button" class="plain-button" :disabled="sheet === undefined || sheet.room === 0 || sheet.room === layout.copies" @click="emit('set', 'Fill the sheet', { copies: Math.min(2000, sheet?.room ?? 1) })">Fill the sheet</button></div>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.narrow {
  width: 150px;
}
</style>
