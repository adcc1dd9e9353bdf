<script setup lang="ts" generic="Meets extends string">
import { computed, ref } from 'vue';
import type { Film } from '../../core/film/film.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import { say } from '../../core/words/say.ts';

/** Single pairs of films that meet otherwise than the rest. */
interface Pair {
  films: [string, string];
  meet: Meets;
  reachMm?: number | undefined;
}
const props = defineProps<{ films: readonly Film[]; pairs: readonly Pair[]; meets: Readonly<Record<Meets, string>>; meet: Meets; reachMm: number }>();
const emit = defineEmits<{ drag: [pairs: Pair[]]; set: [label: string, pairs: Pair[]] }>();
const bench = useBench();
const settings = useSettings();

const nameOf = (id: string): string => props.films.find((film) => film.id === id)?.name ?? say('a film that is not cut');
const names = computed<Readonly<Record<string, string>>>(() => Object.fromEntries(props.films.map(({ id, name }) => [id, name])));
const inset = 'inset' as Meets;

const adding = ref<{ a?: string; b?: string }>();
function add(): void {
  const [a, b] = [adding.value?.a, adding.value?.b];
  if (a === undefined || b === undefined || a === b) return;
  const others = props.pairs.filter(({ films: [x, y] }) => !(x === a && y === b) && !(x === b && y === a));
  adding.value = undefined;
  emit('set', say('One pair set differently'), [...others, { films: [a, b], meet: props.meet === 'stacked' ? inset : ('stacked' as Meets) }]);
}
const withPair = (at: number, change: Partial<Pair>): Pair[] => props.pairs.map((pair, k) => (k === at ? { ...pair, ...change } : pair));
</script>

<template>
  <div v-for="(pair, at) in pairs" :key="pair.films.join()" class="pair">
    <span>{{ nameOf(pair.films[0]) }} and {{ nameOf(pair.films[1]) }}</span>
    <div class="row">
      <ChoiceInput class="narrow" small :model-value="pair.meet" :choices="meets" :label="$say`How ${nameOf(pair.films[0])} and ${nameOf(pair.films[1])} meet`" @choose="emit('set', 'How a pair meets', withPair(at, { meet: $event }))" />
      <button type="button" class="plain-button" @click="emit('set', 'Pair same as the rest', pairs.filter((_, k) => k !== at))">Same as the rest</button>
    </div>
    <QuantityInput v-if="pair.meet === 'inset'" kind="length" label="Reach of this pair" :unit="settings.unit" :model-value="pair.reachMm ?? reachMm" :least="0" :most="20" :step="0.1" @change="emit('drag', withPair(at, { reachMm: $event }))" @done="emit('set', 'Reach of a pair', withPair(at, { reachMm: $event }))" @cancel="bench.revert" />
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
</template>

<style scoped src="./rows.css" />

<style scoped>
.narrow {
  width: 140px;
}
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
