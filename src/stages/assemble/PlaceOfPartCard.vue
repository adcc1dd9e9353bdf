<script setup lang="ts">
import { AlignCenterHorizontal, AlignCenterVertical, AlignEndHorizontal, AlignEndVertical, AlignHorizontalSpaceBetween, AlignStartHorizontal, AlignStartVertical, AlignVerticalSpaceBetween, TrianglesCenterlineDashedHorizontal, TrianglesCenterlineDashedVertical } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { ANCHORS, anchorOf, turnDegOf, withAligned, withMirrored, withScaled, withSpread, withTurned, type Alignment, type Anchor } from '../../core/edit/placeEdits.ts';
import type { Job } from '../../core/job/job.ts';
import type { Bounds } from '../../core/outline/curves.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { Parts } from './useParts.ts';
import { say } from '../../core/words/say.ts';

/** Where the selected parts lie, to the hundredth; turned, mirrored, sized and brought in line. */
const props = defineProps<{ parts: Parts; box: Bounds }>();
const bench = useBench();
const settings = useSettings();
const job = computed(() => bench.job as Job);
/** The place of the box that values are of, and that stays when the part is sized. */
const anchor = ref<Anchor>('topLeft');
const at = computed(() => anchorOf(props.box, anchor.value));
const origin = computed(() => bench.result?.cut?.originMm ?? { x: 0, y: 0 });
const ids = computed(() => new Set(props.parts.boxed.value.map(({ id }) => id)));
/** From the design's mm to those that objects share. */
const shared = (x: number, y: number): { x: number; y: number } => ({ x: x - origin.value.x, y: y - origin.value.y });
const one = computed(() => (props.parts.boxed.value.length === 1 ? props.parts.boxed.value[0].id : undefined));

const move = (x: number, y: number): void => bench.commit(say('Place'), props.parts.shifted(x - at.value.x, y - at.value.y));
type Side = 'width' | 'height';
const lengthOf = (side: Side): number => (side === 'width' ? props.box.right - props.box.left : props.box.bottom - props.box.top);
/** A size that is on its way: what the part was scaled by in the first place, and what it measured before. */
interface Sizing {
  readonly side: Side;
  readonly toMm: number;
  readonly factor: number;
  readonly beforeMm: number;
  readonly from: Job;
  readonly next: Job;
  readonly fixed: { readonly x: number; readonly y: number };
}
/** What a size may be off without being set anew. */
const EXACT_MM = 0.005;
let sizing: Sizing | undefined;
function size(side: Side, toMm: number): void {
  const beforeMm = lengthOf(side);
  if (one.value === undefined || beforeMm <= 0 || toMm === beforeMm) return;
  const [fixed, factor] = [shared(at.value.x, at.value.y), toMm / beforeMm];
  const next = withScaled(job.value, one.value, factor, fixed.x, fixed.y);
  sizing = { side, toMm, factor, beforeMm, from: job.value, next, fixed };
  bench.commit(say('Size'), next);
}
/** What is done to a part has lengths of its own, which do not scale with it: what it measures at two sizes tells the one at which it measures what was asked. */
watch(() => bench.result, (result) => {
  const now = sizing;
  if (now === undefined || result?.quality !== 'final' || one.value === undefined) return;
  sizing = undefined;
  const isMeant = bench.isCurrent && bench.job === now.next;
  if (!isMeant || Math.abs(lengthOf(now.side) - now.toMm) < EXACT_MM) return;
  const scaling = (lengthOf(now.side) - now.beforeMm) / (now.factor - 1);
  const factor = 1 + (now.toMm - now.beforeMm) / scaling;
  if (!Number.isFinite(factor) || factor <= 0) return;
  bench.undo();
  bench.commit(say('Size'), withScaled(now.from, one.value, factor, now.fixed.x, now.fixed.y));
});
const middle = computed(() => shared((props.box.left + props.box.right) / 2, (props.box.top + props.box.bottom) / 2));
function turn(deg: number): void {
  if (deg !== 0) bench.commit(say('Turn'), withTurned(job.value, ids.value, (deg * Math.PI) / 180, middle.value.x, middle.value.y));
}
/** How far the one part that is selected is turned. */
const turnedDeg = computed(() => (props.parts.object.value === undefined ? undefined : Math.round(100 * turnDegOf(props.parts.object.value)) / 100));
const mirror = (way: 'leftRight' | 'upDown'): void => bench.commit(say('Mirrored'), withMirrored(job.value, ids.value, way, middle.value.x, middle.value.y));

const LINES: readonly { readonly how: Alignment; readonly title: string; readonly icon: typeof AlignStartVertical }[] = [
  { how: 'left', title: say('Left edges in line'), icon: AlignStartVertical },
  { how: 'centre', title: say('Middles above each other'), icon: AlignCenterVertical },
  { how: 'right', title: say('Right edges in line'), icon: AlignEndVertical },
  { how: 'top', title: say('Top edges in line'), icon: AlignStartHorizontal },
  { how: 'middle', title: say('Middles side by side'), icon: AlignCenterHorizontal },
  { how: 'bottom', title: say('Bottom edges in line'), icon: AlignEndHorizontal },
];
/** One part is brought in line with the whole design, several with each other. */
function align(how: Alignment): void {
  const design = bench.result?.cut?.design;
  const several = props.parts.boxed.value;
  if (design === undefined) return;
  const whole = { left: 0, top: 0, right: design.widthMm, bottom: design.heightMm };
  bench.commit(say('In line'), withAligned(job.value, several, how, several.length === 1 ? whole : undefined));
}
const spread = (way: 'across' | 'down'): void => bench.commit(say('Equal gaps'), withSpread(job.value, props.parts.boxed.value, way));
const NAMES: Readonly<Record<Anchor, string>> = { topLeft: say('upper left'), top: say('top'), topRight: say('upper right'), left: say('left'), middle: say('middle'), right: say('right'), bottomLeft: say('lower left'), bottom: say('bottom'), bottomRight: say('lower right') };
</script>

<template>
  <TrayCard title="Place and size" :about="$say`measured from the design’s upper left to the part’s ${NAMES[anchor]}`">
    <div class="measures">
      <div class="anchors" role="radiogroup" aria-label="Measured at">
        <button v-for="each in ANCHORS" :key="each" type="button" role="radio" :aria-checked="anchor === each" :aria-label="NAMES[each]" :title="NAMES[each]" @click="anchor = each" />
      </div>
      <div>
        <QuantityInput kind="length" label="Across" :unit="settings.unit" :model-value="at.x" :least="-10000" :most="10000" @done="move($event, at.y)" />
        <QuantityInput kind="length" label="Down" :unit="settings.unit" :model-value="at.y" :least="-10000" :most="10000" @done="move(at.x, $event)" />
      </div>
    </div>
    <template v-if="one !== undefined">
      <QuantityInput kind="length" label="Whole width" :unit="settings.unit" :model-value="box.right - box.left" :least="0.5" :most="10000" @done="size('width', $event)" />
      <QuantityInput kind="length" label="Whole height" :unit="settings.unit" :model-value="box.bottom - box.top" :least="0.5" :most="10000" @done="size('height', $event)" />
    </template>
    <QuantityInput v-if="turnedDeg !== undefined" label="Turned" suffix="°" :model-value="turnedDeg" :least="-360" :most="360" @done="turn($event - turnedDeg)" />
    <QuantityInput v-else label="Turn by" suffix="°" :model-value="0" :least="-360" :most="360" @done="turn" />
    <div class="acts" role="group" aria-label="Mirror and align">
      <button type="button" title="Mirror left to right" aria-label="Mirror left to right" @click="mirror('leftRight')"><TrianglesCenterlineDashedVertical :size="16" /></button>
      <button type="button" title="Mirror upside down" aria-label="Mirror upside down" @click="mirror('upDown')"><TrianglesCenterlineDashedHorizontal :size="16" /></button>
      <span class="space" />
      <button v-for="{ how, title, icon } in LINES" :key="how" type="button" :title="title" :aria-label="title" @click="align(how)"><component :is="icon" :size="16" /></button>
    </div>
    <div v-if="parts.boxed.value.length > 2" class="acts" role="group" aria-label="Equal gaps">
      <button type="button" title="Equal gaps across" aria-label="Equal gaps across" @click="spread('across')"><AlignHorizontalSpaceBetween :size="16" /></button>
      <button type="button" title="Equal gaps down" aria-label="Equal gaps down" @click="spread('down')"><AlignVerticalSpaceBetween :size="16" /></button>
    </div>
  </TrayCard>
</template>

<style scoped>
.measures {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 16px;
}
.anchors {
  display: grid;
  grid-template: repeat(3, 18px) / repeat(3, 18px);
  align-self: center;
}
.anchors button {
  position: relative;
  border: 0;
  padding: 0;
  background: none;
  cursor: pointer;
}
.anchors button::after {
  content: '';
  position: absolute;
  inset: 5px;
  border: 1px solid var(--ink-soft);
  background: var(--paper);
}
.anchors button[aria-checked='true']::after {
  inset: 4px;
  border-color: var(--madder);
  background: var(--madder);
}
.acts {
  display: flex;
  align-items: center;
}
.acts button {
  display: inline-grid;
  place-items: center;
  width: 27px;
  height: 28px;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--ink);
  cursor: pointer;
}
.acts button:hover {
  background: var(--felt);
}
.acts button:focus-visible,
.anchors button:focus-visible {
  outline: 2px solid var(--madder);
}
.space {
  flex: 1;
}
</style>
