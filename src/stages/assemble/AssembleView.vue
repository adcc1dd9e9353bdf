<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, shallowRef } from 'vue';
import { overBlankMm, placeOnBlank, type PlaceMm } from '../../core/assemble/placeOnBlank.ts';
import { rgbFromHex } from '../../core/colour/hex.ts';
import { colourDifference, type Rgb } from '../../core/colour/oklab.ts';
import { oneFilmOf } from '../../core/film/filmRoles.ts';
import type { Job } from '../../core/job/job.ts';
import { plainObjects } from '../../core/job/objects.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { FinishedSize } from '../../core/units/finishedSize.ts';
import type { Film } from '../../core/film/film.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { fillPath, strokeHairline } from '../../ui/draw/cutLines.ts';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { TablePoint } from '../../ui/useTableView.ts';
import { isTyping } from '../shared/isTyping.ts';
import JobRack from '../shared/JobRack.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
import { useReadout } from '../shared/useReadout.ts';
import { drawBlank } from './drawBlank.ts';
import PartCard from './PartCard.vue';
import PartsCard from './PartsCard.vue';
import { useParts } from './useParts.ts';

const bench = useBench();
const settings = useSettings();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();

const job = computed(() => bench.job as Job);
const part = computed(() => bench.part as TracedPart);
/** Of several parts the design's own measures are not those of any. */
const partCount = computed(() => plainObjects(job.value.objects).length);
const isOnePart = computed(() => partCount.value === 1);
const parts = useParts();
const filmed = computed(() => (parts.part.value?.kind === 'lettering' || parts.part.value?.kind === 'figure' ? parts.part.value : undefined));
const film = computed(() => oneFilmOf(job.value.films));
const design = computed(() => bench.result?.cut?.design);
const place = computed(() => (design.value === undefined ? { xMm: 0, yMm: 0 } : placeOnBlank(job.value.place, job.value.blank, design.value)));
const over = computed(() => (design.value === undefined ? 0 : overBlankMm(place.value, job.value.blank, design.value)));
const box = computed(() => ({ x: 0, y: 0, width: job.value.blank.widthMm, height: job.value.blank.heightMm }));
const films = computed(() => bench.result?.cut?.rack ?? []);
const paths = computed(() => (design.value?.layers ?? []).map(({ curves }) => pathFromCurves(curves)));

const draw: DrawScene = (context, view) => {
  drawBlank(context, view, job.value.blank);
  if (design.value === undefined) return;
  const moved = { scale: view.scale, x: view.x + place.value.xMm * view.scale, y: view.y + place.value.yMm * view.scale };
  for (const [k, path] of paths.value.entries()) fillPath(context, path, moved, films.value[k].film.colour);
  // On the blank one sees film and not the knife; only a film of the blank's own colour gets a hairline, or it would not be seen.
  for (const [k, path] of paths.value.entries()) if (isLost(films.value[k].film.colour)) strokeHairline(context, path, moved, job.value.blank.colour);
  context.save();
  const chosen = parts.box.value;
  context.strokeStyle = chosen === undefined ? '#9e2f4b' : '#7d7264';
  context.setLineDash([6, 4]);
  context.strokeRect(moved.x, moved.y, design.value.widthMm * view.scale, design.value.heightMm * view.scale);
  if (chosen !== undefined) {
    context.strokeStyle = '#9e2f4b';
    context.setLineDash([]);
    context.strokeRect(moved.x + chosen.left * view.scale, moved.y + chosen.top * view.scale, (chosen.right - chosen.left) * view.scale, (chosen.bottom - chosen.top) * view.scale);
  }
  context.restore();
};

/** Colours nearer than this are one to the eye at arm's length, OKLab × 100. */
const ALIKE = 6;
const isLost = (colour: string): boolean => colourDifference(rgbFromHex(colour) as Rgb, rgbFromHex(job.value.blank.colour) as Rgb) < ALIKE;

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

/** What is dragged: a part of the design from where the job had it, or all of it. */
const hold = shallowRef<{ from: TablePoint; place: { xMm: number; yMm: number }; part?: { id: string; job: Job } }>();
/** The highest part that was added at a place of the blank. */
function partAt(point: TablePoint): string | undefined {
  const boxes = bench.result?.cut?.boxes ?? [];
  const [x, y] = [point.x - place.value.xMm, point.y - place.value.yMm];
  return plainObjects(job.value.objects).findLast(({ id, kind }) => kind !== 'traced' && boxes.some((each) => each.id === id && x >= each.left && x <= each.right && y >= each.top && y <= each.bottom))?.id;
}
function press(point: TablePoint): void {
  const d = design.value;
  if (d === undefined) return;
  const { xMm, yMm } = place.value;
  const pointed = partAt(point);
  parts.select(pointed);
  if (pointed !== undefined) {
    hold.value = { from: point, place: { ...place.value }, part: { id: pointed, job: job.value } };
    return;
  }
  if (point.x >= xMm && point.y >= yMm && point.x <= xMm + d.widthMm && point.y <= yMm + d.heightMm) hold.value = { from: point, place: { ...place.value } };
}
function move(point: TablePoint): void {
  pointerMm.value = { x: point.x, y: point.y };
  if (hold.value === undefined) return;
  const { from, part: dragged } = hold.value;
  if (dragged !== undefined) {
    bench.preview(parts.shifted(dragged.id, round(point.x - from.x), round(point.y - from.y), dragged.job));
    return;
  }
  dragPlace({ xMm: round(hold.value.place.xMm + point.x - hold.value.from.x), yMm: round(hold.value.place.yMm + point.y - hold.value.from.y) });
}
function release(): void {
  if (hold.value === undefined) return;
  hold.value = undefined;
  bench.commitPreview('Place');
}
const round = (value: number): number => Math.round(value * 10) / 10;

/** Arrow keys nudge by a millimetre, with Shift by ten. */
const NUDGES: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
useEventListener('keydown', (event: KeyboardEvent) => {
  if (event.key === 'Escape' && hold.value !== undefined) {
    hold.value = undefined;
    bench.revert();
    return;
  }
  if ((event.key === 'Delete' || event.key === 'Backspace') && !isTyping(event.target) && filmed.value !== undefined) {
    event.preventDefault();
    parts.remove();
    return;
  }
  const nudge = NUDGES[event.key];
  if (nudge === undefined || isTyping(event.target) || design.value === undefined) return;
  event.preventDefault();
  const by = event.shiftKey ? 10 : 1;
  if (filmed.value !== undefined) bench.commit('Nudge', parts.shifted(filmed.value.id, nudge[0] * by, nudge[1] * by));
  else setPlace({ xMm: round(place.value.xMm + nudge[0] * by), yMm: round(place.value.yMm + nudge[1] * by) }, 'Nudge');
});
</script>

<template>
  <StageLayout title="Assemble" :aside="job.blank.name">
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" :box="box" :zero="{ x: 0, y: 0 }" :mm-per-unit="1" :unit="settings.unit" :draw="draw" :redraw-on="[design, place, films, job.blank, parts.box.value]" label="Design on the blank" :cursor="hold === undefined ? undefined : 'grabbing'"
        @view="(view) => (cssPxPerMm = view.scale)" @press="press" @move="move" @release="release" @leave="pointerMm = undefined"
      >
        <ProblemNote />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #rack><JobRack /></template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <PartsCard :parts="parts" />
      <PartCard v-if="filmed !== undefined" :key="filmed.id" :parts="parts" :part="filmed" />
      <TrayCard v-if="isOnePart" title="Finished size" about="aspect is locked: one side leads, the other follows">
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
      <TrayCard v-else title="Finished size" :about="`of the lowest of ${partCount} parts`">
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

<style scoped>
.row {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 30px;
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
