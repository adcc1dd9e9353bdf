<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Job } from '../../core/job/job.ts';
import { moveFilm } from '../../core/job/paletteEdits.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { mm } from '../../core/units/length.ts';
import type { FilmView } from '../../engine/protocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';
import { backdropPaint } from '../../ui/backdrops.ts';
import { strokeCutLine } from '../../ui/draw/cutLines.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
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
import { useFilmPaths } from '../shared/useFilmPaths.ts';
import { useReadout } from '../shared/useReadout.ts';
import { useSharpPatch } from '../shared/useSharpPatch.ts';
import { drawNodes } from './drawNodes.ts';
import AreasCard from './AreasCard.vue';
import OneToneCard from './OneToneCard.vue';
import ProofCard from './ProofCard.vue';
import PaletteCard from './PaletteCard.vue';
import TonesCard from './TonesCard.vue';
import { usePointing } from './usePointing.ts';
import { useProof } from './useProof.ts';
import { FRESH, WAYS, type Way } from './ways.ts';

const bench = useBench();
const settings = useSettings();
const rack = useRack();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();
const { patch, look } = useSharpPatch('clean');

type View = 'cut' | 'over' | 'nodes' | 'proof';
const VIEWS = [{ value: 'cut', name: 'art | cut' }, { value: 'over', name: 'lines over art' }, { value: 'nodes', name: 'nodes' }, { value: 'proof', name: 'proof' }] as const;
const view = ref<View>('cut');
const divider = ref(0.5);
const { proof, shiftMm, shifted } = useProof(computed(() => view.value === 'proof'));

const job = computed(() => bench.job as Job);
const mmPerUnit = computed(() => 1 / (bench.resolutionPxPerMm ?? 1));
const { paths, colours } = useFilmPaths();
const paint = computed(() => backdropPaint(settings.backdrop, job.value.blank.colour, colours.value, settings.isDark));
const box = computed(() => {
  const clean = bench.result?.clean;
  if (clean === undefined) return { x: 0, y: 0, width: bench.picture?.widthPx ?? 100, height: bench.picture?.heightPx ?? 100 };
  const { leftPx, topPx, scale } = clean.frame;
  return { x: leftPx, y: topPx, width: Math.round(clean.widthPx / scale), height: Math.round(clean.heightPx / scale) };
});

const draw: DrawScene = (context, at, size) => {
  drawClear(context, at, box.value, paint.value);
  const art = (): void => {
    if (bench.cleanView !== undefined) drawPlaced(context, at, { pixels: bench.cleanView.pixels, box: box.value });
    if (patch.value !== undefined) drawPlaced(context, at, patch.value);
  };
  if (view.value === 'cut') {
    const x = divider.value * size.width;
    onSide(context, size, 0, x, art);
    onSide(context, size, x, size.width, () => {
      for (const { path, colour } of paths.value) drawCut(context, at, path, colour);
    });
    return;
  }
  if (view.value === 'proof') {
    const x = divider.value * size.width;
    const made = proof.value;
    onSide(context, size, 0, x, () => void (made === undefined ? art() : drawPlaced(context, at, { pixels: made.composed, box: box.value })));
    onSide(context, size, x, size.width, () => {
      context.globalAlpha = 0.25;
      art();
      context.globalAlpha = 1;
      if (made !== undefined) drawPlaced(context, at, { pixels: made.difference, box: box.value });
    });
    return;
  }
  art();
  for (const { path } of paths.value) strokeCutLine(context, path, at);
  if (view.value !== 'nodes') return;
  for (const { film, outline } of rack.films) if (paths.value.some(({ id }) => id === film.id)) drawNodes(context, at, outline, size);
};
function onView(at: Viewport, size: Size): void {
  cssPxPerMm.value = at.scale / mmPerUnit.value;
  look(at, size);
}

const withOutline = (change: Partial<Job['outline']>): Job => ({ ...job.value, outline: { ...job.value.outline, ...change } });
const drag = (next: Job): void => bench.preview(next);
function set(label: string, next: Job): void {
  bench.preview(next);
  bench.commitPreview(label);
}

const way = computed(() => job.value.separation.way);
const pointing = usePointing(() => box.value);
const { found } = pointing;
function chooseWay(next: Way): void {
  if (next === way.value) return;
  bench.commit(`Separate: ${WAYS[next]}`, { ...job.value, separation: FRESH[next] });
}

const move = (id: string, to: number): void => {
  if (way.value === 'flat') bench.commit('Order on the rack', moveFilm(job.value, found.value, id, to));
};

const facts = computed(() => {
  const films = rack.isAlone && rack.chosen !== undefined ? [rack.chosen] : rack.films;
  if (films.length === 0) return [];
  const sum = (of: (film: FilmView) => number): number => films.reduce((total, film) => total + of(film), 0);
  return [
    ['Pieces', sum(({ pieces }) => pieces).toLocaleString('en')],
    ['Nodes', sum(({ nodes }) => nodes).toLocaleString('en')],
    ['Cut length', formatLength(mm(sum(({ cutLengthMm }) => cutLengthMm)), settings.unit, 0)],
  ] as const;
});
</script>

<template>
  <StageLayout title="Separate" :aside="WAYS[way]">
    <template v-if="bench.picture !== undefined" #views>
      <ViewSwitch v-model="view" :choices="VIEWS" label="View" />
      <BackdropSwitch />
    </template>
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" :box="box" :zero="{ x: box.x, y: box.y }" :mm-per-unit="mmPerUnit" :unit="settings.unit" :draw="draw" :redraw-on="[bench.result, bench.cleanView, patch, paint, paths, view, divider, proof]" label="Art and cut"
        :cursor="pointing.mode.value === 'off' ? undefined : 'crosshair'" @view="onView" @press="pointing.press" @move="pointerMm = { x: ($event.x - box.x) * mmPerUnit, y: ($event.y - box.y) * mmPerUnit }" @leave="pointerMm = undefined"
      >
        <TableDivider v-if="view === 'cut' || view === 'proof'" v-model="divider" :left="view === 'cut' ? 'art' : 'films over each other'" :right="view === 'cut' ? 'cut' : 'where they differ from the art'" />
        <ProblemNote />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #rack><JobRack :movable="way === 'flat'" @move="move" /></template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <ProofCard v-if="view === 'proof'" v-model:shift-mm="shiftMm" :proof="proof" :shifted="shifted" />
      <TrayCard title="Films" about="how the clean art is taken apart">
        <ChoiceInput :model-value="way" :choices="WAYS" label="Way of separating" @choose="chooseWay" />
      </TrayCard>
      <OneToneCard v-if="job.separation.way === 'oneTone'" :separation="job.separation" />
      <TonesCard v-else-if="job.separation.way === 'tones'" :separation="job.separation" />
      <template v-else>
        <PaletteCard :separation="job.separation" :found="found" :picking="pointing.mode.value === 'pick'" @pick="pointing.toggle('pick')" />
        <AreasCard v-model:target="pointing.target.value" :separation="job.separation" :found="found" :pointing="pointing.mode.value === 'areas'" @toggle="pointing.toggle('areas')" />
      </template>
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
</style>
