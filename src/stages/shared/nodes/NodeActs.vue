<script setup lang="ts">
import { computed } from 'vue';
import { MOST_MARKED } from './drawNodes.ts';
import type { NodeEditing } from './useNodeEditing.ts';
import { say } from '../../../core/words/say.ts';

/** What can be done with the nodes that are chosen. */
const props = defineProps<{ nodes: NodeEditing }>();
const { can, facts, message, canEdit, act } = props.nodes;
const hint = computed(() => {
  if (!canEdit.value) return say('Making outlines…');
  if (facts.value.chosen === 0 && facts.value.nodes > MOST_MARKED) return say('Click a node or drag a frame around several. Zoom in where none are marked.');
  if (facts.value.chosen === 0) return say('Click a node or drag a frame around several. Double-click an edge to add one.');
  return say('Drag, or nudge with the arrow keys. A handle that is dragged with Alt moves alone.');
});
</script>

<template>
  <p>{{ hint }}</p>
  <div class="acts" role="group" aria-label="Selected nodes">
    <button type="button" class="plain-button" :disabled="!can.add" @click="act('add')">Add a node</button>
    <button type="button" class="plain-button" :disabled="!can.remove" title="Delete" @click="act('remove')">Remove</button>
    <button type="button" class="plain-button" :disabled="!can.shape" @click="act('corner')">Corner</button>
    <button type="button" class="plain-button" :disabled="!can.shape" @click="act('smooth')">Smooth</button>
    <button type="button" class="plain-button" :disabled="!can.straighten" title="A straight line between two selected nodes" @click="act('straighten')">Straighten</button>
    <button type="button" class="plain-button" :disabled="!can.open" title="Leaves a gap of a millimetre, which holds the piece like a tab" @click="act('open')">Cut open</button>
    <button type="button" class="plain-button" :disabled="!can.join" @click="act('join')">Join ends</button>
  </div>
  <p v-if="message !== undefined" role="status" class="refused">{{ message }}</p>
</template>

<style scoped>
p {
  margin: 4px 0;
  color: var(--ink-soft);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.refused {
  border-left: 4px solid var(--ochre);
  padding-left: 8px;
  color: var(--ink);
}
</style>
