<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Job } from '../../core/job/job.ts';
import { trimNumber } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { backdropPaint } from '../../ui/backdrops.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import type { TablePoint } from '../../ui/useTableView.ts';
import { toScreenX, toScreenY, type Size, type Viewport } from '../../ui/viewport.ts';
import BackdropSwitch from '../shared/BackdropSwitch.vue';
import { colourAt } from '../shared/colourAt.ts';
import { isTyping } from '../shared/isTyping.ts';
import NeedsPicture from '../shared/NeedsPicture.vue';
import { drawClear, drawCut, drawPlaced, onSide } from '../shared/pictureScene.ts';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
import TableDivider from '../shared/TableDivider.vue';
import { useReadout } from '../shared/useReadout.ts';
import { useSharpPatch } from '../shared/useSharpPatch.ts';
import AddStep from './AddStep.vue';
import { drawBrushRim, drawCropFrame, drawLiftLayer, drawPull, drawStroke } from './cleanScene.ts';
import RecipeList from './RecipeList.vue';
import { useCleanTools } from './useCleanTools.ts';
import { liftLayer } from './useLiftPull.ts';

const bench = useBench();
const settings = useSettings();
const route = useRoute();
const router = useRouter();
const { pointerMm, pointerColour, cssPxPerMm, items, progress, status } = useReadout();
const sharpPicture = useSharpPatch('base');
const sharpClean = useSharpPatch('clean');

type View = 'cut' | 'before' | 'one';
const VIEWS = [{ value: 'cut', name: 'picture | cut' }, { value: 'before', name: 'before | after' }, { value: 'one', name: 'one view' }] as const;
const view = ref<View>('cut');
const divider = ref(0.5);
const swapped = ref(false);
const tableView = shallowRef<{ view: Viewport; size: Size }>({ view: { scale: 1, x: 0, y: 0 }, size: { width: 1, height: 1 } });

const job = computed(() => bench.job as Job);
const tools = useCleanTools(() => 9 / tableView.value.view.scale);
const box = computed(() => ({ x: 0, y: 0, width: bench.base?.widthPx ?? 100, height: bench.base?.heightPx ?? 100 }));
const mmPerUnit = computed(() => 1 / (bench.resolutionPxPerMm ?? 1));
const film = computed(() => job.value.assembly.films[0].colour);
const paint = computed(() => backdropPaint(settings.backdrop, job.value.blank.colour, [film.value], settings.isDark));
const cutPath = computed(() => (bench.result?.cut === undefined ? undefined : pathFromCurves(bench.result.cut.outline)));
const cleanBox = computed(() => {
  const clean = bench.result?.clean;
  if (clean === undefined) return box.value;
  const { leftPx, topPx, scale } = clean.frame;
  return { x: leftPx, y: topPx, width: clean.widthPx / scale, height: clean.heightPx / scale };
});

const layer = document.createElement('canvas');
watch([tools.pull.reach, tools.pull.tolerance], ([reach, tolerance]) => {
  if (reach !== undefined && tolerance !== undefined) liftLayer(reach, tolerance, layer);
});

const drawPicture: DrawScene = (context, at) => {
  const { base: picture } = bench;
  if (picture === undefined) return;
  drawClear(context, at, box.value, paint.value);
  drawPlaced(context, at, { pixels: picture.view, box: box.value });
  if (sharpPicture.patch.value !== undefined) drawPlaced(context, at, sharpPicture.patch.value);
};
const drawAfter: DrawScene = (context, at) => {
  drawClear(context, at, cleanBox.value, paint.value);
  if (bench.cleanView !== undefined) drawPlaced(context, at, { pixels: bench.cleanView.pixels, box: cleanBox.value });
  if (sharpClean.patch.value !== undefined && bench.result?.clean.key === bench.cleanView?.key) drawPlaced(context, at, sharpClean.patch.value);
};
const drawCutSide: DrawScene = (context, at) => {
  drawClear(context, at, cleanBox.value, paint.value);
  if (cutPath.value !== undefined) drawCut(context, at, cutPath.value, film.value);
};

const draw: DrawScene = (context, at, size) => {
  const [first, second] = view.value === 'cut' ? [drawPicture, drawCutSide] : [drawPicture, drawAfter];
  if (view.value === 'one') (swapped.value ? drawPicture : drawAfter)(context, at, size);
  else {
    const [left, right] = swapped.value ? [second, first] : [first, second];
    const x = divider.value * size.width;
    onSide(context, size, 0, x, () => left(context, at, size));
    onSide(context, size, x, size.width, () => right(context, at, size));
  }
  drawTool(context, at);
};
const CLEARS = 'rgb(158 47 75 / 45%)';
const KEEPS = 'rgb(47 93 138 / 45%)';
const clears = computed(() => tools.tool.value === 'rubOut' || (tools.tool.value === 'subjectLift' && tools.brush.says.value === 'clear'));
function drawTool(context: CanvasRenderingContext2D, at: Viewport): void {
  const { pull, brush, step, isBrush } = tools;
  if (pull.reach.value !== undefined) drawLiftLayer(context, at, layer, pull.reach.value);
  if (pull.start.value !== undefined && pull.end.value !== undefined) drawPull(context, pull.start.value, pull.end.value);
  if (brush.stroke.value !== undefined) drawStroke(context, at, brush.stroke.value, clears.value ? CLEARS : KEEPS);
  if (step.value?.kind === 'subjectLift') for (const stroke of step.value.strokes) drawStroke(context, at, stroke, stroke.says === 'clear' ? CLEARS : KEEPS);
  if (isBrush.value && brush.at.value !== undefined) drawBrushRim(context, toScreenX(at, brush.at.value.x), toScreenY(at, brush.at.value.y), brush.radiusPx.value * at.scale);
  if (step.value?.kind === 'crop' && bench.base !== undefined) drawCropFrame(context, at, step.value.rect, bench.base);
  if (tools.level.value !== undefined) drawPull(context, tools.level.value.from, tools.level.value.to);
  if (step.value?.kind === 'areaLift' && pull.start.value === undefined) {
    const point = { screenX: toScreenX(at, step.value.at.xPx), screenY: toScreenY(at, step.value.at.yPx) };
    drawPull(context, point, point);
  }
}
const redrawOn = computed(() => [
  bench.base, bench.result, tools.level.value, bench.cleanView, paint.value, film.value, view.value, divider.value, swapped.value, sharpPicture.patch.value, sharpClean.patch.value,
  tools.pull.reach.value, tools.pull.end.value, tools.brush.stroke.value, tools.brush.at.value, tools.brush.radiusPx.value, tools.step.value, tools.tool.value,
]);

function onView(at: Viewport, size: Size): void {
  tableView.value = { view: at, size };
  cssPxPerMm.value = at.scale / mmPerUnit.value;
  sharpPicture.look(at, size);
  sharpClean.look(at, size);
}
watch(() => bench.result, () => sharpClean.look(tableView.value.view, tableView.value.size));
function onMove(point: TablePoint): void {
  tools.move(point);
  pointerMm.value = { x: point.x * mmPerUnit.value, y: point.y * mmPerUnit.value };
  pointerColour.value = bench.base === undefined ? undefined : colourAt(bench.base, point);
}
function onLeave(): void {
  pointerMm.value = undefined;
  tools.brush.at.value = undefined;
}
const cursor = computed(() => (tools.tool.value === 'areaLift' || tools.tool.value === 'colourLift' ? 'crosshair' : tools.isBrush.value ? 'none' : tools.tool.value === 'crop' || tools.tool.value === 'turn' ? 'crosshair' : undefined));

useEventListener('keydown', (event: KeyboardEvent) => {
  if (isTyping(event.target) || event.ctrlKey || event.metaKey) return;
  if (event.key === 'Escape') tools.escape();
  else if (event.key === 'Enter' && event.target === document.body) tools.select(undefined);
  else if (event.key === 'o') swapped.value = true;
  else if (event.key === 'k' && tools.tool.value === 'subjectLift') tools.brush.says.value = tools.brush.says.value === 'keep' ? 'clear' : 'keep';
  else if (event.key === ',') tools.brush.resize(1 / 1.15);
  else if (event.key === '.') tools.brush.resize(1.15);
});
useEventListener('keyup', (event: KeyboardEvent) => {
  if (event.key === 'o') swapped.value = false;
});
useEventListener('wheel', (event: WheelEvent) => {
  if (!event.altKey || !tools.isBrush.value) return;
  event.preventDefault();
  event.stopPropagation();
  tools.brush.resize(event.deltaY < 0 ? 1.15 : 1 / 1.15);
}, { capture: true, passive: false });

// The open step stands in the address, so that a reload comes back to it.
tools.selected.value = typeof route.query['step'] === 'string' ? route.query['step'] : undefined;
watch(tools.selected, (id) => void router.replace({ query: id === undefined ? {} : { step: id } }));

const SAYS = [{ value: 'keep', name: 'keep' }, { value: 'clear', name: 'clear' }] as const;
const HINTS = { areaLift: 'Click an area to take it out, or press and pull away: the further, the more it takes.', colourLift: 'Click the colour to take out everywhere.' } as const;
</script>

<template>
  <StageLayout title="Recipe" :aside="job.recipe.length === 0 ? 'as it came' : job.recipe.length === 1 ? '1 step' : `${job.recipe.length} steps`">
    <template v-if="bench.picture !== undefined" #views>
      <ViewSwitch v-model="view" :choices="VIEWS" label="View" />
      <BackdropSwitch />
    </template>
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" :box="box" :zero="{ x: 0, y: 0 }" :mm-per-unit="mmPerUnit" :unit="settings.unit" :draw="draw" :redraw-on="redrawOn" :cursor="cursor" label="Picture and cut"
        @view="onView" @press="tools.press" @move="onMove" @release="tools.release" @leave="onLeave"
      >
        <TableDivider v-if="view !== 'one'" v-model="divider" :left="view === 'cut' ? 'picture' : 'before'" :right="view === 'cut' ? 'cut' : 'after'" />
        <p v-if="tools.waiting.value !== undefined" class="hint" role="status">{{ HINTS[tools.waiting.value] }} Esc leaves.</p>
        <p v-if="tools.pull.end.value !== undefined" class="pull" :style="{ left: `${tools.pull.end.value.screenX + 14}px`, top: `${tools.pull.end.value.screenY + 10}px` }">
          {{ tools.pull.reach.value === undefined ? 'looking…' : `tolerance ${trimNumber(tools.pull.tolerance.value ?? 0, 1)}` }}
        </p>
        <ProblemNote v-if="view === 'cut'" />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <RecipeList v-if="job.recipe.length > 0" :selected="tools.selected.value" @select="tools.select">
        <div v-if="tools.tool.value === 'subjectLift'" class="says">
          <span>Strokes say</span>
          <ViewSwitch v-model="tools.brush.says.value" :choices="SAYS" label="What strokes say" />
        </div>
        <QuantityInput label="Brush radius" suffix="px" :model-value="tools.brush.radiusPx.value" :least="0.5" :most="2000" :step="0.5" @change="tools.brush.radiusPx.value = $event" @done="tools.brush.radiusPx.value = $event" />
      </RecipeList>
      <p v-else class="none">The picture as it came. Add a step: crop, lift the background off, rub out, sweep specks. Every step stays changeable, and later ones follow.</p>
    </template>
    <template #foot><AddStep v-if="bench.picture !== undefined" @choose="tools.start" /></template>
  </StageLayout>
</template>

<style scoped>
.hint {
  position: absolute;
  bottom: 42px;
  left: 50%;
  transform: translateX(-50%);
  margin: 0;
  padding: 5px 14px;
  border-radius: 4px;
  background: var(--ink);
  color: var(--paper);
  white-space: nowrap;
  pointer-events: none;
}
.pull {
  position: absolute;
  margin: 0;
  padding: 2px 10px;
  border-radius: 3px;
  background: var(--ink);
  color: var(--paper);
  font-variant-numeric: tabular-nums;
  pointer-events: none;
  white-space: nowrap;
}
.says {
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin: 2px 0;
}
.none {
  margin: 16px;
  color: var(--ink-soft);
}
</style>
