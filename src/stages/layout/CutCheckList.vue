<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Finding } from '../../core/check/cutCheck.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { leavingOut } from '../../core/edit/mendFinding.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { findingLines, type FindingLine } from './findingGroups.ts';

const props = defineProps<{ findings: readonly Finding[]; chosen: number | undefined }>();
const emit = defineEmits<{ choose: [index: number | undefined] }>();

const SHOWN = 12;
const all = ref(false);
const settings = useSettings();
const lines = computed(() => findingLines(props.findings, settings.unit));
const shown = computed(() => (all.value ? lines.value : lines.value.slice(0, SHOWN)));

/** Leaves out everything up to the size of one finding. */
const bench = useBench();
function leaveOut(finding: Finding): void {
  bench.commitPart('Leave out small pieces', leavingOut(bench.part as TracedPart, finding));
}

const isChosen = ({ places }: FindingLine): boolean => props.chosen !== undefined && places.includes(props.chosen);
/** A single place is chosen or let go; of many the next one is chosen. */
function choose({ places }: FindingLine): void {
  const at = props.chosen === undefined ? -1 : places.indexOf(props.chosen);
  emit('choose', at < 0 ? places[0] : places.length === 1 ? undefined : places[(at + 1) % places.length]);
}
</script>

<template>
  <ol>
    <li v-for="line in shown" :key="line.places[0]" :class="{ chosen: isChosen(line) }">
      <button type="button" class="words" :title="line.places.length > 1 ? 'Click again for the next one' : undefined" @click="choose(line)"><b v-if="line.places.length === 1">{{ line.places[0] + 1 }}</b> {{ line.words }}</button>
      <button v-if="line.worst.kind === 'smallPiece' || line.worst.kind === 'smallHole'" type="button" class="plain-button" title="Leave out pieces and holes up to this size" @click="leaveOut(line.worst)">{{ line.places.length > 1 ? 'Drop all' : 'Drop' }}</button>
    </li>
  </ol>
  <button v-if="lines.length > SHOWN" type="button" class="plain-button" @click="all = !all">{{ all ? 'Show fewer' : `Show all ${lines.length}` }}</button>
</template>

<style scoped>
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  padding: 3px 0;
}
.words {
  flex: 1;
  border: 0;
  padding: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.chosen .words {
  color: var(--madder-text);
}
</style>
