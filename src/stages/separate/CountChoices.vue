<script setup lang="ts">
import { computed, onScopeDispose, shallowRef, watch } from 'vue';
import type { FlatSeparation } from '../../core/separate/separation.ts';
import { withPart } from '../../core/job/tracedPart.ts';
import { findTonesAnew, type FoundFilms } from '../../core/edit/paletteEdits.ts';
import type { VariantView } from '../../engine/protocol.ts';
import { useBench } from '../../stores/bench.ts';
import FilmsPicture from '../shared/FilmsPicture.vue';

/** The next smaller, the present and the next larger number of tones as pictures. */
const props = defineProps<{ separation: FlatSeparation; found: FoundFilms; count: number }>();
const emit = defineEmits<{ take: [count: number] }>();
const bench = useBench();

/** After the last change, ms: the bench itself comes first. */
const WAIT_MS = 500;
const views = shallowRef<ReadonlyMap<number, VariantView | undefined>>(new Map());
const counts = computed(() => [props.count - 1, props.count + 1].filter((count) => count >= 2 && count <= 32));
const box = computed(() => {
  const clean = bench.result?.clean;
  return clean === undefined ? undefined : { x: clean.frame.leftPx, y: clean.frame.topPx, width: clean.widthPx / clean.frame.scale, height: clean.heightPx / clean.frame.scale };
});
const shown = computed(() => [props.count - 1, props.count, props.count + 1].map((count) => ({ count, films: count === props.count ? bench.result?.cut?.films : views.value.get(count)?.films })).filter(({ count }) => count >= 1 && count <= 32));

let turn = 0;
let timer: ReturnType<typeof setTimeout> | undefined;
async function make(): Promise<void> {
  const { part } = bench;
  const of = bench.ofJob();
  const mine = ++turn;
  if (of === undefined || part === undefined || part.separation.way !== 'flat') return;
  const made = new Map<number, VariantView | undefined>();
  for (const count of counts.value) {
    // What cannot be shown in small is not offered; the bench says why when it is asked for.
    const view = await bench.variant({ ...of, job: withPart(of.job, findTonesAnew(part, props.found, count)), size: 'small' }).catch(() => undefined);
    if (mine !== turn) return;
    made.set(count, view);
    views.value = new Map(made);
  }
}
watch([() => bench.result?.clean.key, () => props.count], () => {
  clearTimeout(timer);
  views.value = new Map();
  timer = setTimeout(() => void make(), WAIT_MS);
}, { immediate: true });
onScopeDispose(() => {
  clearTimeout(timer);
  turn++;
});
</script>

<template>
  <div class="counts" role="group" aria-label="Other numbers of tones">
    <button v-for="each in shown" :key="each.count" type="button" :aria-pressed="each.count === count" :disabled="each.films === undefined" @click="each.count !== count && emit('take', each.count)">
      <FilmsPicture v-if="each.films !== undefined && box !== undefined" :films="each.films" :box="box" :width="78" :height="58" />
      <i v-else class="waiting" />
      <span>{{ each.count }} tones</span>
    </button>
  </div>
</template>

<style scoped>
.counts {
  display: flex;
  gap: 8px;
}
button {
  display: grid;
  gap: 2px;
  justify-items: center;
  border: 1px solid var(--rule);
  border-radius: 6px;
  padding: 3px 3px 2px;
  background: none;
  color: var(--ink-soft);
  font: inherit;
  font-size: 12px;
  cursor: pointer;
}
button[aria-pressed='true'] {
  border-color: var(--madder);
  color: var(--ink);
  cursor: default;
}
button:disabled {
  cursor: default;
  opacity: 0.7;
}
button:focus-visible {
  outline: 2px solid var(--madder);
}
.waiting {
  display: block;
  width: 78px;
  height: 58px;
  background: var(--felt);
}
</style>
