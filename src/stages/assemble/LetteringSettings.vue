<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed, ref, watch } from 'vue';
import { withLettering } from '../../core/edit/objectEdits.ts';
import { DEFAULT_LETTERING, MAX_LETTERS, type Lettering } from '../../core/lettering/lettering.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import FontChoice from './FontChoice.vue';
import LetteringPlace from './LetteringPlace.vue';
import MissingLetters from './MissingLetters.vue';
import type { Parts } from './useParts.ts';
import { say } from '../../core/words/say.ts';

/** What is written, and how it is set. It is seen on the table with each keystroke. */
const props = defineProps<{ parts: Parts; lettering: Lettering }>();
const bench = useBench();
const settings = useSettings();

const drag = (change: Partial<Lettering>): void => props.parts.preview((object) => withLettering(object, change));
function set(label: string, change: Partial<Lettering>): void {
  drag(change);
  bench.commitPreview(label);
}

/** What stands in the field; an empty one is no lettering yet, so that the last text stays on the table. */
const text = ref(props.lettering.text);
watch(() => props.lettering.text, (now) => {
  if (text.value.trim() !== '') text.value = now;
});
function type(written: string): void {
  text.value = written;
  if (written.trim() !== '') drag({ text: written });
}
function typed(): void {
  if (text.value.trim() === '') text.value = props.lettering.text;
  else bench.commitPreview(say('Text'));
}

const hasLines = computed(() => props.lettering.text.includes('\n'));
const ALIGN = { left: say('left'), middle: say('middle'), right: say('right') } as const;
const WIDER = { smaller: say('smaller'), narrower: say('narrower'), twoLines: say('into two lines') } as const;
const missing = computed(() => props.parts.inDesign.value.find(({ id }) => id === props.parts.object.value?.id)?.missing ?? []);
/** How wide a text comes out is up to the part that it lies in or follows. */
const isFree = computed(() => props.lettering.along === undefined && props.lettering.into === undefined);
</script>

<template>
  <label class="text">
    <span>Text</span>
    <textarea :value="text" :maxlength="MAX_LETTERS" rows="2" spellcheck="false" @input="type(($event.target as HTMLTextAreaElement).value)" @change="typed" />
  </label>
  <FontChoice :font="lettering.font" :text="lettering.text" :capital-mm="lettering.heightMm" @choose="set($say('Font'), { font: $event })" />
  <MissingLetters v-if="missing.length > 0" :font="lettering.font" :missing="missing" @choose="set($say('Font'), { font: $event })" />
  <QuantityInput kind="length" :label="lettering.into === undefined ? $say('Capital height') : $say('Capital height when free')" :unit="settings.unit" :model-value="lettering.heightMm" :least="0.5" :most="2000" @change="drag({ heightMm: $event })" @done="set($say('Height'), { heightMm: $event })" @cancel="bench.revert" />
  <QuantityInput label="Letter spacing" suffix="%" :model-value="100 * (lettering.spacing ?? 0)" :least="-50" :most="500" @change="drag({ spacing: $event / 100 })" @done="set($say('Spacing'), { spacing: $event / 100 })" @cancel="bench.revert" />
  <template v-if="hasLines">
    <QuantityInput label="Line spacing" suffix="%" :model-value="100 * (lettering.lineSpacing ?? DEFAULT_LETTERING.lineSpacing)" :least="50" :most="1000" @change="drag({ lineSpacing: $event / 100 })" @done="set($say('Line spacing'), { lineSpacing: $event / 100 })" @cancel="bench.revert" />
    <label class="row"><span>Lines stand</span><ChoiceInput label="Lines stand" small :choices="ALIGN" :model-value="lettering.align ?? DEFAULT_LETTERING.align" @choose="set($say('Lines'), { align: $event })" /></label>
  </template>
  <LetteringPlace :parts="parts" :lettering="lettering" />
  <QuantityInput kind="length" label="Thicken" :unit="settings.unit" :model-value="lettering.thickenMm ?? 0" :least="-20" :most="20" @change="drag({ thickenMm: $event === 0 ? undefined : $event })" @done="set($say('Thicken'), { thickenMm: $event === 0 ? undefined : $event })" @cancel="bench.revert" />
  <label v-if="isFree" class="row"><span>No wider than</span><ElSwitch size="small" aria-label="No wider than" :model-value="lettering.mostWidthMm !== undefined" @change="set($say('Width'), { mostWidthMm: $event === true ? Math.max(10, Math.round(parts.box.value === undefined ? 200 : parts.box.value.right - parts.box.value.left)) : undefined, whenWider: undefined })" /></label>
  <template v-if="isFree && lettering.mostWidthMm !== undefined">
    <QuantityInput kind="length" label="Most width" :unit="settings.unit" :model-value="lettering.mostWidthMm" :least="0.5" :most="10000" @change="drag({ mostWidthMm: $event })" @done="set($say('Width'), { mostWidthMm: $event })" @cancel="bench.revert" />
    <label class="row"><span>A longer text is made</span><ChoiceInput label="A longer text is made" small :choices="WIDER" :model-value="lettering.whenWider ?? 'smaller'" @choose="set($say('Width'), { whenWider: $event })" /></label>
  </template>
  <label class="row"><span>Join letters that touch</span><ElSwitch size="small" :model-value="lettering.join === true" @change="set($say('Join'), { join: $event === true ? true : undefined })" /></label>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.text {
  display: block;
  margin-bottom: 4px;
}
textarea {
  display: block;
  width: 100%;
  box-sizing: border-box;
  margin-top: 4px;
  padding: 5px 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  resize: vertical;
}
</style>
