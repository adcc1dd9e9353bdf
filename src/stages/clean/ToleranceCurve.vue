<script setup lang="ts">
import { scaleLinear } from 'd3-scale';
import { area, curveMonotoneX } from 'd3-shape';
import { computed, ref } from 'vue';
import { LEVELS_PER_UNIT } from '../../core/colour/differenceTable.ts';

/** The area that a lift takes as a function of its tolerance, with the stretch in which it holds; drag along it to choose. */
const props = defineProps<{ areaByLevel: Float64Array; tolerance: number; holdsFrom: number; holdsTo: number }>();
const emit = defineEmits<{ change: [tolerance: number]; done: [tolerance: number]; cancel: [] }>();

const WIDTH = 270;
const HEIGHT = 76;
/** Tolerances beyond are rarely of use; the curve stays readable. */
const SHOWN = 20;

const x = scaleLinear([0, SHOWN], [0, WIDTH]).clamp(true);
const shape = computed(() => {
  const values = Array.from(props.areaByLevel.subarray(0, SHOWN * LEVELS_PER_UNIT + 1));
  const y = scaleLinear([0, Math.max(1, ...values)], [HEIGHT, 6]);
  return area<number>().x((_, i) => x(i / LEVELS_PER_UNIT)).y0(HEIGHT).y1((v) => y(v)).curve(curveMonotoneX)(values) ?? '';
});

const dragging = ref(false);
const at = (event: PointerEvent): number => {
  const rect = (event.currentTarget as Element).getBoundingClientRect();
  return Math.round(Math.max(0, Math.min(SHOWN, x.invert(((event.clientX - rect.left) / rect.width) * WIDTH))) * 10) / 10;
};
function down(event: PointerEvent): void {
  dragging.value = true;
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  emit('change', at(event));
}
function up(event: PointerEvent): void {
  if (!dragging.value) return;
  dragging.value = false;
  emit('done', at(event));
}
function key(event: KeyboardEvent): void {
  const by = { ArrowLeft: -0.1, ArrowDown: -0.1, ArrowRight: 0.1, ArrowUp: 0.1 }[event.key];
  if (by === undefined) return;
  event.preventDefault();
  emit('done', Math.round(Math.max(0, Math.min(SHOWN, props.tolerance + by * (event.shiftKey ? 10 : 1))) * 10) / 10);
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${WIDTH} ${HEIGHT + 16}`" class="curve" role="slider" tabindex="0" aria-label="Tolerance" :aria-valuenow="tolerance" aria-valuemin="0" :aria-valuemax="SHOWN"
    @pointerdown="down" @pointermove="dragging && emit('change', at($event))" @pointerup="up" @pointercancel="dragging = false; emit('cancel')" @keydown="key"
  >
    <rect class="holds" :x="x(holdsFrom)" y="2" :width="Math.max(1, x(holdsTo) - x(holdsFrom))" :height="HEIGHT - 2" />
    <path class="area" :d="shape" />
    <text :x="x(holdsFrom) + 4" y="13">holds</text>
    <line class="mark" :x1="x(tolerance)" :x2="x(tolerance)" y1="0" :y2="HEIGHT" />
    <circle :cx="x(tolerance)" :cy="HEIGHT / 2" r="5" />
    <text x="0" :y="HEIGHT + 13">0</text>
    <text :x="x(tolerance)" :y="HEIGHT + 13" text-anchor="middle" class="now">{{ tolerance }}</text>
    <text :x="WIDTH" :y="HEIGHT + 13" text-anchor="end">{{ SHOWN }}</text>
  </svg>
</template>

<style scoped>
.curve {
  width: 100%;
  cursor: ew-resize;
  touch-action: none;
}
.curve:focus-visible {
  outline: 2px solid var(--madder);
}
.holds {
  fill: var(--madder-wash);
}
.area {
  fill: color-mix(in srgb, var(--madder) 22%, transparent);
  stroke: var(--madder);
  stroke-width: 1.5;
}
.mark {
  stroke: var(--ink);
  stroke-width: 1.5;
}
circle {
  fill: var(--ink);
}
text {
  fill: var(--ink-soft);
  font-size: 11px;
}
.now {
  fill: var(--ink);
  font-weight: 600;
}
</style>
