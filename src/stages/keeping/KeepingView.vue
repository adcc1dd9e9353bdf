<script setup lang="ts">
import { ElMessage, ElProgress } from 'element-plus';
import { computed } from 'vue';
import { install, offline, takeUpNewer } from '../../offline/offline.ts';
import { useKeeping } from '../../stores/keeping.ts';
import { useShelf } from '../../stores/shelf.ts';
import { download } from '../shared/download.ts';
import { today } from '../shared/today.ts';
import { safely } from '../shared/safely.ts';
import { byteWords } from '../shared/byteWords.ts';
import { dateWords, say } from '../../core/words/say.ts';

/** How safe the jobs are: what they take, copies of them, and whether Limner works without a network. */
const keeping = useKeeping();
const shelf = useShelf();

void safely(keeping.load);

const jobs = computed(() => (shelf.entries.length === 1 ? say('1 job') : say`${shelf.entries.length} jobs`));
const share = computed(() => (keeping.usedBytes === undefined || keeping.roomBytes === undefined ? 0 : Math.min(100, (100 * keeping.usedBytes) / keeping.roomBytes)));
const copied = computed(() => (keeping.copiedAt === undefined ? say('No copies were made yet.') : say`Copies were made last on ${dateWords(keeping.copiedAt, { dateStyle: 'long', timeStyle: 'short' })}.`));
const uncopied = computed(() => (keeping.uncopied === 0 ? say('Every job has its newest copy there.') : keeping.uncopied === 1 ? say('One job is newer than its copy there.') : say`${keeping.uncopied} jobs are newer than their copies there.`));
const OFFLINE = {
  impossible: say('This browser does not keep the application’s files here: Limner needs the network to start. Jobs are in the browser all the same.'),
  coming: say('The application’s files are coming in…'),
  ready: say('Ready: the whole application is in this browser. It starts and works without a network.'),
} as const;

const persist = (): Promise<void> =>
  safely(async () => {
    if (!(await keeping.askToPersist())) ElMessage({ type: 'warning', message: say('The browser does not promise it yet. It often does once Limner is installed or used for some days. Keep copies meanwhile.'), duration: 8000, showClose: true });
  });
const saveAll = (): Promise<void> => safely(async () => download(say`all jobs, ${today()}.zip`, await keeping.asOneFile(), 'application/zip'));
</script>

<template>
  <main class="keeping">
    <header>
      <RouterLink class="plain-button" :to="{ name: 'shelf' }">All jobs</RouterLink>
      <div><h1>Safe keeping</h1><p>where the jobs are, and their copies</p></div>
    </header>
    <div class="boards">
      <section aria-labelledby="here">
        <h2 id="here">In this browser</h2>
        <p>{{ jobs }} with their pictures and versions are stored in this browser, on this computer. Nothing is sent anywhere.</p>
        <template v-if="keeping.usedBytes !== undefined && keeping.roomBytes !== undefined">
          <ElProgress :percentage="share" :show-text="false" aria-label="Share of the room that is used" />
          <p>{{ byteWords(keeping.usedBytes) }} used of the {{ byteWords(keeping.roomBytes) }} that the browser gives</p>
        </template>
        <p v-if="keeping.isPersisted === true"><b>The browser has promised to keep them</b>, also when the disk is short.</p>
        <template v-else-if="keeping.isPersisted === false">
          <p>When the disk is short the browser may drop them. It can be asked not to.</p>
          <p><button type="button" class="plain-button" @click="persist">Ask it to keep them</button></p>
        </template>
      </section>
      <section aria-labelledby="copies">
        <h2 id="copies">Copies</h2>
        <p>{{ copied }}</p>
        <p><button type="button" class="plain-button main" :disabled="shelf.entries.length === 0" @click="saveAll">Save all jobs as one file</button></p>
        <h3>A folder for copies</h3>
        <p v-if="keeping.folderState === 'impossible'">This browser cannot write into a folder of yours. One that can (Chromium is one) keeps it up to date by itself.</p>
        <template v-else-if="keeping.folder === undefined">
          <p>Choose a folder, best on another disk: each job is written there as a file of its own, and again when it has changed.</p>
          <p><button type="button" class="plain-button" @click="safely(keeping.chooseFolder)">Choose a folder…</button></p>
        </template>
        <template v-else>
          <p>Into <b>{{ keeping.folder.name }}</b>. {{ uncopied }}<template v-if="keeping.folderState === 'ask'"> The browser asks for the folder once more after each start.</template></p>
          <p class="row">
            <button type="button" class="plain-button" :disabled="keeping.copying" @click="safely(() => keeping.copyToFolder())">{{ keeping.copying ? $say('Writing…') : $say('Write what has changed') }}</button>
            <button type="button" class="plain-button" @click="safely(keeping.leaveFolder)">No folder any more</button>
          </p>
        </template>
      </section>
      <section aria-labelledby="offline">
        <h2 id="offline">Without a network</h2>
        <p role="status">{{ OFFLINE[offline.state.value] }}</p>
        <p v-if="offline.newer.value"><button type="button" class="plain-button main" @click="takeUpNewer(async () => undefined)">Take up the newer Limner</button></p>
        <p v-if="offline.installable.value">Installed, it has a window of its own and opens <b>.limner</b> files from the system. <button type="button" class="plain-button" @click="install">Install it…</button></p>
        <h3>What Limner is made of</h3>
        <p>Open-source packages and fonts, each under its own terms: <a href="/licences.txt" target="_blank" rel="noopener">all licences</a>.</p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.keeping {
  display: flex;
  flex-direction: column;
  height: 100%;
  overflow-y: auto;
}
header {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 14px 24px;
  border-bottom: 1px solid var(--rule);
}
h1 {
  margin: 0;
  font-family: var(--serif);
  font-size: 24px;
  line-height: 1.1;
}
header p {
  margin: 0;
  color: var(--ink-soft);
}
.boards {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  max-width: 1240px;
}
section {
  padding: 16px 24px;
  border-right: 1px solid var(--rule);
}
h2 {
  margin: 0 0 8px;
  font-family: var(--serif);
  font-size: 18px;
}
h3 {
  margin: 20px 0 4px;
  font-size: 13.5px;
}
section p {
  margin: 0 0 10px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
section a {
  color: var(--madder-text);
}
</style>
