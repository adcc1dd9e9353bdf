<script setup lang="ts">
import { Scissors, X } from '@lucide/vue';
import { ElMessage } from 'element-plus';
import { computed, ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { Film } from '../../core/film/film.ts';
import { leftOf } from '../../core/layout/leftOf.ts';
import type { Sheet } from '../../core/layout/laySheet.ts';
import type { StockOutline } from '../../core/layout/remnants.ts';
import type { Remnant } from '../../core/layout/remnantSchema.ts';
import type { ShelfRemnant } from '../../core/workshop/workshop.ts';
import { useBench } from '../../stores/bench.ts';
import { useWorkshop } from '../../stores/workshop.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { tellError } from '../shared/tellError.ts';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** What is left of a film from earlier: taken from the shelf and used first, and what is left of this job put back. */
const props = defineProps<{ film: Film; sheets: readonly Sheet[]; isNested: boolean }>();
const bench = useBench();
const { layout, set, unit, length } = useLayoutEdits();
const workshop = useWorkshop();
void workshop.load();

const own = computed(() => (layout.value.remnants ?? []).filter(({ film }) => film === props.film.id));
const used = computed(() => own.value.filter(({ name }) => props.sheets.some(({ remnant }) => remnant === name)).length);
const onShelf = computed(() => (workshop.shelves.remnants ?? []).filter(({ film, name }) => film === props.film.name && own.value.every((each) => each.name !== name)));
const sizeOf = ({ widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number }): string => `${length(widthMm)} × ${length(heightMm)}`;
const change = (label: string, remnants: readonly Remnant[]): void => set(label, { remnants: remnants.length === 0 ? undefined : [...remnants] });
const take = ({ id: _id, ...remnant }: ShelfRemnant): void => change(say('A remnant first'), [...(layout.value.remnants ?? []), { ...remnant, film: props.film.id }]);
const leave = (remnant: Remnant): void => change(say('Without a remnant'), (layout.value.remnants ?? []).filter((each) => each !== remnant));

const widthMm = ref(200);
const heightMm = ref(200);
const freeName = (wish: string): string => {
  const taken = new Set([...own.value, ...(workshop.shelves.remnants ?? [])].map(({ name }) => name));
  let name = wish;
  for (let k = 2; taken.has(name); k++) name = `${wish}, ${k}`;
  return name;
};
const keep = (size: StockOutline): ShelfRemnant => {
  const remnant = { id: crypto.randomUUID(), name: freeName(`${props.film.name} ${Math.round(size.widthMm)} × ${Math.round(size.heightMm)}`), film: props.film.name, ...size };
  void workshop.save({ ...workshop.shelves, remnants: [...(workshop.shelves.remnants ?? []), remnant] });
  return remnant;
};
/** The edge of this job's design, from a photo on the mark sheet or drawn: a piece that other jobs lay on. */
async function keepOutline(): Promise<void> {
  const of = bench.ofJob();
  if (of === undefined) return;
  try {
    const found = await bench.stockOutline(of);
    if (found === undefined) ElMessage.warning(say('There is no outline of at least 5 mm to keep: trace the piece, or draw its edge, at its true size first.'));
    else ElMessage.success({ message: say`${keep(found).name} lies on the shelf: jobs of ${props.film.name} that are nested can use it.`, grouping: true });
  } catch (caught) {
    tellError(asAppError(caught, 'unexpected'));
  }
}
const add = (): void => take(keep({ widthMm: widthMm.value, heightMm: heightMm.value }));
const gone = (id: string): void => void workshop.save({ ...workshop.shelves, remnants: (workshop.shelves.remnants ?? []).filter((each) => each.id !== id) });
/** Of the last new sheet. */
const left = computed(() => {
  const last = props.sheets.at(-1);
  return last === undefined || last.remnant !== undefined ? undefined : leftOf(last);
});
</script>

<template>
  <TrayCard :title="isNested ? $say('Remnants first') : $say('Remnants')" :about="own.length === 0 ? $say('what is left of the film from earlier is used before a new sheet') : $say`${used} of ${own.length} used before a new sheet`" fold="Remnants" :folded-as="own.length === 0 ? $say('none') : $say`${used} of ${own.length} used`">
    <template #icon><Scissors /></template>
    <p v-if="!isNested" class="soft">Parts are laid on remnants where copies are nested.</p>
    <template v-else>
      <div v-for="remnant in own" :key="remnant.name" class="row"><span>{{ remnant.name }}, {{ sizeOf(remnant) }}</span><button type="button" class="gone" :aria-label="$say`Do not use ${remnant.name}`" @click="leave(remnant)"><X :size="15" /></button></div>
      <div v-for="remnant in onShelf" :key="remnant.id" class="row">
        <span class="soft">on the shelf: {{ sizeOf(remnant) }}</span>
        <span><button type="button" class="plain-button" :aria-label="$say`Use ${remnant.name}`" @click="take(remnant)">Use</button><button type="button" class="gone" :aria-label="$say`Take ${remnant.name} off the shelf`" @click="gone(remnant.id)"><X :size="15" /></button></span>
      </div>
      <QuantityInput label="Width of a remnant" kind="length" :unit="unit" :model-value="widthMm" :least="5" @change="widthMm = $event" @done="widthMm = $event" />
      <QuantityInput label="Its length" kind="length" :unit="unit" :model-value="heightMm" :least="5" @change="heightMm = $event" @done="heightMm = $event" />
      <div class="row"><span /><button type="button" class="plain-button" @click="add">Use this remnant</button></div>
    </template>
    <div v-if="isNested && left !== undefined" class="row"><span class="soft">{{ sizeOf(left) }} will be left</span><button type="button" class="plain-button" @click="keep(left)">Put it on the shelf</button></div>
    <div class="row"><span class="soft">This design is the outline of a piece, seen from the side that is cut</span><button type="button" class="plain-button" @click="keepOutline">Keep it as a remnant</button></div>
  </TrayCard>
</template>

<style scoped>
.soft {
  color: var(--ink-soft);
}
</style>

<style scoped src="../shared/rows.css" />
