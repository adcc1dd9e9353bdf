<script setup lang="ts">
import { computed, ref } from 'vue';
import { judge } from '../../core/check/judge.ts';
import type { Job } from '../../core/job/job.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { LEAST_DRAWN_SIDE_PX, MOST_DRAWN_SIDE_PX } from '../../formats/picture/drawSvg.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { backdropPaint } from '../../ui/backdrops.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { Size, Viewport } from '../../ui/viewport.ts';
import type { TablePoint } from '../../ui/useTableView.ts';
import { colourAt } from '../shared/colourAt.ts';
import { pickFiles } from '../shared/pickFiles.ts';
import { drawClear, drawPlaced } from '../shared/pictureScene.ts';
import StageLayout from '../shared/StageLayout.vue';
import TracedChoice from '../shared/TracedChoice.vue';
import { useReadout } from '../shared/useReadout.ts';
import { useSharpPatch } from '../shared/useSharpPatch.ts';
import BlankCard from './BlankCard.vue';
import FirstLookCard from './FirstLookCard.vue';
import { grouped, say } from '../../core/words/say.ts';

const bench = useBench();
const settings = useSettings();
const { pointerMm, pointerColour, cssPxPerMm, items, progress, status } = useReadout();
const { patch, look } = useSharpPatch('picture');

const job = computed(() => bench.job as Job);
const box = computed(() => ({ x: 0, y: 0, width: bench.picture?.widthPx ?? 100, height: bench.picture?.heightPx ?? 100 }));
const mmPerUnit = computed(() => 1 / (bench.resolutionPxPerMm ?? 1));
const paint = computed(() => backdropPaint(settings.backdrop, job.value.blank.colour, job.value.films.map((film) => film.colour), settings.isDark));

const draw: DrawScene = (context, view) => {
  const { picture } = bench;
  if (picture === undefined) return;
  drawClear(context, view, box.value, paint.value);
  drawPlaced(context, view, { pixels: picture.view, box: box.value });
  if (patch.value !== undefined) drawPlaced(context, view, patch.value);
};
function onMove(point: TablePoint): void {
  pointerMm.value = { x: point.x * mmPerUnit.value, y: point.y * mmPerUnit.value };
  pointerColour.value = bench.picture === undefined ? undefined : colourAt(bench.picture, point);
}
function onView(view: Viewport, size: Size): void {
  cssPxPerMm.value = view.scale / mmPerUnit.value;
  look(view, size);
}

const change = (label: string, fields: Partial<Job>): void => bench.commit(label, { ...job.value, ...fields });
const keywordText = ref<string>();
function takeKeywords(text: string): void {
  keywordText.value = undefined;
  const keywords = [...new Set(text.split(',').map((word) => word.trim().slice(0, 40)).filter((word) => word !== ''))].slice(0, 40);
  if (keywords.join() !== job.value.keywords.join()) change(say('Keywords'), { keywords });
}
function takeCollections(event: Event): void {
  const input = event.target as HTMLInputElement;
  const names = [...new Set(input.value.split(',').map((name) => name.trim().slice(0, 60)).filter((name) => name !== ''))].slice(0, 20);
  if (names.join() === (job.value.collections ?? []).join()) return;
  const { collections: _, ...rest } = job.value;
  bench.commit(say('Collections'), names.length === 0 ? rest : { ...rest, collections: names });
}
function takeName(event: Event): void {
  const input = event.target as HTMLInputElement;
  const name = input.value.trim().slice(0, 120);
  if (name === '') input.value = job.value.name;
  else if (name !== job.value.name) change(say('Name'), { name });
}
function takeNote(event: Event): void {
  const note = (event.target as HTMLTextAreaElement).value.slice(0, 2000);
  if (note !== job.value.rights.note) change(say('Whose picture'), { rights: { ...job.value.rights, note } });
}
const USES = { unknown: say('not asked yet'), ours: say('our own'), allowed: say('may be used'), notForSale: say('not for sale') } as const;

const judgement = computed(() => {
  const { picture, result, resolutionPxPerMm } = bench;
  if (picture === undefined || resolutionPxPerMm === undefined) return undefined;
  const tooSmall = result?.cut?.findings.filter((finding) => finding.kind === 'smallPiece' || finding.kind === 'smallHole').length;
  return judge({ look: picture.look, dpi: resolutionPxPerMm * 25.4, tooSmall, leastPieceMm2: PROCESSES[job.value.process].leastPieceMm2 });
});
const facts = computed(() => {
  const { picture } = bench;
  if (picture === undefined) return [];
  const stated = picture.drawnSidePx !== undefined ? say('a drawing, any') : picture.statedDpi === undefined ? say('none') : `${picture.statedDpi} dpi`;
  return [
    [say('Pixels'), `${grouped(picture.widthPx)} × ${grouped(picture.heightPx)}`],
    [say('Colours in the file'), grouped(picture.look.colours)],
    [say('Clear parts'), picture.look.hasClear ? say('yes') : say('none')],
    [say('Resolution in the file'), stated],
    [say('At the finished size'), `${Math.round((bench.resolutionPxPerMm ?? 0) * 25.4)} dpi`],
  ] as const;
});
</script>

<template>
  <StageLayout title="Picture" :aside="bench.pictureInfo?.fileName">
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" :box="box" :zero="{ x: 0, y: 0 }" :mm-per-unit="mmPerUnit" :unit="settings.unit" :draw="draw" :redraw-on="[bench.picture, patch, paint]" label="Picture as it came"
        @view="onView" @move="onMove" @leave="pointerMm = undefined"
      />
      <div v-else class="empty">
        <h2>No picture on the bench yet</h2>
        <p>Drop one anywhere, paste it, or choose a file.</p>
        <button type="button" class="plain-button main" @click="pickFiles">Choose a picture</button>
      </div>
    </template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <TracedChoice />
      <TrayCard title="Will it cut?" :mark="judgement !== undefined && judgement.verdict !== 'good' ? 'warning' : undefined">
        <p class="judgement" aria-live="polite">{{ judgement?.words ?? $say('Bring a picture in to see.') }}</p>
        <dl>
          <template v-for="[name, value] in facts" :key="name"><dt>{{ name }}</dt><dd>{{ value }}</dd></template>
        </dl>
        <QuantityInput v-if="bench.pictureInfo?.drawnSidePx !== undefined" label="Draw it with" suffix="px on its long side" :model-value="bench.pictureInfo.drawnSidePx" :least="LEAST_DRAWN_SIDE_PX" :most="MOST_DRAWN_SIDE_PX" :digits="0" @done="bench.drawAt(Math.round($event))" />
      </TrayCard>
      <FirstLookCard />
      <TrayCard title="Job">
        <label class="field"><span>Name</span><input :value="job.name" maxlength="120" @change="takeName" /></label>
        <label class="field"><span>Keywords, with commas</span><input :value="keywordText ?? job.keywords.join(', ')" @input="keywordText = ($event.target as HTMLInputElement).value" @change="takeKeywords(($event.target as HTMLInputElement).value)" /></label>
        <label class="field"><span>Collections, with commas</span><input :value="(job.collections ?? []).join(', ')" @change="takeCollections" /></label>
      </TrayCard>
      <BlankCard />
      <TrayCard title="Whose picture is it?">
        <ChoiceInput :model-value="job.rights.use" :choices="USES" label="May it be used" @choose="change($say('May it be used'), { rights: { ...job.rights, use: $event } })" />
        <label class="field"><span>Note for the ticket</span><textarea rows="2" :value="job.rights.note" maxlength="2000" @change="takeNote" /></label>
      </TrayCard>
    </template>
    <template #foot><button type="button" class="plain-button" @click="pickFiles">{{ bench.picture === undefined ? $say('Choose a picture') : $say('New job from a file') }}</button></template>
  </StageLayout>
</template>

<style scoped>
.empty {
  align-self: center;
  justify-self: center;
  padding: 48px;
  border: 2px dashed var(--rule-strong);
  border-radius: 12px;
  text-align: center;
}
.empty h2 {
  margin: 0;
  font-family: var(--serif);
}
.judgement {
  margin: 0 0 6px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 3px 12px;
  margin: 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  text-align: right;
  font-weight: 600;
}
.field {
  display: grid;
  gap: 2px;
  margin-top: 4px;
}
.field span {
  margin: 0;
  color: var(--ink-soft);
  font-size: 12.5px;
}
.field input,
.field textarea {
  width: 100%;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 5px 8px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  resize: vertical;
}
.field input:focus-visible,
.field textarea:focus-visible {
  outline: 2px solid var(--madder);
}
</style>
