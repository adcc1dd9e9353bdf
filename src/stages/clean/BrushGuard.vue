<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { ref } from 'vue';
import { MAX_TOLERANCE } from '../../core/clean/steps/areaLift.ts';
import QuantityInput from '../../ui/QuantityInput.vue';

/** Whether strokes stay within the colour that they begin on, and how far that goes; undefined for no guard. */
const within = defineModel<number | undefined>({ required: true });
const START = 6;
/** What the guard was when it was last on. */
const last = ref(within.value ?? START);
function set(tolerance: number): void {
  last.value = tolerance;
  within.value = tolerance;
}
</script>

<template>
  <label class="row"><span>Stay within this colour</span><ElSwitch size="small" :model-value="within !== undefined" @change="within = $event === true ? last : undefined" /></label>
  <QuantityInput v-if="within !== undefined" label="Colour difference" :model-value="within" :least="0" :most="MAX_TOLERANCE" :step="0.1" @change="set" @done="set" />
</template>
