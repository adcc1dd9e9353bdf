<script setup lang="ts">
import { scaleLinear } from 'd3-scale';
import { computed, ref } from 'vue';
import { histogramShape } from './histogramShape.ts';

/** How much of the picture is how light, with the threshold as a mark that is dragged. */
const props = defineProps<{ histogram: Float64Array; threshold: number; disabled?: boolean }>();
const emit = defineEmits<{ change: [threshold: number]; done: [threshold: number]; cancel: [] }>();

const WIDTH = 270;
const HEIGHT = 84;
const x = scaleLinear([0, 255], [0, WIDTH]).clamp(true);
const shape = computed(() => histogramShape(props.histogram, WIDTH, HEIGHT));
const held = ref(false);
const at = (event: PointerEvent): number => {
  const rect = (event.currentTarget as Element).getBoundingClientRect();
  return Math.round(x.invert(((event.clientX - rect.left) / rect.width) * WIDTH));
};
function down(event: PointerEvent): void {
  if (props.disabled === true) return;
  held.value = true;
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  emit('change', at(event));
}
function up(event: PointerEvent): void {
  if (!held.value) return;
  held.value = false;
  emit('done', at(event));
}
function key(event: KeyboardEvent): void {
  const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
  if (by === undefined || props.disabled === true) return;
  event.preventDefault();
  emit('done', Math.max(0, Math.min(255, Math.round(props.threshold) + by * (event.shiftKey ? 10 : 1))));
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${WIDTH} ${HEIGHT + 16}`" class="histogram" :class="{ disabled }" role="slider" tabindex="0" aria-label="Threshold, lightness" :aria-valuenow="Math.round(threshold)" aria-valuemin="0" aria-valuemax="255"
    @pointerdown="down" @pointermove="held && emit('change', at($event))" @pointerup="up" @pointercancel="held = false; emit('cancel')" @keydown="key"
  >
    <rect class="ink-side" x="0" y="0" :width="x(threshold)" :height="HEIGHT" />
    <path :d="shape" />
    <line :x1="x(threshold)" :x2="x(threshold)" y1="0" :y2="HEIGHT" />
    <circle :cx="x(threshold)" cy="8" r="5.5" />
    <text x="0" :y="HEIGHT + 13">dark</text>
    <text :x="Math.max(40, Math.min(WIDTH - 40, x(threshold)))" :y="HEIGHT + 13" text-anchor="middle" class="now">{{ Math.round(threshold) }}</text>
    <text :x="WIDTH" :y="HEIGHT + 13" text-anchor="end">light</text>
  </svg>
</template>

<style scoped src="./histogram.css" />

<style scoped>
.histogram:focus-visible {
  outline: 2px solid var(--madder);
}
.disabled {
  opacity: 0.45;
  cursor: default;
}
.ink-side {
  fill: var(--madder-wash);
}
.now {
  fill: var(--ink);
  font-weight: 600;
}
</style>
