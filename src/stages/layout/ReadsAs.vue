<script setup lang="ts">
import { onMounted, ref, watch } from 'vue';
import type { Design } from '../../core/assemble/design.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { fillPath } from '../../ui/draw/cutLines.ts';
import { fitted } from '../../ui/viewport.ts';

/** A small picture of how the design reads when it is on the blank. */
const props = defineProps<{ design: Design; colours: readonly string[]; blank: string; words: string }>();
const canvas = ref<HTMLCanvasElement>();
const SIZE = 46;

function paint(): void {
  const element = canvas.value;
  const context = element?.getContext('2d');
  if (element === undefined || context === null || context === undefined) return;
  const ratio = window.devicePixelRatio;
  element.width = element.height = SIZE * ratio;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.fillStyle = props.blank;
  context.fillRect(0, 0, SIZE, SIZE);
  const view = fitted({ x: 0, y: 0, width: props.design.widthMm, height: props.design.heightMm }, { width: SIZE, height: SIZE }, 4);
  for (const [k, { curves }] of props.design.layers.entries()) fillPath(context, pathFromCurves(curves), view, props.colours[k]);
}
onMounted(paint);
watch(() => [props.design, props.colours, props.blank], paint);
</script>

<template>
  <figure class="reads"><figcaption>{{ words }}</figcaption><canvas ref="canvas" :style="{ width: `${SIZE}px`, height: `${SIZE}px` }" role="img" :aria-label="words" /></figure>
</template>

<style scoped>
.reads {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  margin: 4px 0;
  color: var(--ink-soft);
}
canvas {
  border: 1px solid var(--rule);
}
</style>
