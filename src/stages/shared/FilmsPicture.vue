<script setup lang="ts">
import { onMounted, ref, watch } from 'vue';
import type { Film } from '../../core/film/film.ts';
import type { Curves } from '../../core/outline/curves.ts';
import { useSettings } from '../../stores/settings.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { backdropPaint } from '../../ui/backdrops.ts';
import { fillHatch } from '../../ui/draw/hatch.ts';
import type { Box } from '../../ui/viewport.ts';
import { readyCanvas } from './smallCanvas.ts';

/** Films over each other in their colours, in small. What is not covered is hatched. */
const props = defineProps<{ films: readonly { readonly film: Film; readonly outline: Curves }[]; box: Box; width: number; height: number }>();
const settings = useSettings();
const canvas = ref<HTMLCanvasElement>();

function draw(): void {
  const ready = readyCanvas(canvas.value, props.width, props.height);
  if (ready === undefined) return;
  const { context, ratio } = ready;
  const scale = Math.min(props.width / props.box.width, props.height / props.box.height);
  const [left, top] = [(props.width - props.box.width * scale) / 2, (props.height - props.box.height * scale) / 2];
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  fillHatch(context, backdropPaint('hatch', '#ffffff', [], settings.isDark), left, top, props.box.width * scale, props.box.height * scale);
  context.setTransform(ratio * scale, 0, 0, ratio * scale, ratio * (left - props.box.x * scale), ratio * (top - props.box.y * scale));
  for (const { film, outline } of props.films) {
    context.fillStyle = film.colour;
    context.fill(pathFromCurves(outline), 'evenodd');
  }
}
onMounted(draw);
watch(() => [props.films, props.box, settings.isDark], draw);
</script>

<template>
  <canvas ref="canvas" :style="{ width: `${width}px`, height: `${height}px` }" aria-hidden="true" />
</template>
