<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import type { Mends } from './useMends.ts';

/** What a mend changed, to be kept or taken back. */
const props = defineProps<{ mends: Mends }>();
useEventListener('keydown', (event: KeyboardEvent) => {
  if (props.mends.trial.value === undefined || event.target instanceof HTMLInputElement) return;
  if (event.key === 'Escape') props.mends.back();
  else if (event.key === 'Enter' && !(event.target instanceof HTMLButtonElement)) props.mends.keep();
});
</script>

<template>
  <div v-if="mends.trial.value !== undefined" class="table-note mend" role="status">
    <span>{{ mends.words.value }}</span>
    <button type="button" class="plain-button main" @click="mends.keep">Keep</button>
    <button type="button" class="plain-button" @click="mends.back">Back</button>
  </div>
</template>

<style scoped src="../shared/tableNote.css" />

<style scoped>
.mend {
  top: 12px;
  display: flex;
  align-items: center;
  gap: 10px;
  border-left-color: var(--woad);
}
</style>
