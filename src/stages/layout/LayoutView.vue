<script setup lang="ts">
import { CircleCheck, TriangleAlert } from '@lucide/vue';
import { TransitionPresets, useTransition } from '@vueuse/core';
import { ElSlider } from 'element-plus';
import { computed, ref, shallowRef, watch } from 'vue';
import type { Finding } from '../../core/check/cutCheck.ts';
import { radiiOf } from '../../core/process/blanks.ts';
import { layoutFor } from '../../core/layout/layoutFor.ts';
import { isNested } from '../../core/layout/nestSheets.ts';
import { trimOf } from '../../core/print/printPages.ts';
import { guideOf } from '../../core/run/guidePlan.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';
import { strokeHairline } from '../../ui/draw/cutLines.ts';
import { drawPins } from '../../ui/draw/pins.ts';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import JobRack from '../shared/JobRack.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import ProblemNote from '../shared/ProblemNote.vue';
import StageLayout from '../shared/StageLayout.vue';
import { sheetContents } from '../shared/tableWords.ts';
import { useReadout } from '../shared/useReadout.ts';
import BoxCard from './BoxCard.vue';
import BridgesCard from './BridgesCard.vue';
import CopiesCard from './CopiesCard.vue';
import CutCheckList from './CutCheckList.vue';
import { drawBridges } from './drawBridges.ts';
import { drawPage } from './drawPages.ts';
import { drawGuide, drawProof, drawProofMeasures, heightOfProof, widthOfProof } from './drawProof.ts';
import { drawWeedLineGrips } from './drawWeedLines.ts';
import { drawFlaws, drawMirrorBand, drawOrigin, drawSheet } from './drawSheet.ts';
import FilmLayoutCard from './FilmLayoutCard.vue';
import MaterialCard from './MaterialCard.vue';
import MendNote from './MendNote.vue';
import MirrorCard from './MirrorCard.vue';
import MisfitNote from './MisfitNote.vue';
import OnBlankCard from './OnBlankCard.vue';
import PlayBar from './PlayBar.vue';
import PrintCard from './PrintCard.vue';
import RemnantsCard from './RemnantsCard.vue';
import RoundBlank from './RoundBlank.vue';
import SealCard from './SealCard.vue';
import SheetCard from './SheetCard.vue';
import SheetSwitch from './SheetSwitch.vue';
import SizeCard from './SizeCard.vue';
import { placeOnSheet } from './placeOnSheet.ts';
import { useBridges } from './useBridges.ts';
import { useFlaws } from './useFlaws.ts';
import { useMends } from './useMends.ts';
import { useNesting } from './useNesting.ts';
import { useOnBlank } from './useOnBlank.ts';
import { usePrint } from './usePrint.ts';
import { useSheetHands } from './useSheetHands.ts';
import { useSheetPlan } from './useSheetPlan.ts';
import { useSheetTable } from './useSheetTable.ts';
import { useWeedLines } from './useWeedLines.ts';
import WeedLinesCard from './WeedLinesCard.vue';
import StencilUseCard from './StencilUseCard.vue';
import TaperCard from './TaperCard.vue';
import WorkCard from './WorkCard.vue';
import { say, sayOf } from '../../core/words/say.ts';

const bench = useBench();
const settings = useSettings();
const rack = useRack();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();
const { job, cut, sheet, sheets, sheetAt, film, path, paint, box, bandWords, hasBand } = useSheetTable();
const print = usePrint();
const { isPrinted, pages } = print;
const nesting = useNesting();
const flaws = useFlaws();

const layout = computed(() => (isPrinted.value ? job.value.layout : layoutFor(job.value.layout, film.value.id)));
/** Where the design, or of a print the first motif of the page, lies on the table. */
const first = computed(() => (isPrinted.value ? pages.value?.pages[print.at.value]?.[0]?.at : sheet.value?.placements[0]?.at));
const onSheet = computed(() => {
  if (first.value === undefined) return undefined;
  const { design, bent } = cut.value ?? {};
  // Nested parts are mirrored before they are laid.
  const isTurnedOver = !isPrinted.value && layout.value.arrange === 'nested' && sheet.value?.mirrored === true;
  return placeOnSheet({ at: first.value, fan: bent?.fan, mirroredMm: isTurnedOver ? (bent?.design ?? design)?.widthMm : undefined, tile: isPrinted.value ? undefined : sheet.value?.tile?.rect });
});
const bridges = useBridges(computed(() => film.value.id), onSheet, cssPxPerMm);
const weedLines = useWeedLines(sheet, cssPxPerMm);

type View = 'sheet' | 'weeded' | 'cutting' | 'blank';
const chosenView = ref<View>('sheet');
const views = computed((): { value: View; name: string }[] =>
  isPrinted.value ? [{ value: 'sheet', name: say('page') }, { value: 'blank', name: say('on the blank') }] : [{ value: 'sheet', name: say('sheet') }, { value: 'cutting', name: sayOf('view', 'cutting') }, { value: 'weeded', name: bridges.isStencil.value ? say('cut out') : say('weeded') }, { value: 'blank', name: say('on the blank') }],
);
const view = computed<View>(() => (views.value.some(({ value }) => value === chosenView.value) ? chosenView.value : 'sheet'));
/** The waste lifts off in a moment instead of blinking away. */
const lifted = useTransition(() => (view.value === 'weeded' ? 1 : 0), { duration: 260, transition: TransitionPresets.easeOutCubic });
const plan = useSheetPlan(computed(() => (view.value === 'cutting' || (view.value === 'weeded' && !bridges.isStencil.value) ? view.value : undefined)), sheet);
const chosenPin = ref<number>();
const mends = useMends(() => path.value);
/** Places that stand in the way of a smaller size, while they are looked at instead. */
const weakest = shallowRef<readonly Finding[]>();
watch(() => bench.job, () => (weakest.value = undefined));
const isRound = computed(() => radiiOf(job.value.blank) !== undefined);
/** Where the browser draws no three dimensions, a round blank is drawn flat and turned by a slider. */
const isFlat = ref(false);
const isSolid = computed(() => isRound.value && !isFlat.value);
const onBlank = useOnBlank(computed(() => view.value === 'blank'), isSolid);

/** What the cut check found on the sheet that is looked at, and what is of the whole picture. */
const findings = computed(() => (cut.value?.findings ?? []).filter(({ filmId }) => isPrinted.value || filmId === undefined || filmId === film.value.id));
/** Places on the other sheets: the tab counts those too. */
const elsewhere = computed(() => (cut.value?.findings.length ?? 0) - findings.value.length);
const checkWords = computed(() => {
  if (cut.value === undefined) return bench.result?.problem === undefined ? say('nothing to check yet') : say('nothing to check: there is no cut');
  const here = findings.value.length === 0 ? say('nothing found') : findings.value.length === 1 ? say('1 place to look at') : say`${findings.value.length} places to look at`;
  return elsewhere.value === 0 ? here : say`${here} on this sheet, ${elsewhere.value} on others`;
});
const pins = computed(() => {
  const place = onSheet.value;
  // Pieces that lie by themselves are not where they are in the design.
  if (place === undefined || cut.value === undefined || layout.value.apart === true || layout.value.eachPart === true) return [];
  return (weakest.value ?? findings.value)
    .filter((f) => f.kind !== 'coarsePicture' && (f.filmId === undefined || isPrinted.value || f.filmId === film.value.id))
    .map(({ xMm, yMm }) => ({ ...place.to(xMm, yMm), ...(place.isElsewhere(xMm, yMm) ? { elsewhere: true } : {}) }));
});

const draw: DrawScene = (context, at) => {
  if (view.value === 'blank') {
    const [proof, other] = [onBlank.proof.value, onBlank.other.value];
    if (proof === undefined) return;
    const { beneath, landing } = onBlank;
    if (landing.value < 1 && beneath.value !== undefined) drawProof(context, at, beneath.value, 0);
    drawProof(context, at, proof, 0, landing.value);
    if (other !== undefined) drawProof(context, at, other, widthOfProof(proof));
    else if (!isRound.value && cut.value !== undefined) {
      if (guide.value !== undefined) drawGuide(context, at, job.value.blank, guide.value.curves);
      drawProofMeasures(context, at, job.value.blank, job.value.place, cut.value.design, length);
    }
    return;
  }
  if (isPrinted.value) {
    if (pages.value === undefined) return;
    drawPage(context, at, layout.value.sheet, pages.value, print.at.value, print.paint.value, trimOf(layout.value.gapMm));
    drawPins(context, at, pins.value, chosenPin.value);
    return;
  }
  if (sheet.value === undefined || path.value === undefined) return;
  drawSheet(context, at, sheet.value, path.value, paint.value, lifted.value);
  drawOrigin(context, at, sheet.value, layout.value.sheet.origin);
  if (isNested(layout.value)) drawFlaws(context, at, flaws.shown.value);
  if (hasBand.value) drawMirrorBand(context, at, sheet.value, bandWords.value);
  plan.draw(context, at, film.value.colour);
  const before = mends.trial.value?.path;
  if (before !== undefined && view.value === 'sheet') strokeHairline(context, before, at, film.value.colour);
  if (view.value !== 'cutting') drawPins(context, at, pins.value, chosenPin.value);
  if (view.value === 'sheet') drawWeedLineGrips(context, at, weedLines.places.value, weedLines.chosenAt.value);
  if (view.value === 'sheet') drawBridges(context, at, bridges.grips.value, bridges.chosenAt.value);
};
const tableBox = computed(() => {
  const [proof, other] = [onBlank.proof.value, onBlank.other.value];
  if (view.value === 'blank' && proof !== undefined) return { x: 0, y: 0, width: widthOfProof(proof) + (other === undefined ? 0 : widthOfProof(other)), height: heightOfProof(proof) };
  return box.value;
});

const length = (value: number): string => formatLength(mm(value), settings.unit);
const guide = computed(() => (layout.value.guide === true && cut.value !== undefined ? guideOf(job.value, cut.value.design) : undefined));
const contents = computed(() => (isPrinted.value ? say`${pages.value?.pages[print.at.value]?.length ?? 0} motifs on this page` : sheetContents(sheet.value, film.value.name, findings.value.length, length)));
const readout = computed(() => {
  const s = sheet.value;
  if (s === undefined || isPrinted.value) return items.value;
  const used = s.used.widthMm * s.used.heightMm;
  const tile = s.tile === undefined ? [] : [{ name: say('tile'), value: say`${s.tile.column + 1} across, ${s.tile.row + 1} down` }];
  const waste = used === 0 || cut.value === undefined ? 0 : Math.max(0, 1 - ((rack.roll?.areaMm2 ?? 0) * layout.value.copies) / (used * sheets.value.length));
  return [...items.value.slice(0, 2), { name: say('uses'), value: `${length(s.used.widthMm)} × ${length(s.used.heightMm)}` }, { name: say('waste'), value: `${Math.round(waste * 100)} %` }, ...tile];
});

const hands = useSheetHands(computed(() => view.value === 'sheet'), pointerMm, { flaws, bridges, weedLines });
</script>

<template>
  <StageLayout :title="isPrinted ? $say('Print pages') : $say`${film.name} sheet`" :aside="isPrinted ? undefined : $say`${rack.at + 1} of ${Math.max(1, rack.rolls.length)}`">
    <template v-if="bench.picture !== undefined" #views>
      <ViewSwitch :model-value="view" :choices="views" label="View" @update:model-value="chosenView = $event" />
      <PlayBar v-if="plan.play.value !== undefined && view !== 'blank'" :play="plan.play.value" :words="plan.words.value" :label="view === 'cutting' ? $say('The cut') : $say('The weeding')" :step="view === 'cutting' ? 0.05 : 1" />
      <PlayBar v-if="view === 'blank' && !isSolid && onBlank.films.value > 1" :play="onBlank.press" :words="onBlank.filmsOn.value === 0 ? $say('the bare blank') : $say`${cut?.rack[onBlank.filmsOn.value - 1]?.film.name ?? ''}, ${onBlank.filmsOn.value} of ${onBlank.films.value}`" label="The films in order" :step="1" />
    </template>
    <template #table>
      <RoundBlank v-if="bench.picture !== undefined && view === 'blank' && isSolid" :blank="job.blank" :area="onBlank.area.value" :turn-rad="onBlank.turnRad.value" @failed="isFlat = true" />
      <LightTable
        v-else-if="bench.picture !== undefined" :box="tableBox" :zero="{ x: 0, y: 0 }" :mm-per-unit="1" :unit="settings.unit" :draw="draw" :cursor="hands.cursor.value"
        :redraw-on="[view, sheet, path, paint, lifted, bandWords, pins, chosenPin, layout, bridges.grips.value, bridges.chosenAt.value, weedLines.chosenAt.value, flaws.shown.value, mends.trial.value, plan.redrawOn.value, print.paint.value, print.at.value, onBlank.proof.value, onBlank.landing.value, onBlank.other.value, guide]" :contents="contents" :label="view === 'blank' ? $say('The finished blank') : isPrinted ? $say('Page as it will be printed') : $say('Sheet as it lies in the machine')"
        @view="(at) => (cssPxPerMm = at.scale)" @press="hands.press" @move="hands.move" @release="hands.release" @leave="pointerMm = undefined"
      >
        <MendNote :mends="mends" />
        <MisfitNote v-if="view !== 'blank'" :is-printed="isPrinted" />
        <SheetSwitch v-if="view !== 'blank' && isPrinted" name="page" :at="print.at.value" :count="pages?.pages.length ?? 1" @show="print.show" />
        <SheetSwitch v-else-if="view !== 'blank'" name="sheet" :at="Math.min(sheetAt, Math.max(0, sheets.length - 1))" :count="sheets.length" @show="sheetAt = $event" />
        <div v-if="view === 'blank' && isRound" class="turn"><span>turned</span><ElSlider v-model="onBlank.turnDeg.value" :min="-180" :max="180" :show-tooltip="false" aria-label="Turn the blank" @input="onBlank.isTurning.value = true" @change="onBlank.isTurning.value = false" /></div>
        <ProblemNote />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #rack><p v-if="isPrinted" class="printed">Printed in full colour, as the cleaned art is: no films.</p><JobRack v-else /></template>
    <template #readout><ReadoutStrip :items="readout" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <OnBlankCard v-if="view === 'blank'" :on-blank="onBlank" />
      <MirrorCard v-if="layout.work === undefined" />
      <TaperCard />
      <template v-if="isPrinted">
        <PrintCard :pages="pages?.pages.length ?? 0" :count="print.count.value" :parts="cut?.parts.length ?? 1" :warnings="print.warnings.value" :behind="print.behind.value" @behind="print.behind.value = $event" />
        <SealCard v-if="bench.entry !== undefined" :job-id="bench.entry.id" />
      </template>
      <template v-else>
        <BridgesCard v-if="bridges.isStencil.value" :bridges="bridges" />
        <StencilUseCard v-if="bridges.isStencil.value" :sheet="sheet" :design="cut?.design ?? { widthMm: 100, heightMm: 100 }" />
        <WorkCard />
        <MaterialCard :film="film" :films="rack.rolls.length" />
        <FilmLayoutCard v-if="rack.rolls.length > 1 && job.layout.stencil === undefined" :film="film" />
        <BoxCard />
        <WeedLinesCard v-if="!bridges.isStencil.value" :lines="weedLines" />
        <RemnantsCard :film="film" :sheets="sheets" :is-nested="isNested(layout)" />
        <CopiesCard :sheet="sheet" :sheets="sheets.length" :film-id="film.id" :nesting="nesting" :flaws="flaws" />
      </template>
      <SheetCard :is-page="isPrinted" />
      <TrayCard :title="isPrinted ? $say('Print check') : $say('Cut check')" :mark="findings.length > 0 ? 'warning' : undefined" :about="checkWords">
        <template #icon><component :is="cut !== undefined && findings.length === 0 ? CircleCheck : TriangleAlert" /></template>
        <CutCheckList v-if="findings.length > 0" :findings="findings" :chosen="chosenPin" :mends="mends" @choose="(weakest = undefined), (chosenPin = $event)" />
      </TrayCard>
      <SizeCard v-if="!isPrinted && cut !== undefined" @show="(chosenPin = undefined), (weakest = $event)" />
    </template>
    <template #foot><RouterLink class="plain-button main" :to="{ name: 'handoff', params: $route.params }">Hand off</RouterLink></template>
  </StageLayout>
</template>

<style scoped>
.printed {
  margin: 0;
  padding: 20px 18px;
  color: var(--ink-soft);
}
.warn {
  margin: 2px 0;
  color: var(--ochre-text);
}
.turn {
  position: absolute;
  left: 50%;
  bottom: 14px;
  display: flex;
  align-items: center;
  gap: 12px;
  width: 300px;
  transform: translateX(-50%);
  color: var(--ink-soft);
}
</style>
