<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import type { StepReport } from '../../core/run/applyRecipe.ts';
import { turnedPart } from '../../core/edit/carriedPart.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { MAX_STRAIGHTEN_DEG, type TurnStep } from '../../core/clean/steps/turn.ts';
import { useBench } from '../../stores/bench.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import { sizeBeforeTurn } from './sizeBeforeTurn.ts';
import { say } from '../../core/words/say.ts';

const props = defineProps<{ step: TurnStep; report: StepReport | undefined }>();
const bench = useBench();

/** The part with the turn changed; what was put on the picture after it stays where it was put. */
function changed(change: Partial<TurnStep>): TracedPart {
  return turnedPart(bench.part as TracedPart, props.step.id, { ...props.step, ...change }, sizeBeforeTurn(props.report, bench.base));
}
const set = (words: string, change: Partial<TurnStep>): void => bench.commitPart(say`Turn: ${words}`, changed(change));
const quarter = (by: 1 | 3): void => set(by === 1 ? say('quarter to the right') : say('quarter to the left'), { quarters: ((props.step.quarters + by) % 4) as TurnStep['quarters'] });
function straighten(angleDeg: number): void {
  bench.previewPart(changed({ angleDeg }));
  bench.commitPreview(say('Turn: straightened'));
}
</script>

<template>
  <div class="quarters">
    <button type="button" class="plain-button" @click="quarter(3)">Quarter left</button>
    <button type="button" class="plain-button" @click="quarter(1)">Quarter right</button>
  </div>
  <QuantityInput label="Straighten by" suffix="°" :model-value="step.angleDeg" :least="-MAX_STRAIGHTEN_DEG" :most="MAX_STRAIGHTEN_DEG" :step="0.1" @change="bench.previewPart(changed({ angleDeg: $event }))" @done="straighten($event)" @cancel="bench.revert" />
  <label class="row"><span>Mirror the art itself</span><ElSwitch size="small" :model-value="step.mirrored" @change="set($say('mirrored'), { mirrored: $event === true })" /></label>
  <p>Draw along an edge on the table, and it comes to lie level or upright. Mirroring for the cutter is set in Lay out.</p>
</template>

<style scoped>
.quarters {
  display: flex;
  gap: 8px;
}
</style>
