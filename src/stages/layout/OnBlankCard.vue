<script setup lang="ts">
import { Shirt } from '@lucide/vue';
import { ElMessage, ElSwitch } from 'element-plus';
import { computed, ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import { tracedPart } from '../../core/job/tracedPart.ts';
import { radiiOf } from '../../core/process/blanks.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { guideOf, guidePlan } from '../../core/run/guidePlan.ts';
import { GUIDE_WORDS } from '../../core/proof/placementGuide.ts';
import { proofMeasures, proofWords } from '../../core/proof/proofWords.ts';
import { useBench } from '../../stores/bench.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { download } from '../shared/download.ts';
import { today } from '../shared/today.ts';
import { tellError } from '../shared/tellError.ts';
import { useLayoutEdits } from './useLayoutEdits.ts';
import type { OnBlank } from './useOnBlank.ts';
import { say } from '../../core/words/say.ts';

/** The proof: its measures, another size beside it, and the picture that goes to the customer. */
const props = defineProps<{ onBlank: OnBlank }>();
const bench = useBench();
const { job, layout, set, length, unit } = useLayoutEdits();
const { otherMm } = props.onBlank;
const SIDE_PX = 1800;
const design = computed(() => bench.result?.cut?.design);
const measures = computed(() => (design.value === undefined ? undefined : proofMeasures(job.value.blank, job.value.place, design.value)));
const size = computed(() => tracedPart(job.value).size);
/** Round ones are turned by themselves; designs of several parts are sized in Assemble. */
const isComparable = computed(() => job.value.objects.length === 1 && radiiOf(job.value.blank) === undefined);
/** What the guide is laid at, or why there is none. */
const guideWords = computed(() => {
  if (layout.value.guide !== true || design.value === undefined) return undefined;
  const guide = guideOf(job.value, design.value);
  if (guide === undefined) return say('No room for one: the film begins at the edge that it would be laid at.');
  if (guidePlan(job.value, design.value) === undefined) return say('It is larger than the sheet: choose a larger one to cut it.');
  return say`${GUIDE_WORDS[guide.at]} It is cut with the sheets.`;
});
const saving = ref(false);
async function save(): Promise<void> {
  const of = bench.ofJob();
  if (of === undefined || design.value === undefined) return;
  saving.value = true;
  try {
    const words = proofWords(job.value, design.value, today());
    const fileName = say`${job.value.name}, proof.png`;
    download(fileName, await bench.proofPng({ ...of, sidePx: SIDE_PX, turnRad: props.onBlank.turnRad.value, words }), 'image/png');
    ElMessage.success({ message: say`${fileName} is in your downloads.`, grouping: true });
  } catch (caught) {
    tellError(asAppError(caught, 'unexpected'));
  } finally {
    saving.value = false;
  }
}
</script>

<template>
  <TrayCard title="Proof" :about="job.blank.name">
    <template #icon><Shirt /></template>
    <dl v-if="design !== undefined && measures !== undefined">
      <dt>Size</dt><dd>{{ length(design.widthMm) }} × {{ length(design.heightMm) }}</dd>
      <dt>{{ measures.from === 'collar' ? $say('Below the collar') : $say('Below the top of its area') }}</dt><dd>{{ length(measures.belowMm) }}</dd>
      <dt>Off the middle</dt><dd>{{ Math.abs(measures.offMiddleMm) < 0.5 ? $say('in the middle') : `${length(Math.abs(measures.offMiddleMm))} ${measures.offMiddleMm < 0 ? $say('left') : $say('right')}` }}</dd>
    </dl>
    <template v-if="isComparable">
      <label class="row"><span>Another size beside it</span><ElSwitch size="small" :model-value="otherMm !== undefined" aria-label="Another size beside it" @change="otherMm = $event === true ? Math.round(size.sizeMm * 0.75) : undefined" /></label>
      <QuantityInput v-if="otherMm !== undefined" kind="length" :label="size.by === 'width' ? $say('Its width') : $say('Its height')" :unit="unit" :model-value="otherMm" :least="1" :most="10000" @done="otherMm = $event" />
    </template>
    <template v-if="!PROCESSES[job.process].isPrinted">
      <label class="row"><span>Placement guide of card</span><ElSwitch size="small" :model-value="layout.guide === true" aria-label="Placement guide of card" @change="set($say('Placement guide'), { guide: $event === true ? true : undefined })" /></label>
      <p v-if="guideWords !== undefined" class="about">{{ guideWords }}</p>
    </template>
    <div><button type="button" class="plain-button main" :disabled="saving || design === undefined" @click="save">Save picture for the customer</button></div>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped src="../shared/facts.css" />

<style scoped>
.about {
  margin: 0;
  color: var(--ink-soft);
}
</style>
