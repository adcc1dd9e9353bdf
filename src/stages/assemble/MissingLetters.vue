<script setup lang="ts">
import { shallowRef, watch } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import { useServices } from '../../stores/services.ts';
import { tellError } from '../shared/tellError.ts';

/** What a font does not have of a text, and the fonts that have it. */
const props = defineProps<{ font: string; missing: readonly string[] }>();
const emit = defineEmits<{ choose: [font: string] }>();
const { engine } = useServices();
const having = shallowRef<readonly string[]>();

async function look(): Promise<void> {
  const asked = props.missing.join('');
  having.value = undefined;
  const found = await engine.fontsWith(asked).catch((error: unknown) => tellError(asAppError(error, 'unexpected')));
  if (asked === props.missing.join('')) having.value = found ?? [];
}
watch(() => props.missing.join(''), look, { immediate: true });
</script>

<template>
  <p class="missing" role="status">
    {{ font }} has no {{ missing.map((each) => $say`“${each}”`).join(', ') }}.
    <template v-if="having !== undefined && having.length > 0">It is in:
      <button v-for="name in having" :key="name" type="button" class="plain-button" @click="emit('choose', name)">{{ name }}</button></template>
    <template v-else-if="having !== undefined">No shipped font has it: bring in a font file.</template>
  </p>
</template>

<style scoped>
.missing {
  margin: 2px 0 6px;
  color: var(--ochre-text);
}
.missing button {
  margin: 2px 6px 2px 0;
}
</style>
