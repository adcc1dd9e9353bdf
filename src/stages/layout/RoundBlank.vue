<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import type { Blank } from '../../core/process/blanks.ts';
import type { Rgba8 } from '../../core/raster/raster.ts';
import { canvasOf } from '../shared/bitmaps.ts';
import type { RoundScene } from './roundScene.ts';

/** A mug or glass that is turned by dragging; told when the browser draws no three dimensions. */
const props = defineProps<{ blank: Blank; area: Rgba8 | undefined; turnRad: number }>();
const emit = defineEmits<{ failed: [] }>();
const canvas = ref<HTMLCanvasElement>();
const host = ref<HTMLElement>();
const { width, height } = useElementSize(host);
const scene = shallowRef<RoundScene>();
let isGone = false;

async function start(): Promise<void> {
  scene.value?.dispose();
  scene.value = undefined;
  // Asked of a canvas of its own: one that has failed is of no use afterwards.
  if (document.createElement('canvas').getContext('webgl2') === null) return emit('failed');
  try {
    const { roundScene } = await import('./roundScene.ts');
    if (isGone || canvas.value === undefined) return;
    scene.value = roundScene(canvas.value, props.blank, getComputedStyle(canvas.value).getPropertyValue('--felt').trim() || '#f0eae0');
    fit();
    show();
  } catch {
    // Told to whoever shows it, which has another way to draw it.
    emit('failed');
  }
}
const fit = (): void => scene.value?.resize(Math.max(1, width.value), Math.max(1, height.value), window.devicePixelRatio);
function show(): void {
  if (props.area !== undefined) scene.value?.show(canvasOf(props.area));
  scene.value?.turn(props.turnRad);
}
onMounted(start);
watch([width, height], fit);
watch(() => [props.area, props.turnRad], show);
watch(() => props.blank, start);
onBeforeUnmount(() => {
  isGone = true;
  scene.value?.dispose();
});
</script>

<template>
  <div ref="host" class="round"><canvas ref="canvas" role="img" :aria-label="$say`${blank.name}, to be turned by dragging`" tabindex="0" /></div>
</template>

<style scoped>
.round {
  position: relative;
  min-height: 0;
  overflow: hidden;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
  cursor: grab;
}
</style>
