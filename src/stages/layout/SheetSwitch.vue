<script setup lang="ts">
import { ChevronLeft, ChevronRight } from '@lucide/vue';

/** Which of several sheets or pages is on the table. */
defineProps<{ at: number; count: number; name: string }>();
const emit = defineEmits<{ show: [at: number] }>();
</script>

<template>
  <div v-if="count > 1" class="switch" role="group" :aria-label="$say`Which ${name}`">
    <button type="button" class="plain-button" :disabled="at === 0" :aria-label="$say`The ${name} before`" @click="emit('show', at - 1)"><ChevronLeft :size="16" /></button>
    <span>{{ name }} {{ at + 1 }} of {{ count }}</span>
    <button type="button" class="plain-button" :disabled="at + 1 >= count" :aria-label="$say`The next ${name}`" @click="emit('show', at + 1)"><ChevronRight :size="16" /></button>
  </div>
</template>

<style scoped>
.switch {
  position: absolute;
  left: 50%;
  bottom: 14px;
  display: flex;
  align-items: center;
  gap: 8px;
  transform: translateX(-50%);
  padding: 3px 8px;
  border-radius: 16px;
  background: var(--paper);
  border: 1px solid var(--rule);
}
</style>
