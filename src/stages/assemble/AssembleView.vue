<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue';
import { overBlankMm, placeOnBlank, type PlaceMm } from '../../core/assemble/placeOnBlank.ts';
import { rgbFromHex } from '../../core/colour/hex.ts';
import { colourDifference, type Rgb } from '../../core/colour/oklab.ts';
import { oneFilmOf } from '../../core/film/filmRoles.ts';
import type { Film } from '../../core/film/film.ts';
import { inverseOf } from '../../core/geometry/affine.ts';
import type { Job } from '../../core/job/job.ts';
import { plainObjects } from '../../core/job/objects.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { FinishedSize } from '../../core/units/finishedSize.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { loudColour } from '../../ui/backdrops.ts';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { TablePoint } from '../../ui/useTableView.ts';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import JobRack from '../shared/JobRack.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
import { useReadout } from '../shared/useReadout.ts';
import { DesignBitmap } from './designBitmap.ts';
import { drawBlank } from './drawBlank.ts';
import { drawApart, drawAreas, drawFilms, drawPictureUnder, drawSelection, drawTools, type DrawnFilm } from './drawDesign.ts';
import NamesCard from './NamesCard.vue';
import OperationsCard from './OperationsCard.vue';
import PartCard from './PartCard.vue';
import PartsCard from './PartsCard.vue';
import PiecesCard from './PiecesCard.vue';
import PlaceOfPartCard from './PlaceOfPartCard.vue';
import { useBringIn } from './useBringIn.ts';
import { useOperations } from './useOperations.ts';
import { useParts } from './useParts.ts';
import { usePieces } from './usePieces.ts';
import { useTableTools } from './useTableTools.ts';

const bench = useBench();
const settings = useSettings();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();

const job = computed(() => bench.job as Job);
const part = computed(() => bench.part as TracedPart);
/** Of several parts the design's own measures are not those of any. */
const partCount = computed(() => plainObjects(job.value.objects).length);
const parts = useParts();
const pieces = usePieces(parts);
const operations = useOperations(parts);
const { bringIn } = useBringIn(parts);
const film = computed(() => oneFilmOf(job.value.films));
const design = computed(() => bench.result?.cut?.design);
const place = computed(() => (design.value === undefined ? { xMm: 0, yMm: 0 } : placeOnBlank(job.value.place, job.value.blank, design.value)));
const over = computed(() => (design.value === undefined ? 0 : overBlankMm(place.value, job.value.blank, design.value)));
const box = computed(() => ({ x: 0, y: 0, width: job.value.blank.widthMm, height: job.value.blank.heightMm }));
const films = computed(() => bench.result?.cut?.rack ?? []);
const paths = computed(() => (design.value?.layers ?? []).map(({ curves, marks }) => ({ path: pathFromCurves(curves), marks: marks === undefined ? undefined : pathFromCurves(marks) })));
const picked = computed(() => pieces.selected.value.map(({ curves }) => pathFromCurves(curves)));
const tools = useTableTools(parts, pieces, operations, place, cssPxPerMm);

const VIEWS = [{ value: 'blank', name: 'On the blank' }, { value: 'loud', name: 'On a loud ground' }, { value: 'picture', name: 'Over the picture' }, { value: 'spread', name: 'Films apart' }] as const;
const view = ref<(typeof VIEWS)[number]['value']>('blank');
/** How much of the picture is seen through the design, per cent. */
const mix = ref(50);
/** From px of the picture to mm of the design. */
const fromPicture = computed(() => {
  const own = parts.inDesign.value.find(({ id }) => id === part.value.id);
  return own === undefined ? undefined : inverseOf(own.toMarks);
});
const ground = computed(() => (view.value !== 'loud' ? job.value.blank.colour : loudColour(films.value.map(({ film: { colour } }) => colour))));
const drawn = computed((): DrawnFilm[] => paths.value.map((each, k) => ({ ...each, colour: films.value[k]?.film.colour ?? '#808080', isLost: isLost(films.value[k]?.film.colour ?? '#808080') })));
const measures = computed((): readonly [string, string] | undefined => {
  const chosen = parts.box.value;
  return chosen === undefined ? undefined : [formatLength(mm(chosen.right - chosen.left), settings.unit), formatLength(mm(chosen.bottom - chosen.top), settings.unit)];
});

/** A crowded design is drawn sharply once the view rests. */
const rested = ref(0);
const bitmap = new DesignBitmap(() => rested.value++);
onBeforeUnmount(() => bitmap.stop());
const nodes = computed(() => films.value.reduce((sum, each) => sum + each.nodes, 0));
/** Films side by side: nothing is pointed at there. */
const apart = computed(() => view.value === 'spread' && design.value !== undefined);
const draw: DrawScene = (context, table, size) => {
  if (!apart.value) drawBlank(context, table, { ...job.value.blank, colour: ground.value });
  if (design.value === undefined) return;
  const moved = { scale: table.scale, x: table.x + place.value.xMm * table.scale, y: table.y + place.value.yMm * table.scale };
  const whole = { left: 0, top: 0, right: design.value.widthMm, bottom: design.value.heightMm };
  if (apart.value) {
    drawApart(context, table, drawn.value.map((each, k) => ({ ...each, name: films.value[k]?.film.name ?? '' })), whole, box.value);
    return;
  }
  bitmap.draw(context, moved, size, nodes.value, drawn.value, (target) => drawFilms(target, moved, drawn.value, ground.value));
  if (view.value === 'picture' && bench.base !== undefined && fromPicture.value !== undefined) drawPictureUnder(context, moved, bench.base.view, bench.base.widthPx, fromPicture.value, mix.value / 100);
  const boxes = pieces.marks.value.length > 0 || parts.box.value === undefined ? [] : [parts.box.value];
  drawSelection(context, moved, { design: whole, boxes, pieces: picked.value, measures: measures.value });
  if (operations.filling.value !== undefined) drawAreas(context, moved, operations.areas.value);
  drawTools(context, moved, size, { frame: tools.frame.value, line: tools.line.value, snapLines: tools.snapLines.value });
};

/** Colours nearer than this are one to the eye at arm's length, OKLab × 100. */
const ALIKE = 6;
const isLost = (colour: string): boolean => colourDifference(rgbFromHex(colour) as Rgb, rgbFromHex(ground.value) as Rgb) < ALIKE;

const sized = (change: Partial<FinishedSize>): TracedPart => ({ ...part.value, size: { ...part.value.size, ...change } });
const dragSize = (change: Partial<FinishedSize>): void => bench.previewPart(sized(change));
function setSize(label: string, change: Partial<FinishedSize>): void {
  bench.previewPart(sized(change));
  bench.commitPreview(label);
}
const dragPlace = (change: Partial<PlaceMm>): void => bench.preview({ ...job.value, place: { ...place.value, ...change } });
function setPlace(change: Partial<PlaceMm>, label = 'Place'): void {
  dragPlace(change);
  bench.commitPreview(label);
}
const setFilm = (label: string, change: Partial<Film>): void => bench.commit(label, { ...job.value, films: job.value.films.map((each) => (each.id === film.value.id ? { ...each, ...change } : each)) });
function centre(): void {
  const { place: _place, ...rest } = job.value;
  bench.commit('Place: centred', rest);
}
function move(point: TablePoint, event: PointerEvent): void {
  pointerMm.value = { x: point.x, y: point.y };
  tools.move(point, event);
}
const redrawOn = computed(() => [design.value, place.value, films.value, job.value.blank, parts.box.value, picked.value, tools.frame.value, tools.line.value, tools.snapLines.value, operations.areas.value, ground.value, view.value, mix.value, bench.base, fromPicture.value, rested.value]);
</script>

<template>
  <StageLayout title="Assemble" :aside="job.blank.name">
    <template v-if="bench.picture !== undefined" #views>
      <ViewSwitch v-model="view" :choices="VIEWS" label="Ground" />
      <label v-if="view === 'picture'" class="mix"><span>Picture</span><input v-model.number="mix" type="range" min="0" max="100" aria-label="How much of the picture is seen" /></label>
    </template>
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" :box="box" :zero="{ x: 0, y: 0 }" :mm-per-unit="1" :unit="settings.unit" :draw="draw" :redraw-on="redrawOn" label="Design on the blank" :cursor="tools.cursor.value"
        @view="(table) => (cssPxPerMm = table.scale)" @press="(point, event) => apart || tools.press(point, event)" @move="move" @release="tools.release" @leave="pointerMm = undefined"
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
        <OperationsCard v-if="parts.object.value.kind !== 'base' && parts.object.value.kind !== 'holes'" :parts="parts" :pieces="pieces" :operations="operations" />
      </template>
      <NamesCard />
      <PlaceOfPartCard v-if="parts.canMove.value && parts.box.value !== undefined && !tools.isOnePart.value" :parts="parts" :box="parts.box.value" />
      <TrayCard v-if="tools.isOnePart.value && part.operations === undefined" title="Finished size" about="aspect is locked: one side leads, the other follows">
        <QuantityInput
          kind="length" label="Width" :unit="settings.unit" :model-value="design?.widthMm ?? part.size.sizeMm" :least="1" :most="10000"
          @change="dragSize({ by: 'width', sizeMm: $event })" @done="setSize('Finished width', { by: 'width', sizeMm: $event })" @cancel="bench.revert"
        />
        <QuantityInput
          kind="length" label="Height" :unit="settings.unit" :model-value="design?.heightMm ?? part.size.sizeMm" :least="1" :most="10000"
          @change="dragSize({ by: 'height', sizeMm: $event })" @done="setSize('Finished height', { by: 'height', sizeMm: $event })" @cancel="bench.revert"
        />
        <QuantityInput label="Turn" suffix="°" :model-value="part.size.turnDeg" :least="-360" :most="360" @change="dragSize({ turnDeg: $event })" @done="setSize('Turn', { turnDeg: $event })" @cancel="bench.revert" />
      </TrayCard>
      <TrayCard v-else title="Finished size" :about="partCount === 1 ? 'of the art alone, without what is done to it' : `of the lowest of ${partCount} parts`">
        <QuantityInput
          kind="length" :label="part.size.by === 'width' ? 'Its width' : 'Its height'" :unit="settings.unit" :model-value="part.size.sizeMm" :least="1" :most="10000"
          @change="dragSize({ sizeMm: $event })" @done="setSize(part.size.by === 'width' ? 'Finished width' : 'Finished height', { sizeMm: $event })" @cancel="bench.revert"
        />
        <QuantityInput label="Turn" suffix="°" :model-value="part.size.turnDeg" :least="-360" :most="360" @change="dragSize({ turnDeg: $event })" @done="setSize('Turn', { turnDeg: $event })" @cancel="bench.revert" />
      </TrayCard>
      <TrayCard title="Place on the blank" :about="`printable area ${formatLength(mm(job.blank.widthMm), settings.unit)} × ${formatLength(mm(job.blank.heightMm), settings.unit)}`" :mark="over > 0 ? 'warning' : undefined">
        <QuantityInput kind="length" label="From the left" :unit="settings.unit" :model-value="place.xMm" :least="-20000" :most="20000" @change="dragPlace({ xMm: $event })" @done="setPlace({ xMm: $event })" @cancel="bench.revert" />
        <QuantityInput kind="length" label="From the top" :unit="settings.unit" :model-value="place.yMm" :least="-20000" :most="20000" @change="dragPlace({ yMm: $event })" @done="setPlace({ yMm: $event })" @cancel="bench.revert" />
        <p v-if="over > 0" class="over">Reaches {{ formatLength(mm(over), settings.unit) }} over the printable area.</p>
        <div><button type="button" class="plain-button" :disabled="job.place === undefined" @click="centre">Centre</button></div>
      </TrayCard>
      <TrayCard v-if="part.separation.way === 'oneTone'" title="Film">
        <label class="row"><span>Name</span><input :value="film.name" maxlength="120" @change="($event.target as HTMLInputElement).value.trim() === '' || setFilm('Film name', { name: ($event.target as HTMLInputElement).value.trim() })" /></label>
        <label class="row"><span>Colour</span><input type="color" :value="film.colour" @change="setFilm('Film colour', { colour: ($event.target as HTMLInputElement).value })" /></label>
      </TrayCard>
    </template>
  </StageLayout>
</template>

<style scoped src="./rows.css" />

<style scoped>
.mix {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-left: 12px;
}
.mix input {
  accent-color: var(--madder);
}
.row input {
  width: 168px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 4px 8px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
.row input[type='color'] {
  width: 44px;
  height: 26px;
  padding: 1px;
}
.over {
  margin: 2px 0;
  color: var(--ochre-text);
}
</style>
