<script setup lang="ts">
import { computed } from 'vue';
import { letGo } from '../../core/edit/paletteEdits.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import TrayCard from '../../ui/TrayCard.vue';
import type { NodeEditing } from './useNodeEditing.ts';

/** What can be done with the nodes that are chosen, and which outlines are held by hand. */
const props = defineProps<{ nodes: NodeEditing }>();
const bench = useBench();
const rack = useRack();
const { can, facts, message, canEdit, act } = props.nodes;

const held = computed(() => rack.films.filter((film) => film.held !== undefined));
const hint = computed(() => {
  if (!canEdit.value) return 'Making outlines…';
  if (facts.value.chosen === 0) return 'Click a node or drag a frame around several. Double-click an edge to add one.';
  return 'Drag, or nudge with the arrow keys. A handle that is dragged with Alt moves alone.';
});
</script>

<template>
  <TrayCard title="Nodes" :about="facts.chosen === 0 ? `${facts.nodes.toLocaleString('en')} shown` : `${facts.chosen} of ${facts.nodes.toLocaleString('en')} selected`">
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
    <div v-for="{ film } in held" :key="film.id" class="row">
      <span>{{ film.name }} is held by hand</span>
      <button type="button" class="plain-button" @click="bench.commitPart(`${film.name} traced anew`, letGo(bench.part as TracedPart, film.id))">Trace again</button>
    </div>
  </TrayCard>
</template>

<style scoped src="./cards.css" />

<style scoped>
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
