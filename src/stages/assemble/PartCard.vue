<script setup lang="ts">
import { ElSelect, ElSwitch } from 'element-plus';
import { computed } from 'vue';
import type { FilmedObject } from '../../core/edit/objectEdits.ts';
import type { FigureObject, LetteringObject } from '../../core/job/objects.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import LetteringSettings from './LetteringSettings.vue';
import type { Parts } from './useParts.ts';

/** What the selected part is, on which film, and where. */
const props = defineProps<{ parts: Parts; part: FilmedObject }>();
const bench = useBench();
const settings = useSettings();

const shape = computed(() => (props.part.kind === 'figure' ? props.part.shape : undefined));
const film = computed(() => props.parts.films.value.find(({ id }) => id === props.part.film));
const asFigure = (change: Partial<FigureObject['shape']>) => (object: FilmedObject): FilmedObject => (object.kind === 'figure' ? { ...object, shape: { ...object.shape, ...change } as FigureObject['shape'] } : object);
function setShape(label: string, change: Partial<FigureObject['shape']>): void {
  props.parts.preview(asFigure(change));
  bench.commitPreview(label);
}
const setCut = (on: boolean): void => props.parts.commit(on ? 'Cut out of what lies below' : 'A film of its own', ({ cutsOut: _before, ...object }) => (on ? { ...object, cutsOut: true } : object) as FilmedObject);
/** Bound as a whole: the component's declared types take its options for prop definitions. */
const filmChoices = computed(() => ({ options: props.parts.films.value.map(({ id, name }) => ({ value: id, label: name })) }) as object);
function chooseFilm(id: string): void {
  const found = props.parts.films.value.find((each) => each.id === id);
  if (found !== undefined) props.parts.setFilm(found);
}
/** Moves the part until its box begins there. */
function setPlace(change: { left?: number; top?: number }): void {
  const box = props.parts.box.value;
  if (box === undefined) return;
  bench.commit('Place', props.parts.shifted(props.part.id, (change.left ?? box.left) - box.left, (change.top ?? box.top) - box.top));
}
</script>

<template>
  <TrayCard :title="part.kind === 'lettering' ? 'Lettering' : shape?.form === 'round' ? 'Round' : 'Rectangle'">
    <LetteringSettings v-if="part.kind === 'lettering'" :parts="parts" :lettering="(part as LetteringObject).lettering" />
    <template v-if="shape !== undefined">
      <QuantityInput kind="length" label="Part width" :unit="settings.unit" :model-value="shape.widthMm" :least="0.5" :most="5000" @change="parts.preview(asFigure({ widthMm: $event }))" @done="setShape('Width', { widthMm: $event })" @cancel="bench.revert" />
      <QuantityInput kind="length" label="Part height" :unit="settings.unit" :model-value="shape.heightMm" :least="0.5" :most="5000" @change="parts.preview(asFigure({ heightMm: $event }))" @done="setShape('Height', { heightMm: $event })" @cancel="bench.revert" />
      <QuantityInput v-if="shape.form === 'rectangle'" kind="length" label="Corner radius" :unit="settings.unit" :model-value="shape.cornerMm ?? 0" :least="0" :most="2500" @change="parts.preview(asFigure({ cornerMm: $event }))" @done="setShape('Corners', { cornerMm: $event })" @cancel="bench.revert" />
    </template>
    <label class="row"><span>Cut out of what lies below</span><ElSwitch size="small" :model-value="part.cutsOut === true" @change="setCut($event === true)" /></label>
    <label v-if="part.cutsOut !== true" class="row">
      <span>Film</span>
      <ElSelect v-bind="filmChoices" class="films" :model-value="film?.id ?? ''" aria-label="Film of the part" @change="chooseFilm($event as string)">
        <template #prefix><i class="swatch" :style="{ background: film?.colour }" /></template>
      </ElSelect>
    </label>
    <template v-if="parts.box.value !== undefined">
      <QuantityInput kind="length" label="From the design’s left" :unit="settings.unit" :model-value="parts.box.value.left" :least="-10000" :most="10000" @done="setPlace({ left: $event })" />
      <QuantityInput kind="length" label="From the design’s top" :unit="settings.unit" :model-value="parts.box.value.top" :least="-10000" :most="10000" @done="setPlace({ top: $event })" />
    </template>
  </TrayCard>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 30px;
}
.films {
  width: 168px;
}
.swatch {
  display: inline-block;
  width: 12px;
  height: 12px;
  border: 1px solid var(--ink-soft);
  vertical-align: -1px;
}
</style>
