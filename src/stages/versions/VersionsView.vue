<script setup lang="ts">
import { ElMessage, ElMessageBox } from 'element-plus';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { differencesOf } from '../../core/job/differences.ts';
import type { Job } from '../../core/job/job.ts';
import type { JobVersion } from '../../storage/ports.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { useShelf } from '../../stores/shelf.ts';
import { useVersions } from '../../stores/versions.ts';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import StageLayout from '../shared/StageLayout.vue';
import { undoNotice } from '../shared/undoNotice.ts';
import { useReadout } from '../shared/useReadout.ts';
import { safely } from '../shared/safely.ts';
import OnBlankPicture from './OnBlankPicture.vue';
import { dateWords, say } from '../../core/words/say.ts';

/** The job as it was at some time, beside how it is now. */
const bench = useBench();
const settings = useSettings();
const shelf = useShelf();
const store = useVersions();
const router = useRouter();
const { items, progress, status } = useReadout();

watch(() => bench.entry?.id, (id) => {
  if (id !== undefined) void safely(() => store.load(id));
}, { immediate: true });

const chosenId = ref<string>();
const chosen = computed(() => store.versions.find(({ id }) => id === chosenId.value) ?? store.versions[0]);
const now = computed(() => bench.job as Job);
const differences = computed(() => (chosen.value === undefined ? [] : differencesOf(chosen.value.job, now.value, settings.unit)));
const when = ({ at }: JobVersion): string => dateWords(at, { day: 'numeric', month: 'short', year: 'numeric', hour: '2-digit', minute: '2-digit' });
const nameOf = (version: JobVersion): string => (version.note === '' ? when(version) : version.note);

const note = ref('');
const keep = (): Promise<void> =>
  safely(async () => {
    if (bench.entry === undefined) return;
    await store.keep(bench.entry.id, now.value, note.value);
    note.value = '';
    chosenId.value = undefined;
  });
/** What the order has come to stays: it is the design that is taken back. */
function takeBack(version: JobVersion): void {
  const { order: _, ...then } = version.job;
  const { order } = now.value;
  bench.commit(say`Version “${nameOf(version)}” taken back`, order === undefined ? then : { ...then, order });
  ElMessage({ message: say('Taken back. Undo brings the other state again.'), duration: 4000 });
}
const asOwn = (version: JobVersion): Promise<void> =>
  safely(async () => {
    if (bench.entry === undefined) return;
    const made = await shelf.putBeside(bench.entry, { ...version.job, name: `${version.job.name}, ${nameOf(version)}`.slice(0, 120) });
    await router.push({ name: 'picture', params: { id: made.id } });
  });
const remove = (version: JobVersion): Promise<void> =>
  safely(async () => {
    await store.remove(version);
    undoNotice(say`“${nameOf(version)}” is not kept any more.`, () => void safely(() => store.putBack(version)));
  });
const rename = (version: JobVersion): Promise<void> =>
  safely(async () => {
    const answer = await ElMessageBox.prompt(say('Note'), say('What this version is'), { inputValue: version.note, confirmButtonText: say('Take') }).then(({ value }) => value as unknown, () => undefined);
    if (typeof answer === 'string') await store.putBack({ ...version, note: answer.trim().slice(0, 2000) });
  });
</script>

<template>
  <StageLayout title="Versions" :aside="store.versions.length === 0 ? $say('none kept yet') : $say`${store.versions.length} kept`">
    <template #table>
      <NeedsPicture v-if="bench.pictureInfo === undefined" />
      <div v-else class="table">
        <div class="pictures">
          <OnBlankPicture v-if="chosen !== undefined" :key="chosen.id" :job="chosen.job" :label="$say`then: ${nameOf(chosen)}`" />
          <OnBlankPicture :job="now" label="now" />
        </div>
        <section class="differences" aria-label="What is different">
          <p v-if="chosen === undefined">Nothing is kept yet. Keep the job as it is before you try something, or when the customer has seen it: it can be looked at beside what it becomes, and taken back.</p>
          <p v-else-if="differences.length === 0">The job is now as it was then.</p>
          <table v-else>
            <thead><tr><th scope="col">What</th><th scope="col">Then</th><th scope="col">Now</th></tr></thead>
            <tbody><tr v-for="each in differences" :key="each.what"><th scope="row">{{ each.what }}</th><td>{{ each.then }}</td><td>{{ each.now }}</td></tr></tbody>
          </table>
        </section>
      </div>
    </template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <TrayCard title="Keep it as it is">
        <form class="keep" @submit.prevent="keep">
          <label class="field"><span>Note</span><input v-model="note" maxlength="200" placeholder="before the sail became white" /></label>
          <button type="submit" class="plain-button main">Keep this version</button>
        </form>
      </TrayCard>
      <TrayCard v-for="version in store.versions" :key="version.id" :title="nameOf(version)" :about="version.note === '' ? undefined : when(version)">
        <div class="row">
          <button type="button" class="plain-button" :aria-pressed="version.id === chosen?.id" @click="chosenId = version.id">Compare</button>
          <button type="button" class="plain-button" @click="takeBack(version)">Take it back</button>
          <button type="button" class="plain-button" @click="rename(version)">Note…</button>
          <button type="button" class="plain-button" @click="asOwn(version)">As a job of its own</button>
          <button type="button" class="plain-button" @click="remove(version)">Delete</button>
        </div>
      </TrayCard>
    </template>
  </StageLayout>
</template>

<style scoped src="../shared/textField.css" />
<style scoped>
.table {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  height: 100%;
  background: var(--felt);
}
.pictures {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: 16px;
  min-height: 0;
  padding: 16px;
}
.differences {
  max-height: 240px;
  overflow-y: auto;
  padding: 12px 20px;
  border-top: 1px solid var(--rule);
  background: var(--paper);
}
.differences p {
  margin: 0;
  color: var(--ink-soft);
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 3px 12px 3px 0;
  text-align: left;
  vertical-align: top;
}
thead th {
  color: var(--ink-soft);
  font-weight: 400;
}
.keep {
  display: grid;
  gap: 8px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.row [aria-pressed='true'] {
  background: var(--madder-wash);
}
</style>
