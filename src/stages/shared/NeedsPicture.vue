<script setup lang="ts">
import { useRoute } from 'vue-router';
import { useBench } from '../../stores/bench.ts';

const bench = useBench();
const route = useRoute();
</script>

<template>
  <div class="needs-picture">
    <template v-if="bench.pictureFailed">
      <p role="status">The picture could not be opened. Nothing is lost.</p>
      <button type="button" class="plain-button main" @click="bench.reopenPicture">Try again</button>
    </template>
    <template v-else-if="bench.pictureInfo !== undefined"><p role="status">Opening the picture…</p></template>
    <template v-else>
      <h2>First a picture</h2>
      <p>This stage works on the job’s picture. Drop one anywhere or paste it.</p>
      <RouterLink :to="{ name: 'picture', params: route.params }">Go to Picture</RouterLink>
    </template>
  </div>
</template>

<style scoped>
.needs-picture {
  align-self: center;
  justify-self: center;
  text-align: center;
  color: var(--ink-soft);
}
h2 {
  font-family: var(--serif);
  color: var(--ink);
}
a {
  color: var(--madder-text);
}
</style>
