<script setup lang="ts">
import { ElCheckbox } from 'element-plus';
import { computed, ref, watch } from 'vue';
import { NAME_SLOTS, USUAL_NAME } from '../../core/job/fileName.ts';
import { FILE_KINDS, type FileKind } from '../../core/job/handOff.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { FILE_WORDS, fileWords, type FileFacts } from './fileKinds.ts';
import type { useHandOff } from './useHandOff.ts';
import { say } from '../../core/words/say.ts';

const props = defineProps<{
  hand: ReturnType<typeof useHandOff>;
  facts: FileFacts;
  /** The kind that is being looked into. */
  looking: FileKind | undefined;
  /** Saves the sheet on the table alone, where there are several. */
  one: (() => void) | undefined;
}>();
defineEmits<{ look: [kind: FileKind] }>();

const job = computed(() => props.hand.job.value);
const isBlocked = computed(() => props.hand.blocked.value !== undefined || props.hand.handing.value);
/** Printed jobs have cut lines only where a cutter follows what was printed. */
const kinds = computed(() => (props.facts.pages !== undefined && props.hand.cut.value?.print?.hasMarks !== true ? (['pdf', 'png'] as const) : FILE_KINDS));
const chosen = computed(() => kinds.value.filter((kind) => props.hand.kinds.value.includes(kind)));
const pattern = ref(job.value.handOff.nameAs ?? USUAL_NAME);
watch(() => job.value.handOff.nameAs, (nameAs) => (pattern.value = nameAs ?? USUAL_NAME));
const takeName = (): void => {
  const typed = pattern.value.trim();
  const nameAs = typed === '' || typed === USUAL_NAME ? undefined : typed.slice(0, 120);
  pattern.value = nameAs ?? USUAL_NAME;
  if (nameAs !== job.value.handOff.nameAs) props.hand.change(say('Names of files'), { nameAs });
};
const CUT_AS = { lines: say('cut lines as unfilled lines'), shapes: say('cut lines as filled shapes') } as const;
const slots = Object.entries(NAME_SLOTS).map(([slot, says]) => `{${slot}} ${says}`).join(', ');
</script>

<template>
  <TrayCard title="Files" about="all of the same sheets, at true size in millimetres">
    <ul class="kinds">
      <li v-for="kind in kinds" :key="kind">
        <ElCheckbox :model-value="hand.kinds.value.includes(kind)" :aria-label="$say`${FILE_WORDS[kind].name} among the files to save`" @change="hand.choose(kind, $event === true)" />
        <div class="told">
          <div class="head">
            <strong>{{ FILE_WORDS[kind].name }}</strong>
            <button type="button" class="link" :aria-pressed="looking === kind" :disabled="hand.blocked.value !== undefined" :aria-label="$say`Look into the ${FILE_WORDS[kind].short}`" @click="$emit('look', kind)">{{ looking === kind ? $say('Back') : $say('Look') }}</button>
            <button type="button" class="link" :disabled="isBlocked" :aria-label="$say`Save ${FILE_WORDS[kind].short}`" @click="hand.handFiles([kind])">Save</button>
          </div>
          <span>{{ fileWords(kind, facts) }}</span>
          <template v-if="kind === 'svg' && hand.kinds.value.includes('svg')">
            <ChoiceInput :model-value="job.handOff.cutAs" :choices="CUT_AS" label="Cut lines as" @choose="hand.change($say('Cut lines as'), { cutAs: $event })" />
            <button v-if="one !== undefined" type="button" class="link alone" :disabled="isBlocked" @click="one">Save this sheet alone</button>
          </template>
        </div>
      </li>
    </ul>
    <label class="field"><span>Names begin with</span><input v-model="pattern" type="text" maxlength="120" :title="slots" @change="takeName" @keydown.enter="takeName" /></label>
    <p class="note">{{ hand.name.value }} …</p>
    <button type="button" class="plain-button main" :disabled="isBlocked || chosen.length === 0" @click="hand.handFiles(chosen)">{{ chosen.length === 0 ? $say('Nothing chosen') : $say`Save chosen: ${chosen.map((kind) => FILE_WORDS[kind].short).join(', ')}` }}</button>
  </TrayCard>
</template>

<style scoped>
.kinds {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
.kinds li {
  display: flex;
  gap: 8px;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
.kinds :deep(.el-checkbox) {
  height: 22px;
  margin: 0;
}
.told {
  display: grid;
  flex: 1;
  min-width: 0;
  gap: 1px;
}
.told strong {
  font-weight: 600;
}
.told > span {
  color: var(--ink-soft);
  font-size: 12.5px;
}
.head {
  display: flex;
  align-items: baseline;
  gap: 10px;
}
.head strong {
  flex: 1;
}
.alone {
  justify-self: start;
}
.link {
  border: 0;
  padding: 2px 0;
  background: none;
  color: var(--madder-text, var(--madder));
  font: inherit;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
.link:disabled {
  color: var(--ink-soft);
  text-decoration: none;
  cursor: default;
}
.note {
  margin: 3px 0 8px;
  color: var(--ink-soft);
  overflow-wrap: anywhere;
}
</style>

<style scoped src="../shared/textField.css" />
