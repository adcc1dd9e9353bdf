<script setup lang="ts">
import { useIntersectionObserver } from '@vueuse/core';
import { ElMessage, ElMessageBox } from 'element-plus';
import { inject, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import type { Job } from '../../core/job/job.ts';
import type { ShelfEntry } from '../../storage/ports.ts';
import { useSettings } from '../../stores/settings.ts';
import { useShelf } from '../../stores/shelf.ts';
import { download } from '../shared/download.ts';
import { FILLING, pickFiles } from '../shared/pickFiles.ts';
import { today } from '../shared/today.ts';
import { undoNotice } from '../shared/undoNotice.ts';
import { safely } from '../shared/safely.ts';
import { OPEN_HELP } from '../help/openHelp.ts';
import FirstVisit from '../tour/FirstVisit.vue';
import BatchDialog from '../batch/BatchDialog.vue';
import CopiesReminder from './CopiesReminder.vue';
import DamagedJobs from './DamagedJobs.vue';
import ShelfCard from './ShelfCard.vue';
import SameAgainDialog from './SameAgainDialog.vue';
import type { ShelfAction } from './shelfActions.ts';
import ShelfFilters from './ShelfFilters.vue';
import { useShelfFind } from './useShelfFind.ts';
import { say, sayOf } from '../../core/words/say.ts';
import { LANGUAGE_NAMES } from '../../core/words/texts.ts';
import { chooseLanguage, nextLanguage } from '../../ui/language.ts';

const shelf = useShelf();
const settings = useSettings();
const router = useRouter();
const finding = useShelfFind();
const { find, shown, first } = finding;
const batchOpen = ref(false);

/** What a scanner types off a ticket ends in Enter: the only job that is left is opened. */
function openOnly(): void {
  const [only, ...others] = finding.shown.value;
  if (find.typed.trim() !== '' && only !== undefined && others.length === 0) open(only);
}
const end = ref<HTMLElement>();
useIntersectionObserver(end, ([{ isIntersecting }]) => {
  if (isIntersecting) finding.more();
}, { rootMargin: '600px' });

const open = (entry: ShelfEntry): void => void router.push({ name: entry.stage, params: { id: entry.id } });

const rename = (entry: ShelfEntry): Promise<void> =>
  safely(async () => {
    const answer = await ElMessageBox.prompt(say('Name of the job'), say('Rename'), { inputValue: entry.job.name, inputPattern: /\S/, inputErrorMessage: say('It needs a name'), confirmButtonText: say('Rename') }).then(({ value }) => value as unknown, () => undefined);
    if (typeof answer === 'string') await shelf.rename(entry.id, answer);
  });

const remove = (entry: ShelfEntry): Promise<void> =>
  safely(async () => {
    await shelf.remove(entry.id);
    undoNotice(say`“${entry.job.name}” is off the shelf.`, () => void safely(() => shelf.restore(entry.id)));
  });

const keepCopy = (entry: ShelfEntry): Promise<void> =>
  safely(async () => {
    const archive = await shelf.archiveOf(entry.id);
    if (archive !== undefined) download(archive.fileName, archive.bytes, 'application/zip');
  });

const collect = (entry: ShelfEntry): Promise<void> =>
  safely(async () => {
    const known = [...new Set(shelf.entries.flatMap(({ job }) => job.collections ?? []))].sort((a, b) => a.localeCompare(b));
    const about = known.length === 0 ? say('Collections, with commas: “Regatta, club shop”') : say`Collections, with commas. There are: ${known.join(', ')}`;
    const answer = await ElMessageBox.prompt(about, say`Where “${entry.job.name}” belongs`, { inputValue: (entry.job.collections ?? []).join(', '), confirmButtonText: say('Take') }).then(({ value }) => value as unknown, () => undefined);
    if (typeof answer === 'string') await shelf.collect(entry.id, answer.split(','));
  });

/** The job that is about to be made once more. */
const again = shallowRef<ShelfEntry>();
const takeAgain = (job: Job): Promise<void> =>
  safely(async () => {
    const from = again.value;
    again.value = undefined;
    if (from === undefined) return;
    const made = await shelf.putBeside(from, job);
    await router.push({ name: 'layout', params: { id: made.id } });
  });

const ACT: Readonly<Record<ShelfAction, (entry: ShelfEntry) => unknown>> = {
  again: (entry) => (again.value = entry),
  versions: (entry) => router.push({ name: 'versions', params: { id: entry.id } }),
  collect,
  rename,
  duplicate: ({ id }) => safely(() => shelf.duplicate(id)),
  keep: keepCopy,
  remove,
};

const keepAll = (): Promise<void> =>
  safely(async () => download(say`jobs, ${today()}.zip`, await shelf.archiveOfAll(shown.value.map(({ id }) => id)), 'application/zip'));

const addDemo = (): Promise<void> =>
  safely(async () => {
    const count = await shelf.addDemo(false);
    if (count === 0) ElMessage.warning(say('The demo jobs are not here. Run “npm run demo:build” and load the page again.'));
  });
/** While the demo jobs come in the shelf is not called empty. */
const openHelp = inject(OPEN_HELP, () => undefined);
const filling = inject(FILLING, ref(false));
const THEMES = { auto: 'light', light: 'dark', dark: 'auto' } as const;
const THEME_WORDS = { auto: sayOf('theme', 'auto'), light: sayOf('theme', 'light'), dark: sayOf('theme', 'dark') } as const;
const next = nextLanguage();
</script>

<template>
  <main class="shelf">
    <nav class="around" aria-label="About the shop">
      <button type="button" title="Help (F1)" @click="openHelp">Help</button>
      <RouterLink :to="{ name: 'workshop' }">Workshop</RouterLink>
      <RouterLink :to="{ name: 'keeping' }">Safe keeping</RouterLink>
      <button type="button" title="Light or dark" @click="settings.theme = THEMES[settings.theme]">Theme: {{ THEME_WORDS[settings.theme] }}</button>
      <button type="button" title="Unit of all lengths" @click="settings.unit = settings.unit === 'mm' ? 'in' : 'mm'">Unit: {{ settings.unit }}</button>
      <button type="button" :lang="next" title="Language" @click="chooseLanguage(next)">{{ LANGUAGE_NAMES[next] }}</button>
    </nav>
    <header>
      <div class="title">
        <h1>Limner</h1>
        <p>from the customer’s picture to the cutter</p>
      </div>
      <input v-model="find.typed" class="search" type="search" placeholder="Find by any word, or scan a ticket" aria-label="Find jobs" @keydown.enter="openOnly" />
      <RouterLink class="plain-button" :to="{ name: 'together' }">Several on one sheet</RouterLink>
      <button type="button" class="plain-button" @click="batchOpen = true">Apply a recipe to many…</button>
      <button type="button" class="plain-button main" @click="pickFiles">Choose a picture</button>
    </header>
    <BatchDialog v-model="batchOpen" />
    <SameAgainDialog :job="again?.job" @take="takeAgain" @leave="again = undefined" />
    <p v-if="shelf.loaded && shelf.entries.length > 0" class="hint">Drop a picture anywhere, or paste one, to start a job. A <b>.limner</b> file from another shop opens the same way.</p>
    <FirstVisit v-if="shelf.loaded && !filling" />
    <CopiesReminder />
    <ShelfFilters v-if="shelf.entries.length > 1" :finding="finding" :count="shown.length" @keep="keepAll" />
    <ul v-if="shown.length > 0" class="cards" aria-label="Jobs">
      <li v-for="entry in first" :key="entry.id">
        <ShelfCard :entry="entry" @open="open(entry)" @act="ACT[$event](entry)" />
      </li>
    </ul>
    <div v-if="first.length < shown.length" ref="end" class="end" />
    <DamagedJobs />
    <section v-if="shown.length === 0 && shelf.loaded && shelf.entries.length > 0" class="empty">
      <h2>No matching jobs</h2>
      <button type="button" class="plain-button" @click="finding.showAll">Show all {{ shelf.entries.length }}</button>
    </section>
    <section v-else-if="shelf.loaded && shelf.entries.length === 0 && !filling" class="empty">
      <h2>The shelf is empty</h2>
      <p>Drop a picture here, paste one, or choose a file: a logo, a drawing, a scan, a photo.</p>
      <p><button type="button" class="plain-button main" @click="pickFiles">Choose a picture</button> <button type="button" class="plain-button" @click="addDemo">Add the demo jobs</button></p>
    </section>
  </main>
</template>

<style scoped>
.shelf {
  height: 100%;
  overflow-y: auto;
  padding: 12px 32px 40px;
}
.around {
  display: flex;
  justify-content: flex-end;
  gap: 18px;
  margin-bottom: 6px;
}
.around a,
.around button {
  border: 0;
  padding: 2px 0;
  background: none;
  color: var(--ink-soft);
  font: inherit;
  font-size: 13px;
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
  text-underline-offset: 3px;
  cursor: pointer;
}
.around a:hover,
.around button:hover {
  color: var(--ink);
}
.around :focus-visible {
  outline: 2px solid var(--madder);
  outline-offset: 2px;
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
  padding-bottom: 14px;
  border-bottom: 1px solid var(--rule);
}
.title {
  flex: 1;
}
h1 {
  margin: 0;
  font-family: var(--serif);
  font-size: 30px;
  line-height: 1.1;
}
.title p,
.hint {
  margin: 0;
  color: var(--ink-soft);
}
.hint {
  margin: 12px 0 0;
}
.search {
  width: 240px;
  height: 32px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 0 10px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 20px;
  margin: 16px 0 0;
  padding: 0;
  list-style: none;
}
.empty {
  margin: 15vh auto 0;
  max-width: 520px;
  padding: 40px;
  border: 2px dashed var(--rule-strong);
  border-radius: 12px;
  text-align: center;
}
.empty h2 {
  margin: 0 0 8px;
  font-family: var(--serif);
}
</style>
