<script setup lang="ts">
import { computed, ref } from 'vue';
import { AROUND_FILM } from '../../core/film/filmRoles.ts';
import { knowing } from '../../core/edit/paletteEdits.ts';
import { differenceOf } from '../../core/film/stock.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { FlatSeparation, Meet, MeetingPair, TonesSeparation } from '../../core/separate/separation.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { MEETS } from './ways.ts';

/** How films meet: all of them, and single pairs otherwise. */
const props = defineProps<{ separation: FlatSeparation | TonesSeparation }>();
const bench = useBench();
const rack = useRack();
const settings = useSettings();

const ABOUT: Readonly<Record<Meet, string>> = {
  stacked: 'upper films lie on full lower ones: easy to line up, thick',
  inset: 'each film is cut out of the others: thin, must be exact',
  middle: 'lower films run on to the middle of upper ones, as fills under lines do',
};
const KEEPS = { upper: 'the upper film', darker: 'the darker film' } as const;

type Change = Partial<Pick<FlatSeparation, 'meet' | 'reachMm' | 'keeps' | 'pairs'>>;
const changed = (change: Change): TracedPart => {
  const { pairs, ...rest } = { ...props.separation, ...change };
  const next = { ...(bench.part as TracedPart), separation: pairs === undefined || pairs.length === 0 ? rest : { ...rest, pairs } };
  // A pair is said of two films, whatever they would be numbered after an earlier change.
  return change.pairs === undefined ? next : knowing(next, { tones: bench.result?.cut?.tones ?? [] });
};
const drag = (change: Change): void => bench.previewPart(changed(change));
function set(label: string, change: Change): void {
  bench.previewPart(changed(change));
  bench.commitPreview(label);
}

const films = computed(() => rack.films.map(({ film }) => film).filter(({ id }) => id !== AROUND_FILM.id));
const nameOf = (id: string): string => films.value.find((film) => film.id === id)?.name ?? 'a film that is not cut';
const names = computed<Readonly<Record<string, string>>>(() => Object.fromEntries(films.value.map(({ id, name }) => [id, name])));
const pairs = computed(() => props.separation.pairs ?? []);

const adding = ref<{ a?: string; b?: string }>();
function add(): void {
  const [a, b] = [adding.value?.a, adding.value?.b];
  if (a === undefined || b === undefined || a === b) return;
  const others = pairs.value.filter(({ films: [x, y] }) => !(x === a && y === b) && !(x === b && y === a));
  adding.value = undefined;
  set('One pair set differently', { pairs: [...others, { films: [a, b], meet: props.separation.meet === 'stacked' ? 'inset' : 'stacked' }] });
}
const withPair = (at: number, change: Partial<MeetingPair>): Change => ({ pairs: pairs.value.map((pair, k) => (k === at ? { ...pair, ...change } : pair)) });
/** Inset films of nearly one colour: a gap between them is hardly seen. */
const near = computed(() => props.separation.meet === 'inset' && films.value.length === 2 && differenceOf(films.value[0].colour, films.value[1].colour) < 5);
</script>

<template>
  <TrayCard title="How films meet" :about="ABOUT[separation.meet]">
    <label class="row"><span>Films are</span><ChoiceInput class="narrow" small :model-value="separation.meet" :choices="MEETS" label="How films meet" @choose="set('How films meet', { meet: $event })" /></label>
    <template v-if="separation.meet === 'inset'">
      <QuantityInput kind="length" label="Reach under neighbours" :unit="settings.unit" :model-value="separation.reachMm ?? 0" :least="0" :most="20" :step="0.1" @change="drag({ reachMm: $event })" @done="set('Reach', { reachMm: $event })" @cancel="bench.revert" />
      <label v-if="(separation.reachMm ?? 0) > 0" class="row"><span>Keep exact edge on</span><ChoiceInput class="narrow" small :model-value="separation.keeps ?? 'upper'" :choices="KEEPS" label="Which film keeps its exact edge" @choose="set('Exact edge', { keeps: $event })" /></label>
      <p v-if="near">The two films are nearly one colour: no reach is needed.</p>
    </template>
    <div v-for="(pair, at) in pairs" :key="pair.films.join()" class="pair">
      <span>{{ nameOf(pair.films[0]) }} and {{ nameOf(pair.films[1]) }}</span>
      <div class="row">
        <ChoiceInput class="narrow" small :model-value="pair.meet" :choices="MEETS" :label="`How ${nameOf(pair.films[0])} and ${nameOf(pair.films[1])} meet`" @choose="set('How a pair meets', withPair(at, { meet: $event }))" />
        <button type="button" class="plain-button" @click="set('Pair same as the rest', { pairs: pairs.filter((_, k) => k !== at) })">Same as the rest</button>
      </div>
      <QuantityInput v-if="pair.meet === 'inset'" kind="length" label="Reach of this pair" :unit="settings.unit" :model-value="pair.reachMm ?? separation.reachMm ?? 0" :least="0" :most="20" :step="0.1" @change="drag(withPair(at, { reachMm: $event }))" @done="set('Reach of a pair', withPair(at, { reachMm: $event }))" @cancel="bench.revert" />
    </div>
    <div v-if="adding !== undefined" class="pair">
      <label class="row"><span>One film</span><ChoiceInput class="narrow" small :model-value="adding.a ?? ''" :choices="names" label="One film of the pair" @choose="adding = { ...adding, a: $event }" /></label>
      <label class="row"><span>and another</span><ChoiceInput class="narrow" small :model-value="adding.b ?? ''" :choices="names" label="The other film of the pair" @choose="adding = { ...adding, b: $event }" /></label>
      <div class="row">
        <button type="button" class="plain-button" :disabled="adding.a === undefined || adding.b === undefined || adding.a === adding.b" @click="add">Add pair</button>
        <button type="button" class="plain-button" @click="adding = undefined">Cancel</button>
      </div>
    </div>
    <button v-else-if="films.length > 2" type="button" class="plain-button own" @click="adding = {}">Set one pair differently</button>
  </TrayCard>
</template>

<style scoped src="./cards.css" />

<style scoped>
.pair {
  display: grid;
  gap: 4px;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.own {
  justify-self: start;
}
</style>
