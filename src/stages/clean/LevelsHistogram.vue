<script setup lang="ts">
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { computed, ref } from 'vue';
import { levelsTable, type Levels } from '../../core/clean/levels.ts';
import { histogramShape } from '../../ui/histogramShape.ts';
import { say } from '../../core/words/say.ts';

/** How much of the art is how light before the step, what the step makes of each lightness, and its three points to drag. */
const props = defineProps<{ histogram: Float64Array; levels: Levels }>();
type Change = Pick<Levels, 'black' | 'white' | 'gamma'>;
const emit = defineEmits<{ change: [change: Change]; done: [change: Change]; cancel: [] }>();

const WIDTH = 270;
const HEIGHT = 84;
const x = scaleLinear([0, 255], [0, WIDTH]).clamp(true);
const shape = computed(() => histogramShape(props.histogram, WIDTH, HEIGHT));
const curve = computed(() => line<number>().x((_, i) => x(i)).y((v) => HEIGHT - (v / 255) * (HEIGHT - 4))(Array.from(levelsTable(props.levels))) ?? '');
/** Lightness that the middle tones' point brings to half. */
const middle = computed(() => props.levels.black + (props.levels.white - props.levels.black) * 0.5 ** props.levels.gamma);

type Point = 'black' | 'middle' | 'white';
const points = computed<readonly { point: Point; at: number; name: string; now: number; least: number; most: number }[]>(() => {
  const { black, white, gamma } = props.levels;
  return [
    { point: 'black', at: black, name: say('Black from'), now: Math.round(black), least: 0, most: white - 1 },
    { point: 'middle', at: middle.value, name: say('Middle tones'), now: Math.round(gamma * 100) / 100, least: 0.1, most: 10 },
    { point: 'white', at: white, name: say('White from'), now: Math.round(white), least: black + 1, most: 255 },
  ];
});

/** The levels with a point moved to a lightness. */
function moved(point: Point, value: number): Change {
  const { black, white, gamma } = props.levels;
  if (point === 'black') return { black: Math.max(0, Math.min(white - 1, Math.round(value))), white, gamma };
  if (point === 'white') return { black, white: Math.max(black + 1, Math.min(255, Math.round(value))), gamma };
  const share = Math.max(0.001, Math.min(0.999, (value - black) / (white - black)));
  return { black, white, gamma: Math.max(0.1, Math.min(10, Math.round((Math.log(share) / Math.log(0.5)) * 100) / 100)) };
}

const chart = ref<SVGElement>();
const held = ref<Point>();
function lightnessAt(event: PointerEvent): number {
  const rect = chart.value?.getBoundingClientRect();
  return rect === undefined ? 0 : x.invert(((event.clientX - rect.left) / rect.width) * WIDTH);
}
function down(point: Point, event: PointerEvent): void {
  held.value = point;
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
}
function move(event: PointerEvent): void {
  if (held.value !== undefined) emit('change', moved(held.value, lightnessAt(event)));
}
function up(event: PointerEvent): void {
  if (held.value === undefined) return;
  emit('done', moved(held.value, lightnessAt(event)));
  held.value = undefined;
}
function cancel(): void {
  held.value = undefined;
  emit('cancel');
}
function key(point: Point, event: KeyboardEvent): void {
  const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
  if (by === undefined) return;
  event.preventDefault();
  const step = by * (event.shiftKey ? 10 : 1);
  emit('done', point === 'middle' ? { ...props.levels, gamma: Math.max(0.1, Math.min(10, Math.round((props.levels.gamma - step * 0.02) * 100) / 100)) } : moved(point, props.levels[point] + step));
}
</script>

<template>
  <svg ref="chart" :viewBox="`0 0 ${WIDTH} ${HEIGHT + 20}`" class="levels" role="group" aria-label="How much of the art is how light" @pointermove="move">
    <path class="counts" :d="shape" />
    <path class="made" :d="curve" />
    <g
      v-for="{ point, at, name, now, least, most } in points" :key="point" class="point" :class="point" role="slider" tabindex="0" :aria-label="name" :aria-valuenow="now" :aria-valuemin="least" :aria-valuemax="most"
      @pointerdown="down(point, $event)" @pointerup="up" @pointercancel="cancel" @keydown="key(point, $event)"
    >
      <rect :x="x(at) - 9" y="0" width="18" :height="HEIGHT + 20" fill="transparent" />
      <line :x1="x(at)" :x2="x(at)" y1="0" :y2="HEIGHT" />
      <path :d="`M${x(at)},${HEIGHT + 1} l6,11 h-12 z`" />
    </g>
  </svg>
</template>

<style scoped>
.levels {
  width: 100%;
  overflow: visible;
  touch-action: none;
}
.counts {
  fill: var(--rule-strong);
}
.made {
  fill: none;
  stroke: var(--madder);
  stroke-width: 1.5;
}
.point {
  cursor: ew-resize;
}
.point line {
  stroke: var(--ink);
  stroke-dasharray: 2 3;
}
.point path {
  stroke: var(--ink);
}
.black path {
  fill: #000;
}
.middle path {
  fill: #8a8a8a;
}
.white path {
  fill: #fff;
}
.point:focus-visible {
  outline: 2px solid var(--madder);
}
</style>
