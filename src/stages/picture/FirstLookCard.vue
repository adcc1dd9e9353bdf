<script setup lang="ts">
import { computed } from 'vue';
import { useBench } from '../../stores/bench.ts';
import TrayCard from '../../ui/TrayCard.vue';
import FilmsPicture from '../shared/FilmsPicture.vue';
import PrintPicture from './PrintPicture.vue';
import { useProposals } from './useProposals.ts';
import { inSentence, say } from '../../core/words/say.ts';

/** What kind of picture it is, and how a job may start with it: as small pictures of what would come of it, one of which is taken by a click. */
const bench = useBench();
const { found, views, taken, isAsItCame, take, asItCame } = useProposals();

const KINDS = { line: say('Line drawing'), flat: say('Flat colour'), shaded: say('Shaded'), photo: say('Photo') } as const;
const WIDTH = 76;
const HEIGHT = 72;
const box = computed(() => ({ x: 0, y: 0, width: bench.picture?.widthPx ?? 1, height: bench.picture?.heightPx ?? 1 }));
</script>

<template>
  <TrayCard v-if="found !== undefined" title="First look" :about="$say`${KINDS[found.look.kind]}, ${Math.round(found.look.sure * 100)} % sure`">
    <p v-if="taken !== undefined" class="started" aria-live="polite">Started as <b>{{ inSentence(taken.title) }}</b>. {{ taken.words }}</p>
    <p v-else>{{ found.look.words }}</p>
    <div v-if="found.proposals.length > 0" class="ways" role="group" aria-label="Ways to start">
      <button v-for="proposal in found.proposals" :key="proposal.title" type="button" class="way" :title="proposal.words" :aria-pressed="proposal === taken" @click="take(proposal)">
        <PrintPicture v-if="proposal.start.process === 'waterslide' && bench.picture !== undefined" :picture="bench.picture.view" :width="WIDTH" :height="HEIGHT" />
        <FilmsPicture v-else-if="views.has(proposal)" :films="views.get(proposal)?.films ?? []" :box="box" :width="WIDTH" :height="HEIGHT" />
        <span v-else class="waiting" :style="{ width: `${WIDTH}px`, height: `${HEIGHT}px` }">…</span>
        <span>{{ proposal.title }}</span>
      </button>
    </div>
    <button type="button" class="plain-button" :disabled="isAsItCame" @click="asItCame">As it came</button>
  </TrayCard>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
.ways {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px;
  margin-bottom: 8px;
}
.way {
  display: grid;
  justify-items: center;
  align-content: start;
  gap: 4px;
  padding: 4px 3px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: none;
  color: inherit;
  font: inherit;
  font-size: 12px;
  line-height: 1.25;
  text-align: center;
  cursor: pointer;
}
.way:hover {
  background: var(--felt);
}
.way[aria-pressed='true'] {
  border-color: var(--madder);
  box-shadow: inset 0 0 0 1px var(--madder);
}
.waiting {
  display: grid;
  place-items: center;
  color: var(--ink-soft);
}
button.plain-button {
  justify-self: start;
}
</style>
