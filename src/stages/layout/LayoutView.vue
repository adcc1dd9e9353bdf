<script setup lang="ts">
import { CircleCheck, Copy, TrianglesCenterlineDashedVertical, RectangleHorizontal, SquareDashed, TriangleAlert } from '@lucide/vue';
import { TransitionPresets, useTransition } from '@vueuse/core';
import { ElSwitch } from 'element-plus';
import { computed, ref } from 'vue';
import { type Layout, type SheetStock, SHEETS } from '../../core/layout/layout.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { cutAreaOf, fits } from '../../core/layout/laySheet.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import { drawPins } from '../../ui/draw/pins.ts';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import JobRack from '../shared/JobRack.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
import { useReadout } from '../shared/useReadout.ts';
import CutCheckList from './CutCheckList.vue';
import { drawMirrorBand, drawOrigin, drawSheet } from './drawSheet.ts';
import ReadsAs from './ReadsAs.vue';
import { useSheetTable } from './useSheetTable.ts';

const bench = useBench();
const settings = useSettings();
const rack = useRack();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();
const { job, cut, sheet, film, path, mirroring, paint, box, bandWords, hasBand } = useSheetTable();

type View = 'sheet' | 'weeded';
const VIEWS = [{ value: 'sheet', name: 'sheet' }, { value: 'weeded', name: 'weeded' }] as const;
const view = ref<View>('sheet');
/** The waste lifts off in a moment instead of blinking away. */
const lifted = useTransition(() => (view.value === 'weeded' ? 1 : 0), { duration: 260, transition: TransitionPresets.easeOutCubic });
const chosenPin = ref<number>();

const layout = computed(() => job.value.layout);
/** Known from the stock, also before anything is cut. */
const cutArea = computed(() => cutAreaOf(layout.value.sheet));
/** What the cut check found on the sheet that is looked at, and what is of the whole picture. */
const findings = computed(() => (cut.value?.findings ?? []).filter(({ filmId }) => filmId === undefined || filmId === film.value.id));
/** Places on the other sheets: the tab counts those too. */
const elsewhere = computed(() => (cut.value?.findings.length ?? 0) - findings.value.length);
const checkWords = computed(() => {
  if (cut.value === undefined) return bench.result?.problem === undefined ? 'nothing to check yet' : 'nothing to check: there is no cut';
  const here = findings.value.length === 0 ? 'nothing found' : findings.value.length === 1 ? '1 place to look at' : `${findings.value.length} places to look at`;
  return elsewhere.value === 0 ? here : `${here} on this sheet, ${elsewhere.value} on others`;
});
const pins = computed(() => {
  const first = sheet.value?.placements[0]?.at;
  if (first === undefined || cut.value === undefined) return [];
  return findings.value.filter((f) => f.kind !== 'coarsePicture').map(({ xMm, yMm }) => ({ x: first.a * xMm + first.c * yMm + first.e, y: first.b * xMm + first.d * yMm + first.f }));
});

const draw: DrawScene = (context, at) => {
  if (sheet.value === undefined || path.value === undefined) return;
  drawSheet(context, at, sheet.value, path.value, paint.value, lifted.value);
  drawOrigin(context, at, sheet.value, layout.value.sheet.origin);
  if (hasBand.value) drawMirrorBand(context, at, sheet.value, bandWords.value);
  drawPins(context, at, pins.value, chosenPin.value);
};

const withLayout = (change: Partial<Layout>) => ({ ...job.value, layout: { ...layout.value, ...change } });
const drag = (change: Partial<Layout>): void => bench.preview(withLayout(change));
function set(label: string, change: Partial<Layout>): void {
  bench.preview(withLayout(change));
  bench.commitPreview(label);
}
const setSheet = (change: Partial<SheetStock>): void => set('Sheet', { sheet: { ...layout.value.sheet, ...change } });
function chooseSheet(name: string): void {
  const stock = SHEETS.find((each) => each.name === name);
  if (stock !== undefined) set(`Sheet: ${name}`, { sheet: stock });
}
const sheetNames = computed<Readonly<Record<string, string>>>(() => Object.fromEntries(SHEETS.map(({ name, widthMm, heightMm }) => [name, settings.unit === 'mm' ? name : `${name.replace(/[ ,]+\d.*$/, '')}, ${length(widthMm)} × ${length(heightMm)}`])));
const ORIGINS = { topLeft: 'upper left', topRight: 'upper right', bottomLeft: 'lower left', bottomRight: 'lower right' } as const;
const MIRRORS = computed(() => ({ process: `as ${PROCESSES[job.value.process].name.toLowerCase()} wants it`, always: 'mirrored', never: 'not mirrored' }));

const length = (value: number): string => formatLength(mm(value), settings.unit);
const misfit = computed(() => {
  if (sheet.value === undefined || fits(sheet.value)) return undefined;
  const { widthMm, heightMm } = sheet.value.over;
  const parts = [widthMm > 0 ? `${length(widthMm)} too wide` : '', heightMm > 0 ? `${length(heightMm)} too high` : ''].filter((part) => part !== '');
  return `Does not fit the cut area: ${parts.join(' and ')}. Make it smaller, lay out fewer copies, or take a larger sheet.`;
});
const readout = computed(() => {
  const s = sheet.value;
  if (s === undefined) return items.value;
  const used = s.used.widthMm * s.used.heightMm;
  const waste = used === 0 || cut.value === undefined ? 0 : Math.max(0, 1 - ((rack.roll?.areaMm2 ?? 0) * layout.value.copies) / used);
  return [...items.value.slice(0, 2), { name: 'uses', value: `${length(s.used.widthMm)} × ${length(s.used.heightMm)}` }, { name: 'waste', value: `${Math.round(waste * 100)} %` }];
});
</script>

<template>
  <StageLayout :title="`${film.name} sheet`" :aside="`${rack.at + 1} of ${Math.max(1, rack.rolls.length)}`">
    <template v-if="bench.picture !== undefined" #views><ViewSwitch v-model="view" :choices="VIEWS" label="View" /></template>
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" :box="box" :zero="{ x: 0, y: 0 }" :mm-per-unit="1" :unit="settings.unit" :draw="draw" :redraw-on="[sheet, path, paint, lifted, bandWords, pins, chosenPin, layout]" label="Sheet as it lies in the machine"
        @view="(at) => (cssPxPerMm = at.scale)" @move="pointerMm = { x: $event.x, y: $event.y }" @leave="pointerMm = undefined"
      >
        <p v-if="misfit !== undefined" class="misfit" role="alert">{{ misfit }}</p>
        <ProblemNote />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #rack><JobRack /></template>
    <template #readout><ReadoutStrip :items="readout" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <TrayCard :title="mirroring.mirrored ? 'Mirrored' : 'Not mirrored'" :about="`${PROCESSES[job.process].name.toLowerCase()} is ${PROCESSES[job.process].lies}`" :mark="mirroring.against ? 'warning' : undefined">
        <template #icon><TrianglesCenterlineDashedVertical /></template>
        <ChoiceInput :model-value="layout.mirror" :choices="MIRRORS" label="Mirroring" @choose="set('Mirroring', { mirror: $event })" />
        <p v-if="mirroring.against" class="warn">This goes against the process and stays marked on the ticket.</p>
        <ReadsAs v-if="cut !== undefined" :design="cut.design" :colours="cut.rack.map(({ film: each }) => each.colour)" :blank="job.blank.colour" :words="mirroring.mirrored === PROCESSES[job.process].mirrored ? 'on the blank it reads:' : 'pressed, it would read backwards; meant to read:'" />
      </TrayCard>
      <TrayCard title="Weeding box" about="an edge to lift the waste by">
        <template #icon><SquareDashed /></template>
        <template #switch><ElSwitch size="small" :model-value="layout.box.on" aria-label="Weeding box" @change="set('Weeding box', { box: { ...layout.box, on: $event === true } })" /></template>
        <QuantityInput kind="length" label="Margin" :unit="settings.unit" :model-value="layout.box.marginMm" :least="0" :most="200" :step="0.5" :disabled="!layout.box.on" @change="drag({ box: { ...layout.box, marginMm: $event } })" @done="set('Box margin', { box: { ...layout.box, marginMm: $event } })" @cancel="bench.revert" />
      </TrayCard>
      <TrayCard title="Copies" about="in rows, from the origin corner">
        <template #icon><Copy /></template>
        <QuantityInput label="On this sheet" :model-value="layout.copies" :least="1" :most="2000" :digits="0" @change="drag({ copies: Math.round($event) })" @done="set('Copies', { copies: Math.round($event) })" @cancel="bench.revert" />
        <QuantityInput kind="length" label="Gap between copies" :unit="settings.unit" :model-value="layout.gapMm" :least="0" :most="500" :step="0.5" @change="drag({ gapMm: $event })" @done="set('Gap between copies', { gapMm: $event })" @cancel="bench.revert" />
        <div class="row"><span>{{ sheet === undefined ? '' : sheet.room === 0 ? 'none fits whole' : `${sheet.room} would fit` }}</span><button type="button" class="plain-button" :disabled="sheet === undefined || sheet.room === 0 || sheet.room === layout.copies" @click="set('Fill the sheet', { copies: Math.min(2000, sheet?.room ?? 1) })">Fill the sheet</button></div>
      </TrayCard>
      <TrayCard title="Sheet" :about="`cut area ${length(cutArea.widthMm)} × ${length(cutArea.heightMm)}`">
        <template #icon><RectangleHorizontal /></template>
        <ChoiceInput :model-value="layout.sheet.name" :choices="sheetNames" label="Sheet" @choose="chooseSheet" />
        <QuantityInput kind="length" label="Width" :unit="settings.unit" :model-value="layout.sheet.widthMm" :least="20" :most="10000" @change="drag({ sheet: { ...layout.sheet, widthMm: $event } })" @done="setSheet({ widthMm: $event, name: 'Own size' })" @cancel="bench.revert" />
        <QuantityInput kind="length" label="Height" :unit="settings.unit" :model-value="layout.sheet.heightMm" :least="20" :most="10000" @change="drag({ sheet: { ...layout.sheet, heightMm: $event } })" @done="setSheet({ heightMm: $event, name: 'Own size' })" @cancel="bench.revert" />
        <label class="row"><span>Origin</span><ChoiceInput class="narrow" small :model-value="layout.sheet.origin" :choices="ORIGINS" label="Origin corner" @choose="setSheet({ origin: $event })" /></label>
      </TrayCard>
      <TrayCard title="Cut check" :mark="findings.length > 0 ? 'warning' : undefined" :about="checkWords">
        <template #icon><component :is="cut !== undefined && findings.length === 0 ? CircleCheck : TriangleAlert" /></template>
        <CutCheckList v-if="findings.length > 0" :findings="findings" :chosen="chosenPin" @choose="chosenPin = $event" />
      </TrayCard>
    </template>
    <template #foot><RouterLink class="plain-button main" :to="{ name: 'handoff', params: $route.params }" style="text-decoration: none">Hand off</RouterLink></template>
  </StageLayout>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.narrow {
  width: 130px;
}
.warn {
  margin: 2px 0;
  color: var(--ochre-text);
}
.misfit {
  position: absolute;
  top: 54px;
  left: 50%;
  max-width: 480px;
  margin: 0;
  transform: translateX(-50%);
  padding: 8px 14px;
  border-left: 5px solid var(--ochre);
  border-radius: 4px;
  background: var(--ochre-wash);
}
</style>
