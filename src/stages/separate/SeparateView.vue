<script setup lang="ts">
import { computed, ref, shallowRef, useTemplateRef } from 'vue';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { moveFilm, withWay } from '../../core/edit/paletteEdits.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import LightTable from '../../ui/LightTable.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { TablePoint } from '../../ui/useTableView.ts';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import type { Box, Size, Viewport } from '../../ui/viewport.ts';
import BackdropSwitch from '../shared/BackdropSwitch.vue';
import JobRack from '../shared/JobRack.vue';
import NeedsPicture from '../shared/NeedsPicture.vue';
import ProblemNote from '../shared/ProblemNote.vue';
import { useNodeEditing } from '../shared/nodes/useNodeEditing.ts';
import StageLayout from '../shared/StageLayout.vue';
import TracedChoice from '../shared/TracedChoice.vue';
import TableDivider from '../shared/TableDivider.vue';
import { filmsContents } from '../shared/tableWords.ts';
import { useReadout } from '../shared/useReadout.ts';
import { useSharpPatch } from '../shared/useSharpPatch.ts';
import AreasCard from './AreasCard.vue';
import AroundCard from './AroundCard.vue';
import BackDetailCard from './BackDetailCard.vue';
import FilmsCard from './FilmsCard.vue';
import FactsCard from './FactsCard.vue';
import HeldNote from './HeldNote.vue';
import MeetingCard from './MeetingCard.vue';
import NodesCard from './NodesCard.vue';
import OneToneCard from './OneToneCard.vue';
import OutlineCard from './OutlineCard.vue';
import PaletteCard from './PaletteCard.vue';
import ProofCard from './ProofCard.vue';
import StockCard from './StockCard.vue';
import TonesCard from './TonesCard.vue';
import { useHeldNodes } from './useHeldNodes.ts';
import { usePointing } from './usePointing.ts';
import { useProof } from './useProof.ts';
import { useSeparateScene, VIEWS, type View } from './useSeparateScene.ts';
import { useVariant } from './useVariant.ts';
import VariantCard from './VariantCard.vue';
import { FRESH, mayLetGo, WAYS, type Way } from './ways.ts';
import { say } from '../../core/words/say.ts';

const bench = useBench();
const settings = useSettings();
const { pointerMm, cssPxPerMm, items, progress, status } = useReadout();
const { patch, look } = useSharpPatch('clean');

const view = ref<View>('cut');
const divider = ref(0.5);
const scale = ref(1);
const { proof, shiftMm, shifted } = useProof(computed(() => view.value === 'proof'));
const variants = useVariant(computed(() => view.value === 'two'));
const showsNodes = computed(() => view.value === 'nodes');
const nodes = useNodeEditing(showsNodes, scale, useHeldNodes(showsNodes));

const part = computed(() => bench.part as TracedPart);
const mmPerUnit = computed(() => 1 / (bench.resolutionPxPerMm ?? 1));

/** A frame around areas that are to be parted. */
const framing = ref(false);
const frame = shallowRef<Box>();
const palette = useTemplateRef('palette');
const scene = useSeparateScene({ view, divider, patch, proof, variants, nodes, frame });
const pointing = usePointing(() => scene.box.value);
const { found } = pointing;

function onView(at: Viewport, size: Size): void {
  cssPxPerMm.value = at.scale / mmPerUnit.value;
  scale.value = at.scale;
  look(at, size);
}
const start = shallowRef<TablePoint>();
function press(at: TablePoint, event: PointerEvent): void {
  if (framing.value) start.value = at;
  else if (pointing.mode.value !== 'off') pointing.press(at);
  else if (view.value === 'nodes') nodes.press(at, event);
}
function move(at: TablePoint, event: PointerEvent): void {
  const { box } = scene;
  pointerMm.value = { x: (at.x - box.value.x) * mmPerUnit.value, y: (at.y - box.value.y) * mmPerUnit.value };
  if (start.value !== undefined) frame.value = { x: Math.min(at.x, start.value.x), y: Math.min(at.y, start.value.y), width: Math.abs(at.x - start.value.x), height: Math.abs(at.y - start.value.y) };
  else if (view.value === 'nodes') nodes.move(at, event);
}
function release(at: TablePoint): void {
  const drawn = frame.value;
  start.value = frame.value = undefined;
  if (drawn !== undefined && framing.value) void palette.value?.byPlace({ left: drawn.x, top: drawn.y, right: drawn.x + drawn.width, bottom: drawn.y + drawn.height });
  else if (view.value === 'nodes') nodes.release(at);
}

const way = computed(() => part.value.separation.way);
async function chooseWay(next: Way): Promise<void> {
  if (next !== way.value && (await mayLetGo(part.value))) bench.commitPart(say`Separate: ${WAYS[next]}`, withWay(part.value, found.value, FRESH[next]));
}
const orderOnRack = (id: string, to: number): void => {
  if (way.value === 'flat') bench.commitPart(say('Order on the rack'), moveFilm(part.value, found.value, id, to));
};

/** What stands on the two sides of the divider. */
const SIDES: { readonly [V in View]?: readonly [string, string] } = { cut: [say('art'), say('cut')], proof: [say('films over each other'), say('where they differ from the art')], two: [say('on the bench'), say('the other')] };
const names = computed(() => SIDES[view.value]);
</script>

<template>
  <StageLayout title="Separate" :aside="WAYS[way]">
    <template v-if="bench.picture !== undefined" #views>
      <ViewSwitch v-model="view" :choices="VIEWS" label="View" />
      <BackdropSwitch />
    </template>
    <template #table>
      <LightTable
        v-if="bench.picture !== undefined" :box="scene.box.value" :zero="{ x: scene.box.value.x, y: scene.box.value.y }" :mm-per-unit="mmPerUnit" :unit="settings.unit" :draw="scene.draw" :redraw-on="scene.redrawOn.value" label="Art and cut" :contents="filmsContents(bench.result?.cut?.rack)"
        :cursor="pointing.mode.value !== 'off' || framing ? 'crosshair' : undefined" @view="onView" @press="press" @move="move" @release="release" @leave="pointerMm = undefined"
      >
        <TableDivider v-if="names !== undefined" v-model="divider" :left="names[0]" :right="names[1]" />
        <HeldNote />
        <ProblemNote />
      </LightTable>
      <NeedsPicture v-else />
    </template>
    <template #rack><JobRack :movable="way === 'flat'" @move="orderOnRack" /></template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <TracedChoice />
      <NodesCard v-if="view === 'nodes'" :nodes="nodes" />
      <ProofCard v-if="view === 'proof'" v-model:shift-mm="shiftMm" :proof="proof" :shifted="shifted" />
      <VariantCard v-if="view === 'two'" :variants="variants" />
      <TrayCard title="Films" about="how the clean art is taken apart">
        <ChoiceInput :model-value="way" :choices="WAYS" label="Way of separating" @choose="chooseWay" />
      </TrayCard>
      <OneToneCard v-if="part.separation.way === 'oneTone'" :separation="part.separation" />
      <BackDetailCard v-else-if="part.separation.way === 'backDetail'" :separation="part.separation" />
      <template v-else-if="part.separation.way === 'tones'">
        <TonesCard :separation="part.separation" />
        <MeetingCard :separation="part.separation" />
      </template>
      <template v-else>
        <PaletteCard ref="palette" :separation="part.separation" :found="found" :picking="pointing.mode.value === 'pick'" @pick="pointing.toggle('pick')" @pick-for="pointing.pickFor" @frame="framing = $event" />
        <AreasCard v-model:target="pointing.target.value" :separation="part.separation" :found="found" :pointing="pointing.mode.value === 'areas'" @toggle="pointing.toggle('areas')" />
        <MeetingCard :separation="part.separation" />
      </template>
      <FilmsCard v-if="way !== 'oneTone'" :found="found" />
      <StockCard v-if="way !== 'oneTone'" :found="found" />
      <OutlineCard />
      <AroundCard :found="found" />
      <FactsCard />
    </template>
  </StageLayout>
</template>
