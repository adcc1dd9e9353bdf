<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed, shallowRef, useTemplateRef, watch } from 'vue';
import { placeOnBlank } from '../../core/assemble/placeOnBlank.ts';
import type { Job } from '../../core/job/job.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import LightTable from '../../ui/LightTable.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import type { TablePoint } from '../../ui/useTableView.ts';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import JobRack from '../shared/JobRack.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
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
import { useBringIn } from './useBringIn.ts';
import { useDesignScene, VIEWS } from './useDesignScene.ts';
import { useOperations } from './useOperations.ts';
import { useParts } from './useParts.ts';
import { usePieces } from './usePieces.ts';
import { useTableTools } from './useTableTools.ts';

const bench = useBench();
const settings = useSettings();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();

const job = computed(() => bench.job as Job);
const part = computed(() => bench.part as TracedPart);
const parts = useParts();
const pieces = usePieces(parts);
const operations = useOperations(parts);
const { bringIn } = useBringIn(parts);
const design = computed(() => bench.result?.cut?.design);
const place = computed(() => (design.value === undefined ? { xMm: 0, yMm: 0 } : placeOnBlank(job.value.place, job.value.blank, design.value)));
const box = computed(() => ({ x: 0, y: 0, width: job.value.blank.widthMm, height: job.value.blank.heightMm }));
const tools = useTableTools(parts, pieces, operations, place, cssPxPerMm);

/** Places of the design, mm, that are pointed out until something else is done. */
const spots = shallowRef<readonly { readonly x: number; readonly y: number }[]>([]);
watch([() => bench.job, parts.chosen], () => (spots.value = []));
const table = useTemplateRef('table');
function show(places: readonly { readonly x: number; readonly y: number }[]): void {
  spots.value = places;
  if (places.length > 0) table.value?.centre(places[0].x + place.value.xMm, places[0].y + place.value.yMm);
}
const { view, mix, isDifference, apart, draw, redrawOn } = useDesignScene({ parts, pieces, operations, tools, place, spots, tracedId: computed(() => part.value.id) });

function press(point: TablePoint, event: PointerEvent): void {
  spots.value = [];
  if (!apart.value) tools.press(point, event);
}
function move(point: TablePoint, event: PointerEvent): void {
  pointerMm.value = { x: point.x, y: point.y };
  tools.move(point, event);
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
        v-if="bench.picture !== undefined" ref="table" :box="box" :zero="{ x: 0, y: 0 }" :mm-per-unit="1" :unit="settings.unit" :draw="draw" :redraw-on="redrawOn" label="Design on the blank" :cursor="tools.cursor.value"
        @view="(shown) => (cssPxPerMm = shown.scale)" @press="press" @move="move" @release="tools.release" @leave="pointerMm = undefined" @ruler="(way, point) => apart || tools.guides.draw(way, point)"
      >
        <ProblemNote />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #rack><JobRack /></template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <PartsCard :parts="parts" @bring="bringIn" />
      <PiecesCard v-if="pieces.marks.value.length > 0" :parts="parts" :pieces="pieces" />
      <template v-if="parts.object.value !== undefined">
        <PartCard :key="parts.object.value.id" :parts="parts" :part="parts.object.value" />
        <OperationsCard v-if="parts.object.value.kind !== 'base' && parts.object.value.kind !== 'holes'" :parts="parts" :pieces="pieces" :operations="operations" @show="show" />
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
.mix input {
  accent-color: var(--madder);
}
</style>
