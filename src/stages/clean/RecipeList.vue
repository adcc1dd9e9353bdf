<script setup lang="ts">
import { ArrowDown, ArrowUp, GripVertical, Trash2 } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { STEP_NAMES, type Step } from '../../core/clean/recipe.ts';
import { turnedPart } from '../../core/edit/carriedPart.ts';
import { basesFirst } from '../../core/edit/carryTurn.ts';
import { withChanged, withMoved, withoutStep } from '../../core/edit/recipeEdits.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { sizeBeforeTurn } from './sizeBeforeTurn.ts';
import { STEP_ICONS } from './stepIcons.ts';
import StepSettings from './StepSettings.vue';
import { stepWords } from './stepWords.ts';
import { inSentence, say } from '../../core/words/say.ts';

defineProps<{ selected: string | undefined }>();
const emit = defineEmits<{ select: [id: string | undefined] }>();

const bench = useBench();
const settings = useSettings();
const part = computed(() => bench.part as TracedPart);
const reports = computed(() => new Map(bench.result?.clean.steps.map((report) => [report.id, report])));

const commit = (label: string, recipe: Step[]): void => bench.commitPart(label, { ...part.value, recipe });
const steps = computed({
  get: () => [...part.value.recipe],
  set: (recipe: Step[]) => {
    if (recipe.map(({ id }) => id).join() !== part.value.recipe.map(({ id }) => id).join()) commit(say('Order of steps'), basesFirst(recipe));
  },
});
const sizeBefore = (step: Step): { widthPx: number; heightPx: number } => sizeBeforeTurn(reports.value.get(step.id), bench.base);
function toggle(step: Step): void {
  const next = { ...step, enabled: !step.enabled };
  const label = step.enabled ? say`${STEP_NAMES[step.kind]} off` : say`${STEP_NAMES[step.kind]} on`;
  if (next.kind === 'turn') bench.commitPart(label, turnedPart(part.value, step.id, next, sizeBefore(step)));
  else commit(label, withChanged(part.value.recipe, step.id, { enabled: next.enabled }));
}
function remove(step: Step): void {
  emit('select', undefined);
  const label = say`Remove ${inSentence(STEP_NAMES[step.kind])}`;
  if (step.kind === 'turn') bench.commitPart(label, turnedPart(part.value, step.id, undefined, sizeBefore(step)));
  else commit(label, withoutStep(part.value.recipe, step.id));
}
const move = (step: Step, by: number): void => commit(say`Move ${inSentence(STEP_NAMES[step.kind])}`, basesFirst(withMoved(part.value.recipe, step.id, by)));
</script>

<template>
  <VueDraggable v-model="steps" handle=".grip" :animation="120" tag="ol" class="recipe" aria-label="Recipe">
    <li v-for="(step, index) in steps" :key="step.id" class="step" :class="{ open: step.id === selected, off: !step.enabled }">
      <div class="head">
        <component :is="STEP_ICONS[step.kind]" class="icon" aria-hidden="true" />
        <button type="button" class="names" :aria-expanded="step.id === selected" @click="emit('select', step.id === selected ? undefined : step.id)">
          <span class="name">{{ STEP_NAMES[step.kind] }}</span>
          <span class="words">{{ stepWords(step, reports.get(step.id), settings.unit) }}</span>
        </button>
        <ElSwitch size="small" :model-value="step.enabled" :aria-label="$say`${STEP_NAMES[step.kind]} on`" @change="toggle(step)" />
      </div>
      <template v-if="step.id === selected">
        <StepSettings :step="step" :report="reports.get(step.id)"><slot /></StepSettings>
        <div class="tools">
          <span class="grip" title="Drag to another place"><GripVertical /> drag</span>
          <button type="button" :disabled="index === 0" @click="move(step, -1)"><ArrowUp /> earlier</button>
          <button type="button" :disabled="index === steps.length - 1" @click="move(step, 1)"><ArrowDown /> later</button>
          <button type="button" @click="remove(step)"><Trash2 /> remove</button>
        </div>
      </template>
    </li>
  </VueDraggable>
</template>

<style scoped src="../shared/stepList.css" />

<style scoped>
.recipe {
  margin: 0;
  padding: 0;
  list-style: none;
}
.step {
  padding: 10px 16px;
  border-bottom: 1px solid var(--rule);
}
.step.open {
  background: var(--felt-soft);
}
.head {
  display: flex;
  align-items: flex-start;
  gap: 12px;
}
.icon {
  width: 17px;
  margin-top: 3px;
}
.grip {
  cursor: grab;
}
.tools :deep(svg) {
  width: 14px;
}
</style>
