<script setup lang="ts">
import { computed } from 'vue';
import { explain } from '../../core/errors/explain.ts';
import { useBench } from '../../stores/bench.ts';

/** Says why there is nothing to show on the cut side. */
const bench = useBench();
const words = computed(() => (bench.result?.problem === undefined ? undefined : explain(bench.result.problem)));
</script>

<template>
  <p v-if="words !== undefined" class="problem" role="alert"><b>{{ words.what }}</b> {{ words.todo }}</p>
</template>

<style scoped>
.problem {
  position: absolute;
  bottom: 18px;
  left: 50%;
  max-width: 460px;
  margin: 0;
  transform: translateX(-50%);
  padding: 8px 14px;
  border-left: 5px solid var(--ochre);
  border-radius: 4px;
  background: var(--ochre-wash);
  color: var(--ink);
}
</style>
