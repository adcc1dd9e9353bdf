<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus';
import { computed, ref } from 'vue';
import type { Job } from '../../core/job/job.ts';
import { withPart, type TracedPart } from '../../core/job/tracedPart.ts';
import type { Film } from '../../core/film/film.ts';
import type { FoundFilms } from '../../core/edit/paletteEdits.ts';
import { nearestStock } from '../../core/film/stock.ts';
import { withStockMaterials } from '../../core/edit/withMaterial.ts';
import { matchStock, takeFromStock } from '../../core/edit/takeFromStock.ts';
import { useBench } from '../../stores/bench.ts';
import { useStock } from '../../stores/stock.ts';
import { useWorkshop } from '../../stores/workshop.ts';
import TrayCard from '../../ui/TrayCard.vue';
import StockDialog from './StockDialog.vue';
import { decimals, say } from '../../core/words/say.ts';

/** Which of the films on the shelf come nearest to the films of the part. */
const props = defineProps<{ found: FoundFilms }>();
const bench = useBench();
const stock = useStock();
const workshop = useWorkshop();
void workshop.load();

/** So many of the nearest are offered. */
const OFFERED = 6;
const editing = ref(false);
const rows = computed(() =>
  props.found.films.map((film) => {
    const [tone] = props.found.tones.filter((each) => each.film === film.id).sort((a, b) => b.share - a.share);
    const matches = nearestStock(tone?.colour ?? film.colour, stock.films).slice(0, OFFERED);
    return { film, matches, isTaken: stock.films.some(({ name, colour }) => name === film.name && colour === film.colour) };
  }),
);
const differenceWords = (difference: number): string => `Δ ${decimals(difference, difference < 10 ? 1 : 0)}`;
const state = computed(() => {
  const taken = rows.value.filter(({ isTaken }) => isTaken).length;
  return stock.films.length === 0 ? say('nothing written down yet') : say`${taken} of ${rows.value.length} from the shelf`;
});
/** The part with films of the shelf, and the job with what these are made of. */
function commit(label: string, part: TracedPart): void {
  bench.commit(label, withStockMaterials(withPart(bench.job as Job, part), stock.films, workshop.shelves.materials));
}
const take = (film: Film, from: Film): void => commit(say`${film.name} from ${from.name}`, takeFromStock(bench.part as TracedPart, props.found, film.id, from));
</script>

<template>
  <TrayCard title="Films on the shelf" about="nearest by colour difference (CIEDE2000): under 1 is not seen, over 10 is another colour" fold="Shelf" :folded-as="state">
    <div v-for="{ film, matches, isTaken } in rows" :key="film.id" class="row">
      <span class="which"><i :style="{ background: film.colour }" />{{ film.name }}</span>
      <ElDropdown v-if="matches.length > 0" trigger="click" placement="bottom-end" @command="take(film, $event as Film)">
        <button type="button" class="plain-button" :aria-label="$say`Film from the shelf for ${film.name}`">{{ isTaken ? $say('from the shelf') : `${matches[0].film.name}, ${differenceWords(matches[0].difference)}` }}</button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem v-for="match in matches" :key="match.film.id" :command="match.film"><i class="chip" :style="{ background: match.film.colour }" />{{ match.film.name }}<span class="off">{{ differenceWords(match.difference) }}</span></ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
    </div>
    <p v-if="stock.films.length === 0">The shelf is empty: write down the films that you have.</p>
    <div class="row">
      <button type="button" class="plain-button" :disabled="stock.films.length === 0 || rows.length === 0" @click="commit($say('Films from the shelf'), matchStock(bench.part as TracedPart, found, stock.films))">Use nearest for all</button>
      <button type="button" class="plain-button" @click="editing = true">Edit my films…</button>
    </div>
    <StockDialog v-model="editing" />
  </TrayCard>
</template>

<style scoped src="./cards.css" />

<style scoped>
.which {
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.which i,
.chip {
  flex: none;
  width: 16px;
  height: 16px;
  border: 1px solid var(--rule-strong);
}
.chip {
  display: inline-block;
  margin-right: 8px;
}
.off {
  margin-left: auto;
  padding-left: 14px;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
