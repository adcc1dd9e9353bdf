<script setup lang="ts">
import { ElProgress } from 'element-plus';

defineProps<{
  /** Label and value pairs, left to right. */
  items: readonly { readonly name: string; readonly value: string; readonly swatch?: string }[];
  /** What the engine is at. */
  status: string;
  /** Share done, 0 to 1, of work that takes a while. */
  progress?: number | undefined;
}>();
const emit = defineEmits<{ cancel: [] }>();
</script>

<template>
  <footer class="readout">
    <span v-for="item in items" :key="item.name" class="item">
      <i v-if="item.swatch !== undefined" class="swatch" :style="{ background: item.swatch }" />{{ item.name }} <b>{{ item.value }}</b>
    </span>
    <span class="space" />
    <template v-if="progress !== undefined">
      <ElProgress class="bar" :percentage="Math.round(progress * 100)" :show-text="false" :stroke-width="5" aria-label="Engine progress" />
      <button type="button" @click="emit('cancel')">Stop</button>
    </template>
    <span role="status" aria-live="polite">{{ status }}</span>
  </footer>
</template>

<style scoped>
.readout {
  display: flex;
  align-items: center;
  gap: 20px;
  height: 30px;
  padding: 0 14px;
  border-top: 1px solid var(--rule);
  background: var(--paper);
  color: var(--ink-soft);
  font-size: 12.5px;
  white-space: nowrap;
  overflow: hidden;
  font-variant-numeric: tabular-nums;
}
b {
  color: var(--ink);
  font-weight: 600;
}
.space {
  flex: 1;
}
.bar {
  width: 110px;
}
.swatch {
  display: inline-block;
  width: 11px;
  height: 11px;
  margin-right: 5px;
  border: 1px solid var(--ink-soft);
  vertical-align: -1px;
}
button {
  border: 0;
  background: none;
  color: var(--madder);
  font: inherit;
  text-decoration: underline;
  cursor: pointer;
}
</style>
