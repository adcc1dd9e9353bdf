<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed, shallowRef, watch } from 'vue';
import { MAX_RIM_PX } from '../../core/clean/steps/subjectLift.ts';
import { MAX_TIDY_PX } from '../../core/clean/steps/edgeTidying.ts';
import { MAX_GUARD_PX, MAX_TOLERANCE } from '../../core/clean/steps/areaLift.ts';
import { isAppError } from '../../core/errors/appError.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { STEP_NAMES, type Step } from '../../core/clean/recipe.ts';
import type { StepReport } from '../../core/run/applyRecipe.ts';
import { stepsBefore, withChanged } from '../../core/edit/recipeEdits.ts';
import type { ReachView } from '../../engine/protocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import LevelsSettings from './LevelsSettings.vue';
import ToleranceCurve from './ToleranceCurve.vue';
import TurnSettings from './TurnSettings.vue';
import { say } from '../../core/words/say.ts';

const THRESHOLDS = [{ value: 'local', name: say('local') }, { value: 'found', name: say('found') }, { value: 'fixed', name: say('fixed') }] as const;
const TIMES = [{ value: '2', name: '2×' }, { value: '4', name: '4×' }] as const;

const props = defineProps<{ step: Step; report: StepReport | undefined }>();
const bench = useBench();
const settings = useSettings();
const part = computed(() => bench.part as TracedPart);

const changed = (change: Partial<Step>): TracedPart => ({ ...part.value, recipe: withChanged(part.value.recipe, props.step.id, change as never) });
const label = computed(() => STEP_NAMES[props.step.kind]);
const drag = (change: Partial<Step>): void => bench.previewPart(changed(change));
const set = (change: Partial<Step>): void => {
  bench.previewPart(changed(change));
  bench.commitPreview(say`${label.value}: settings`);
};

/** Gap mending everywhere again. */
function withoutFrame(): void {
  const { frame: _frame, ...rest } = props.step as Extract<Step, { kind: 'gapMending' }>;
  bench.commitPart(say('Gap mending: whole picture'), { ...part.value, recipe: part.value.recipe.map((each) => (each.id === rest.id ? rest : each)) });
}

/** The area curve of the lift that is open, for the steps before it. */
const reach = shallowRef<ReachView>();
const reachInput = computed(() => {
  const { step } = props;
  if (step.kind !== 'areaLift' || bench.picture === undefined) return undefined;
  return JSON.stringify([bench.picture.pictureKey, step.at, stepsBefore(part.value.recipe, step.id)]);
});
watch(reachInput, async (input) => {
  const { step } = props;
  const of = bench.ofJob();
  reach.value = undefined;
  if (input === undefined || step.kind !== 'areaLift' || of === undefined) return;
  try {
    const found = await bench.reach({ ...of, recipe: stepsBefore(part.value.recipe, step.id), at: step.at });
    if (reachInput.value === input) reach.value = found;
  } catch (error) {
    // A point off the art has no curve; the step's own line says so.
    if (!isAppError(error)) throw error;
  }
}, { immediate: true });
const tolerance = computed(() => (props.step.kind === 'areaLift' ? (props.step.tolerance === 'auto' ? (props.report?.facts['tolerance'] ?? reach.value?.tolerance ?? 0) : props.step.tolerance) : 0));
const tones = computed(() => (props.step.kind !== 'fewerColours' || props.step.tones === 'auto' ? Math.max(2, props.report?.facts['tones'] ?? 2) : props.step.tones));
</script>

<template>
  <div class="settings">
    <template v-if="step.kind === 'areaLift'">
      <ToleranceCurve
        v-if="reach !== undefined" :area-by-level="reach.areaByLevel" :tolerance="tolerance" :holds-from="reach.holdsFrom" :holds-to="reach.holdsTo"
        @change="drag({ tolerance: $event })" @done="set({ tolerance: $event })" @cancel="bench.revert"
      />
      <QuantityInput label="Tolerance (colour difference)" :model-value="tolerance" :least="0" :most="MAX_TOLERANCE" :step="0.1" @change="drag({ tolerance: $event })" @done="set({ tolerance: $event })" @cancel="bench.revert" />
      <label class="row"><span>Automatic tolerance</span><ElSwitch size="small" :model-value="step.tolerance === 'auto'" @change="set({ tolerance: $event === true ? 'auto' : tolerance })" /></label>
      <label class="row"><span>Also enclosed areas of this colour</span><ElSwitch size="small" :model-value="step.enclosed" @change="set({ enclosed: $event === true })" /></label>
      <label class="row"><span>Soft edge</span><ElSwitch size="small" :model-value="step.soft" @change="set({ soft: $event === true })" /></label>
      <QuantityInput label="Stop at gaps narrower than" suffix="px" :model-value="step.guardPx ?? 0" :least="0" :most="MAX_GUARD_PX" :digits="1" @change="drag({ guardPx: $event })" @done="set({ guardPx: $event })" @cancel="bench.revert" />
    </template>
    <template v-else-if="step.kind === 'colourLift'">
      <label class="row"><span>Colour</span><input type="color" :value="step.colour" aria-label="Colour to lift" @change="set({ colour: ($event.target as HTMLInputElement).value })" /></label>
      <QuantityInput label="Tolerance (colour difference)" :model-value="step.tolerance" :least="0" :most="MAX_TOLERANCE" :step="0.1" @change="drag({ tolerance: $event })" @done="set({ tolerance: $event })" @cancel="bench.revert" />
      <label class="row"><span>Soft edge</span><ElSwitch size="small" :model-value="step.soft" @change="set({ soft: $event === true })" /></label>
    </template>
    <template v-else-if="step.kind === 'sweep'">
      <QuantityInput kind="area" :unit="settings.unit" label="Remove specks smaller than" :model-value="step.speckMm2" :least="0" :most="10000" :step="0.1" :digits="2" @change="drag({ speckMm2: $event })" @done="set({ speckMm2: $event })" @cancel="bench.revert" />
      <QuantityInput kind="area" :unit="settings.unit" label="Fill pinholes smaller than" :model-value="step.pinholeMm2" :least="0" :most="10000" :step="0.1" :digits="2" @change="drag({ pinholeMm2: $event })" @done="set({ pinholeMm2: $event })" @cancel="bench.revert" />
      <p>{{ report?.facts['specks'] ?? 0 }} specks, {{ report?.facts['pinholes'] ?? 0 }} pinholes found</p>
    </template>
    <LevelsSettings v-else-if="step.kind === 'levels'" :step="step" :report="report" />
    <template v-else-if="step.kind === 'lightLevelling'">
      <QuantityInput label="Strength" suffix="%" :model-value="step.strength * 100" :least="0" :most="100" :digits="0" @change="drag({ strength: $event / 100 })" @done="set({ strength: $event / 100 })" @cancel="bench.revert" />
      <p>For art on light paper: the paper becomes plain white, broad dark areas stay.</p>
    </template>
    <template v-else-if="step.kind === 'smoothing'">
      <QuantityInput label="Smooth differences up to" :model-value="step.strength" :least="1" :most="100" :digits="0" @change="drag({ strength: $event })" @done="set({ strength: $event })" @cancel="bench.revert" />
      <p>In levels of 255. Larger differences are edges and stay.</p>
    </template>
    <template v-else-if="step.kind === 'fewerColours'">
      <label class="row"><span>Find colours automatically</span><ElSwitch size="small" :model-value="step.tones === 'auto'" @change="set({ tones: $event === true ? 'auto' : tones })" /></label>
      <QuantityInput label="Tones with background" :model-value="tones" :least="2" :most="32" :digits="0" @change="drag({ tones: Math.round($event) })" @done="set({ tones: Math.round($event) })" @cancel="bench.revert" />
    </template>
    <template v-else-if="step.kind === 'gapMending'">
      <QuantityInput label="Close gaps up to" suffix="px" :model-value="step.widestPx" :least="1" :most="500" :digits="1" @change="drag({ widestPx: $event })" @done="set({ widestPx: $event })" @cancel="bench.revert" />
      <p>In picture pixels, between the ink on both sides. Lettering is left as it is. Drag a frame on the table to mend only there, lettering too.</p>
      <button v-if="step.frame !== undefined" type="button" class="plain-button" @click="withoutFrame">Mend the whole picture</button>
    </template>
    <template v-else-if="step.kind === 'linePick'">
      <div class="row"><span>Threshold</span><ViewSwitch :model-value="typeof step.threshold === 'number' ? 'fixed' : (step.threshold ?? 'local')" :choices="THRESHOLDS" label="Threshold" @update:model-value="set({ threshold: $event === 'fixed' ? 128 : $event })" /></div>
      <QuantityInput v-if="typeof step.threshold === 'number'" label="Ink is darker than" :model-value="step.threshold" :least="0" :most="255" :digits="0" @change="drag({ threshold: $event })" @done="set({ threshold: $event })" @cancel="bench.revert" />
      <QuantityInput v-else label="Fine detail" suffix="%" :model-value="step.detail * 100" :least="0" :most="100" :digits="0" @change="drag({ detail: $event / 100 })" @done="set({ detail: $event / 100 })" @cancel="bench.revert" />
      <p>{{ typeof step.threshold === 'number' ? $say('The same lightness everywhere.') : step.threshold === 'found' ? $say('One threshold for the whole picture: for even light.') : $say('By what surrounds each place: also for shade.') }}</p>
    </template>
    <template v-else-if="step.kind === 'crop'"><slot /></template>
    <TurnSettings v-else-if="step.kind === 'turn'" :step="step" :report="report" />
    <slot v-else-if="step.kind === 'squaring'" />
    <template v-else-if="step.kind === 'enlarging'">
      <div class="row"><span>Times as large</span><ViewSwitch :model-value="step.times === 2 ? '2' : '4'" :choices="TIMES" label="Times as large" @update:model-value="set({ times: $event === '2' ? 2 : 4 })" /></div>
      <p>Flat art is drawn anew from its outlines; shaded art is made larger as it is.</p>
    </template>
    <template v-else-if="step.kind === 'edgeTidying'">
      <QuantityInput label="Smooth jagged edges up to" suffix="px" :model-value="step.amountPx" :least="0.5" :most="MAX_TIDY_PX" :step="0.1" @change="drag({ amountPx: $event })" @done="set({ amountPx: $event })" @cancel="bench.revert" />
      <p>In picture pixels. Corners, thin parts and counters stay.</p>
    </template>
    <template v-else-if="step.kind === 'subjectLift'">
      <p v-if="report?.facts['unsure'] === 1">Nothing parts the subject from what is behind it. Brush over what belongs to it, then press <kbd>K</kbd> and brush over what does not: here strokes count everywhere.</p>
      <p v-else>Where it went wrong, brush over what belongs to the subject, or press <kbd>K</kbd> and brush over what does not. Strokes act near themselves.</p>
      <label class="row"><span>Only the largest part</span><ElSwitch size="small" :model-value="step.largest === true" @change="set({ largest: $event === true })" /></label>
      <QuantityInput label="Hair and soft edges up to" suffix="px" :model-value="step.rimPx ?? 0" :least="0" :most="MAX_RIM_PX" :digits="0" @change="drag({ rimPx: $event })" @done="set({ rimPx: $event })" @cancel="bench.revert" />
      <button v-if="step.strokes.length > 0" type="button" class="plain-button" @click="set({ strokes: [] })">Clear strokes</button>
      <slot />
    </template>
    <template v-else><p>Brush on the table. <kbd>,</kbd> and <kbd>.</kbd> or Alt and the wheel change the size; Shift draws straight on from the last stroke.</p><slot /></template>
  </div>
</template>

<style scoped>
.settings {
  display: grid;
  gap: 4px;
  margin-top: 8px;
}
/* Settings that are components of their own look the same. */
.settings :deep(.row) {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 28px;
}
input[type='color'] {
  width: 44px;
  height: 24px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 1px;
  background: none;
}
.settings :deep(p) {
  margin: 2px 0;
  color: var(--ink-soft);
  font-size: 12.5px;
}
kbd {
  padding: 0 4px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  font: inherit;
}
</style>
