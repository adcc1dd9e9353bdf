<script setup lang="ts">
import { computed } from 'vue';
import { letGo } from '../../core/edit/paletteEdits.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import TrayCard from '../../ui/TrayCard.vue';
import NodeActs from '../shared/nodes/NodeActs.vue';
import type { NodeEditing } from '../shared/nodes/useNodeEditing.ts';
import { grouped } from '../../core/words/say.ts';

/** What can be done with the nodes that are chosen, and which outlines are held by hand. */
const props = defineProps<{ nodes: NodeEditing }>();
const bench = useBench();
const rack = useRack();
const { facts } = props.nodes;

const held = computed(() => rack.films.filter((film) => film.held !== undefined));
</script>

<template>
  <TrayCard title="Nodes" :about="facts.chosen === 0 ? $say`${grouped(facts.nodes)} shown` : $say`${facts.chosen} of ${grouped(facts.nodes)} selected`">
    <NodeActs :nodes="nodes" />
    <div v-for="{ film } in held" :key="film.id" class="row">
      <span>{{ film.name }} is held by hand</span>
      <button type="button" class="plain-button" @click="bench.commitPart($say`${film.name} traced anew`, letGo(bench.part as TracedPart, film.id))">Trace again</button>
    </div>
  </TrayCard>
</template>

<style scoped src="./cards.css" />
