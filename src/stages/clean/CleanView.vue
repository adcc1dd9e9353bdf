<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { ElSwitch } from 'element-plus';
import { computed, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { numberWords } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import LightTable from '../../ui/LightTable.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import type { TablePoint } from '../../ui/useTableView.ts';
import type { Size, Viewport } from '../../ui/viewport.ts';
import BackdropSwitch from '../shared/BackdropSwitch.vue';
import { colourAt } from '../shared/colourAt.ts';
import { isTyping } from '../shared/isTyping.ts';
import NeedsPicture from '../shared/NeedsPicture.vue';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
import TracedChoice from '../shared/TracedChoice.vue';
import TableDivider from '../shared/TableDivider.vue';
import { filmsContents } from '../shared/tableWords.ts';
import { useReadout } from '../shared/useReadout.ts';
import AddStep from './AddStep.vue';
import BrushGuard from './BrushGuard.vue';
import CropSettings from './CropSettings.vue';
import InkChoice from './InkChoice.vue';
import MomentChoice from './MomentChoice.vue';
import PlacesCard from './PlacesCard.vue';
import RecipeList from './RecipeList.vue';
import SquaringSettings from './SquaringSettings.vue';
import RecipeMenu from './RecipeMenu.vue';
import { useCleanScene, type CleanViewName } from './useCleanScene.ts';
import { useCleanTools } from './useCleanTools.ts';
import { useMoments } from './useMoments.ts';
import { usePlaces } from './usePlaces.ts';
import { say } from '../../core/words/say.ts';

const bench = useBench();
const settings = useSettings();
const route = useRoute();
const router = useRouter();
const { pointerMm, pointerColour, cssPxPerMm, items, progress, status } = useReadout();

const part = computed(() => bench.part as TracedPart);
const tools = useCleanTools(() => 9 / scene.tableView.value.view.scale, () => scene.tableView.value.view.scale);
const places = usePlaces(tools.step);
const moments = useMoments(tools.step);
const scene = useCleanScene(tools, places, moments);
const { view, divider, swapped } = scene;
const views = computed<readonly { value: CleanViewName; name: string }[]>(() => [
  { value: 'cut', name: say('picture | cut') },
  { value: 'before', name: say('before | after') },
  { value: 'one', name: say('one view') },
  ...(moments.showsRemoved.value ? [{ value: 'removed' as const, name: say('what it takes') }] : []),
]);
const squaringReport = computed(() => bench.result?.clean.steps.find(({ id }) => id === tools.selected.value));
const mmPerUnit = computed(() => 1 / (bench.resolutionPxPerMm ?? 1));

function onView(at: Viewport, size: Size): void {
  scene.look(at, size);
  cssPxPerMm.value = at.scale / mmPerUnit.value;
}
function onPress(point: TablePoint, event: PointerEvent): void {
  // A tool in hand works under pins too; they are chosen out of the list, by keys, or once the tool is put down.
  if (tools.hasTool.value || !places.press(scene.tableView.value.view, point.screenX, point.screenY)) tools.press(point, event);
}
function onMove(point: TablePoint, event: PointerEvent): void {
  tools.move(point, event);
  pointerMm.value = { x: point.x * mmPerUnit.value, y: point.y * mmPerUnit.value };
  pointerColour.value = bench.base === undefined ? undefined : colourAt(bench.base, point);
}
function onLeave(): void {
  pointerMm.value = undefined;
  tools.brush.at.value = undefined;
}
const cursor = computed(() => (tools.tool.value === 'areaLift' || tools.tool.value === 'colourLift' ? 'crosshair' : tools.isBrush.value ? 'none' : tools.tool.value === 'crop' || tools.tool.value === 'turn' || tools.tool.value === 'gapMending' ? 'crosshair' : undefined));

const table = useTemplateRef('table');
watch(places.chosen, () => {
  const place = places.unseen(scene.tableView.value.view, scene.tableView.value.size);
  if (place !== undefined) table.value?.centre(place.x, place.y);
});

useEventListener('keydown', (event: KeyboardEvent) => {
  if (isTyping(event.target) || event.ctrlKey || event.metaKey) return;
  if (event.key === 'Escape') {
    if (places.chosen.value !== undefined && tools.isIdle.value) places.chosen.value = undefined;
    else tools.escape();
  } else if (event.key === 'Enter' && event.target === document.body) tools.select(undefined);
  else if (event.key === 'o') swapped.value = true;
  else if (event.key === 'n') places.go(1);
  else if (event.key === 'N') places.go(-1);
  else if (event.key === 'x' && places.chosen.value !== undefined) places.toggleSpared(places.chosen.value);
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

const HOW = [{ value: 'over', name: say('over it') }, { value: 'around', name: say('around it') }] as const;
const SAYS = [{ value: 'keep', name: say('keep') }, { value: 'clear', name: say('clear') }] as const;
const HINTS = { areaLift: say('Click an area to take it out, or press and pull away: the further, the more it takes.'), colourLift: say('Click the colour to take out everywhere.') } as const;
</script>

<template>
  <StageLayout title="Recipe" :aside="part.recipe.length === 0 ? $say('as it came') : part.recipe.length === 1 ? $say('1 step') : $say`${part.recipe.length} steps`">
    <template v-if="bench.picture !== undefined" #views>
      <ViewSwitch v-model="view" :choices="views" label="View" />
      <BackdropSwitch />
    </template>
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" ref="table" :box="scene.box.value" :zero="{ x: 0, y: 0 }" :mm-per-unit="mmPerUnit" :unit="settings.unit" :draw="scene.draw" :redraw-on="scene.redrawOn.value" :cursor="cursor" label="Picture and cut" :contents="filmsContents(bench.result?.cut?.rack)"
        @view="onView" @press="onPress" @move="onMove" @release="tools.release" @leave="onLeave"
      >
        <TableDivider v-if="view !== 'one' && !tools.corners.active.value" v-model="divider" :left="view === 'cut' ? $say('picture') : view === 'removed' ? $say('now') : $say('before')" :right="view === 'cut' ? $say('cut') : view === 'removed' ? $say('what it takes, 8 times as strong') : $say('after')">
          <template v-if="view === 'before'" #left><MomentChoice v-model="moments.left.value" :moments="moments.moments.value" label="Left moment" /></template>
          <template v-if="view === 'before'" #right><MomentChoice v-model="moments.right.value" :moments="moments.moments.value" label="Right moment" /></template>
        </TableDivider>
        <p v-if="tools.waiting.value !== undefined" class="hint" role="status">{{ HINTS[tools.waiting.value] }} Esc leaves.</p>
        <p v-if="tools.pull.end.value !== undefined" class="pull" :style="{ left: `${tools.pull.end.value.screenX + 14}px`, top: `${tools.pull.end.value.screenY + 10}px` }">
          {{ tools.pull.reach.value === undefined ? $say('looking…') : $say`tolerance ${numberWords(tools.pull.tolerance.value ?? 0, 1)}` }}
        </p>
        <ProblemNote v-if="view === 'cut'" />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <TracedChoice />
      <RecipeList v-if="part.recipe.length > 0" :selected="tools.selected.value" @select="tools.select">
        <div v-if="tools.tool.value === 'subjectLift'" class="says">
          <span>Strokes say</span>
          <ViewSwitch v-model="tools.brush.says.value" :choices="SAYS" label="What strokes say" />
          <ViewSwitch :model-value="tools.brush.lasso.value ? 'around' : 'over'" :choices="HOW" label="How strokes are drawn" @update:model-value="tools.brush.lasso.value = $event === 'around'" />
        </div>
        <label v-if="tools.tool.value === 'subjectLift' && !tools.brush.lasso.value" class="says"><span>Learn its colours everywhere</span><ElSwitch v-model="tools.brush.teaches.value" size="small" /></label>
        <SquaringSettings v-if="tools.step.value?.kind === 'squaring'" :step="tools.step.value" :report="squaringReport" :corners="tools.corners" />
        <CropSettings v-else-if="tools.step.value?.kind === 'crop'" v-model:aspect="tools.cropAspect.value" :step="tools.step.value" />
        <template v-else>
          <QuantityInput label="Brush radius" suffix="px" :model-value="tools.brush.radiusPx.value" :least="0.5" :most="2000" :step="0.5" @change="tools.brush.radiusPx.value = $event" @done="tools.brush.radiusPx.value = $event" />
          <InkChoice v-if="tools.tool.value === 'drawIn'" v-model="tools.brush.colour.value" />
          <BrushGuard v-if="tools.tool.value !== 'subjectLift'" v-model="tools.brush.within.value" />
        </template>
      </RecipeList>
      <p v-else class="none">The picture as it came. Add a step: crop, lift the background off, rub out, sweep specks. Every step stays changeable, and later ones follow.</p>
      <PlacesCard
        v-if="bench.picture !== undefined && (tools.step.value === undefined || places.finds.value !== undefined)" :places="places.places.value" :chosen="places.chosen.value" :of-step="places.finds.value !== undefined"
        @choose="places.chosen.value = $event" @go="places.go" @spare="places.toggleSpared" @mend="places.mend" @spare-all="places.spareAll"
      />
    </template>
    <template #foot>
      <template v-if="bench.picture !== undefined">
        <AddStep @choose="tools.start" />
        <RecipeMenu />
      </template>
    </template>
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
  flex-wrap: wrap;
  gap: 4px;
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
