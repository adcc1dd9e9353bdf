<script setup lang="ts">
import { computed } from 'vue';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import type { useShelfFind } from './useShelfFind.ts';
import { say } from '../../core/words/say.ts';

/** What of the shelf is shown. */
const { finding } = defineProps<{ finding: ReturnType<typeof useShelfFind>; count: number }>();
defineEmits<{ keep: [] }>();
const { find, choices, isNarrowed, showAll } = finding;
const LABELS = { process: say('Process'), state: say('How far it has come'), blank: say('Blank'), film: say('Film'), collection: say('Collection'), since: say('When it was changed') } as const;
type Key = keyof typeof LABELS;
/** Collections are asked for once there are some. */
const keys = computed(() => (Object.keys(LABELS) as Key[]).filter((key) => key in choices.value));
const choose = (key: Key, value: string): void => void Object.assign(find, { [key]: value });
</script>

<template>
  <div class="filters" role="group" aria-label="What is shown">
    <div v-for="key in keys" :key="key" class="filter"><ChoiceInput :model-value="find[key]" :choices="choices[key] as Readonly<Record<string, string>>" :label="LABELS[key]" @choose="choose(key, $event)" /></div>
    <span role="status">{{ count === 1 ? $say('1 job') : $say`${count} jobs` }}</span>
    <button v-if="count > 1" type="button" class="plain-button" title="Each job as an archive, in one zip; drop it on the shelf of another shop" @click="$emit('keep')">Save them as one file</button>
    <button v-if="isNarrowed" type="button" class="plain-button" @click="showAll">Show all</button>
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-top: 12px;
}
.filter {
  width: 172px;
}
span {
  margin-left: 4px;
  color: var(--ink-soft);
}
</style>
