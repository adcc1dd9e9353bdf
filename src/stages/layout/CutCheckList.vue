<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Finding } from '../../core/check/cutCheck.ts';
import { useSettings } from '../../stores/settings.ts';
import { findingLines, type FindingLine } from './findingGroups.ts';
import type { Mends } from './useMends.ts';
import { say } from '../../core/words/say.ts';

/** What the cut check found, each with its mends. */
const props = defineProps<{ findings: readonly Finding[]; chosen: number | undefined; mends: Mends }>();
const emit = defineEmits<{ choose: [index: number | undefined] }>();

const SHOWN = 12;
const all = ref(false);
const settings = useSettings();
const lines = computed(() => findingLines(props.findings, settings.unit));
const shown = computed(() => (all.value ? lines.value : lines.value.slice(0, SHOWN)));

const ofLine = ({ places }: FindingLine): Finding[] => places.map((k) => props.findings[k]);
/** Kinds of which there are several, and how they can be mended all at once. */
const kinds = computed(() => {
  const counts = new Map<Finding['kind'], Finding[]>();
  for (const each of props.findings) counts.set(each.kind, [...(counts.get(each.kind) ?? []), each]);
  return [...counts.values()].filter((each) => each.length > 1 && props.mends.waysOf(each[0]).length > 0).map((found) => ({ found, ways: props.mends.waysOf(found[0]), name: KINDS[found[0].kind] ?? found[0].kind }));
});
const KINDS: Readonly<Partial<Record<Finding['kind'], string>>> = { thin: say('thin strips'), narrowGap: say('narrow gaps'), sharp: say('sharp tips'), smallPiece: say('small pieces'), smallHole: say('small holes'), jagged: say('jagged edges'), crowded: say('crowded nodes'), backwards: say('letterings that read backwards'), cutTwice: say('overlaps') };

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
      <button type="button" class="words" :title="line.places.length > 1 ? $say('Click again for the next one') : undefined" @click="choose(line)"><b v-if="line.places.length === 1">{{ line.places[0] + 1 }}</b> {{ line.words }}</button>
      <button v-for="{ way, name } in mends.waysOf(line.worst)" :key="way" type="button" class="plain-button" @click="mends.mend(ofLine(line), way, line.places.length > 1)">{{ line.places.length > 1 ? $say`${name} all` : name }}</button>
    </li>
  </ol>
  <div v-for="{ found, ways, name } in kinds" :key="name" class="kind">
    <span>All {{ found.length }} {{ name }}</span>
    <button v-for="each in ways" :key="each.way" type="button" class="plain-button" :aria-label="$say`${each.name} all ${name}`" @click="mends.mend(found, each.way, true)">{{ each.name }}</button>
  </div>
  <button v-if="lines.length > SHOWN" type="button" class="plain-button" @click="all = !all">{{ all ? $say('Show fewer') : $say`Show all ${lines.length}` }}</button>
</template>

<style scoped>
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li,
.kind {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  padding: 3px 0;
}
.kind span {
  flex: 1;
  color: var(--ink-soft);
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
