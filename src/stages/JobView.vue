<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { ElMessage } from 'element-plus';
import { computed, inject, onBeforeUnmount, watch, watchEffect } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { asAppError } from '../core/errors/appError.ts';
import { tracedPart } from '../core/job/tracedPart.ts';
import { PROCESSES } from '../core/process/processes.ts';
import { formatLength } from '../core/units/parseLength.ts';
import { mm } from '../core/units/length.ts';
import { useBench } from '../stores/bench.ts';
import { useSettings } from '../stores/settings.ts';
import RoutingSlip from '../ui/RoutingSlip.vue';
import { keepsUndo } from './shared/isTyping.ts';
import { tellError } from './shared/tellError.ts';
import { slipTabs } from './slipTabs.ts';
import TourCard from './tour/TourCard.vue';
import { OPEN_HELP } from './help/openHelp.ts';
import { say } from '../core/words/say.ts';

const bench = useBench();
const settings = useSettings();
const route = useRoute();
const router = useRouter();

watch(
  () => route.params['id'],
  async (id) => {
    if (typeof id !== 'string') return;
    try {
      await bench.open(id);
    } catch (error) {
      tellError(asAppError(error, 'unexpected'));
      if (bench.entry === undefined) await router.push('/');
    }
  },
  { immediate: true },
);
watch(() => route.name, (name) => {
  if (typeof name === 'string') void bench.saveNow(name);
});
watch(() => bench.error, (error) => {
  if (error !== undefined) tellError(error);
});
watch(() => bench.saveError, (error) => {
  if (error !== undefined) tellError(error);
});
watchEffect(() => (document.title = bench.job === undefined ? 'Limner' : `${bench.job.name} · Limner`));
onBeforeUnmount(() => {
  document.title = 'Limner';
  void bench.saveNow().then(() => bench.close());
});
useEventListener(document, 'visibilitychange', () => {
  if (document.visibilityState === 'hidden') void bench.saveNow();
});
useEventListener(window, 'pagehide', () => void bench.saveNow());

/** What was taken back may be of a stage that is not looked at: it is said. */
function tell(words: string, label: string | undefined): void {
  if (label !== undefined) ElMessage({ type: 'info', message: `${words}: ${label}`, duration: 2500, grouping: true });
}
function undo(): void {
  const label = bench.undoLabel;
  bench.undo();
  tell(say('Undone'), label);
}
function redo(): void {
  const label = bench.redoLabel;
  bench.redo();
  tell(say('Redone'), label);
}
useEventListener('keydown', (event: KeyboardEvent) => {
  if (!(event.ctrlKey || event.metaKey) || keepsUndo(event.target)) return;
  const key = event.key.toLowerCase();
  if (key === 'z' && !event.shiftKey) undo();
  else if ((key === 'z' && event.shiftKey) || key === 'y') redo();
  else return;
  event.preventDefault();
});

const openHelp = inject(OPEN_HELP, () => undefined);
const tabs = computed(() => (bench.job === undefined ? [] : slipTabs({ job: bench.job, picture: bench.picture, result: bench.result, unit: settings.unit, partId: bench.focus })));
const lines = computed(() => {
  const { job } = bench;
  if (job === undefined) return [];
  const { size } = tracedPart(job);
  return [`${job.blank.name} · ${formatLength(mm(size.sizeMm), settings.unit)}${size.by === 'height' ? say(' high') : ''}`, PROCESSES[job.process].name];
});
const saved = computed(() => (bench.saveError !== undefined ? say('not saved') : bench.saving ? say('saving…') : say('saved')));
</script>

<template>
  <div v-if="bench.job !== undefined" class="job" :data-current="bench.isCurrent">
    <RoutingSlip
      :name="bench.job.name" :lines="lines" :tabs="tabs" :current="route.name === 'ticket' || route.name === 'machine' ? 'handoff' : String(route.name)" :undo-label="bench.undoLabel" :redo-label="bench.redoLabel" :saved="saved"
      @go="router.push({ name: $event, params: { id: String(route.params['id']) } })" @undo="undo" @redo="redo" @shelf="router.push('/')" @help="openHelp" @versions="router.push({ name: 'versions', params: { id: String(route.params['id']) } })"
    />
    <RouterView />
    <TourCard />
  </div>
  <p v-else class="opening" role="status">Opening the job…</p>
</template>

<style scoped>
.job {
  display: grid;
  grid-template-columns: 176px minmax(0, 1fr);
  height: 100%;
  overflow: hidden;
}
.opening {
  padding: 40vh 0 0;
  color: var(--ink-soft);
  text-align: center;
}
</style>
