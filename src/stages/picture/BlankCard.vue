<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed, ref } from 'vue';
import { withProcess } from '../../core/edit/withProcess.ts';
import { BLANKS, ownBlank, radiiOf, type BlankChoice, type Blank } from '../../core/process/blanks.ts';
import { onBlank } from '../../core/edit/onBlank.ts';
import type { Job } from '../../core/job/job.ts';
import { tracedPart, type TracedPart } from '../../core/job/tracedPart.ts';
import { PROCESSES, type Process } from '../../core/process/processes.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { mm } from '../../core/units/length.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { useShelf } from '../../stores/shelf.ts';
import { useWorkshop } from '../../stores/workshop.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { say } from '../../core/words/say.ts';

/** What the design goes on, by which process, and how large. Blanks of one's own are those that any job on the shelf has. */
const bench = useBench();
const shelf = useShelf();
const settings = useSettings();
const workshop = useWorkshop();
void workshop.load();

const job = computed(() => bench.job as Job);
const choices = computed<readonly BlankChoice[]>(() => {
  const known = new Map<string, BlankChoice>(workshop.shelves.blanks.map((choice) => [choice.blank.name, choice]));
  for (const each of [job.value, ...shelf.entries.map((entry) => entry.job)]) {
    const { blank, process } = each;
    if (!known.has(blank.name)) known.set(blank.name, { blank, process, widthMm: tracedPart(each).size.sizeMm });
  }
  return [...known.values()];
});
const length = (value: number): string => formatLength(mm(value), settings.unit);
const blankNames = computed<Readonly<Record<string, string>>>(() => Object.fromEntries(choices.value.map(({ blank }) => [blank.name, `${blank.name} (${length(blank.widthMm)} × ${length(blank.heightMm)}${blank.round === true ? say(', round') : ''})`])));
const PROCESS_NAMES = Object.fromEntries(Object.entries(PROCESSES).map(([process, { name }]) => [process, name])) as Readonly<Record<Process, string>>;

function choose(name: string): void {
  const choice = choices.value.find(({ blank }) => blank.name === name);
  if (choice !== undefined) bench.commit(say`Blank: ${name}`, onBlank(job.value, choice));
}

const editing = ref(false);
const changed = (change: Partial<Blank>): Job => ({ ...job.value, blank: ownBlank(job.value.blank, change) });
function set(change: Partial<Blank>): void {
  bench.preview(changed(change));
  bench.commitPreview(say('Own blank'));
}
function rename(event: Event): void {
  const input = event.target as HTMLInputElement;
  const name = input.value.trim().slice(0, 120);
  if (name !== '' && name !== job.value.blank.name && BLANKS.every(({ blank }) => blank.name !== name)) set({ name });
  else input.value = job.value.blank.name;
}
/** Once around what is round, mm, at the upper and the lower edge of its area. */
const around = computed(() => {
  const radii = radiiOf(job.value.blank);
  return radii === undefined ? undefined : { upperMm: 2 * Math.PI * radii.upperMm, lowerMm: 2 * Math.PI * radii.lowerMm };
});
const part = computed(() => bench.part as TracedPart);
const sized = (sizeMm: number): TracedPart => ({ ...part.value, size: { ...part.value.size, sizeMm } });
function setSize(sizeMm: number): void {
  bench.previewPart(sized(sizeMm));
  bench.commitPreview(say('Finished size'));
}
</script>

<template>
  <TrayCard title="Blank and process">
    <ChoiceInput :model-value="job.blank.name" :choices="blankNames" label="Blank" @choose="choose" />
    <button type="button" class="plain-button" :aria-expanded="editing" @click="editing = !editing">{{ editing ? $say('Done with the blank') : $say('Change it, or make your own') }}</button>
    <template v-if="editing">
      <label class="field"><span>Name of the blank</span><input :value="job.blank.name" maxlength="120" @change="rename" /></label>
      <QuantityInput kind="length" label="Printable width" :unit="settings.unit" :model-value="job.blank.widthMm" :least="1" :most="10000" @change="bench.preview(changed({ widthMm: $event }))" @done="set({ widthMm: $event })" @cancel="bench.revert" />
      <QuantityInput kind="length" label="Printable height" :unit="settings.unit" :model-value="job.blank.heightMm" :least="1" :most="10000" @change="bench.preview(changed({ heightMm: $event }))" @done="set({ heightMm: $event })" @cancel="bench.revert" />
      <template v-if="around !== undefined">
        <QuantityInput kind="length" label="Once around" :unit="settings.unit" :model-value="around.upperMm" :least="1" :most="10000" @change="bench.preview(changed({ aroundMm: $event }))" @done="set({ aroundMm: $event })" @cancel="bench.revert" />
        <QuantityInput kind="length" label="Once around, lower edge" :unit="settings.unit" :model-value="around.lowerMm" :least="1" :most="10000" @change="bench.preview(changed({ aroundBelowMm: $event }))" @done="set({ aroundBelowMm: $event })" @cancel="bench.revert" />
      </template>
      <label class="row"><span>Colour of the blank</span><input type="color" :value="job.blank.colour" @change="set({ colour: ($event.target as HTMLInputElement).value })" /></label>
      <label class="row"><span>Round or oval</span><ElSwitch size="small" :model-value="job.blank.round === true" @change="set({ round: $event === true })" /></label>
    </template>
    <ChoiceInput :model-value="job.process" :choices="PROCESS_NAMES" label="Process" @choose="bench.commit($say`Process: ${PROCESSES[$event].name}`, withProcess(job, $event))" />
    <p class="about">{{ PROCESSES[job.process].about }}</p>
    <QuantityInput
      kind="length" :label="part.size.by === 'width' ? $say('Finished width') : $say('Finished height')" :unit="settings.unit" :model-value="part.size.sizeMm" :least="1" :most="10000"
      @change="bench.previewPart(sized($event))" @done="setSize($event)" @cancel="bench.revert"
    />
  </TrayCard>
</template>

<style scoped src="../shared/textField.css" />

<style scoped>
.about {
  margin: 0;
  color: var(--ink-soft);
}
.row {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 28px;
}
.row input {
  width: 44px;
  height: 26px;
  padding: 1px;
}
</style>
