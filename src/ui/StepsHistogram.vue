<script setup lang="ts">
import { scaleLinear } from 'd3-scale';
import { computed, ref } from 'vue';
import { histogramShape } from './histogramShape.ts';

/** How much of the picture is how light, with the steps between its tones as marks that are dragged. */
const props = defineProps<{ histogram: Float64Array; steps: readonly number[]; greys: readonly string[] }>();
const emit = defineEmits<{ change: [at: number, value: number]; done: [at: number, value: number]; cancel: [] }>();

const WIDTH = 270;
const HEIGHT = 84;
const x = scaleLinear([0, 255], [0, WIDTH]).clamp(true);
const shape = computed(() => histogramShape(props.histogram, WIDTH, HEIGHT));
const held = ref<number>();
const bands = computed(() => [0, ...props.steps].map((from, k) => ({ x: x(from), width: x(props.steps[k] ?? 255) - x(from), fill: props.greys[k] ?? '#888888' })));

const valueAt = (event: PointerEvent): number => {
  const rect = (event.currentTarget as Element).getBoundingClientRect();
  return Math.round(x.invert(((event.clientX - rect.left) / rect.width) * WIDTH));
};
function down(event: PointerEvent): void {
  if (props.steps.length === 0) return;
  const value = valueAt(event);
  held.value = props.steps.reduce((best, step, k) => (Math.abs(step - value) < Math.abs(props.steps[best] - value) ? k : best), 0);
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  emit('change', held.value, value);
}
function up(event: PointerEvent): void {
  if (held.value === undefined) return;
  emit('done', held.value, valueAt(event));
  held.value = undefined;
}
function key(event: KeyboardEvent, at: number): void {
  const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
  if (by === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  emit('done', at, Math.max(0, Math.min(255, Math.round(props.steps[at]) + by * (event.shiftKey ? 10 : 1))));
}
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT + 16}`" class="histogram" role="group" aria-label="Steps between tones" @pointerdown="down" @pointermove="held !== undefined && emit('change', held, valueAt($event))" @pointerup="up" @pointercancel="held = undefined; emit('cancel')">
    <path :d="shape" />
    <rect v-for="(band, k) in bands" :key="k" class="band" :x="band.x" :y="HEIGHT - 5" :width="Math.max(0, band.width)" height="5" :fill="band.fill" />
    <g v-for="(step, k) in steps" :key="`step-${k}`" role="slider" tabindex="0" :aria-label="$say`Mark of step ${k + 1}`" :aria-valuenow="Math.round(step)" aria-valuemin="0" aria-valuemax="255" @keydown="key($event, k)">
      <line :x1="x(step)" :x2="x(step)" y1="0" :y2="HEIGHT" />
      <circle :cx="x(step)" cy="8" r="5.5" />
    </g>
    <text x="0" :y="HEIGHT + 13">dark</text>
    <text :x="WIDTH" :y="HEIGHT + 13" text-anchor="end">light</text>
  </svg>
</template>

<style scoped src="./histogram.css" />

<style scoped>
g:focus-visible circle {
  stroke: var(--ink);
  stroke-width: 2;
}
g:focus {
  outline: none;
}
.band {
  stroke: var(--rule-strong);
  stroke-width: 0.5;
}
</style>
