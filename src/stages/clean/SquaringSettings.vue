<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed, watch } from 'vue';
import type { SquaringStep } from '../../core/clean/steps/squaring.ts';
import type { StepReport } from '../../core/run/applyRecipe.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { withChanged } from '../../core/edit/recipeEdits.ts';
import { numberWords } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import type { useCorners } from './useCorners.ts';
import { say } from '../../core/words/say.ts';

const props = defineProps<{ step: SquaringStep; report: StepReport | undefined; corners: ReturnType<typeof useCorners> }>();
const bench = useBench();
const settings = useSettings();
const part = computed(() => bench.part as TracedPart);
const facts = computed(() => props.report?.facts ?? {});
const pxPerMm = computed(() => facts.value['pxPerMm']);

const changed = (change: Partial<SquaringStep>): TracedPart => ({ ...part.value, recipe: withChanged<'squaring'>(part.value.recipe, props.step.id, change) });
const set = (words: string, change: Partial<SquaringStep>): void => bench.commitPart(say`Squaring: ${words}`, changed(change));

const WAYS = [{ value: 'sheet', name: say('mark sheet') }, { value: 'corners', name: say('four corners') }] as const;
function chooseWay(way: 'sheet' | 'corners'): void {
  if (way === props.step.marks.by) return;
  if (way === 'sheet') set(say('by the mark sheet'), { marks: { by: 'sheet' } });
  else props.corners.begin();
}
const byCorners = computed(() => (props.step.marks.by === 'corners' ? props.step.marks : undefined));
type Side = { widthMm: number } | { heightMm: number | undefined };
function setSide(side: Side): void {
  if (byCorners.value === undefined) return;
  bench.previewPart(withSide(side));
  bench.commitPreview(say('Squaring: length'));
}
function withSide(side: Side): TracedPart {
  const marks = { ...(byCorners.value as Extract<SquaringStep['marks'], { by: 'corners' }>), ...side };
  if (marks.heightMm === undefined) delete marks.heightMm;
  return changed({ marks });
}

/** How this camera's lens bends, from the last photo of the mark sheet that it took. */
const camera = computed(() => bench.picture?.camera);
const knownLens = computed(() => (camera.value === undefined ? undefined : settings.lensOf(camera.value)));
watch(() => bench.result, (result) => {
  const found = result?.quality === 'final' ? facts.value : {};
  const { k1, k2 } = found;
  if (props.step.marks.by === 'sheet' && props.step.lens === undefined && camera.value !== undefined && k1 !== undefined && k2 !== undefined) settings.rememberLens(camera.value, { k1, k2 });
}, { immediate: true });
function useLens(on: boolean): void {
  if (on && knownLens.value !== undefined) set(say('lens of the camera'), { lens: knownLens.value });
  else set(say('lens not known'), { lens: undefined });
}

/** The size, mm, at which the art is as large as the work on the photo was. */
const trueSizeMm = computed(() => {
  const resolution = bench.resolutionPxPerMm;
  return pxPerMm.value === undefined || resolution === undefined ? undefined : Math.round(((part.value.size.sizeMm * resolution) / pxPerMm.value) * 100) / 100;
});
function useTrueSize(): void {
  if (trueSizeMm.value !== undefined) bench.commitPart(say('Cut at true size'), { ...part.value, size: { ...part.value.size, sizeMm: trueSizeMm.value } });
}
</script>

<template>
  <ViewSwitch :model-value="step.marks.by" :choices="WAYS" label="Squared by" @update:model-value="chooseWay" />
  <template v-if="byCorners === undefined">
    <p>Print the mark sheet at 100 %, lay the work inside its rings and photograph the whole sheet.</p>
    <p class="sheets">
      <a href="/mark-sheet-a4.pdf" download>Mark sheet A4</a>
      <a href="/mark-sheet-letter.pdf" download>Mark sheet Letter</a>
    </p>
    <p v-if="facts['marksFound'] !== undefined">{{ facts['marksFound'] }} marks found; they lie within {{ numberWords(facts['meanMissMm'] ?? 0, 2) }} mm, the worst {{ numberWords(facts['worstMissMm'] ?? 0, 2) }} mm.</p>
  </template>
  <template v-else>
    <p>Drag the rings to the corners of something square, clockwise from its upper left. The red side is the one whose length you give.</p>
    <QuantityInput kind="length" label="Red side" :unit="settings.unit" :model-value="byCorners.widthMm" :least="1" :most="10000" @change="bench.previewPart(withSide({ widthMm: $event }))" @done="setSide({ widthMm: $event })" @cancel="bench.revert" />
    <label class="row"><span>I know the other side too</span><ElSwitch size="small" :model-value="byCorners.heightMm !== undefined" @change="setSide({ heightMm: $event === true ? Math.round((facts['heightMm'] ?? byCorners.widthMm) * 10) / 10 : undefined })" /></label>
    <QuantityInput v-if="byCorners.heightMm !== undefined" kind="length" label="Other side" :unit="settings.unit" :model-value="byCorners.heightMm" :least="1" :most="10000" @change="bench.previewPart(withSide({ heightMm: $event }))" @done="setSide({ heightMm: $event })" @cancel="bench.revert" />
    <label v-if="camera !== undefined && (knownLens !== undefined || step.lens !== undefined)" class="row"><span>Lens of {{ camera }}</span><ElSwitch size="small" :model-value="step.lens !== undefined" @change="useLens($event === true)" /></label>
    <button type="button" class="plain-button" @click="corners.toggle">{{ corners.setting.value ? $say('Show it flat') : $say('Set the corners') }}</button>
  </template>
  <label class="row"><span>Also level the light</span><ElSwitch size="small" :model-value="step.levelLight" @change="set($say('light'), { levelLight: $event === true })" /></label>
  <button v-if="trueSizeMm !== undefined && Math.abs(trueSizeMm - part.size.sizeMm) > 0.05" type="button" class="plain-button" @click="useTrueSize">Cut at true size, {{ numberWords(trueSizeMm, 1) }} mm {{ part.size.by === 'width' ? $say('wide') : $say('high') }}</button>
</template>

<style scoped>
.sheets {
  display: flex;
  gap: 16px;
}
a {
  color: var(--madder-text);
}
</style>
