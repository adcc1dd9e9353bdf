<script setup lang="ts">
import { computed } from 'vue';
import { AROUND_FILM } from '../../core/film/filmRoles.ts';
import { knowing } from '../../core/edit/paletteEdits.ts';
import { differenceOf } from '../../core/film/stock.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { FlatSeparation, Meet, TonesSeparation } from '../../core/separate/separation.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import MeetingPairs from '../shared/MeetingPairs.vue';
import { MEETS } from './ways.ts';
import { say } from '../../core/words/say.ts';

/** How films meet: all of them, and single pairs otherwise. */
const props = defineProps<{ separation: FlatSeparation | TonesSeparation }>();
const bench = useBench();
const rack = useRack();
const settings = useSettings();

const ABOUT: Readonly<Record<Meet, string>> = {
  stacked: say('upper films lie on full lower ones: easy to line up, thick'),
  inset: say('each film is cut out of the others: thin, must be exact'),
  middle: say('lower films run on to the middle of upper ones, as fills under lines do'),
};
const KEEPS = { upper: say('the upper film'), darker: say('the darker film') } as const;

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
const pairs = computed(() => props.separation.pairs ?? []);

/** Inset films of nearly one colour: a gap between them is hardly seen. */
const near = computed(() => props.separation.meet === 'inset' && films.value.length === 2 && differenceOf(films.value[0].colour, films.value[1].colour) < 5);
</script>

<template>
  <TrayCard title="How films meet" :about="ABOUT[separation.meet]">
    <label class="row"><span>Films are</span><ChoiceInput class="narrow" small :model-value="separation.meet" :choices="MEETS" label="How films meet" @choose="set($say('How films meet'), { meet: $event })" /></label>
    <template v-if="separation.meet === 'inset'">
      <QuantityInput kind="length" label="Reach under neighbours" :unit="settings.unit" :model-value="separation.reachMm ?? 0" :least="0" :most="20" :step="0.1" @change="drag({ reachMm: $event })" @done="set($say('Reach'), { reachMm: $event })" @cancel="bench.revert" />
      <label v-if="(separation.reachMm ?? 0) > 0" class="row"><span>Keep exact edge on</span><ChoiceInput class="narrow" small :model-value="separation.keeps ?? 'upper'" :choices="KEEPS" label="Which film keeps its exact edge" @choose="set($say('Exact edge'), { keeps: $event })" /></label>
      <p v-if="near">The two films are nearly one colour: no reach is needed.</p>
    </template>
    <MeetingPairs :films="films" :pairs="pairs" :meets="MEETS" :meet="separation.meet" :reach-mm="separation.reachMm ?? 0" @drag="drag({ pairs: $event })" @set="(label, changed) => set(label, { pairs: changed })" />
  </TrayCard>
</template>

<style scoped src="./cards.css" />
