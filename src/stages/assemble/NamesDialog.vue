<script setup lang="ts">
import { unzipSync, zipSync } from 'fflate';
import { ElDialog, ElProgress } from 'element-plus';
import { computed, markRaw, onBeforeUnmount, ref, shallowRef } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import type { FilledJob } from '../../formats/names/filledJobs.ts';
import type { OfJob, VariantView } from '../../engine/protocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { download } from '../shared/download.ts';
import FilmsPicture from '../shared/FilmsPicture.vue';
import { tellError } from '../shared/tellError.ts';
import { counted, say } from '../../core/words/say.ts';

/** All designs of a list side by side, each checked, and their cut files together. */
const props = defineProps<{ jobs: readonly FilledJob[] }>();
const emit = defineEmits<{ close: [] }>();
const bench = useBench();
const settings = useSettings();
const open = ref(true);
const views = shallowRef<ReadonlyMap<string, VariantView>>(new Map());
const saving = ref<number>();
let isOver = false;
onBeforeUnmount(() => (isOver = true));

const WIDTH = 150;
const HEIGHT = 120;
const shown = computed(() =>
  props.jobs.map(({ label, suffix }) => {
    const view = views.value.get(suffix);
    const films = view?.design.layers.flatMap(({ filmId, curves }) => {
      const film = view.rack.find(({ id }) => id === filmId);
      return film === undefined ? [] : [{ film, outline: curves }];
    });
    return { label, suffix, view, films, box: view === undefined ? undefined : { x: 0, y: 0, width: view.design.widthMm, height: view.design.heightMm } };
  }),
);
const worth = computed(() => shown.value.filter(({ view }) => (view?.findings ?? 0) > 0).length);

async function look(): Promise<void> {
  const of = bench.ofJob();
  if (of === undefined) return;
  for (const { job, suffix } of props.jobs) {
    if (isOver) return;
    const view = markRaw(await bench.variant({ ...of, job, size: 'small' }));
    views.value = new Map([...views.value, [suffix, view]]);
  }
}
void look().catch((error: unknown) => tellError(asAppError(error, 'unexpected')));

async function sheetsOf(of: OfJob, { job, suffix }: FilledJob): Promise<[string, Uint8Array][]> {
  const zipped = unzipSync(await bench.exportFile({ ...of, job, kind: 'svgs' }));
  const names = Object.keys(zipped);
  return names.map((name) => [names.length === 1 ? `${suffix}.svg` : `${suffix}/${name}`, zipped[name]]);
}
async function save(): Promise<void> {
  const of = bench.ofJob();
  if (of === undefined) return;
  saving.value = 0;
  try {
    const files: Record<string, Uint8Array> = {};
    for (const [k, each] of props.jobs.entries()) {
      if (isOver) return;
      for (const [name, bytes] of await sheetsOf(of, each)) files[name] = bytes;
      saving.value = (k + 1) / props.jobs.length;
    }
    download(`${bench.job?.name ?? 'names'}.zip`, new Uint8Array(zipSync(files)), 'application/zip');
  } catch (error) {
    tellError(asAppError(error, 'unexpected'));
  } finally {
    saving.value = undefined;
  }
}
/** How many there are, and how many the cut check has found something in. */
const said = computed(() => `${counted(props.jobs.length, say('design'), say('designs'))}${worth.value === 0 ? '' : say`, ${counted(worth.value, say('design'), say('designs'))} with places to look at`}`);
</script>

<template>
  <ElDialog v-model="open" title="All designs of the list" width="880px" align-center @closed="emit('close')">
    <p class="said" role="status">{{ said }}</p>
    <ul class="designs" aria-label="Designs">
      <li v-for="{ label, suffix, view, films, box } in shown" :key="suffix" :class="{ look: (view?.findings ?? 0) > 0 }">
        <FilmsPicture v-if="films !== undefined && box !== undefined" :films="films" :box="box" :width="WIDTH" :height="HEIGHT" />
        <div v-else class="waits" :style="{ width: `${WIDTH}px`, height: `${HEIGHT}px` }" />
        <b>{{ label }}</b>
        <small v-if="view !== undefined">{{ formatLength(mm(view.design.widthMm), settings.unit) }} × {{ formatLength(mm(view.design.heightMm), settings.unit) }}{{ view.findings > 0 ? $say`, ${counted(view.findings, $say('place'), $say('places'))} to look at` : '' }}</small>
      </li>
    </ul>
    <template #footer>
      <ElProgress v-if="saving !== undefined" :percentage="Math.round(saving * 100)" color="var(--madder)" />
      <button type="button" class="plain-button main" :disabled="saving !== undefined" @click="save">Save the cut files of all</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.said {
  margin: 0 0 8px;
  color: var(--ink-soft);
}
.designs {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(158px, 1fr));
  gap: 12px;
  max-height: 60vh;
  margin: 0;
  padding: 0;
  overflow-y: auto;
  list-style: none;
}
li {
  display: grid;
  gap: 2px;
  justify-items: start;
}
li.look small {
  color: var(--ochre-text);
}
small {
  color: var(--ink-soft);
}
.waits {
  background: var(--felt);
}
</style>
