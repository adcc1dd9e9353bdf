<script setup lang="ts">
import type { FilmedObject } from '../../core/edit/objectEdits.ts';
import type { Figure } from '../../core/figure/figure.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import type { Parts } from './useParts.ts';
import { say } from '../../core/words/say.ts';

/** The measures of a figure: of each form those that it has. */
const props = defineProps<{ parts: Parts; shape: Figure }>();
const bench = useBench();
const settings = useSettings();

type Change = Partial<Record<string, number | string | undefined>>;
const asFigure = (change: Change) => (object: FilmedObject): FilmedObject => (object.kind === 'figure' ? { ...object, shape: { ...object.shape, ...change } as Figure } : object);
const drag = (change: Change): void => props.parts.preview(asFigure(change));
function set(label: string, change: Change): void {
  drag(change);
  bench.commitPreview(label);
}

/** Lengths that forms have beside their width and height. */
const LENGTHS = [
  ['cornerMm', say('Corner radius'), 0],
  ['bandMm', say('Band width'), 0.1],
  ['tailMm', say('Tail'), 0.1],
] as const;
const lengths = (shape: Figure) => LENGTHS.flatMap(([key, label, least]) => (key in shape || (key === 'cornerMm' && ['rectangle', 'polygon', 'star', 'speech'].includes(shape.form)) ? [{ key, label, least, value: (shape as unknown as Record<string, number | undefined>)[key] ?? 0 }] : []));
const ENDS = { round: say('round'), flat: say('flat'), pointed: say('pointed') } as const;
const BAND_ENDS = { round: say('round'), flat: say('flat') } as const;
</script>

<template>
  <QuantityInput kind="length" label="Part width" :unit="settings.unit" :model-value="shape.widthMm" :least="0.5" :most="5000" @change="drag({ widthMm: $event })" @done="set($say('Width'), { widthMm: $event })" @cancel="bench.revert" />
  <QuantityInput kind="length" label="Part height" :unit="settings.unit" :model-value="shape.heightMm" :least="0.5" :most="5000" @change="drag({ heightMm: $event })" @done="set($say('Height'), { heightMm: $event })" @cancel="bench.revert" />
  <QuantityInput v-for="{ key, label, least, value } in lengths(shape)" :key="key" kind="length" :label="label" :unit="settings.unit" :model-value="value" :least="least" :most="2500" @change="drag({ [key]: $event })" @done="set(label, { [key]: $event })" @cancel="bench.revert" />
  <QuantityInput v-if="'corners' in shape" :label="shape.form === 'star' ? $say('Points') : $say('Sides')" :model-value="shape.corners" :least="3" :most="60" @change="drag({ corners: Math.round($event) })" @done="set($say('Points'), { corners: Math.round($event) })" @cancel="bench.revert" />
  <QuantityInput v-if="shape.form === 'star'" label="Depth" suffix="%" :model-value="100 * shape.depth" :least="2" :most="98" @change="drag({ depth: $event / 100 })" @done="set($say('Depth'), { depth: $event / 100 })" @cancel="bench.revert" />
  <QuantityInput v-if="shape.form === 'arc'" label="Sweep angle" suffix="°" :model-value="shape.sweepDeg" :least="1" :most="359" @change="drag({ sweepDeg: $event })" @done="set($say('Sweep angle'), { sweepDeg: $event })" @cancel="bench.revert" />
  <QuantityInput v-if="shape.form === 'wave'" label="Waves" :model-value="shape.waves" :least="1" :most="50" @change="drag({ waves: Math.round($event) })" @done="set($say('Waves'), { waves: Math.round($event) })" @cancel="bench.revert" />
  <QuantityInput v-if="shape.form === 'speech'" label="Point at" suffix="%" :model-value="100 * shape.at" :least="0" :most="100" @change="drag({ at: $event / 100 })" @done="set($say('Point'), { at: $event / 100 })" @cancel="bench.revert" />
  <label v-if="shape.form === 'bar'" class="row"><span>Ends</span><ChoiceInput label="Ends" small :choices="ENDS" :model-value="shape.ends" @choose="set($say('Ends'), { ends: $event })" /></label>
  <label v-if="shape.form === 'arc'" class="row"><span>Ends</span><ChoiceInput label="Ends" small :choices="BAND_ENDS" :model-value="shape.ends" @choose="set($say('Ends'), { ends: $event })" /></label>
</template>

<style scoped src="../shared/rows.css" />
