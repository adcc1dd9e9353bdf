<script setup lang="ts">
import { computed } from 'vue';
import { rulerTicks } from './rulerTicks.ts';
import type { LengthUnit } from '../core/units/parseLength.ts';

const props = defineProps<{
  direction: 'across' | 'down';
  /** CSS px. */
  length: number;
  zeroAt: number;
  pxPerMm: number;
  unit: LengthUnit;
  /** Pointer position along the ruler, CSS px; marked when it is over the table. */
  pointer?: number | undefined;
}>();

const ticks = computed(() => rulerTicks(props.length, props.zeroAt, props.pxPerMm, props.unit));
const across = computed(() => props.direction === 'across');
const reach = { major: 9, middle: 6, minor: 4 } as const;
const SIZE = 22;
</script>

<template>
  <svg class="ruler" :class="direction" :width="across ? length : SIZE" :height="across ? SIZE : length" aria-hidden="true">
    <template v-for="tick in ticks" :key="tick.at">
      <line v-if="across" :x1="tick.at" :x2="tick.at" :y1="SIZE - reach[tick.level]" :y2="SIZE" />
      <line v-else :x1="SIZE - reach[tick.level]" :x2="SIZE" :y1="tick.at" :y2="tick.at" />
      <text v-if="tick.label !== undefined && across" :x="tick.at + 3" y="10">{{ tick.label }}</text>
      <text v-else-if="tick.label !== undefined" x="2" :y="tick.at - 3">{{ tick.label }}</text>
    </template>
    <line v-if="pointer !== undefined && across" class="pointer" :x1="pointer" :x2="pointer" y1="0" :y2="SIZE" />
    <line v-else-if="pointer !== undefined" class="pointer" x1="0" :x2="SIZE" :y1="pointer" :y2="pointer" />
  </svg>
</template>

<style scoped>
.ruler {
  display: block;
  background: var(--felt-soft);
}
line {
  stroke: var(--rule-strong);
  stroke-width: 1;
  shape-rendering: crispEdges;
}
.pointer {
  stroke: var(--madder);
}
text {
  font-size: 9.5px;
  fill: var(--ink-soft);
  font-variant-numeric: tabular-nums;
}
</style>
