<script setup lang="ts">
import { computed, watch } from 'vue';
import { useBench } from '../../stores/bench.ts';

/** What colour is drawn in: one of the tones that are in the art, or any. */
const colour = defineModel<string>({ required: true });
const bench = useBench();

const tones = computed(() => {
  const cut = bench.result?.cut;
  const found = cut?.tones?.map((tone) => tone.colour) ?? [];
  const { ink } = bench.result?.tone ?? {};
  const own = ink === undefined ? [] : [`#${[ink.r, ink.g, ink.b].map((value) => Math.round(value).toString(16).padStart(2, '0')).join('')}`];
  return [...new Set([...found, ...own])].slice(0, 12);
});
// The first ink is that of the art.
watch(tones, (now, before) => {
  if (now[0] !== undefined && (before === undefined || before.length === 0)) colour.value = bench.result?.tone === undefined ? now[0] : (now.at(-1) as string);
}, { immediate: true });
</script>

<template>
  <div class="row">
    <span>Colour</span>
    <span class="tones" role="radiogroup" aria-label="Tones of the art">
      <button v-for="tone in tones" :key="tone" type="button" role="radio" :aria-checked="tone === colour" :aria-label="$say`Draw in ${tone}`" :title="tone" :style="{ background: tone }" @click="colour = tone" />
      <input type="color" :value="colour" aria-label="Colour to draw in" @input="colour = ($event.target as HTMLInputElement).value" />
    </span>
  </div>
  <p>Alt and a click takes the colour under the pointer.</p>
</template>

<style scoped>
.tones {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 4px;
}
button {
  width: 20px;
  height: 20px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 0;
  cursor: pointer;
}
button[aria-checked='true'] {
  outline: 2px solid var(--madder);
  outline-offset: 1px;
}
button:focus-visible {
  outline: 2px solid var(--ink);
  outline-offset: 1px;
}
</style>
