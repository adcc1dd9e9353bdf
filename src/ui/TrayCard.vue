<script lang="ts">
/** Cards that were unfolded, by what they are called, for as long as the page lives. */
const unfolded = new Set<string>();
</script>

<script setup lang="ts">
import { ref, useId } from 'vue';

const props = defineProps<{
  title: string;
  about?: string | undefined;
  /** Marks the card's edge: something to look at. */
  mark?: 'warning' | undefined;
  /** A card that is seldom used comes folded; it stays unfolded under this name. */
  fold?: string | undefined;
  /** Its state in one line, while it is folded. */
  foldedAs?: string | undefined;
}>();
const open = ref(props.fold === undefined || unfolded.has(props.fold));
const body = useId();
function toggle(): void {
  open.value = !open.value;
  if (props.fold === undefined) return;
  if (open.value) unfolded.add(props.fold);
  else unfolded.delete(props.fold);
}
</script>

<template>
  <section class="tray-card" :class="mark" :aria-label="title">
    <header>
      <span class="icon"><slot name="icon" /></span>
      <div class="names">
        <h3 v-if="fold === undefined">{{ title }}</h3>
        <h3 v-else><button type="button" class="fold" :aria-expanded="open" :aria-controls="body" @click="toggle"><span class="mark" aria-hidden="true">{{ open ? '−' : '+' }}</span>{{ title }}</button></h3>
        <p v-if="open ? about !== undefined : (foldedAs ?? about) !== undefined">{{ open ? about : (foldedAs ?? about) }}</p>
      </div>
      <slot name="switch" />
    </header>
    <div v-if="$slots['default'] && open" :id="body" class="body"><slot /></div>
  </section>
</template>

<style scoped>
.tray-card {
  padding: 12px 16px;
  border-bottom: 1px solid var(--rule);
}
.warning {
  border-left: 5px solid var(--ochre);
  padding-left: 11px;
}
header {
  display: flex;
  align-items: flex-start;
  gap: 12px;
}
.icon:empty {
  display: none;
}
.icon {
  width: 18px;
  padding-top: 2px;
}
.icon :deep(svg) {
  width: 18px;
  height: 18px;
}
.names {
  flex: 1;
  min-width: 0;
}
h3 {
  margin: 0;
  font-size: 13.5px;
  font-weight: 600;
}
.fold {
  display: flex;
  align-items: baseline;
  width: 100%;
  border: 0;
  padding: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.fold:focus-visible {
  outline: 2px solid var(--madder);
  outline-offset: 2px;
}
.mark {
  width: 16px;
  color: var(--ink-soft);
}
p {
  margin: 1px 0 0;
  color: var(--ink-soft);
  font-size: 12.5px;
}
.body {
  margin-top: 8px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
}
</style>
