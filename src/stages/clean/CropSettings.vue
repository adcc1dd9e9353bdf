<script setup lang="ts">
import { computed, ref } from 'vue';
import type { CropStep } from '../../core/clean/steps/crop.ts';
import type { Job } from '../../core/job/job.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { withChanged } from '../../core/edit/recipeEdits.ts';
import { useBench } from '../../stores/bench.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import { withAspect } from './cropDrag.ts';
import { say } from '../../core/words/say.ts';

/** The crop frame in numbers, and the shape that it keeps while it is dragged. */
const props = defineProps<{ step: CropStep }>();
const aspect = defineModel<number | undefined>('aspect', { required: true });
const bench = useBench();
const part = computed(() => bench.part as TracedPart);
const blank = computed(() => (bench.job as Job).blank);
const picture = computed(() => ({ widthPx: bench.base?.widthPx ?? 1, heightPx: bench.base?.heightPx ?? 1 }));

const SHAPES = { free: say('any'), now: say('as it is now'), picture: say('as the picture'), blank: say('as the blank'), square: say('square') } as const;
type Shape = keyof typeof SHAPES;
const shape = ref<Shape>(aspect.value === undefined ? 'free' : 'now');

type Rect = CropStep['rect'];
const changed = (rect: Rect): TracedPart => ({ ...part.value, recipe: withChanged<'crop'>(part.value.recipe, props.step.id, { rect }) });
const drag = (change: Partial<Rect>): void => bench.previewPart(changed(kept({ ...props.step.rect, ...change })));
function set(rect: Rect): void {
  bench.previewPart(changed(rect));
  bench.commitPreview(say('Crop'));
}
/** A frame whose one side was typed, in its shape and inside the picture. */
function kept(rect: Rect): Rect {
  const { widthPx, heightPx } = picture.value;
  const inside = { ...rect, widthPx: Math.min(rect.widthPx, widthPx - rect.xPx), heightPx: Math.min(rect.heightPx, heightPx - rect.yPx) };
  if (aspect.value === undefined) return inside;
  const hold = rect.heightPx === props.step.rect.heightPx ? 'e' : 's';
  const fitted = withAspect(inside, hold, { x: rect.xPx, y: rect.yPx }, aspect.value, widthPx, heightPx);
  return { ...fitted };
}
function chooseShape(next: Shape): void {
  shape.value = next;
  const { rect } = props.step;
  const ratio = { free: undefined, now: rect.widthPx / rect.heightPx, picture: picture.value.widthPx / picture.value.heightPx, blank: blank.value.widthMm / blank.value.heightMm, square: 1 }[next];
  aspect.value = ratio;
  if (ratio !== undefined) set({ ...withAspect(rect, 'se', { x: rect.xPx, y: rect.yPx }, ratio, picture.value.widthPx, picture.value.heightPx) });
}
</script>

<template>
  <label class="row"><span>Shape of the frame</span><ChoiceInput class="shape" small :model-value="shape" :choices="SHAPES" label="Shape of the frame" @choose="chooseShape" /></label>
  <QuantityInput label="From the left" suffix="px" :model-value="step.rect.xPx" :least="0" :most="picture.widthPx - step.rect.widthPx" :digits="0" @change="drag({ xPx: $event })" @done="set({ ...step.rect, xPx: $event })" @cancel="bench.revert" />
  <QuantityInput label="From the top" suffix="px" :model-value="step.rect.yPx" :least="0" :most="picture.heightPx - step.rect.heightPx" :digits="0" @change="drag({ yPx: $event })" @done="set({ ...step.rect, yPx: $event })" @cancel="bench.revert" />
  <QuantityInput label="Width" suffix="px" :model-value="step.rect.widthPx" :least="1" :most="picture.widthPx" :digits="0" @change="drag({ widthPx: $event })" @done="set(kept({ ...step.rect, widthPx: $event }))" @cancel="bench.revert" />
  <QuantityInput label="Height" suffix="px" :model-value="step.rect.heightPx" :least="1" :most="picture.heightPx" :digits="0" @change="drag({ heightPx: $event })" @done="set(kept({ ...step.rect, heightPx: $event }))" @cancel="bench.revert" />
  <p>Drag the frame’s edges and corners on the table, or draw a new one.</p>
</template>

<style scoped>
.shape {
  width: 140px;
}
</style>
