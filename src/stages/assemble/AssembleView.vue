<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { ElSwitch } from 'element-plus';
import { computed, shallowRef, useTemplateRef, watch } from 'vue';
import { placeOnBlank } from '../../core/assemble/placeOnBlank.ts';
import type { Job } from '../../core/job/job.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import LightTable from '../../ui/LightTable.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import type { TablePoint } from '../../ui/useTableView.ts';
import TrayCard from '../../ui/TrayCard.vue';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import JobRack from '../shared/JobRack.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
import { partsContents } from '../shared/tableWords.ts';
import { useReadout } from '../shared/useReadout.ts';
import BlankPlaceCard from './BlankPlaceCard.vue';
import FinishedSizeCard from './FinishedSizeCard.vue';
import GuidesCard from './GuidesCard.vue';
import LayersCard from './LayersCard.vue';
import NamesCard from './NamesCard.vue';
import OneFilmCard from './OneFilmCard.vue';
import OperationsCard from './OperationsCard.vue';
import PartCard from './PartCard.vue';
import PartsCard from './PartsCard.vue';
import PiecesCard from './PiecesCard.vue';
import PlaceOfPartCard from './PlaceOfPartCard.vue';
import ShapeCard from './ShapeCard.vue';
import { useBringIn } from './useBringIn.ts';
import { useDesignScene, VIEWS } from './useDesignScene.ts';
import { useOperations } from './useOperations.ts';
import { useParts } from './useParts.ts';
import { usePen } from './usePen.ts';
import { usePieces } from './usePieces.ts';
import { useShapeNodes } from './useShapeNodes.ts';
import { useTableTools } from './useTableTools.ts';

const bench = useBench();
const settings = useSettings();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();

const job = computed(() => bench.job as Job);
const part = computed(() => bench.part as TracedPart);
const parts = useParts();
// What was last worked on here is what the stages before open.
watch(parts.object, (each) => each?.kind === 'traced' && bench.focusOn(each.id));
const pieces = usePieces(parts);
const operations = useOperations(parts);
const { bringIn } = useBringIn(parts);
const design = computed(() => bench.result?.cut?.design);
const place = computed(() => (design.value === undefined ? { xMm: 0, yMm: 0 } : placeOnBlank(job.value.place, job.value.blank, design.value)));
const box = computed(() => ({ x: 0, y: 0, width: job.value.blank.widthMm, height: job.value.blank.heightMm }));
const pen = usePen(parts, place, cssPxPerMm);
const nodes = useShapeNodes(parts, place, cssPxPerMm);
const tools = useTableTools(parts, pieces, operations, place, cssPxPerMm, () => pen.isOn.value || nodes.isOn.value);
useEventListener('keydown', (event: KeyboardEvent) => {
  if (event.key === 'Escape' && nodes.isOn.value && nodes.editing.refs.value.length === 0) nodes.leave();
  // Before the nodes let go of theirs, which comes first.
}, { capture: true });

const contents = computed(() => {
  const lines = [...parts.rows.value].reverse().map(({ id, name }) => ({ name, isChosen: parts.chosen.value.includes(id), box: parts.boxOf(id) }));
  return partsContents(lines, place.value, (value) => formatLength(mm(value), settings.unit));
});

/** Places of the design, mm, that are pointed out until something else is done. */
const spots = shallowRef<readonly { readonly x: number; readonly y: number }[]>([]);
watch([() => bench.job, parts.chosen], () => (spots.value = []));
const table = useTemplateRef('table');
function show(places: readonly { readonly x: number; readonly y: number }[]): void {
  spots.value = places;
  if (places.length > 0) table.value?.centre(places[0].x + place.value.xMm, places[0].y + place.value.yMm);
}
const { view, mix, isDifference, apart, draw, redrawOn } = useDesignScene({ parts, pieces, operations, tools, pen, nodes, place, spots, tracedId: computed(() => part.value.id) });

function press(point: TablePoint, event: PointerEvent): void {
  spots.value = [];
  if (apart.value) return;
  if (pen.isOn.value) pen.press(point);
  else if (nodes.isOn.value) nodes.editing.press(point, event);
  else tools.press(point, event);
}
function move(point: TablePoint, event: PointerEvent): void {
  pointerMm.value = { x: point.x, y: point.y };
  if (pen.isOn.value) pen.move(point);
  else if (nodes.isOn.value) nodes.editing.move(point, event);
  else tools.move(point, event);
}
function release(point: TablePoint): void {
  if (pen.isOn.value) pen.release();
  else if (nodes.isOn.value) nodes.editing.release(point);
  else tools.release(point);
}
</script>

<template>
  <StageLayout title="Assemble" :aside="job.blank.name">
    <template v-if="bench.picture !== undefined" #views>
      <ViewSwitch v-model="view" :choices="VIEWS" label="Ground" />
      <span v-if="view === 'picture'" class="mix">
        <label v-if="!isDifference"><span>Picture</span><input v-model.number="mix" type="range" min="0" max="100" aria-label="How much of the picture is seen" /></label>
        <label><ElSwitch v-model="isDifference" size="small" aria-label="Difference" />Difference</label>
      </span>
    </template>
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" ref="table" :box="box" :zero="{ x: 0, y: 0 }" :mm-per-unit="1" :unit="settings.unit" :draw="draw" :redraw-on="redrawOn" label="Design on the blank" :contents="contents" :cursor="pen.isOn.value ? 'crosshair' : tools.cursor.value"
        @view="(shown) => (cssPxPerMm = shown.scale)" @press="press" @move="move" @release="release" @leave="pointerMm = undefined" @ruler="(way, point) => apart || tools.guides.draw(way, point)"
      >
        <ProblemNote />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #rack><JobRack /></template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <PartsCard :parts="parts" @bring="bringIn" @draw="pen.start" />
      <TrayCard v-if="pen.isOn.value" title="Pen" about="on the table">
        <p class="hint">Click for a corner, drag for a curve. The first node again closes the shape; Enter leaves it open, as a line of a width. Backspace takes the last node back, Esc leaves.</p>
        <div class="acts"><button type="button" class="plain-button" :disabled="(pen.path.value?.nodes.length ?? 0) < 3" @click="pen.finish(true)">Close the shape</button><button type="button" class="plain-button" @click="pen.cancel">Cancel</button></div>
      </TrayCard>
      <PiecesCard v-if="pieces.marks.value.length > 0" :parts="parts" :pieces="pieces" />
      <template v-if="parts.object.value !== undefined">
        <ShapeCard v-if="parts.object.value.kind === 'imported'" :key="parts.object.value.id" :parts="parts" :part="parts.object.value" :nodes="nodes" />
        <PartCard v-else :key="parts.object.value.id" :parts="parts" :part="parts.object.value" />
        <OperationsCard v-if="parts.object.value.kind !== 'holes' && (parts.object.value.kind !== 'base' || (parts.object.value.operations ?? []).length > 0)" :parts="parts" :pieces="pieces" :operations="operations" @show="show" />
      </template>
      <LayersCard @show="show" />
      <NamesCard />
      <PlaceOfPartCard v-if="parts.canMove.value && parts.box.value !== undefined && !tools.isOnePart.value" :parts="parts" :box="parts.box.value" />
      <FinishedSizeCard :is-whole="tools.isOnePart.value && part.operations === undefined" />
      <BlankPlaceCard :place="place" />
      <GuidesCard :guides="tools.guides" :blank="job.blank" />
      <OneFilmCard v-if="part.separation.way === 'oneTone'" />
    </template>
  </StageLayout>
</template>

<style scoped>
.mix,
.mix label {
  display: flex;
  align-items: center;
  gap: 8px;
}
.mix {
  gap: 16px;
  margin-left: 12px;
}
.acts {
  display: flex;
  gap: 6px;
}
.hint {
  margin: 0 0 8px;
  color: var(--ink-soft);
}
.mix input {
  accent-color: var(--madder);
}
</style>
