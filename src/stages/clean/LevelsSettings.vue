<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed, shallowRef, watch } from 'vue';
import type { LevelsStep } from '../../core/clean/steps/levels.ts';
import { asAppError } from '../../core/errors/appError.ts';
import type { StepReport } from '../../core/run/applyRecipe.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { stepsBefore, withChanged } from '../../core/edit/recipeEdits.ts';
import { useBench } from '../../stores/bench.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import LevelsHistogram from './LevelsHistogram.vue';
import { say } from '../../core/words/say.ts';

const props = defineProps<{ step: LevelsStep; report: StepReport | undefined }>();
const bench = useBench();
const part = computed(() => bench.part as TracedPart);

const changed = (change: Partial<LevelsStep>): TracedPart => ({ ...part.value, recipe: withChanged<'levels'>(part.value.recipe, props.step.id, change) });
const drag = (change: Partial<LevelsStep>): void => bench.previewPart(changed(change));
function set(words: string, change: Partial<LevelsStep>): void {
  bench.previewPart(changed(change));
  bench.commitPreview(say`Levels: ${words}`);
}
/** Both points as numbers, those found where the step finds them itself. */
const points = computed(() => (props.step.points === 'auto' ? { black: props.report?.facts['black'] ?? 0, white: props.report?.facts['white'] ?? 255 } : props.step.points));
const levels = computed(() => ({ ...points.value, gamma: props.step.gamma, brightness: props.step.brightness, contrast: props.step.contrast, saturation: props.step.saturation, invert: props.step.invert }));

/** The lightness of the art that reaches the step. */
const histogram = shallowRef<Float64Array>();
const before = computed(() => JSON.stringify([bench.picture?.pictureKey, stepsBefore(part.value.recipe, props.step.id)]));
watch(before, async (asked) => {
  const of = bench.ofJob();
  if (of === undefined) return;
  try {
    const moment = await bench.moment({ ...of, recipe: stepsBefore(part.value.recipe, props.step.id) });
    if (before.value === asked) histogram.value = moment.histogram;
  } catch (error) {
    // The run beside it tells what is wrong; the numbers below work without the chart.
    if (asAppError(error, 'unexpected').code === 'unexpected') throw error;
  }
}, { immediate: true });

const taken = ({ black, white, gamma }: { black: number; white: number; gamma: number }): Partial<LevelsStep> => (gamma === props.step.gamma ? { points: { black, white } } : { gamma });
</script>

<template>
  <LevelsHistogram v-if="histogram !== undefined" :histogram="histogram" :levels="levels" @change="drag(taken($event))" @done="set($say('points'), taken($event))" @cancel="bench.revert" />
  <div class="row">
    <button type="button" class="plain-button" title="A pale drawing comes out in full black on white" @click="set($say('make it black'), { points: 'auto', gamma: 1, saturation: 0, brightness: 0, contrast: 0 })">Make it black</button>
    <button type="button" class="plain-button" title="As the art is without this step" @click="set($say('as it was'), { points: { black: 0, white: 255 }, gamma: 1, saturation: 1, brightness: 0, contrast: 0, invert: false })">As it was</button>
  </div>
  <label class="row"><span>Automatic black and white points</span><ElSwitch size="small" :model-value="step.points === 'auto'" @change="set($say('points'), { points: $event === true ? 'auto' : { ...points } })" /></label>
  <QuantityInput label="Black from" :model-value="points.black" :least="0" :most="points.white - 1" :digits="0" @change="drag({ points: { ...points, black: $event } })" @done="set($say('black'), { points: { ...points, black: $event } })" @cancel="bench.revert" />
  <QuantityInput label="White from" :model-value="points.white" :least="points.black + 1" :most="255" :digits="0" @change="drag({ points: { ...points, white: $event } })" @done="set($say('white'), { points: { ...points, white: $event } })" @cancel="bench.revert" />
  <QuantityInput label="Middle tones (gamma)" :model-value="step.gamma" :least="0.1" :most="10" :step="0.05" :digits="2" @change="drag({ gamma: $event })" @done="set($say('middle tones'), { gamma: $event })" @cancel="bench.revert" />
  <QuantityInput label="Brightness" suffix="%" :model-value="(step.brightness ?? 0) * 100" :least="-100" :most="100" :digits="0" @change="drag({ brightness: $event / 100 })" @done="set($say('brightness'), { brightness: $event / 100 })" @cancel="bench.revert" />
  <QuantityInput label="Contrast" suffix="%" :model-value="(step.contrast ?? 0) * 100" :least="-100" :most="100" :digits="0" @change="drag({ contrast: $event / 100 })" @done="set($say('contrast'), { contrast: $event / 100 })" @cancel="bench.revert" />
  <QuantityInput label="Colour" suffix="%" :model-value="step.saturation * 100" :least="0" :most="300" :digits="0" @change="drag({ saturation: $event / 100 })" @done="set($say('colour'), { saturation: $event / 100 })" @cancel="bench.revert" />
  <label class="row"><span>Invert light and dark</span><ElSwitch size="small" :model-value="step.invert" @change="set($say('inverted'), { invert: $event === true })" /></label>
</template>
