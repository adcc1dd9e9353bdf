<script setup lang="ts">
import { Printer } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { Layout } from '../../core/layout/layout.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';

/** How a job is laid on print pages. */
const props = defineProps<{ layout: Layout; pages: number; count: number; parts: number; warnings: readonly string[]; behind: 'paper' | 'blank' }>();
const emit = defineEmits<{ drag: [change: Partial<Layout>]; set: [label: string, change: Partial<Layout>]; cancel: []; behind: [value: 'paper' | 'blank'] }>();
const settings = useSettings();
const PAPERS = { clear: 'clear paper: white is not printed', white: 'white paper' } as const;
const BEHIND = { paper: 'ink on the paper', blank: 'as it looks on the blank' } as const;
const about = computed(() => `${props.count === 1 ? '1 motif' : `${props.count} motifs`} on ${props.pages === 1 ? '1 page' : `${props.pages} pages`}`);
</script>

<template>
  <TrayCard title="Print pages" :about="about" :mark="warnings.length > 0 ? 'warning' : undefined">
    <template #icon><Printer /></template>
    <ChoiceInput :model-value="layout.paper ?? 'clear'" :choices="PAPERS" label="Decal paper" @choose="emit('set', 'Decal paper', { paper: $event })" />
    <ChoiceInput :model-value="behind" :choices="BEHIND" label="Shown" @choose="emit('behind', $event)" />
    <label class="row"><span>Fill the page</span><ElSwitch size="small" :model-value="layout.fill === true" aria-label="Fill the page" @change="emit('set', 'Fill the page', { fill: $event === true })" /></label>
    <QuantityInput label="Copies of each" :model-value="layout.copies" :least="1" :most="2000" :digits="0" :disabled="layout.fill === true" @change="emit('drag', { copies: Math.round($event) })" @done="emit('set', 'Copies', { copies: Math.round($event) })" @cancel="emit('cancel')" />
    <QuantityInput kind="length" label="Safe distance" :unit="settings.unit" :model-value="layout.gapMm" :least="0" :most="100" :step="0.5" @change="emit('drag', { gapMm: $event })" @done="emit('set', 'Safe distance', { gapMm: $event })" @cancel="emit('cancel')" />
    <label v-if="parts > 1" class="row"><span>Each part by itself</span><ElSwitch size="small" :model-value="layout.eachPart === true" aria-label="Each part by itself" @change="emit('set', 'Each part by itself', { eachPart: $event === true })" /></label>
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
