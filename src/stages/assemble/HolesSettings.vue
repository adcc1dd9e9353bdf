<script setup lang="ts">
import { X } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { MAX_HOLE_PLACES, type HolePlace } from '../../core/assemble/madeFromAll.ts';
import { withObjectChanged, withSettings } from '../../core/edit/objectEdits.ts';
import type { Job } from '../../core/job/job.ts';
import type { HolesObject } from '../../core/job/objects.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import { say } from '../../core/words/say.ts';

/** Where holes through all films are, how large, and whether film stands around them. */
const props = defineProps<{ part: HolesObject }>();
const bench = useBench();
const settings = useSettings();
const job = computed(() => bench.job as Job);
const holes = computed(() => props.part.holes);

type Change = Partial<HolesObject['holes']>;
const withHoles = (change: Change): Job => withObjectChanged<HolesObject>(job.value, props.part.id, (object) => ({ ...object, holes: withSettings(object.holes, change) }));
const drag = (change: Change): void => bench.preview(withHoles(change));
const set = (change: Change): void => bench.commit(say('Holes'), withHoles(change));

const WHERE = { top: say('one on top'), pair: say('a pair on top'), corners: say('one in each corner'), places: say('at places of their own') } as const;
const MIRRORED = { none: say('by itself'), across: say('and on the other side'), down: say('and below'), both: say('in all four corners') } as const;
const LENGTHS = computed(() => ([['diameterMm', say('Diameter'), 0.5, 200], ['fromTopMm', say('From the top'), -500, 5000], ['fromSideMm', say('From the sides'), -500, 5000]] as const).filter(([key]) => key === 'diameterMm' || (holes.value.where !== 'places' && (key === 'fromTopMm' || holes.value.where !== 'top'))));

const places = computed(() => holes.value.places ?? []);
const withPlace = (at: number, change: Partial<HolePlace>): Change => ({ places: places.value.map((place, k) => (k === at ? { ...place, ...change } : place)) });
/** Places of their own begin with those that were there. */
function choose(where: HolesObject['holes']['where']): void {
  const { fromTopMm, fromSideMm, where: before } = holes.value;
  if (where !== 'places' || places.value.length > 0) return set({ where });
  const width = bench.result?.cut?.design.widthMm ?? 100;
  const first: HolePlace = { fromLeftMm: before === 'top' ? Math.round(5 * width) / 10 : fromSideMm, fromTopMm, mirrored: before === 'top' ? 'none' : before === 'pair' ? 'across' : 'both' };
  set({ where, places: [first] });
}
const add = (): void => set({ places: [...places.value, { fromLeftMm: 10, fromTopMm: 10, mirrored: 'across' }] });
</script>

<template>
  <label class="row"><span>Holes</span><ChoiceInput label="Holes" class="wide" :choices="WHERE" :model-value="holes.where" @choose="choose" /></label>
  <QuantityInput v-for="[key, label, least, most] in LENGTHS" :key="key" kind="length" :label="label" :unit="settings.unit" :model-value="holes[key]" :least="least" :most="most" @change="drag({ [key]: $event })" @done="set({ [key]: $event })" @cancel="bench.revert" />
  <template v-if="holes.where === 'places'">
    <div v-for="({ fromLeftMm, fromTopMm, mirrored }, k) in places" :key="k" class="place">
      <QuantityInput kind="length" :label="$say`Hole ${k + 1} from the left`" :unit="settings.unit" :model-value="fromLeftMm" :least="-5000" :most="5000" @change="drag(withPlace(k, { fromLeftMm: $event }))" @done="set(withPlace(k, { fromLeftMm: $event }))" @cancel="bench.revert" />
      <QuantityInput kind="length" label="From the top" :unit="settings.unit" :model-value="fromTopMm" :least="-5000" :most="5000" @change="drag(withPlace(k, { fromTopMm: $event }))" @done="set(withPlace(k, { fromTopMm: $event }))" @cancel="bench.revert" />
      <div class="row">
        <ChoiceInput :label="$say`Hole ${k + 1} is`" class="wide" small :choices="MIRRORED" :model-value="mirrored" @choose="set(withPlace(k, { mirrored: $event }))" />
        <button type="button" class="gone" :aria-label="$say`Take away hole ${k + 1}`" title="Take away" @click="set({ places: places.filter((_, at) => at !== k) })"><X :size="14" /></button>
      </div>
    </div>
    <div><button type="button" class="plain-button" :disabled="places.length >= MAX_HOLE_PLACES" @click="add">Add a hole</button></div>
  </template>
  <label class="row"><span>Film around each hole</span><ElSwitch size="small" aria-label="Film around each hole" :model-value="holes.eyeletMm !== undefined" @change="set({ eyeletMm: $event === true ? holes.diameterMm / 2 : undefined })" /></label>
  <QuantityInput v-if="holes.eyeletMm !== undefined" kind="length" label="As broad as" :unit="settings.unit" :model-value="holes.eyeletMm" :least="0.1" :most="200" @change="drag({ eyeletMm: $event })" @done="set({ eyeletMm: $event })" @cancel="bench.revert" />
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.wide {
  width: 168px;
}
.place {
  padding: 4px 0;
  border-top: 1px solid var(--rule);
}
</style>
