<script setup lang="ts">
import { X } from '@lucide/vue';
import { MAX_GUIDES, type Guide } from '../../core/assemble/placeOnBlank.ts';
import { useSettings } from '../../stores/settings.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { Guides } from './useGuides.ts';
import { say } from '../../core/words/say.ts';

/** The guides by their places; more are drawn out of the rulers. */
const props = defineProps<{ guides: Guides; blank: { readonly widthMm: number; readonly heightMm: number } }>();
const settings = useSettings();
const NAMES: Readonly<Record<Guide['way'], string>> = { upright: say('Upright, from the left'), level: say('Level, from the top') };
const add = (way: Guide['way']): void => props.guides.set(say('Guide'), [...props.guides.guides.value, { way, atMm: (way === 'upright' ? props.blank.widthMm : props.blank.heightMm) / 2 }]);
const move = (at: number, atMm: number): void => props.guides.set(say('Guide'), props.guides.guides.value.map((guide, k) => (k === at ? { ...guide, atMm } : guide)));
const remove = (at: number): void => props.guides.set(say('Guide taken away'), props.guides.guides.value.filter((_, k) => k !== at));
</script>

<template>
  <TrayCard title="Guides" about="parts snap to them; draw them out of the rulers, and back to take them away">
    <div v-for="({ way, atMm }, k) in guides.guides.value" :key="k" class="guide">
      <QuantityInput kind="length" :label="NAMES[way]" :unit="settings.unit" :model-value="atMm" :least="-20000" :most="20000" @done="move(k, $event)" />
      <button type="button" class="gone" :aria-label="$say`Take away guide ${k + 1}`" title="Take away" @click="remove(k)"><X :size="14" /></button>
    </div>
    <div class="row">
      <button type="button" class="plain-button" :disabled="guides.guides.value.length >= MAX_GUIDES" @click="add('upright')">Add an upright one</button>
      <button type="button" class="plain-button" :disabled="guides.guides.value.length >= MAX_GUIDES" @click="add('level')">Add a level one</button>
    </div>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.guide {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 4px;
}
</style>
