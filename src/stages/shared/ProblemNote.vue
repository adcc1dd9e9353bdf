<script setup lang="ts">
import { computed } from 'vue';
import { explain } from '../../core/errors/explain.ts';
import { useBench } from '../../stores/bench.ts';

/** Says why there is nothing to show on the cut side. */
const bench = useBench();
const words = computed(() => (bench.result?.problem === undefined ? undefined : explain(bench.result.problem)));
</script>

<template>
  <p v-if="words !== undefined" class="table-note problem" role="alert"><b>{{ words.what }}</b> {{ words.todo }}</p>
</template>

<style scoped src="./tableNote.css" />

<style scoped>
.problem {
  bottom: 18px;
  max-width: 460px;
}
</style>
