<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { slotsOf } from '../../core/edit/fillSlots.ts';
import { asAppError } from '../../core/errors/appError.ts';
import { explain } from '../../core/errors/explain.ts';
import { MAX_NAMES_CHARS, type Job } from '../../core/job/job.ts';
import { filledJobs, type FilledJobs } from '../../formats/names/filledJobs.ts';
import { readNames } from '../../formats/names/readNames.ts';
import { useBench } from '../../stores/bench.ts';
import TrayCard from '../../ui/TrayCard.vue';
import { chooseFiles } from '../shared/pickFiles.ts';
import NamesDialog from './NamesDialog.vue';
import { counted, say } from '../../core/words/say.ts';

/** The list whose lines fill the slots of the letterings: one design for each. Shown as soon as a lettering has a slot. */
const bench = useBench();
const job = computed(() => bench.job as Job);
const slots = computed(() => slotsOf(job.value));
const written = ref(job.value.names ?? '');
watch(() => job.value.names, (now) => (written.value = now ?? ''));

const read = computed((): { readonly filled?: FilledJobs; readonly wrong?: string } => {
  if (written.value.trim() === '') return {};
  try {
    return { filled: filledJobs(job.value, readNames(new TextEncoder().encode(written.value), say('The list'))) };
  } catch (error) {
    return { wrong: explain(asAppError(error, 'unexpected')).what };
  }
});
const example = computed(() => `${slots.value.map((slot) => slot[0].toUpperCase() + slot.slice(1)).join(',')}\n…`);
function take(text: string): void {
  const { names: _before, ...rest } = job.value;
  if (text !== (job.value.names ?? '')) bench.commit(say('List of names'), text.trim() === '' ? rest : { ...rest, names: text.slice(0, MAX_NAMES_CHARS) });
}
async function fromFile(): Promise<void> {
  const [file] = await chooseFiles('.csv,.tsv,.txt,text/csv,text/plain', false);
  if (file === undefined) return;
  written.value = (await file.text()).slice(0, MAX_NAMES_CHARS);
  take(written.value);
}
const open = ref(false);
</script>

<template>
  <TrayCard v-if="slots.length > 0" title="Names and numbers" :about="$say`one design for each line: fills ${slots.map((slot) => `{${slot}}`).join($say(' and '))}`">
    <textarea :value="written" :placeholder="example" rows="4" spellcheck="false" aria-label="List of names" @input="written = ($event.target as HTMLTextAreaElement).value" @change="take(written)" />
    <p v-if="read.wrong !== undefined" class="wrong" role="alert">{{ read.wrong }}</p>
    <p v-else-if="read.filled !== undefined && read.filled.lacking.length > 0" class="wrong" role="status">No column is called {{ read.filled.lacking.join($say(' or ')) }}: {{ read.filled.lacking.length === 1 ? $say('it stays') : $say('they stay') }} as written.</p>
    <p v-else-if="read.filled !== undefined" class="said" role="status">{{ counted(read.filled.jobs.length, $say('design'), $say('designs')) }}</p>
    <div class="acts">
      <button type="button" class="plain-button" @click="fromFile">From a file</button>
      <button type="button" class="plain-button main" :disabled="read.filled === undefined" @click="open = true">Look at all</button>
    </div>
    <NamesDialog v-if="open && read.filled !== undefined" :jobs="read.filled.jobs" @close="open = false" />
  </TrayCard>
</template>

<style scoped>
textarea {
  width: 100%;
  box-sizing: border-box;
  padding: 5px 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  resize: vertical;
}
.wrong,
.said {
  margin: 2px 0;
  font-size: 12.5px;
}
.wrong {
  color: var(--ochre-text);
}
.said {
  color: var(--ink-soft);
}
.acts {
  display: flex;
  gap: 6px;
}
</style>
