<script setup lang="ts">
import { Files, RectangleHorizontal, Spool } from '@lucide/vue';
import { ElCheckbox, ElSwitch } from 'element-plus';
import { computed, ref } from 'vue';
import { explain } from '../../core/errors/explain.ts';
import { placed } from '../../core/geometry/affine.ts';
import { jobOfPart } from '../../core/layout/together.ts';
import { largestPlace } from '../../core/operate/pieceMarks.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useSettings } from '../../stores/settings.ts';
import { useShelf } from '../../stores/shelf.ts';
import { useTogether } from '../../stores/together.ts';
import { useWorkshop } from '../../stores/workshop.ts';
import { backdropPaint } from '../../ui/backdrops.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import { pathFromCurves, pathOfCopies } from '../../ui/draw/curvePath.ts';
import { drawNumbers } from '../../ui/draw/numbers.ts';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { drawMirrorBand, drawOrigin, drawSheet } from '../layout/drawSheet.ts';
import SheetSwitch from '../layout/SheetSwitch.vue';
import { download } from '../shared/download.ts';
import StageLayout from '../shared/StageLayout.vue';
import { say } from '../../core/words/say.ts';

/** Several jobs on the sheets of the films that they share. */
const together = useTogether();
const settings = useSettings();
const workshop = useWorkshop();
const shelf = useShelf();
void workshop.load();
const TURNS = { free: say('any way'), quarter: say('by quarters'), none: say('not at all: grain, shine') } as const;
const length = (value: number): string => formatLength(mm(value), settings.unit);

const filmAt = ref(0);
const sheetAt = ref(0);
const film = computed(() => together.laid[Math.min(filmAt.value, together.laid.length - 1)]);
const sheet = computed(() => film.value?.sheets[Math.min(sheetAt.value, film.value.sheets.length - 1)]);
const parts = computed(() => new Map(sheet.value?.parts.map(({ id, curves }) => [id, { path: pathFromCurves(curves), inner: largestPlace(curves) }])));
const path = computed(() => (sheet.value === undefined ? undefined : pathOfCopies(sheet.value.placements.map(({ partId, at }) => ({ path: parts.value.get(partId)?.path as Path2D, at })))));
const numbers = computed(() => (sheet.value?.placements ?? []).map(({ partId, at }) => {
  const { x, y } = parts.value.get(partId)?.inner ?? { x: 0, y: 0 };
  return { ...placed(at, x, y), words: String(jobOfPart(partId)) };
}));
const own = computed(() => together.settings.sheet);
const box = computed(() => ({ x: 0, y: 0, width: own.value.widthMm, height: own.value.heightMm * 1.06 }));
const draw: DrawScene = (context, at) => {
  if (sheet.value === undefined || path.value === undefined || film.value === undefined) return;
  const { colour } = film.value.film;
  drawSheet(context, at, sheet.value, path.value, { film: colour, clear: backdropPaint('hatch', '#ffffff', [colour], settings.isDark), artIsOpening: false }, 0);
  drawOrigin(context, at, sheet.value, own.value.origin);
  if (film.value.mirrored) drawMirrorBand(context, at, sheet.value, say('reads backwards · cut from the back · carrier side down'));
  drawNumbers(context, at, numbers.value);
};

const set = (change: Partial<typeof together.settings>): void => void (together.settings = { ...together.settings, ...change });
const machines = computed(() => workshop.shelves.machines.filter(({ kind }) => kind === 'cutter'));
const machineNames = computed<Readonly<Record<string, string>>>(() => Object.fromEntries(machines.value.map(({ id, name, sheet: each }) => [id, `${name}, ${each.name}`])));
const machine = computed(() => machines.value.find(({ sheet: each }) => each.name === own.value.name)?.id ?? own.value.name);
function load(id: string): void {
  const found = machines.value.find((each) => each.id === id);
  if (found !== undefined) set({ sheet: found.sheet });
}
const copiesOf = (id: string): number => together.picked.find(({ entryId }) => entryId === id)?.copies ?? 0;
const numberOf = (id: string): number => together.picked.findIndex(({ entryId }) => entryId === id) + 1;
const readout = computed(() => (sheet.value === undefined ? [] : [{ name: say('uses'), value: `${length(sheet.value.used.widthMm)} × ${length(sheet.value.used.heightMm)}` }]));
const state = computed(() => (together.laid.length === 0 ? say('not laid yet') : together.isCurrent ? say('laid') : say('changed since')));
function look(k: number): void {
  filmAt.value = k;
  sheetAt.value = 0;
}
</script>

<template>
  <main class="together">
    <StageLayout title="Several jobs" :aside="state">
      <template #views>
        <RouterLink class="plain-button" :to="{ name: 'shelf' }">All jobs</RouterLink>
        <div v-if="together.laid.length > 0" class="films" role="group" aria-label="Films">
          <button v-for="(each, k) in together.laid" :key="k" type="button" class="plain-button" :aria-pressed="each === film" @click="look(k)"><i :style="{ background: each.film.colour }" />{{ each.film.name }}: {{ each.jobs.length === 1 ? $say`job ${each.jobs[0]}` : $say`jobs ${each.jobs.join(', ')}` }}</button>
        </div>
      </template>
      <template #table>
        <LightTable v-if="sheet !== undefined" :class="{ old: !together.isCurrent }" :box="box" :zero="{ x: 0, y: 0 }" :mm-per-unit="1" :unit="settings.unit" :draw="draw" :redraw-on="[sheet, path, numbers]" label="Sheet with the parts of several jobs">
          <SheetSwitch name="sheet" :at="Math.min(sheetAt, (film?.sheets.length ?? 1) - 1)" :count="film?.sheets.length ?? 1" @show="sheetAt = $event" />
        </LightTable>
        <div v-else class="empty">
          <h2>Several jobs on one roll</h2>
          <p>Choose jobs on the right: what they cut of the same film is laid on the same sheets, and saves what each would leave over.</p>
        </div>
      </template>
      <template #readout><ReadoutStrip :items="readout" :status="together.share === undefined ? '' : $say('laying out…')" :progress="together.share" @cancel="together.stop" /></template>
      <template #tray>
        <TrayCard title="Jobs" :about="together.picked.length === 0 ? $say('none chosen yet') : $say`${together.picked.length} chosen`">
          <template #icon><Files /></template>
          <p v-if="shelf.loaded && together.choices.length === 0">No job on the shelf is cut of film.</p>
          <div v-for="{ id, job } in together.choices" :key="id" class="job">
            <ElCheckbox :model-value="copiesOf(id) > 0" :label="job.name" @change="together.pick(id, $event === true ? job.layout.copies : 0)"><b v-if="numberOf(id) > 0">{{ numberOf(id) }}</b> {{ job.name }}</ElCheckbox>
            <QuantityInput v-if="copiesOf(id) > 0" label="Copies" :model-value="copiesOf(id)" :least="1" :most="2000" :digits="0" @done="together.pick(id, Math.round($event))" />
          </div>
        </TrayCard>
        <TrayCard title="Sheet" :about="`${length(own.widthMm)} × ${length(own.heightMm)}`">
          <template #icon><RectangleHorizontal /></template>
          <ChoiceInput :model-value="machine" :choices="machineNames" label="Cutter" @choose="load" />
          <QuantityInput kind="length" label="Width" :unit="settings.unit" :model-value="own.widthMm" :least="20" :most="10000" @done="set({ sheet: { ...own, name: $say('Own size'), widthMm: $event } })" />
          <QuantityInput kind="length" label="Length" :unit="settings.unit" :model-value="own.heightMm" :least="20" :most="10000" @done="set({ sheet: { ...own, name: $say('Own size'), heightMm: $event } })" />
        </TrayCard>
        <TrayCard title="How they lie" about="nested by their outlines, turned over never">
          <template #icon><Spool /></template>
          <QuantityInput kind="length" label="Gap" :unit="settings.unit" :model-value="together.settings.gapMm" :least="0" :most="500" :step="0.5" @done="set({ gapMm: $event })" />
          <label class="row"><span>May be turned</span><ChoiceInput class="narrow" small :model-value="together.settings.turns ?? 'free'" :choices="TURNS" label="May be turned" @choose="set({ turns: $event })" /></label>
          <label class="row"><span>Weeding box around all</span><ElSwitch size="small" :model-value="together.settings.box.on" aria-label="Weeding box around all" @change="set({ box: { ...together.settings.box, on: $event === true } })" /></label>
        </TrayCard>
        <p v-if="together.error !== undefined" class="problem" role="alert">{{ explain(together.error).what }} {{ explain(together.error).todo }}</p>
      </template>
      <template #foot>
        <button v-if="together.share === undefined" type="button" class="plain-button main" :disabled="together.picked.length === 0" @click="together.lay">{{ together.laid.length === 0 ? $say('Lay them out') : $say('Lay them out again') }}</button>
        <button v-else type="button" class="plain-button" @click="together.stop">Stop</button>
        <button type="button" class="plain-button" :disabled="together.laid.length === 0 || !together.isCurrent" @click="download('Several jobs, sheets.zip', together.zip(), 'application/zip')">Save the sheets</button>
      </template>
    </StageLayout>
  </main>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.together {
  display: grid;
  height: 100%;
}
.films {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.films button[aria-pressed='true'] {
  border-color: var(--madder);
  color: var(--madder-text);
}
.films i {
  display: inline-block;
  width: 12px;
  height: 12px;
  margin-right: 6px;
  border: 1px solid var(--rule-strong);
}
.empty {
  align-self: center;
  justify-self: center;
  max-width: 420px;
  text-align: center;
}
.old {
  opacity: 0.6;
}
.job {
  padding: 2px 0;
}
.problem {
  margin: 8px 16px;
  color: var(--ochre-text);
}
.narrow {
  width: 150px;
}
</style>
