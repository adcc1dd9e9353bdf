<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { Operation } from '../../core/operate/operation.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import FilmChoice from './FilmChoice.vue';
import type { Operations } from './useOperations.ts';
import type { Parts } from './useParts.ts';
import { say } from '../../core/words/say.ts';

/** What one operation is set to. */
const props = defineProps<{ parts: Parts; operations: Operations; operation: Operation }>();
const bench = useBench();
const settings = useSettings();

/** Quantities of operations by their keys: what they are called, and what they take. */
const QUANTITIES: Readonly<Record<string, { readonly label: string; readonly least: number; readonly most: number; readonly kind?: 'length' | 'area' }>> = {
  byMm: { label: say('Outwards by'), least: -50, most: 50 },
  radiusMm: { label: say('Radius'), least: 0, most: 500 },
  widthMm: { label: say('Width'), least: 0.02, most: 500 },
  awayMm: { label: say('Away from the edge'), least: -500, most: 500 },
  paddingMm: { label: say('Room around it'), least: 0, most: 500 },
  cornerMm: { label: say('Corner radius'), least: 0, most: 500 },
  strokesMm: { label: say('Even out strokes up to'), least: 0, most: 50 },
  stripMm: { label: say('Strips at least'), least: 0, most: 50 },
  openGapMm: { label: say('Open gaps to'), least: 0, most: 50 },
  closeGapMm: { label: say('Close gaps up to'), least: 0, most: 50 },
  withinMm: { label: say('No further than'), least: 0.005, most: 2 },
  leastMm2: { label: say('Leave out below'), least: 0, most: 10_000, kind: 'area' },
  reachMm: { label: say('Reach under the lines'), least: 0, most: 20 },
  gapMm: { label: say('Gap'), least: 0, most: 20 },
  xMm: { label: say('Across'), least: -500, most: 500 },
  yMm: { label: say('Down'), least: -500, most: 500 },
};
const GAPS = { tidy: say('Close gaps up to'), fill: say('Bridge gaps up to'), split: say('Apart by') } as const;
const COUNTS: Readonly<Record<string, { readonly label: string; readonly least: number; readonly most: number }>> = {
  columns: { label: say('Columns'), least: 1, most: 200 },
  rows: { label: say('Rows'), least: 1, most: 200 },
  count: { label: say('Copies'), least: 2, most: 360 },
};
/** Settings that came later than the operations that are kept without them. */
const ADDED: Readonly<Partial<Record<Operation['kind'], Readonly<Record<string, unknown>>>>> = { tidy: { square: false, strokesMm: 0 } };
const entries = computed(() => Object.entries({ ...ADDED[props.operation.kind], ...props.operation }));
const isUsed = (key: string): boolean => !(props.operation.kind === 'field' && key === 'cornerMm' && props.operation.form !== 'rectangle');
const quantities = computed(() => entries.value.flatMap(([key, value]) => (key in QUANTITIES && typeof value === 'number' && isUsed(key) ? [{ key, value, ...QUANTITIES[key], label: labelOf(key) }] : [])));
const counts = computed(() => entries.value.flatMap(([key, value]) => (key in COUNTS && typeof value === 'number' ? [{ key, value, ...COUNTS[key] }] : [])));
function labelOf(key: string): string {
  if (key === 'gapMm' && props.operation.kind in GAPS) return GAPS[props.operation.kind as keyof typeof GAPS];
  return props.operation.kind === 'rows' ? { xMm: say('Step across'), yMm: say('Step down') }[key] ?? QUANTITIES[key].label : QUANTITIES[key].label;
}

const CHOICES: Readonly<Record<string, { readonly label: string; readonly choices: Readonly<Record<string, string>> }>> = {
  corners: { label: say('Corners'), choices: { round: say('round'), sharp: say('sharp'), flat: say('flat') } },
  manner: { label: say('Corners are'), choices: { round: say('rounded'), clipped: say('clipped') } },
  openings: { label: say('Openings'), choices: { filled: say('filled'), kept: say('kept open') } },
  ends: { label: say('Ends'), choices: { round: say('round'), flat: say('flat'), square: say('square') } },
  form: { label: say('Form'), choices: { rectangle: say('rectangle'), bar: say('bar'), round: say('round') } },
};
const choices = computed(() => entries.value.flatMap(([key, value]) => (key in CHOICES && typeof value === 'string' ? [{ key, value, ...CHOICES[key] }] : [])));
const SWITCHES: Readonly<Record<string, string>> = { knocksOut: say('Knock it out of the field'), isLong: say('As long as it is deep'), turns: say('Copies turn with the ring'), straight: say('Straighten and round'), square: say('Make corners square') };
const switches = computed(() => entries.value.flatMap(([key, value]) => (key in SWITCHES && typeof value === 'boolean' ? [{ key, value, label: SWITCHES[key] }] : [])));

const change = (key: string, value: unknown): Partial<Operation> => ({ [key]: value }) as Partial<Operation>;
const drag = (key: string, value: number): void => props.operations.preview(props.operation.id, change(key, value));
const set = (key: string, value: unknown): void => props.operations.set(props.operation, change(key, value));
const fill = computed(() => (props.operation.kind === 'fill' ? props.operation : undefined));
/** More are pointed at on the table alone. */
const MOST_AREAS = 60;
const areaCount = computed(() => props.operations.areas.value.length);
</script>

<template>
  <p v-if="fill !== undefined" class="about" role="status">{{ areaCount === 0 ? $say('Its lines enclose nothing. Bridge a gap, or point at another part.') : $say`Point at the areas on the table: ${areaCount} are enclosed, ${fill.at.length} filled.` }}</p>
  <div v-if="fill !== undefined && areaCount > 0" class="row">
    <button type="button" class="plain-button" @click="operations.pointAll(true)">Fill all</button>
    <button type="button" class="plain-button" :disabled="fill.at.length === 0" @click="operations.pointAll(false)">Fill none</button>
  </div>
  <div v-if="fill !== undefined && areaCount > 0" class="areas" role="group" aria-label="Enclosed areas">
    <button v-for="(area, k) in operations.areas.value.slice(0, MOST_AREAS)" :key="k" type="button" :aria-pressed="area.isFilled" :aria-label="$say`Area ${k + 1}`" @click="operations.pointArea(area.x, area.y)">{{ k + 1 }}</button>
  </div>
  <QuantityInput v-for="{ key, label, least, most, kind, value } in quantities" :key="key" :kind="kind ?? 'length'" :label="label" :unit="settings.unit" :model-value="value" :least="least" :most="most" :step="0.1" :digits="2" @change="drag(key, $event)" @done="set(key, $event)" @cancel="bench.revert" />
  <QuantityInput v-for="{ key, label, least, most, value } in counts" :key="key" :label="label" :model-value="value" :least="least" :most="most" @change="drag(key, Math.round($event))" @done="set(key, Math.round($event))" @cancel="bench.revert" />
  <label v-for="{ key, label, choices: own, value } in choices" :key="key" class="row"><span>{{ label }}</span><ChoiceInput :label="label" small :choices="own" :model-value="value" @choose="set(key, $event)" /></label>
  <label v-for="{ key, label, value } in switches" :key="key" class="row"><span>{{ label }}</span><ElSwitch size="small" :aria-label="label" :model-value="value" @change="set(key, $event === true)" /></label>
  <FilmChoice v-if="'film' in operation" :films="parts.films.value" :model-value="operation.film" aria-label="Film of the operation" @choose="operations.set(operation, change('film', $event.id), $event)" />
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.areas {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  max-height: 92px;
  overflow-y: auto;
}
.areas button {
  min-width: 27px;
  height: 26px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  font-variant-numeric: tabular-nums;
  cursor: pointer;
}
.areas button[aria-pressed='true'] {
  border-color: var(--madder);
  background: var(--madder);
  color: #fff;
}
.areas button:focus-visible {
  outline: 2px solid var(--madder);
}
.about {
  margin: 4px 0;
  color: var(--ink-soft);
}
</style>
