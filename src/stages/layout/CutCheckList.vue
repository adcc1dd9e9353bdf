<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Finding } from '../../core/check/cutCheck.ts';
import type { Job } from '../../core/job/job.ts';
import { leavingOut } from '../../core/job/mendFinding.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { findingWords } from './findingWords.ts';

const props = defineProps<{ findings: readonly Finding[]; chosen: number | undefined }>();
const emit = defineEmits<{ choose: [index: number | undefined] }>();

const SHOWN = 12;
const all = ref(false);
const shown = computed(() => (all.value ? props.findings : props.findings.slice(0, SHOWN)));

/** Leaves out everything up to the size of one finding. */
const bench = useBench();
const settings = useSettings();
function leaveOut(finding: Finding): void {
  bench.commit('Leave out small pieces', leavingOut(bench.job as Job, finding));
}
</script>

<template>
  <ol>
    <li v-for="(finding, index) in shown" :key="index" :class="{ chosen: index === chosen }">
      <button type="button" class="words" @click="emit('choose', index === chosen ? undefined : index)"><b>{{ index + 1 }}</b> {{ findingWords(finding, settings.unit) }}</button>
      <button v-if="finding.kind === 'smallPiece' || finding.kind === 'smallHole'" type="button" class="plain-button" title="Leave out pieces and holes up to this size" @click="leaveOut(finding)">Drop</button>
    </li>
  </ol>
  <button v-if="findings.length > SHOWN" type="button" class="plain-button" @click="all = !all">{{ all ? 'Show fewer' : `Show all ${findings.length}` }}</button>
</template>

<style scoped>
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  padding: 3px 0;
}
.words {
  flex: 1;
  border: 0;
  padding: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.chosen .words {
  color: var(--madder-text);
}
</style>
