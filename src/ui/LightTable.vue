<script setup lang="ts">
import { computed, inject, onBeforeUnmount, ref, toRef, useId, watch, watchEffect } from 'vue';
import type { LengthUnit } from '../core/units/parseLength.ts';
import RulerBar from './RulerBar.vue';
import { SCREEN_SIZE } from './screenSize.ts';
import { useTableView, type TablePoint } from './useTableView.ts';
import { useTwoFingers } from './useTwoFingers.ts';
import { toScreenX, toScreenY, type Box, type Size, type Viewport } from './viewport.ts';

/** Draws the scene; called once a frame when something changed. Coordinates on the context are CSS px. */
export type DrawScene = (context: CanvasRenderingContext2D, view: Viewport, size: Size) => void;

const props = defineProps<{
  /** What is fitted into view, world units. */
  box: Box;
  /** World point that the rulers count from. */
  zero: { x: number; y: number };
  /** True mm on one world unit. */
  mmPerUnit: number;
  unit: LengthUnit;
  draw: DrawScene;
  /** Anything whose change means drawing again. */
  redrawOn: unknown;
  label: string;
  /** What lies on it, in words. */
  contents?: string | undefined;
  cursor?: string | undefined;
}>();
const emit = defineEmits<{
  press: [point: TablePoint, event: PointerEvent];
  move: [point: TablePoint, event: PointerEvent];
  release: [point: TablePoint, event: PointerEvent];
  leave: [];
  /** A ruler is pressed: what is drawn out of it goes on as moves and a release on the table. */
  ruler: [way: 'upright' | 'level', point: TablePoint, event: PointerEvent];
  view: [view: Viewport, size: Size];
}>();

/** A frame that takes longer is not drawn at each step of a zoom, but once the view rests for so long. */
const HEAVY_MS = 50;
const REST_MS = 220;

const words = useId();
const host = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const screen = inject(SCREEN_SIZE, undefined);
const trueScale = computed(() => (screen?.pxPerMm.value ?? 1) * props.mmPerUnit);
const { size, view, pointer, cursor: panCursor, fit, showTrueSize, zoomBy, pinch, centre, pointOf, pan } = useTableView(host, toRef(props, 'box'), trueScale);
defineExpose({ centre });

function trueSize(): void {
  if (screen === undefined) return;
  if (screen.isMeasured.value) showTrueSize();
  else screen.measure(showTrueSize);
}

let frame = 0;
/** The view that the canvas shows, and whether it took so long to draw that moving it shows it as it is, shifted and scaled, until it rests. */
let painted: Viewport | undefined;
let isHeavy = false;
let rest: ReturnType<typeof setTimeout> | undefined;
function paint(): void {
  frame = 0;
  clearTimeout(rest);
  rest = undefined;
  const from = performance.now();
  const element = canvas.value;
  const context = element?.getContext('2d');
  if (element === undefined || context === null || context === undefined) return;
  const ratio = window.devicePixelRatio;
  const width = Math.max(1, Math.round(size.value.width * ratio));
  const height = Math.max(1, Math.round(size.value.height * ratio));
  if (element.width !== width || element.height !== height) {
    element.width = width;
    element.height = height;
  }
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.clearRect(0, 0, size.value.width, size.value.height);
  props.draw(context, view.value, size.value);
  element.style.transform = '';
  painted = { ...view.value };
  // A task of its own comes after all of the frame, what the browser draws of it too.
  setTimeout(() => (isHeavy = performance.now() - from > HEAVY_MS));
}
/** Shows what is drawn where the view has moved it to. */
function shift(): void {
  const [element, before] = [canvas.value, painted];
  if (element === undefined || before === undefined) return;
  const by = view.value.scale / before.scale;
  element.style.transform = `translate(${view.value.x - by * before.x}px, ${view.value.y - by * before.y}px) scale(${by})`;
  clearTimeout(rest);
  rest = setTimeout(ask, REST_MS);
}
function ask(): void {
  if (frame === 0) frame = requestAnimationFrame(paint);
}
watch([view, size, () => props.redrawOn, () => props.draw], (now, before) => {
  // What comes while it moves is drawn once it rests.
  if (isHeavy && now[0] !== before[0] && now[1] === before[1]) shift();
  else if (rest === undefined) ask();
}, { immediate: true });
watchEffect(() => emit('view', view.value, size.value));
onBeforeUnmount(() => {
  cancelAnimationFrame(frame);
  clearTimeout(rest);
});

/** What lies on the table and takes presses itself: buttons, fields, sliders. */
const takesPresses = (target: EventTarget | null): boolean => target instanceof Element && target.closest('button, input, select, a, label, [role="slider"], .el-slider') !== null;

function press(event: PointerEvent): void {
  emit('press', pointOf(event), event);
}
/** What a finger began is left as by Escape when a second one comes. */
const fingers = useTwoFingers({ press, abort: () => document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true })), pinch, pointOf });
function onDown(event: PointerEvent): void {
  if (takesPresses(event.target)) return;
  host.value?.focus({ preventScroll: true });
  if (pan(event) || event.button !== 0) return;
  host.value?.setPointerCapture(event.pointerId);
  if (!fingers.down(event)) press(event);
}
function onUp(event: PointerEvent): void {
  if (!fingers.up(event)) emit('release', pointOf(event), event);
}
/** A line that is drawn out of the upper ruler is level. */
function onRuler(way: 'upright' | 'level', event: PointerEvent): void {
  if (event.button !== 0) return;
  host.value?.setPointerCapture(event.pointerId);
  emit('ruler', way, pointOf(event), event);
}
function onMove(event: PointerEvent): void {
  if (fingers.move(event)) return;
  pointer.value = pointOf(event);
  emit('move', pointer.value, event);
}
function onLeave(): void {
  pointer.value = undefined;
  emit('leave');
}
function onKey(event: KeyboardEvent): void {
  if (event.target !== host.value || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === '+' || event.key === '=') zoomBy(1.25);
  else if (event.key === '-') zoomBy(0.8);
  else if (event.key === '0') fit();
  else if (event.key === '1') trueSize();
}
</script>

<template>
  <div class="light-table">
    <div class="corner" />
    <RulerBar class="top" direction="across" :length="size.width" :zero-at="toScreenX(view, zero.x)" :px-per-mm="view.scale / mmPerUnit" :unit="unit" :pointer="pointer?.screenX" @pointerdown="onRuler('level', $event)" />
    <RulerBar class="left" direction="down" :length="size.height" :zero-at="toScreenY(view, zero.y)" :px-per-mm="view.scale / mmPerUnit" :unit="unit" :pointer="pointer?.screenY" @pointerdown="onRuler('upright', $event)" />
    <div
      ref="host" class="surface" tabindex="0" role="application" :aria-label="label" :aria-describedby="contents === undefined ? undefined : words" :style="{ cursor: panCursor ?? cursor ?? 'default' }"
      @pointerdown="onDown" @pointermove="onMove" @pointerup="onUp" @pointercancel="onUp" @pointerleave="onLeave" @keydown="onKey"
    >
      <p v-if="contents !== undefined" :id="words" class="visually-hidden">{{ contents }}</p>
      <canvas ref="canvas" />
      <slot :view="view" :size="size" />
      <div class="zoom" role="group" aria-label="Zoom" @pointerdown.stop>
        <button type="button" title="Fit to view (0)" @click="fit">fit</button>
        <button v-if="screen !== undefined" type="button" title="Actual size (1)" @click="trueSize">true size</button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.light-table {
  display: grid;
  grid-template: 22px minmax(0, 1fr) / 22px minmax(0, 1fr);
  min-width: 0;
  min-height: 0;
  overflow: hidden;
}
.corner {
  background: var(--felt-soft);
}
.top,
.left {
  overflow: hidden;
  user-select: none;
  touch-action: none;
}
.surface {
  position: relative;
  overflow: hidden;
  background: var(--bench);
  touch-action: none;
  user-select: none;
}
.surface:focus-visible {
  outline: 2px solid var(--madder);
  outline-offset: -2px;
}
.zoom {
  position: absolute;
  right: 10px;
  bottom: 10px;
  display: flex;
  border: 1px solid var(--rule);
  border-radius: 8px;
  overflow: hidden;
}
.zoom button {
  padding: 2px 9px;
  border: 0;
  background: var(--paper);
  color: var(--ink-soft);
  font: inherit;
  font-size: 11.5px;
  cursor: pointer;
}
.zoom button:hover {
  color: var(--ink);
}
.zoom button + button {
  border-left: 1px solid var(--rule);
}
.zoom button:focus-visible {
  outline: 2px solid var(--madder);
  outline-offset: -2px;
}
canvas {
  transform-origin: 0 0;
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
</style>
