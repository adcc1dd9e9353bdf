<script setup lang="ts">
import { computed } from 'vue';
import { layerOf } from '../../core/assemble/design.ts';
import { STACKED, type Layering } from '../../core/assemble/layering.ts';
import { pieceAt } from '../../core/operate/piecesIndex.ts';
import type { Job } from '../../core/job/job.ts';
import { formatArea } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import MeetingPairs from '../shared/MeetingPairs.vue';
import { counted, say } from '../../core/words/say.ts';

/** How the films of the whole design lie on each other, where most of them lie, and what would be cut twice. */
const emit = defineEmits<{ show: [places: readonly { readonly x: number; readonly y: number }[]] }>();
const bench = useBench();
const settings = useSettings();
const job = computed(() => bench.job as Job);
const cut = computed(() => bench.result?.cut);

const MEETS = { stacked: say('stacked'), inset: say('inset') } as const;
const ABOUT = { stacked: say('each part lies whole on what is below it'), inset: say('what lies above is cut out of what is below: thin, must be exact') } as const;
const layering = computed(() => job.value.layering ?? STACKED);
function withLayering(change: Partial<Layering>): Job {
  const { layering: _before, ...rest } = job.value;
  const { pairs = [], joined = [], meet, reachMm } = { ...layering.value, ...change };
  const isPlain = meet === 'stacked' && pairs.length === 0 && joined.length === 0;
  return isPlain ? rest : { ...rest, layering: { meet, reachMm, ...(pairs.length === 0 ? {} : { pairs }), ...(joined.length === 0 ? {} : { joined }) } };
}
const drag = (change: Partial<Layering>): void => bench.preview(withLayering(change));
function set(label: string, change: Partial<Layering>): void {
  bench.preview(withLayering(change));
  bench.commitPreview(label);
}

const films = computed(() => cut.value?.rack.map(({ film }) => film) ?? []);
/** The films over each other where most are. */
const most = computed(() => {
  const { mostLayers, design } = cut.value ?? {};
  if (mostLayers === undefined || design === undefined || mostLayers.layers < 2) return undefined;
  const { x, y } = mostLayers;
  const names = films.value.flatMap(({ id, name }) => (design.layers.some(({ filmId }) => filmId === id) && pieceAt(layerOf(design, id).curves, x, y) >= 0 ? [name] : []));
  return { layers: mostLayers.layers, names, x, y };
});
/** What would be cut twice, film by film. */
const twice = computed(() =>
  films.value.flatMap((film) => {
    const places = cut.value?.findings.filter(({ kind, filmId }) => kind === 'cutTwice' && filmId === film.id) ?? [];
    return places.length === 0 ? [] : [{ film, places }];
  }),
);
const joined = computed(() => films.value.filter(({ id }) => layering.value.joined?.includes(id) === true));
const setJoined = (id: string, on: boolean): void => set(on ? say('Overlaps joined') : say('Overlaps apart again'), { joined: [...(layering.value.joined ?? []).filter((each) => each !== id), ...(on ? [id] : [])] });
</script>

<template>
  <TrayCard v-if="films.length > 1 || twice.length > 0 || joined.length > 0" title="How films lie" :about="ABOUT[layering.meet]" :mark="twice.length > 0 ? 'warning' : undefined">
    <template v-if="films.length > 1">
      <label class="row"><span>Films are</span><ChoiceInput label="How all films meet" class="narrow" small :model-value="layering.meet" :choices="MEETS" @choose="set($say('How films lie'), { meet: $event })" /></label>
      <QuantityInput v-if="layering.meet === 'inset'" kind="length" label="Reach under neighbours" :unit="settings.unit" :model-value="layering.reachMm" :least="0" :most="20" :step="0.1" @change="drag({ reachMm: $event })" @done="set($say('Reach'), { reachMm: $event })" @cancel="bench.revert" />
      <MeetingPairs :films="films" :pairs="layering.pairs ?? []" :meets="MEETS" :meet="layering.meet" :reach-mm="layering.reachMm" @drag="drag({ pairs: $event })" @set="(label, pairs) => set(label, { pairs })" />
      <div v-if="most !== undefined" class="row">
        <span>Most films on one spot: <b>{{ most.layers }}</b><template v-if="most.names.length > 0">, {{ most.names.join(' · ') }}</template></span>
        <button type="button" class="plain-button" @click="emit('show', [most])">Show</button>
      </div>
    </template>
    <div v-for="{ film, places } in twice" :key="film.id" class="row">
      <span>{{ film.name }}: {{ counted(places.length, $say('overlap'), $say('overlaps')) }} of up to {{ formatArea(places[0].size, settings.unit, 1) }} would be cut twice</span>
      <span class="acts"><button type="button" class="plain-button" @click="emit('show', places.map(({ xMm, yMm }) => ({ x: xMm, y: yMm })))">Show</button><button type="button" class="plain-button" @click="setJoined(film.id, true)">Join</button></span>
    </div>
    <div v-for="film in joined" :key="film.id" class="row"><span>{{ film.name }}: overlaps are joined</span><button type="button" class="plain-button" @click="setJoined(film.id, false)">Leave apart</button></div>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.narrow {
  width: 120px;
}
.acts {
  display: flex;
  gap: 6px;
}
</style>
