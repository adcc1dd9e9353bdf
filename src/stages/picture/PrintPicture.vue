<script setup lang="ts">
import { onMounted, ref, watch } from 'vue';
import type { Rgba8 } from '../../core/raster/raster.ts';
import { canvasOf } from '../shared/bitmaps.ts';
import { readyCanvas } from '../shared/smallCanvas.ts';

/** A picture in small, as it would be printed. */
const props = defineProps<{ picture: Rgba8; width: number; height: number }>();
const canvas = ref<HTMLCanvasElement>();

function draw(): void {
  const ready = readyCanvas(canvas.value, props.width, props.height);
  if (ready === undefined) return;
  const { context } = ready;
  const scale = Math.min(context.canvas.width / props.picture.width, context.canvas.height / props.picture.height);
  const [wide, high] = [props.picture.width * scale, props.picture.height * scale];
  context.imageSmoothingQuality = 'high';
  context.drawImage(canvasOf(props.picture), (context.canvas.width - wide) / 2, (context.canvas.height - high) / 2, wide, high);
}
onMounted(draw);
watch(() => props.picture, draw);
</script>

<template>
  <canvas ref="canvas" :style="{ width: `${width}px`, height: `${height}px` }" aria-hidden="true" />
</template>
