<script setup lang="ts">
import { computed } from 'vue';
import type { Job } from '../../core/job/job.ts';
import { nameOfObject } from '../../core/edit/objectEdits.ts';
import { pictureOf } from '../../core/job/tracedPart.ts';
import { useBench } from '../../stores/bench.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';

/** Which of several traced parts is cleaned and separated; nothing where there is only one. */
const bench = useBench();
const choices = computed(() => Object.fromEntries(bench.traced.map((object, k) => [object.id, `${k + 1}: ${nameOfObject(object, pictureOf(bench.job as Job, object)?.fileName)}`])));
</script>

<template>
  <label v-if="bench.traced.length > 1" class="choice"><span>Works on</span><ChoiceInput label="Works on" small :choices="choices" :model-value="bench.part?.id ?? ''" @choose="bench.focusOn" /></label>
</template>

<style scoped>
.choice {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 16px;
  border-bottom: 1px solid var(--rule);
}
.choice span {
  flex: none;
}
</style>
