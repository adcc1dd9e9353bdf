<script setup lang="ts" generic="Choice extends string">
import { ElSelect } from 'element-plus';
import { computed } from 'vue';

/** One of a few named choices. */
const props = defineProps<{ modelValue: Choice; choices: Readonly<Record<Choice, string>>; label: string; small?: boolean }>();
const emit = defineEmits<{ choose: [choice: Choice] }>();
const options = computed(() => Object.entries<string>(props.choices).map(([value, label]) => ({ value, label })));
/** A value that is none of the choices (a size of one's own) is shown by its own name. */
const shown = computed(() => (options.value.some(({ value }) => value === props.modelValue) ? options.value : [...options.value, { value: props.modelValue, label: props.modelValue }]));
/** Bound as a whole: the component's declared types take these two for prop definitions. */
const bound = computed(() => ({ options: shown.value, size: props.small === true ? 'small' : 'default' }) as object);
</script>

<template>
  <ElSelect v-bind="bound" :model-value="modelValue" :aria-label="label" @change="emit('choose', $event as Choice)" />
</template>
