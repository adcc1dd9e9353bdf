<script setup lang="ts" generic="Choice extends string">
defineProps<{ modelValue: Choice; choices: readonly { readonly value: Choice; readonly name: string }[]; label: string }>();
const emit = defineEmits<{ 'update:modelValue': [value: Choice] }>();
</script>

<template>
  <div class="view-switch" role="radiogroup" :aria-label="label">
    <button v-for="choice in choices" :key="choice.value" type="button" role="radio" :aria-checked="choice.value === modelValue" @click="emit('update:modelValue', choice.value)">{{ choice.name }}</button>
  </div>
</template>

<style scoped>
.view-switch {
  display: inline-flex;
  gap: 2px;
  padding: 3px;
  border-radius: 16px;
  background: var(--paper);
  border: 1px solid var(--rule);
}
button {
  border: 0;
  border-radius: 13px;
  padding: 4px 12px;
  background: none;
  color: var(--ink-soft);
  font: inherit;
  font-size: 12.5px;
  font-weight: 600;
  cursor: pointer;
}
button[aria-checked='true'] {
  background: var(--ink);
  color: var(--paper);
}
@container (max-width: 680px) {
  button {
    padding: 4px 8px;
    font-size: 12px;
  }
}
button:focus-visible {
  outline: 2px solid var(--madder);
  outline-offset: 1px;
}
</style>
