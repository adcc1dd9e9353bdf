<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed, ref } from 'vue';
import type { Job, Separation } from '../../core/job/job.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { mm } from '../../core/units/length.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { backdropPaint } from '../../ui/backdrops.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import ThresholdHistogram from '../../ui/ThresholdHistogram.vue';
import TrayCard from '../../ui/TrayCard.vue';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import type { Size, Viewport } from '../../ui/viewport.ts';
import BackdropSwitch from '../shared/BackdropSwitch.vue';
import JobRack from '../shared/JobRack.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import { drawClear, drawCut, drawPlaced, onSide } from '../shared/pictureScene.ts';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
import TableDivider from '../shared/TableDivider.vue';
import { useReadout } from '../shared/useReadout.ts';
import { useSharpPatch } from '../shared/useSharpPatch.ts';
import { drawNodes } from './drawNodes.ts';

const bench = useBench();
const settings = useSettings();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();
const { patch, look } = useSharpPatch('clean');

type View = 'cut' | 'over' | 'nodes';
const VIEWS = [{ value: 'cut', name: 'art | cut' }, { value: 'over', name: 'lines over art' }, { value: 'nodes', name: 'nodes' }] as const;
const view = ref<View>('cut');
const divider = ref(0.5);

const job = computed(() => bench.job as Job);
const mmPerUnit = computed(() => 1 / (bench.resolutionPxPerMm ?? 1));
const film = computed(() => job.value.assembly.films[0].colour);
const paint = computed(() => backdropPaint(settings.backdrop, job.value.blank.colour, [film.value], settings.isDark));
const box = computed(() => {
  const clean = bench.result?.clean;
  if (clean === undefined) return { x: 0, y: 0, width: bench.picture?.widthPx ?? 100, height: bench.picture?.heightPx ?? 100 };
  const { leftPx, topPx, scale } = clean.frame;
  return { x: leftPx, y: topPx, width: Math.round(clean.widthPx / scale), height: Math.round(clean.heightPx / scale) };
});
const cutPath = computed(() => (bench.result?.cut === undefined ? undefined : pathFromCurves(bench.result.cut.outline)));

const draw: DrawScene = (context, at, size) => {
  drawClear(context, at, box.value, paint.value);
  const art = (): void => {
    if (bench.cleanView !== undefined) drawPlaced(context, at, { pixels: bench.cleanView.pixels, box: box.value });
    if (patch.value !== undefined) drawPlaced(context, at, patch.value);
  };
  const path = cutPath.value;
  if (view.value === 'cut') {
    const x = divider.value * size.width;
    onSide(context, size, 0, x, art);
    if (path !== undefined) onSide(context, size, x, size.width, () => drawCut(context, at, path, film.value));
    return;
  }
  art();
  if (path === undefined) return;
  drawCut(context, at, path, 'transparent');
  if (view.value === 'nodes' && bench.result?.cut !== undefined) drawNodes(context, at, bench.result.cut.outline, size);
};
function onView(at: Viewport, size: Size): void {
  cssPxPerMm.value = at.scale / mmPerUnit.value;
  look(at, size);
}

const withSeparation = (change: Partial<Separation>): Job => ({ ...job.value, separation: { ...job.value.separation, ...change } });
const withOutline = (change: Partial<Job['outline']>): Job => ({ ...job.value, outline: { ...job.value.outline, ...change } });
const drag = (next: Job): void => bench.preview(next);
function set(label: string, next: Job): void {
  bench.preview(next);
  bench.commitPreview(label);
}
const threshold = computed(() => (job.value.separation.threshold === 'auto' ? (bench.result?.tone?.threshold ?? 127) : job.value.separation.threshold));
const SOURCES = { threshold: 'what is darker than a threshold', notClear: 'everything that is not clear' } as const;
const INKS = { auto: 'found from the ground', dark: 'the dark tone', light: 'the light tone' } as const;
const facts = computed(() => {
  const cut = bench.result?.cut;
  if (cut === undefined) return [];
  return [
    ['Pieces', cut.pieces.toLocaleString('en')],
    ['Nodes', cut.nodes.toLocaleString('en')],
    ['Cut length', formatLength(mm(cut.cutLengthMm), settings.unit, 0)],
  ] as const;
});
</script>

<template>
  <StageLayout title="Separate" aside="one colour">
    <template v-if="bench.picture !== undefined" #views>
      <ViewSwitch v-model="view" :choices="VIEWS" label="View" />
      <BackdropSwitch />
    </template>
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" :box="box" :zero="{ x: box.x, y: box.y }" :mm-per-unit="mmPerUnit" :unit="settings.unit" :draw="draw" :redraw-on="[bench.result, bench.cleanView, patch, paint, film, view, divider]" label="Art and cut"
        @view="onView" @move="pointerMm = { x: ($event.x - box.x) * mmPerUnit, y: ($event.y - box.y) * mmPerUnit }" @leave="pointerMm = undefined"
      >
        <TableDivider v-if="view === 'cut'" v-model="divider" left="art" right="cut" />
        <ProblemNote />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #rack><JobRack /></template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <TrayCard title="What becomes film" about="one tone of the clean art">
        <ChoiceInput :model-value="job.separation.source" :choices="SOURCES" label="What becomes film" @choose="set('What becomes film', withSeparation({ source: $event }))" />
        <template v-if="job.separation.source === 'threshold'">
          <ThresholdHistogram
            v-if="bench.result?.tone !== undefined" :histogram="bench.result.tone.histogram" :threshold="threshold"
            @change="drag(withSeparation({ threshold: $event }))" @done="set('Threshold', withSeparation({ threshold: $event }))" @cancel="bench.revert"
          />
          <label class="row"><span>Find the threshold by itself</span><ElSwitch size="small" :model-value="job.separation.threshold === 'auto'" @change="set('Threshold', withSeparation({ threshold: $event === true ? 'auto' : Math.round(threshold) }))" /></label>
          <label class="row"><span>Ink is</span><ChoiceInput class="narrow" small :model-value="job.separation.inkIs" :choices="INKS" label="Ink is" @choose="set('Ink is', withSeparation({ inkIs: $event }))" /></label>
        </template>
      </TrayCard>
      <TrayCard title="Outline" about="how the curves follow the edge">
        <QuantityInput label="Follows within" suffix="px" :model-value="job.outline.followPx" :least="0.05" :most="5" :step="0.05" :digits="2" @change="drag(withOutline({ followPx: $event }))" @done="set('Outline: follows within', withOutline({ followPx: $event }))" @cancel="bench.revert" />
        <QuantityInput label="Corners from" suffix="°" :model-value="job.outline.cornerDeg" :least="5" :most="180" :digits="0" @change="drag(withOutline({ cornerDeg: $event }))" @done="set('Outline: corners', withOutline({ cornerDeg: $event }))" @cancel="bench.revert" />
        <QuantityInput label="Leave out pieces under" suffix="mm²" :model-value="job.outline.leastPieceMm2" :least="0" :most="1000" :step="0.1" :digits="2" @change="drag(withOutline({ leastPieceMm2: $event }))" @done="set('Outline: smallest piece', withOutline({ leastPieceMm2: $event }))" @cancel="bench.revert" />
      </TrayCard>
      <TrayCard v-if="facts.length > 0" title="What comes out">
        <div v-for="[name, value] in facts" :key="name" class="row"><span>{{ name }}</span><b>{{ value }}</b></div>
      </TrayCard>
    </template>
  </StageLayout>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 26px;
}
.narrow {
  width: 168px;
}
</style>
