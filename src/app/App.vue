<script setup lang="ts">
import { useEventListener, useTimeoutFn, watchDebounced } from '@vueuse/core';
import { ElMessage } from 'element-plus';
import { computed, defineAsyncComponent, onMounted, provide, ref, toRef, watchEffect } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { asAppError } from '../core/errors/appError.ts';
import { CHOSEN_FILES, FILLING } from '../stages/shared/pickFiles.ts';
import { keepForOffline, offline, takeUpNewer, whenOpenedWith } from '../offline/offline.ts';
import { tellError } from '../stages/shared/tellError.ts';
import { useBench } from '../stores/bench.ts';
import { useKeeping } from '../stores/keeping.ts';
import { useServices } from '../stores/services.ts';
import { useSettings } from '../stores/settings.ts';
import { JOBS_ENDING, jobsInZip } from '../formats/archive/jobsZip.ts';
import { isArchive, useShelf } from '../stores/shelf.ts';
import { SCREEN_SIZE } from '../ui/screenSize.ts';
import { OPEN_HELP } from '../stages/help/openHelp.ts';
import type { HelpPlace } from '../stages/help/helpTexts.ts';
import { useTour } from '../stages/tour/useTour.ts';
import ScreenSizeDialog from './ScreenSizeDialog.vue';
import { say } from '../core/words/say.ts';

const { engine } = useServices();
const shelf = useShelf();
const bench = useBench();
const settings = useSettings();
const keeping = useKeeping();
const router = useRouter();
const route = useRoute();
/** The shelf is given so long to settle before the engine gets ready, ms. */
const WARM_AFTER_MS = 800;
/** The application's files are fetched for use without a network after so long, ms. */
const OFFLINE_AFTER_MS = 3000;
const COPY_AFTER_MS = 30_000;
const dragOver = ref(false);
const bringingIn = ref<string>();
const starting = ref(true);
/** The newer build is taken up at another time. */
const putOff = ref(false);
provide(FILLING, computed(() => starting.value || bringingIn.value !== undefined));

watchEffect(() => document.documentElement.classList.toggle('dark', settings.isDark));

/** Loaded when it is first asked for. */
const HelpPanel = defineAsyncComponent(() => import('../stages/help/HelpPanel.vue'));
const helpOpen = ref(false);
const helpAsked = ref(false);
function openHelp(): void {
  helpAsked.value = helpOpen.value = true;
}
provide(OPEN_HELP, openHelp);
useEventListener('keydown', (event: KeyboardEvent) => {
  if (event.key !== 'F1') return;
  event.preventDefault();
  openHelp();
});
const helpPlace = computed(() => (route.name === 'together' ? 'shelf' : String(route.name ?? 'shelf')) as HelpPlace);
const tour = useTour();
function beginTour(): void {
  helpOpen.value = false;
  void tour.begin().catch((error: unknown) => tellError(asAppError(error, 'unexpected')));
}

const measuring = ref(false);
let whenMeasured = (): void => undefined;
provide(SCREEN_SIZE, {
  pxPerMm: toRef(settings, 'screenPxPerMm'),
  isMeasured: toRef(settings, 'screenMeasured'),
  measure(then) {
    whenMeasured = then;
    measuring.value = true;
  },
});

/** On the shelf the engine gets ready for the first picture once nothing else is to be done. */
function warmWhenIdle(): void {
  useTimeoutFn(() => {
    if (route.name === 'shelf') void engine.warm().catch(() => 'to be ready sooner is all that it gives: nobody waits for it');
  }, WARM_AFTER_MS);
}

onMounted(async () => {
  try {
    await shelf.load();
    await shelf.purgeDeleted();
    bringingIn.value = say('the demo jobs');
    await shelf.addDemo(true);
  } catch (error) {
    tellError(asAppError(error, 'storageFailed'));
  } finally {
    bringingIn.value = undefined;
    starting.value = false;
  }
  warmWhenIdle();
  whenOpenedWith((files) => void bringIn(files));
  void keeping.load().catch((error: unknown) => tellError(asAppError(error, 'storageFailed')));
  // The files of the application come in behind what the first screen needs.
  useTimeoutFn(() => void keepForOffline(), OFFLINE_AFTER_MS);
});

/** What has changed goes into the folder for copies, some time after the last change. */
watchDebounced(() => shelf.entries, () => void keeping.copyToFolder(false).catch((error: unknown) => tellError(asAppError(error, 'unexpected'))), { debounce: COPY_AFTER_MS });


/** Files from anywhere: a picture for the open job that has none, else each a new job; archives always come in as jobs of their own. */
async function bringIn(given: readonly File[]): Promise<void> {
  const files = (await Promise.all(given.map(unpacked))).flat();
  let last: string | undefined;
  for (const file of files) {
    bringingIn.value = file.name;
    try {
      const waiting = route.name === 'picture' && bench.entry !== undefined && bench.pictureInfo === undefined;
      if (waiting && !isArchive(file.name)) await bench.setPicture(file);
      else last = (await shelf.addFile(file, { opensNext: files.length === 1 })).id;
    } catch (error) {
      tellError(asAppError(error, 'unexpected'));
    } finally {
      bringingIn.value = undefined;
    }
  }
  if (last === undefined) return;
  if (files.length === 1) await router.push({ name: 'picture', params: { id: last } });
  else ElMessage.success({ message: say`${files.length} files brought in`, grouping: true });
}

/** The jobs in a zip; any other file as it is. */
async function unpacked(file: File): Promise<readonly File[]> {
  if (!file.name.toLowerCase().endsWith(JOBS_ENDING)) return [file];
  try {
    return jobsInZip(new Uint8Array(await file.arrayBuffer()), file.name).map(({ fileName, bytes }) => new File([bytes], fileName));
  } catch (error) {
    tellError(asAppError(error, 'unexpected'));
    return [];
  }
}

const hasFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') === true;
useEventListener('dragover', (event: DragEvent) => {
  if (!hasFiles(event)) return;
  event.preventDefault();
  dragOver.value = true;
});
useEventListener('dragleave', (event: DragEvent) => {
  if (event.relatedTarget === null) dragOver.value = false;
});
useEventListener('drop', (event: DragEvent) => {
  if (!hasFiles(event)) return;
  event.preventDefault();
  dragOver.value = false;
  void bringIn([...(event.dataTransfer?.files ?? [])]);
});
useEventListener('paste', (event: ClipboardEvent) => {
  const files = [...(event.clipboardData?.files ?? [])];
  if (files.length === 0) return;
  event.preventDefault();
  void bringIn(files);
});
useEventListener(window, CHOSEN_FILES as never, (event: CustomEvent<File[]>) => void bringIn(event.detail));
</script>

<template>
  <RouterView />
  <div v-if="dragOver" class="drop-veil"><p>Drop it anywhere</p></div>
  <div v-if="bringingIn !== undefined" class="bringing" role="status">Bringing in {{ bringingIn }}…</div>
  <div v-if="offline.newer.value && !putOff" class="newer" role="status">
    A newer Limner is here.
    <button type="button" class="plain-button" @click="takeUpNewer(() => bench.saveNow())">Take it up</button>
    <button type="button" class="plain-button" @click="putOff = true">Later</button>
  </div>
  <HelpPanel v-if="helpAsked" v-model="helpOpen" :place="helpPlace" @tour="beginTour" />
  <ScreenSizeDialog v-if="measuring" v-model="measuring" @taken="whenMeasured()" />
</template>

<style scoped>
.drop-veil {
  position: fixed;
  inset: 12px;
  z-index: 3000;
  display: grid;
  place-items: center;
  border: 3px dashed var(--madder);
  border-radius: 12px;
  background: color-mix(in srgb, var(--paper) 82%, transparent);
  pointer-events: none;
}
.drop-veil p {
  font-family: var(--serif);
  font-size: 28px;
}
.bringing {
  position: fixed;
  bottom: 44px;
  left: 50%;
  z-index: 2500;
  transform: translateX(-50%);
  padding: 8px 16px;
  border-radius: 4px;
  background: var(--ink);
  color: var(--paper);
}
.newer {
  position: fixed;
  right: 16px;
  bottom: 44px;
  z-index: 2400;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 8px 12px;
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  background: var(--felt);
}
</style>
