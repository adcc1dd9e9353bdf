<script setup lang="ts">
import { computed } from 'vue';
import { figuresTogether } from '../../core/check/figures.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { mm } from '../../core/units/length.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';
import TrayCard from '../../ui/TrayCard.vue';
import { grouped, say } from '../../core/words/say.ts';

/** Result: of the film that is looked at, or of all. */
const bench = useBench();
const rack = useRack();
const settings = useSettings();

/** More films than this on one spot are stiff and hard to press. */
const MANY_LAYERS = 3;
const most = computed(() => bench.result?.cut?.mostLayers);
const layersWords = computed(() => (most.value === undefined || most.value.layers < 2 ? undefined : say`${most.value.layers}, on ${most.value.share < 0.01 ? say('under 1') : Math.round(most.value.share * 100)} % of it`));
const facts = computed(() => {
  const films = rack.isAlone && rack.chosen !== undefined ? [rack.chosen] : rack.films;
  if (films.length === 0) return [];
  const { pieces, nodes, cutLengthMm } = figuresTogether(films);
  return [
    [say('Pieces'), grouped(pieces)],
    [say('Nodes'), grouped(nodes)],
    [say('Cut length'), formatLength(mm(cutLengthMm), settings.unit, 0)],
    ...(layersWords.value === undefined || rack.isAlone ? [] : [[say('Most films on one spot'), layersWords.value] as const]),
  ] as const;
});
</script>

<template>
  <TrayCard v-if="facts.length > 0" title="Result" :about="rack.isAlone ? $say`of ${rack.chosen?.film.name}` : undefined">
    <div v-for="[name, value] in facts" :key="name" class="row"><span>{{ name }}</span><b>{{ value }}</b></div>
    <p v-if="!rack.isAlone && (most?.layers ?? 0) > MANY_LAYERS">So many films on one spot are stiff and press badly: let films meet inset.</p>
  </TrayCard>
</template>

<style scoped src="./cards.css" />
