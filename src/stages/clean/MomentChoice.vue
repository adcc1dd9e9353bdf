<script setup lang="ts">
import type { Moment } from './moments.ts';

/** Which moment of the recipe one side of the table shows. */
const moment = defineModel<Moment>({ required: true });
defineProps<{ moments: readonly { readonly moment: Moment; readonly name: string }[]; label: string }>();
</script>

<template>
  <select v-model="moment" :aria-label="label" @pointerdown.stop @keydown.stop>
    <option v-for="choice in moments" :key="choice.moment" :value="choice.moment">{{ choice.name }}</option>
  </select>
</template>

<style scoped>
select {
  max-width: 190px;
  border: 0;
  background: var(--ink);
  color: var(--paper);
  font: inherit;
  pointer-events: auto;
  cursor: pointer;
}
select:focus-visible {
  outline: 2px solid var(--madder);
}
</style>
