<script setup lang="ts">
import { ElSelect } from 'element-plus';
import { computed } from 'vue';
import type { Film } from '../../core/film/film.ts';
import { say } from '../../core/words/say.ts';

/** A film out of those on the rack and the shelf. */
const props = withDefaults(defineProps<{ films: readonly Film[]; modelValue: string | undefined; label?: string; ariaLabel?: string }>(), { label: say('Film') });
const emit = defineEmits<{ choose: [film: Film] }>();
const film = computed(() => props.films.find(({ id }) => id === props.modelValue));
/** Bound as a whole: the component's declared types take its options for prop definitions. */
const choices = computed(() => ({ options: props.films.map(({ id, name }) => ({ value: id, label: name })) }) as object);
function choose(id: string): void {
  const found = props.films.find((each) => each.id === id);
  if (found !== undefined) emit('choose', found);
}
</script>

<template>
  <label class="row">
    <span>{{ label }}</span>
    <ElSelect v-bind="choices" class="films" :model-value="film?.id ?? ''" :aria-label="ariaLabel ?? label" @change="choose($event as string)">
      <template #prefix><i class="swatch" :style="{ background: film?.colour }" /></template>
    </ElSelect>
  </label>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.films {
  width: 168px;
}
.swatch {
  display: inline-block;
  width: 12px;
  height: 12px;
  border: 1px solid var(--ink-soft);
  vertical-align: -1px;
}
</style>
