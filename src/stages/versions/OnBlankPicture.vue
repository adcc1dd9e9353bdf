<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import { explain } from '../../core/errors/explain.ts';
import type { Job } from '../../core/job/job.ts';
import type { Rgba8 } from '../../core/raster/raster.ts';
import { useVersions } from '../../stores/versions.ts';
import { canvasOf } from '../shared/bitmaps.ts';

/** The finished blank as a state of the job would have it. */
const props = defineProps<{ job: Job; label: string }>();
const versions = useVersions();
const SIDE_PX = 900;
const canvas = ref<HTMLCanvasElement>();
const picture = shallowRef<Rgba8>();
const problem = ref<string>();
let turn = 0;
watch(() => props.job, async (job) => {
  const mine = ++turn;
  try {
    const made = await versions.onBlank(job, SIDE_PX);
    if (mine === turn) [picture.value, problem.value] = [made, undefined];
  } catch (caught) {
    const error = asAppError(caught, 'unexpected');
    if (mine === turn && error.code !== 'cancelled') [picture.value, problem.value] = [undefined, explain(error).what];
  }
}, { immediate: true });
watch([picture, canvas], ([made, on]) => {
  if (made === undefined || on === undefined) return;
  [on.width, on.height] = [made.width, made.height];
  on.getContext('2d')?.drawImage(canvasOf(made), 0, 0);
}, { flush: 'post' });
</script>

<template>
  <figure :aria-label="label">
    <canvas v-show="picture !== undefined" ref="canvas" role="img" :aria-label="$say`The finished blank, ${label}`" />
    <p v-if="problem !== undefined">{{ problem }}</p>
    <p v-else-if="picture === undefined" role="status">It is being drawn…</p>
    <figcaption>{{ label }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  grid-template-rows: minmax(0, auto) auto;
  align-content: center;
  justify-items: center;
  gap: 8px;
  min-height: 0;
  margin: 0;
}
canvas {
  max-width: 100%;
  max-height: 100%;
  min-height: 0;
  object-fit: contain;
}
p,
figcaption {
  margin: 0;
  color: var(--ink-soft);
}
</style>
