<script setup lang="ts">
import { ElMessage, ElMessageBox } from 'element-plus';
import { computed, ref } from 'vue';
import { AppError, asAppError } from '../../core/errors/appError.ts';
import { explain } from '../../core/errors/explain.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { assertFits } from '../../core/layout/laySheet.ts';
import { misfitOf } from '../../core/run/isLaidOut.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { useShelf } from '../../stores/shelf.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { trimOf } from '../../core/print/printPages.ts';
import { drawPage } from '../layout/drawPages.ts';
import SheetSwitch from '../layout/SheetSwitch.vue';
import { usePrint } from '../layout/usePrint.ts';
import { drawMirrorBand, drawOrigin, drawSheet } from '../layout/drawSheet.ts';
import { useSheetTable } from '../layout/useSheetTable.ts';
import { download } from '../shared/download.ts';
import JobRack from '../shared/JobRack.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
import { tellError } from '../shared/tellError.ts';
import { useReadout } from '../shared/useReadout.ts';

const bench = useBench();
const shelf = useShelf();
const settings = useSettings();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();
const { job, cut, sheet, sheets, sheetAt, film, path, mirroring, paint, box, bandWords, hasBand } = useSheetTable();
const print = usePrint();
const handing = ref(false);

const draw: DrawScene = (context, at) => {
  if (print.isPrinted.value) {
    if (print.pages.value !== undefined) drawPage(context, at, job.value.layout.sheet, print.pages.value, print.at.value, print.paint.value, trimOf(job.value.layout.gapMm));
    return;
  }
  if (sheet.value === undefined || path.value === undefined) return;
  drawSheet(context, at, sheet.value, path.value, paint.value, 0);
  drawOrigin(context, at, sheet.value, job.value.layout.sheet.origin);
  if (hasBand.value) drawMirrorBand(context, at, sheet.value, bandWords.value);
};

/** Why the sheet cannot leave as it is; undefined when it can. */
const blocked = computed(() => {
  if (bench.result?.problem !== undefined) return explain(bench.result.problem);
  if (bench.error !== undefined && bench.error.code !== 'workerLost') return explain(bench.error);
  if (sheet.value === undefined) return { what: 'There is no sheet yet.', todo: 'Bring in a picture first.' };
  const error = cut.value === undefined ? undefined : misfitOf(cut.value);
  return error === undefined ? undefined : explain(error);
});

/** A sheet that goes against its process leaves only when that is confirmed. */
async function mayLeave(): Promise<boolean> {
  if (!mirroring.value.against) return true;
  const { name, lies } = PROCESSES[job.value.process];
  const words = `${name} is ${lies}, but the sheet is ${mirroring.value.mirrored ? 'mirrored.' : 'not mirrored: pressed, it will read backwards.'}`;
  const answer = await ElMessageBox.confirm(words, 'Against the process', { confirmButtonText: 'Export anyway', cancelButtonText: 'Back', type: 'warning' }).catch(() => 'cancel');
  return answer === 'confirm';
}

async function hand(work: () => Promise<string>): Promise<void> {
  handing.value = true;
  try {
    ElMessage.success({ message: `${await work()} is in your downloads.`, grouping: true });
  } catch (error) {
    tellError(asAppError(error, 'unexpected'));
  } finally {
    handing.value = false;
  }
}

/** Hands over cut files, unless a sheet does not fit or goes against its process and is held back. */
async function handCut(fileName: string, kind: 'svg' | 'penSvg' | 'testSvg' | 'svgs' | 'dxf' | 'filmPngs' | 'pdf', mime: string): Promise<void> {
  const { picture } = bench;
  if (picture === undefined || cut.value === undefined || !(await mayLeave())) return;
  if (cut.value.print === undefined) for (const each of cut.value.sheets) assertFits(each);
  await hand(async () => {
    download(fileName, await bench.exportFile({ pictureKey: picture.pictureKey, job: job.value, kind, filmId: film.value.id, sheet: sheet.value?.number ?? 1 }), mime);
    return fileName;
  });
}
const handSvg = (): Promise<void> => handCut(`${job.value.name}, ${film.value.name}${sheet.value?.number === undefined ? '' : `, sheet ${sheet.value.number}`}.svg`, 'svg', 'image/svg+xml');
const handTest = (): Promise<void> => handCut(`Test cut, ${film.value.name}.svg`, 'testSvg', 'image/svg+xml');
const handPen = (): Promise<void> => handCut(`${job.value.name}, ${film.value.name}, size on paper.svg`, 'penSvg', 'image/svg+xml');
const handAll = (): Promise<void> => handCut(`${job.value.name}, all sheets.zip`, 'svgs', 'application/zip');
const handFilms = (): Promise<void> => handCut(`${job.value.name}, films as PNG.zip`, 'filmPngs', 'application/zip');
const handPages = (): Promise<void> => handCut(`${job.value.name}.pdf`, 'pdf', 'application/pdf');
const handDxf = (): Promise<void> => handCut(`${job.value.name}.dxf`, 'dxf', 'image/vnd.dxf');
const handPng = (): Promise<void> =>
  hand(async () => {
    const name = `${job.value.name}, cleaned.png`;
    if (bench.picture === undefined) throw new AppError('pictureMissing');
    download(name, await bench.exportFile({ pictureKey: bench.picture.pictureKey, job: job.value, kind: 'png' }), 'image/png');
    return name;
  });
const handArchive = (): Promise<void> =>
  hand(async () => {
    await bench.saveNow();
    const archive = bench.entry === undefined ? undefined : await shelf.archiveOf(bench.entry.id);
    if (archive === undefined) throw new AppError('badJob', { reason: 'it is not on the shelf' });
    download(archive.fileName, archive.bytes, 'application/zip');
    return archive.fileName;
  });

const amount = computed(() => {
  const motifs = cut.value?.print?.pages.flat().length;
  if (motifs !== undefined) return motifs === 1 ? '1 motif' : `${motifs} motifs`;
  return job.value.layout.copies === 1 ? '1 copy' : `${job.value.layout.copies} copies`;
});
const CUT_AS = { lines: 'cut lines as unfilled lines', shapes: 'cut lines as filled shapes' } as const;
const length = (value: number): string => formatLength(mm(value), settings.unit);
</script>

<template>
  <StageLayout title="Hand off" :aside="blocked === undefined ? 'ready' : 'not yet'">
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" :box="box" :zero="{ x: 0, y: 0 }" :mm-per-unit="1" :unit="settings.unit" :draw="draw" :redraw-on="[sheet, path, paint, bandWords, print.paint.value, print.at.value]" :label="print.isPrinted.value ? 'Page as it will be printed' : 'Sheet as it will be cut'"
        @view="(at) => (cssPxPerMm = at.scale)" @move="pointerMm = { x: $event.x, y: $event.y }" @leave="pointerMm = undefined"
      >
        <SheetSwitch v-if="print.isPrinted.value" name="page" :at="print.at.value" :count="print.pages.value?.pages.length ?? 1" @show="print.show" />
        <SheetSwitch v-else name="sheet" :at="Math.min(sheetAt, Math.max(0, sheets.length - 1))" :count="sheets.length" @show="sheetAt = $event" />
        <ProblemNote />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #rack><p v-if="print.isPrinted.value" class="note printed">Printed in full colour, as the cleaned art is: no films.</p><JobRack v-else /></template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <TrayCard v-if="blocked !== undefined" title="Not ready to cut" mark="warning"><p class="blocked" role="alert">{{ blocked.what }} {{ blocked.todo }}</p></TrayCard>
      <TrayCard v-if="cut?.print !== undefined" title="Print pages, PDF" :about="`true size, ${cut.print.pages.length === 1 ? '1 page' : `${cut.print.pages.length} pages`}; print at 100 %, not fitted`">
        <div class="buttons">
          <button type="button" class="plain-button main" :disabled="blocked !== undefined || handing" @click="handPages">Save PDF</button>
          <button v-if="cut.print.hasMarks === true" type="button" class="plain-button" :disabled="blocked !== undefined || handing" @click="handAll">Save cut lines, SVG</button>
        </div>
      </TrayCard>
      <TrayCard v-if="cut?.print === undefined" title="Cut file, SVG" :about="sheet === undefined ? undefined : `true size, ${length(sheet.widthMm)} × ${length(sheet.heightMm)}, ${mirroring.mirrored ? 'mirrored' : 'not mirrored'}`" :mark="mirroring.against ? 'warning' : undefined">
        <ChoiceInput :model-value="job.handOff.cutAs" :choices="CUT_AS" label="Cut lines as" @choose="bench.commit('Cut lines as', { ...job, handOff: { cutAs: $event } })" />
        <p class="note">One group for the film “{{ film.name }}”, sizes in millimetres.</p>
        <p v-if="mirroring.against" class="blocked">Goes against {{ PROCESSES[job.process].name.toLowerCase() }}; you will be asked.</p>
        <div class="buttons">
          <button type="button" class="plain-button main" :disabled="blocked !== undefined || handing" @click="handSvg">Save SVG</button>
          <button v-if="cut !== undefined && cut.sheets.length > 1" type="button" class="plain-button" :disabled="blocked !== undefined || handing" @click="handAll">Save all {{ cut.sheets.length }} sheets</button>
        </div>
      </TrayCard>
      <TrayCard v-if="cut?.print === undefined" title="Try it first" about="a small cut for depth, corners and curves; or the sheet drawn with a pen on paper">
        <div class="buttons">
          <button type="button" class="plain-button" :disabled="cut === undefined || handing" @click="handTest">Save test cut</button>
          <button type="button" class="plain-button" :disabled="blocked !== undefined || handing" @click="handPen">Save pen drawing</button>
        </div>
      </TrayCard>
      <TrayCard v-if="cut?.print === undefined" title="Cut file, DXF" about="curves as splines, millimetres, a layer for each film">
        <div><button type="button" class="plain-button" :disabled="blocked !== undefined || handing" @click="handDxf">Save DXF</button></div>
      </TrayCard>
      <TrayCard title="Cleaned art, PNG" :about="cut === undefined ? undefined : `clear ground, ${Math.round(cut.place.resolution * 25.4)} dpi at ${length(cut.design.widthMm)}`">
        <div><button type="button" class="plain-button" :disabled="cut === undefined || handing" @click="handPng">Save PNG</button></div>
      </TrayCard>
      <TrayCard v-if="cut?.print === undefined" title="Films as pictures" about="a PNG of each film in its colour, clear elsewhere, in one zip">
        <div><button type="button" class="plain-button" :disabled="cut === undefined || handing" @click="handFilms">Save film pictures</button></div>
      </TrayCard>
      <TrayCard title="The whole job" about="picture, recipe and layout in one file; opens again elsewhere">
        <div><button type="button" class="plain-button" :disabled="handing" @click="handArchive">Save job file</button></div>
      </TrayCard>
      <TrayCard title="On the ticket">
        <dl>
          <dt>Blank</dt><dd>{{ job.blank.name }}</dd>
          <dt>Process</dt><dd>{{ PROCESSES[job.process].name }}</dd>
          <dt>Finished</dt><dd>{{ cut === undefined ? '–' : `${length(cut.design.widthMm)} × ${length(cut.design.heightMm)}` }}</dd>
          <dt>{{ cut?.print === undefined ? 'Sheet' : 'Page' }}</dt><dd>{{ job.layout.sheet.name }}, {{ amount }}</dd>
          <dt>Mirrored</dt><dd>{{ mirroring.mirrored ? 'yes' : 'no' }}{{ mirroring.against ? ', against the process' : '' }}</dd>
          <dt>Picture</dt><dd>{{ { unknown: 'not asked yet', ours: 'our own', allowed: 'may be used', notForSale: 'not for sale' }[job.rights.use] }}</dd>
        </dl>
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
.note {
  margin: 2px 0 6px;
  color: var(--ink-soft);
}
</style>

<style scoped src="../shared/facts.css" />
