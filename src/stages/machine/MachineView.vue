<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Film } from '../../core/film/film.ts';
import { materialOf } from '../../core/job/materials.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { timeWords } from '../../core/units/timeWords.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import LightTable, { type DrawScene } from '../../ui/LightTable.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { TablePoint } from '../../ui/useTableView.ts';
import { useHandOff } from '../handoff/useHandOff.ts';
import NeedsPicture from '../shared/NeedsPicture.vue';
import StageLayout from '../shared/StageLayout.vue';
import { useReadout } from '../shared/useReadout.ts';
import { layoutFor } from '../../core/layout/layoutFor.ts';
import { drawMachine, strokePaths } from './drawMachine.ts';
import MishapCard from './MishapCard.vue';
import PrintedCards from './PrintedCards.vue';
import { useMachine } from './useMachine.ts';
import { usePrinted } from './usePrinted.ts';
import { say } from '../../core/words/say.ts';

const bench = useBench();
const settings = useSettings();
const { cssPxPerMm, pointerMm, items, progress, status } = useReadout();
const { job, cut, blocked } = useHandOff();
const machine = useMachine();
const { state, sent, sending, told, doneInAll } = machine;
const printed = usePrinted(machine);
const isPrinted = computed(() => printed.print.value !== undefined);

const area = computed(() => state.value?.area ?? { widthMm: sheetSize.value.widthMm, heightMm: sheetSize.value.heightMm });
const box = computed(() => ({ x: -20, y: -40, width: area.value.widthMm + 40, height: area.value.heightMm + 60 }));
const sheetSize = computed(() => layoutFor(job.value.layout, isPrinted.value ? '' : (current.value?.film.id ?? '')).sheet);
interface ToCut {
  readonly film: Film;
  readonly sheet: number;
  readonly of: number;
}
/** Every sheet of the job in the order of pressing, and the card of its guide. */
const all = computed((): ToCut[] => [...(cut.value?.sheets ?? []).flatMap(({ filmId, number = 1 }, _k, sheets) => {
  const film = cut.value?.rack.find((roll) => roll.film.id === filmId)?.film;
  return film === undefined ? [] : [{ film, sheet: number, of: sheets.filter((each) => each.filmId === filmId).length }];
}), ...(cut.value?.guide === undefined ? [] : [{ film: cut.value.guide.film, sheet: 1, of: 1 }])]);
const at = ref(0);
const current = computed(() => all.value.at(Math.min(at.value, Math.max(0, all.value.length - 1))));
const nameOf = ({ film, sheet, of }: ToCut): string => (of > 1 ? say`${film.name}, sheet ${sheet}` : film.name);
const isLoaded = computed(() => current.value !== undefined && state.value?.loaded === nameOf(current.value));
const isSent = computed(() => sent.value?.what === 'printed' || (sent.value !== undefined && current.value !== undefined && sent.value.filmId === current.value.film.id && sent.value.sheet === current.value.sheet));
const isBusy = computed(() => sending.value || state.value?.status === 'cutting' || state.value?.status === 'paused');
const isCut = (each: ToCut): boolean => machine.cutSheets.has(machine.keyOf({ filmId: each.film.id, sheet: each.sheet }));
/** Whether something of what was sent is still to be done, with the machine at rest. */
const hasMissed = computed(() => isSent.value && sent.value !== undefined && !isBusy.value && (state.value?.program?.done ?? 0) < sent.value.strokes.length);

const paths = computed(() => (sent.value === undefined || state.value === undefined ? [] : strokePaths(sent.value.strokes, state.value.area.heightMm, state.value.origin)));
const draw: DrawScene = (context, view) => {
  if (state.value === undefined) return;
  const film = all.value.find((each) => nameOf(each) === state.value?.loaded)?.film.colour;
  const page = printed.laid.value === undefined ? undefined : { ...sheetSize.value, picture: printed.picture.value, toBed: printed.seen.value?.toBed, marks: printed.seen.value?.marks ?? [] };
  drawMachine(context, view, { state: state.value, film, sheet: sheetSize.value, page, paths: paths.value, done: state.value.program?.done ?? 0 });
};

const placing = ref(false);
function place({ x, y }: TablePoint): void {
  if (!placing.value || isBusy.value) return;
  placing.value = false;
  void machine.setOrigin(Math.max(0, Math.min(area.value.widthMm, Math.round(x))), Math.max(0, Math.min(area.value.heightMm, Math.round(area.value.heightMm - y))));
}
const length = (value: number): string => formatLength(mm(value), settings.unit);
const STATUS = { idle: say('ready'), loading: say('loading'), readingMarks: say('reading marks'), cutting: say('cutting'), paused: say('paused'), fault: say('stopped') } as const;
const aside = computed(() => (state.value === undefined ? say('not reached') : STATUS[state.value.status]));
const progressWords = computed(() => {
  const program = state.value?.program;
  if (program === undefined || sent.value === undefined) return '';
  if (machine.port.value.kind === 'serial') return say`${Math.round(program.share * 100)} % handed over`;
  const share = say`${program.done} of ${program.strokes} lines`;
  return state.value?.status === 'idle' ? (program.done === program.strokes ? say`done, ${share}` : say`stopped after ${share}`) : say`${share}, ${timeWords(program.leftS)} left`;
});
const cutWords = computed(() => {
  if (current.value === undefined) return '';
  const { forceG, speedMmS, passes } = materialOf(job.value, current.value.film.id).cut;
  return `${forceG} g, ${speedMmS} mm/s, ${passes === 1 ? say('1 pass') : say`${passes} passes`}`;
});
const send = (what: 'cut' | 'pen' | 'test'): void => void (current.value !== undefined && machine.send(current.value.film.id, current.value.sheet, what));
const KINDS = { standIn: say('Stand-in cutter'), serial: say('Cutter at a serial port') } as const;
</script>

<template>
  <StageLayout title="Machine" :aside="aside">
    <template #table>
      <LightTable
        v-if="bench.pictureInfo !== undefined" :box="box" :zero="{ x: 0, y: 0 }" :mm-per-unit="1" :unit="settings.unit" :draw="draw" :redraw-on="[state, paths, isLoaded, printed.seen.value, printed.laid.value, printed.picture.value]" label="The cutter from above" :cursor="placing ? 'crosshair' : undefined"
        @view="(to) => (cssPxPerMm = to.scale)" @move="pointerMm = { x: $event.x, y: $event.y }" @leave="pointerMm = undefined" @press="place"
      >
        <p v-if="progressWords !== ''" class="going" role="status">{{ progressWords }}</p>
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <TrayCard v-if="blocked !== undefined" title="Not ready to cut" mark="warning"><p class="told" role="alert">{{ blocked.what }} {{ blocked.todo }}</p></TrayCard>
      <TrayCard v-if="told !== undefined" title="Look at the cutter" mark="warning"><p class="told" role="alert">{{ told.what }} {{ told.todo }}</p></TrayCard>
      <TrayCard title="Cutter" :about="state === undefined ? $say('not reached yet') : $say`${state.name}: it reaches ${length(state.area.widthMm)} × ${length(state.area.heightMm)}`">
        <ChoiceInput v-if="machine.hasSerial" :model-value="machine.port.value.kind" :choices="KINDS" label="Cutter" @choose="machine.choose($event, { widthMm: sheetSize.widthMm, heightMm: sheetSize.heightMm })" />
        <p v-else class="soft">This browser has no serial interface: a cutter at a cable is fed with the files.</p>
        <template v-if="state !== undefined">
          <QuantityInput label="Origin from the left" kind="length" :unit="settings.unit" :model-value="state.origin.xMm" :most="state.area.widthMm" :disabled="isBusy" @update:model-value="machine.setOrigin($event, state.origin.yMm)" />
          <QuantityInput label="Origin from the front" kind="length" :unit="settings.unit" :model-value="state.origin.yMm" :most="state.area.heightMm" :disabled="isBusy" @update:model-value="machine.setOrigin(state.origin.xMm, $event)" />
          <button type="button" class="plain-button" :aria-pressed="placing" :disabled="isBusy" @click="placing = !placing">{{ placing ? $say('Press where the corner of the film lies') : $say('Move the carriage there by hand') }}</button>
        </template>
      </TrayCard>
      <PrintedCards v-if="isPrinted && blocked === undefined" :printed="printed" :machine="machine" :busy="isBusy" :missed="hasMissed" />
      <TrayCard v-if="isPrinted && isBusy" title="Under way"><div class="buttons"><button v-if="state?.status === 'paused'" type="button" class="plain-button main" @click="machine.resume">Go on</button><button v-else type="button" class="plain-button" @click="machine.pause">Pause</button><button type="button" class="plain-button" @click="machine.stop">Stop</button></div></TrayCard>
      <TrayCard v-if="isPrinted && state?.status === 'fault'" title="It stopped"><div class="buttons"><button type="button" class="plain-button main" @click="machine.resume">Go on</button></div></TrayCard>
      <TrayCard v-if="!isPrinted" title="Sheets" about="one after the other, bottom first">
        <ol>
          <li v-for="(each, k) in all" :key="k">
            <button type="button" class="sheet" :aria-current="k === at ? 'step' : undefined" :disabled="isBusy" @click="at = k"><i :style="{ background: each.film.colour }" aria-hidden="true" /><span>{{ nameOf(each) }}</span><b>{{ isCut(each) ? $say('cut') : k === at ? (isLoaded ? $say('loaded') : $say('next')) : '' }}</b></button>
          </li>
        </ol>
        <template v-if="current !== undefined && blocked === undefined">
          <template v-if="!isLoaded">
            <p class="now">Now load {{ nameOf(current) }}.</p>
            <button type="button" class="plain-button main" :disabled="state === undefined || isBusy" @click="machine.load(current.film.id, nameOf(current))">It is loaded</button>
          </template>
          <p v-else-if="state?.status !== 'cutting' && state?.status !== 'paused' && sending" class="soft">It is being sent…</p>
          <template v-else-if="isBusy">
            <div class="buttons">
              <button v-if="state?.status === 'paused'" type="button" class="plain-button main" @click="machine.resume">Go on</button>
              <button v-else type="button" class="plain-button" @click="machine.pause">Pause</button>
              <button type="button" class="plain-button" @click="machine.stop">Stop</button>
            </div>
          </template>
          <template v-else>
            <p class="soft">{{ cutWords }}</p>
            <div class="buttons">
              <button v-if="state?.status === 'fault'" type="button" class="plain-button main" @click="machine.resume">Go on</button>
              <button v-if="hasMissed" type="button" class="plain-button" @click="machine.missed">Send only what was missed</button>
              <button v-if="state?.status !== 'fault'" type="button" class="plain-button main" @click="send('cut')">{{ isCut(current) ? $say('Cut again') : $say('Cut') }}</button>
              <button type="button" class="plain-button" @click="send('pen')">Pen drawing first</button>
              <button type="button" class="plain-button" @click="send('test')">Test cut</button>
              <button v-if="isCut(current) && at + 1 < all.length" type="button" class="plain-button" @click="at += 1">Next film</button>
            </div>
          </template>
          <p v-if="isSent && doneInAll > 0" class="soft">{{ doneInAll }} lines are done.</p>
        </template>
      </TrayCard>
      <MishapCard v-if="machine.port.value.kind === 'standIn'" :prints="isPrinted" />
      <TrayCard title="Files instead" about="for a cutter that is fed from elsewhere"><div><RouterLink class="plain-button" :to="{ name: 'handoff', params: { id: String($route.params['id']) } }">Back to the files</RouterLink></div></TrayCard>
    </template>
  </StageLayout>
</template>

<style scoped>
.told {
  margin: 0;
  color: var(--ochre-text);
}
.soft {
  margin: 4px 0;
  color: var(--ink-soft);
}
.now {
  margin: 8px 0 6px;
  font-weight: 600;
}
.going {
  position: absolute;
  top: 12px;
  left: 50%;
  margin: 0;
  transform: translateX(-50%);
  border: 1px solid var(--rule-strong);
  border-radius: 14px;
  padding: 4px 14px;
  background: var(--paper);
  font-variant-numeric: tabular-nums;
}
ol {
  margin: 0 0 4px;
  padding: 0;
  list-style: none;
}
.sheet {
  display: flex;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 30px;
  border: 0;
  padding: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.sheet[aria-current='step'] span {
  font-weight: 600;
}
.sheet i {
  width: 22px;
  height: 12px;
  border: 1px solid var(--rule-strong);
}
.sheet span {
  flex: 1;
}
.sheet b {
  color: var(--ink-soft);
  font-weight: 500;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
