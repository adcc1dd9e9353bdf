<script setup lang="ts">
import { ElDialog } from 'element-plus';
import { computed, ref } from 'vue';
import { useSettings } from '../stores/settings.ts';
import QuantityInput from '../ui/QuantityInput.vue';

/** Asks once how long a line of known pixels is on this screen, so that "true size" is true. */
const emit = defineEmits<{ taken: [] }>();
const open = defineModel<boolean>({ required: true });
const settings = useSettings();

const LINE_PX = 400;
const lengthMm = ref(LINE_PX / settings.screenPxPerMm);
const plausible = computed(() => lengthMm.value >= 30 && lengthMm.value <= 400);

function take(): void {
  settings.screenPxPerMm = LINE_PX / lengthMm.value;
  settings.screenMeasured = true;
  open.value = false;
  emit('taken');
}
</script>

<template>
  <ElDialog v-model="open" title="How large is this screen?" width="520px" align-center>
    <p>Hold a ruler to the screen and say how long this line is. Limner keeps it for this browser, and “true size” then is.</p>
    <div class="line" :style="{ width: `${LINE_PX}px` }" />
    <QuantityInput kind="length" label="The line is" :unit="settings.unit" :model-value="lengthMm" :least="30" :most="400" @change="lengthMm = $event" @done="lengthMm = $event" />
    <template #footer>
      <button type="button" class="plain-button" @click="open = false">Not now</button>
      <button type="button" class="plain-button main" :disabled="!plausible" @click="take">Save</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.line {
  height: 18px;
  margin: 20px 0;
  border: solid var(--ink);
  border-width: 0 1px;
  background: linear-gradient(var(--ink), var(--ink)) center / 100% 1px no-repeat;
}
.plain-button + .plain-button {
  margin-left: 8px;
}
</style>
