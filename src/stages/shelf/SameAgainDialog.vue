<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import { ElDialog } from 'element-plus';
import { computed, reactive, watch } from 'vue';
import { letteringsOf } from '../../core/edit/fillSlots.ts';
import type { Again } from '../../core/edit/sameAgain.ts';
import type { Job } from '../../core/job/job.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useSameAgain } from '../../stores/sameAgain.ts';
import { useSettings } from '../../stores/settings.ts';
import { useWorkshop } from '../../stores/workshop.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import { safely } from '../shared/safely.ts';
import { say } from '../../core/words/say.ts';

/** A job once more: another name, blank, size or other words; what that does to the cut is told before it lies on the shelf. */
const props = defineProps<{ job: Job | undefined }>();
const emit = defineEmits<{ take: [job: Job]; leave: [] }>();
const settings = useSettings();
const workshop = useWorkshop();
const { before, after, working, begin, check, made, leave } = useSameAgain();

const SAME = say('the same blank');
const form = reactive({ name: '', blank: SAME, widthMm: undefined as number | undefined, texts: {} as Record<string, string> });
const letterings = computed(() => (props.job === undefined ? [] : letteringsOf(props.job)));

watch(() => props.job, (job) => {
  if (job === undefined) return leave();
  Object.assign(form, { name: job.name, blank: SAME, widthMm: undefined, texts: Object.fromEntries(letteringsOf(job).map(({ id, lettering }) => [id, lettering.text])) });
  void workshop.load();
  void safely(() => begin(job));
});

const choices = computed(() => workshop.shelves.blanks.filter(({ blank }) => blank.name !== props.job?.blank.name));
const blankNames = computed<Readonly<Record<string, string>>>(() => ({ [SAME]: say`${props.job?.blank.name ?? ''}, as before`, ...Object.fromEntries(choices.value.map(({ blank }) => [blank.name, blank.name])) }));
const again = computed<Again>(() => ({
  name: form.name,
  blank: choices.value.find(({ blank }) => blank.name === form.blank),
  widthMm: form.widthMm,
  texts: new Map(letterings.value.filter(({ id, lettering }) => form.texts[id] !== undefined && form.texts[id] !== lettering.text).map(({ id }) => [id, form.texts[id]])),
}));
/** What the cut depends on. */
const cutOf = computed(() => JSON.stringify([form.blank, form.widthMm, form.texts]));
watchDebounced(cutOf, () => {
  if (props.job !== undefined && before.value !== undefined) void safely(() => check(again.value));
}, { debounce: 250 });

const length = (value: number): string => formatLength(mm(value), settings.unit);
const places = (count: number): string => (count === 0 ? say('nothing to look at') : count === 1 ? say('1 place to look at') : say`${count} places to look at`);
const verdict = computed(() => {
  if (after.value === undefined || before.value === undefined) return say('Looking at it…');
  const { widthMm, heightMm, findings } = after.value;
  return `${length(widthMm)} × ${length(heightMm)}, ${places(findings)}${findings === before.value.findings ? say(', as before') : say` (before: ${places(before.value.findings)})`}`;
});
const isWorse = computed(() => (after.value?.findings ?? 0) > (before.value?.findings ?? 0));

function take(): void {
  const next = made(again.value);
  if (next !== undefined) emit('take', next);
}
</script>

<template>
  <ElDialog :model-value="job !== undefined" title="Same again" width="460" @update:model-value="emit('leave')">
    <form @submit.prevent="take">
      <label class="field"><span>Name</span><input v-model="form.name" maxlength="120" autocomplete="off" /></label>
      <div class="field"><span aria-hidden="true">Blank</span><ChoiceInput :model-value="form.blank" :choices="blankNames" label="Blank" @choose="form.blank = $event" /></div>
      <QuantityInput label="Width" kind="length" :model-value="form.widthMm ?? after?.widthMm ?? 0" :unit="settings.unit" :least="1" :most="10000" @done="form.widthMm = $event" />
      <label v-for="{ id, lettering } in letterings" :key="id" class="field"><span>In place of “{{ lettering.text }}”</span><input v-model="form.texts[id]" maxlength="1000" /></label>
      <p class="verdict" :class="{ worse: isWorse }" role="status" :aria-busy="working">{{ verdict }}</p>
      <p class="about">A new order for the same customer; the one before stays as it is.</p>
      <footer><button type="button" class="plain-button" @click="emit('leave')">Cancel</button><button type="submit" class="plain-button main" :disabled="before === undefined">Put it on the shelf</button></footer>
    </form>
  </ElDialog>
</template>

<style scoped src="../shared/textField.css" />
<style scoped>
form {
  display: grid;
  gap: 12px;
}
.verdict,
.about {
  margin: 0;
}
.verdict[aria-busy='true'] {
  opacity: 0.6;
}
.worse {
  color: var(--ochre-text);
}
.about {
  color: var(--ink-soft);
}
footer {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
