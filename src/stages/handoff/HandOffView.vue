<script setup lang="ts">
import { computed } from 'vue';
import type { Sheet } from '../../core/layout/laySheet.ts';
import { trimOf } from '../../core/print/printPages.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { layoutFor } from '../../core/layout/layoutFor.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { drawPage } from '../layout/drawPages.ts';
import { drawMirrorBand, drawOrigin, drawPaper, drawSheet } from '../layout/drawSheet.ts';
import SheetSwitch from '../layout/SheetSwitch.vue';
import { usePrint } from '../layout/usePrint.ts';
import { useSheetTable } from '../layout/useSheetTable.ts';
import JobRack from '../shared/JobRack.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
import { sheetContents } from '../shared/tableWords.ts';
import { useReadout } from '../shared/useReadout.ts';
import FilesCard from './FilesCard.vue';
import PlotterCard from './PlotterCard.vue';
import { useFileLook } from './useFileLook.ts';
import { useHandOff } from './useHandOff.ts';
import { inSentence, say } from '../../core/words/say.ts';

const bench = useBench();
const settings = useSettings();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();
const { sheet, sheets, sheetAt, film, path, mirroring, paint, box, bandWords, hasBand } = useSheetTable();
const print = usePrint();
const hand = useHandOff();
const { job, cut, blocked, handing } = hand;
const tableAt = computed(() => Math.max(0, sheet.value === undefined ? 0 : (cut.value?.sheets.indexOf(sheet.value) ?? 0)));
const look = useFileLook(hand.name, tableAt);

const draw: DrawScene = (context, at) => {
  const drawn = look.drawn.value;
  if (drawn !== undefined || (look.path.value !== undefined && sheet.value !== undefined)) {
    drawPaper(context, at, drawn ?? (sheet.value as Sheet));
    look.draw(context, at);
    return;
  }
  if (print.isPrinted.value) {
    if (print.pages.value !== undefined) drawPage(context, at, job.value.layout.sheet, print.pages.value, print.at.value, print.paint.value, trimOf(job.value.layout.gapMm));
    return;
  }
  if (sheet.value === undefined || path.value === undefined) return;
  drawSheet(context, at, sheet.value, path.value, paint.value, 0);
  drawOrigin(context, at, sheet.value, layoutFor(job.value.layout, sheet.value.filmId).sheet.origin);
  if (hasBand.value) drawMirrorBand(context, at, sheet.value, bandWords.value);
};

/** What is on the table: what is in a file at its own size, else the sheet. */
const tableBox = computed(() => (look.drawn.value === undefined ? box.value : { x: 0, y: 0, width: look.drawn.value.widthMm, height: look.drawn.value.heightMm }));

const length = (value: number): string => formatLength(mm(value), settings.unit);
/** Two lengths with their unit said once. */
const size = (widthMm: number, heightMm: number): string => (settings.unit === 'mm' ? `${Math.round(widthMm * 10) / 10} × ${length(heightMm)}` : `${length(widthMm)} × ${length(heightMm)}`);
/** Of the sheets, where they are all of one size. */
const sizes = computed(() => {
  const all = new Set((print.isPrinted.value ? [job.value.layout.sheet] : (cut.value?.sheets ?? [])).map(({ widthMm, heightMm }) => size(widthMm, heightMm)));
  return all.size > 1 ? say`${all.size} sizes` : ([...all][0] ?? size(job.value.layout.sheet.widthMm, job.value.layout.sheet.heightMm));
});
const facts = computed(() => ({
  films: cut.value?.rack.length ?? 1,
  sheets: cut.value?.sheets.length ?? 1,
  pages: cut.value?.print?.pages.length,
  size: `${sizes.value}${mirroring.value.mirrored ? say(', mirrored') : ''}`,
  dpi: Math.round((cut.value?.place.resolution ?? 0) * 25.4),
}));
const sheetName = computed(() => `${hand.name.value}, ${film.value.name}${sheet.value?.number === undefined ? '' : say`, sheet ${sheet.value.number}`}`);
const ofSheet = computed(() => ({ filmId: film.value.id, sheet: sheet.value?.number ?? 1 }));
const saveSheet = (): void => void hand.handOne(`${sheetName.value}.svg`, 'svg', 'image/svg+xml', ofSheet.value);
const saveTest = (): void => void hand.handOne(say`Test cut, ${film.value.name}.svg`, 'testSvg', 'image/svg+xml', ofSheet.value);
const savePen = (): void => void hand.handOne(say`${sheetName.value}, size on paper.svg`, 'penSvg', 'image/svg+xml', ofSheet.value);
const saveArt = (): void => void hand.handOne(say`${hand.name.value}, cleaned.png`, 'png', 'image/png');
</script>

<template>
  <StageLayout title="Hand off" :aside="blocked === undefined ? $say('ready') : $say('not yet')">
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" :box="tableBox" :zero="{ x: 0, y: 0 }" :mm-per-unit="1" :unit="settings.unit" :draw="draw" :redraw-on="[sheet, path, paint, bandWords, look.path.value, look.drawn.value, print.paint.value, print.at.value]" :contents="print.isPrinted.value ? undefined : sheetContents(sheet, film.name, undefined, length)" :label="print.isPrinted.value ? $say('Page as it will be printed') : $say('Sheet as it will be cut')"
        @view="(at) => (cssPxPerMm = at.scale)" @move="pointerMm = { x: $event.x, y: $event.y }" @leave="pointerMm = undefined"
      >
        <p v-if="look.words.value !== ''" class="looked" role="status" :data-page="look.drawn.value === undefined ? undefined : look.drawn.value.of + 1">{{ look.words.value }}</p>
        <SheetSwitch v-if="look.pictures.value > 0" :name="look.kind.value === 'pdf' ? 'page of the file' : 'picture'" :at="Math.min(look.pictureAt.value, look.pictures.value - 1)" :count="look.pictures.value" @show="look.pictureAt.value = $event" />
        <SheetSwitch v-else-if="print.isPrinted.value" name="page" :at="print.at.value" :count="print.pages.value?.pages.length ?? 1" @show="print.show" />
        <SheetSwitch v-else name="sheet" :at="Math.min(sheetAt, Math.max(0, sheets.length - 1))" :count="sheets.length" @show="sheetAt = $event" />
        <ProblemNote />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #rack><p v-if="print.isPrinted.value" class="note printed">Printed in full colour, as the cleaned art is: no films.</p><JobRack v-else /></template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <TrayCard v-if="blocked !== undefined" title="Not ready to cut" mark="warning"><p class="blocked" role="alert">{{ blocked.what }} {{ blocked.todo }}</p></TrayCard>
      <TrayCard v-if="mirroring.against" title="Against the process" mark="warning"><p class="blocked">The sheet goes against {{ inSentence(PROCESSES[job.process].name) }}; you will be asked.</p></TrayCard>
      <FilesCard :hand="hand" :facts="facts" :looking="look.kind.value" :one="cut !== undefined && cut.sheets.length > 1 ? saveSheet : undefined" @look="look.toggle" />
      <PlotterCard v-if="hand.kinds.value.includes('hpgl') || look.kind.value === 'hpgl'" :hand="hand" />
      <TrayCard v-if="cut?.print === undefined" title="Try it first" about="a small cut for depth, corners and curves; or the sheet drawn with a pen on paper">
        <div class="buttons">
          <button type="button" class="plain-button" :disabled="cut === undefined || handing" @click="saveTest">Save test cut</button>
          <button type="button" class="plain-button" :disabled="blocked !== undefined || handing" @click="savePen">Save pen drawing</button>
        </div>
      </TrayCard>
      <TrayCard title="Machine" :about="cut?.print === undefined ? $say('load film after film, draw, try and cut, and see how far it is') : $say('print the pages, and cut along what is on them by their marks')">
        <div><RouterLink class="plain-button" :to="{ name: 'machine', params: { id: String($route.params['id']) } }">{{ cut?.print === undefined ? $say('Open the cutter') : $say('Open printer and cutter') }}</RouterLink></div>
      </TrayCard>
      <TrayCard title="Ticket" about="the page that goes with the job: proof, films and what they take, order, settings, timers">
        <div><RouterLink class="plain-button" :to="{ name: 'ticket', params: { id: String($route.params['id']) } }">Open the ticket</RouterLink></div>
      </TrayCard>
      <TrayCard title="To go on with" about="the cleaned art alone; or picture, recipe and layout in one file that opens again elsewhere">
        <div class="buttons">
          <button type="button" class="plain-button" :disabled="cut === undefined || handing" @click="saveArt">Save cleaned art</button>
          <button type="button" class="plain-button" :disabled="handing" @click="hand.handArchive">Save job file</button>
        </div>
      </TrayCard>
    </template>
  </StageLayout>
</template>

<style scoped>
.printed {
  padding: 20px 18px;
}
.blocked {
  margin: 0 0 4px;
  color: var(--ochre-text);
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.looked {
  position: absolute;
  top: 12px;
  left: 50%;
  max-width: 80%;
  margin: 0;
  transform: translateX(-50%);
  border: 1px solid var(--rule-strong);
  border-radius: 14px;
  padding: 4px 14px;
  width: max-content;
  background: var(--paper);
  overflow-wrap: anywhere;
}
.note {
  margin: 2px 0 6px;
  color: var(--ink-soft);
}
</style>
