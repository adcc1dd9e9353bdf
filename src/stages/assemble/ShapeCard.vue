<script setup lang="ts">
import { computed } from 'vue';
import { withFilm, withObjectChanged } from '../../core/edit/objectEdits.ts';
import type { Film } from '../../core/film/film.ts';
import type { Job } from '../../core/job/job.ts';
import type { ImportedObject } from '../../core/job/objects.ts';
import { useBench } from '../../stores/bench.ts';
import TrayCard from '../../ui/TrayCard.vue';
import NodeActs from '../shared/nodes/NodeActs.vue';
import FilmChoice from './FilmChoice.vue';
import type { Parts } from './useParts.ts';
import type { ShapeNodes } from './useShapeNodes.ts';
import { counted, say } from '../../core/words/say.ts';

/** A shape that was drawn, or a drawing that came in: its film, and its nodes. */
const props = defineProps<{ parts: Parts; part: ImportedObject; nodes: ShapeNodes }>();
const bench = useBench();
const isDrawn = computed(() => props.part.fileName === '');
const oneFilm = computed(() => (props.part.paths.length === 1 ? props.part.paths[0].film : undefined));
const setFilm = (film: Film): void => bench.commit(say('Film'), withObjectChanged<ImportedObject>(withFilm(bench.job as Job, film), props.part.id, (object) => ({ ...object, paths: object.paths.map((path) => ({ ...path, film: film.id })) })));
const { isOn, canOpen, editing, toggle } = props.nodes;
const facts = computed(() => editing.facts.value);
</script>

<template>
  <TrayCard :title="isDrawn ? $say('Drawn shape') : part.fileName" :about="isOn ? $say`${counted(facts.nodes, $say('node'), $say('nodes'))}, ${facts.chosen} selected` : isDrawn ? $say('drawn with the pen') : $say('a drawing that came in as outlines; point at it again for its pieces')">
    <FilmChoice v-if="oneFilm !== undefined" :films="parts.films.value" :model-value="oneFilm" aria-label="Film of the shape" @choose="setFilm" />
    <NodeActs v-if="isOn" :nodes="editing" />
    <div><button type="button" class="plain-button" :disabled="!canOpen" :aria-pressed="isOn" :title="canOpen ? undefined : $say('Take its group apart first')" @click="toggle">{{ isOn ? $say('Leave its nodes') : $say('Edit its nodes') }}</button></div>
  </TrayCard>
</template>
