<script setup lang="ts">
import { computed } from 'vue';
import { formatLength } from '../../core/units/parseLength.ts';
import { mm } from '../../core/units/length.ts';
import type { Film } from '../../core/film/film.ts';
import type { ProofView } from '../../engine/protocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { decimals, say } from '../../core/words/say.ts';

/** What the films, laid over each other, leave to be desired. */
const props = defineProps<{ proof: ProofView | undefined; shifted: Film | undefined }>();
const shiftMm = defineModel<number>('shiftMm', { required: true });
const bench = useBench();
const settings = useSettings();

const percent = computed(() => (props.proof === undefined ? '…' : `${decimals(props.proof.differs * 100, 2)} %`));
const reachMm = computed(() => {
  const separation = bench.part?.separation;
  return separation === undefined || separation.way === 'oneTone' || separation.way === 'backDetail' || separation.meet !== 'inset' ? undefined : (separation.reachMm ?? 0);
});
/** What would hide such a shift. */
const advice = computed(() => {
  if (shiftMm.value === 0) return undefined;
  if (reachMm.value === undefined) return bench.part?.separation.way === 'oneTone' ? undefined : say('Stacked films lie on full ones: no gap opens, only edges move.');
  const needed = formatLength(mm(Math.ceil(shiftMm.value * 10) / 10), settings.unit);
  return reachMm.value >= shiftMm.value ? say('The reach is wide enough: no gap opens.') : say`A reach of ${needed} would close the gaps.`;
});
</script>

<template>
  <TrayCard title="Proof" about="the films over each other, against the clean art" :mark="proof !== undefined && proof.differs > 0.02 ? 'warning' : undefined">
    <div class="row"><span>Area that differs visibly</span><b>{{ percent }}</b></div>
    <div v-if="proof?.strayMm !== undefined" class="row"><span>Edges are off by</span><b>{{ formatLength(mm(proof.strayMm), settings.unit, 3) }}</b></div>
    <QuantityInput v-if="shifted !== undefined" kind="length" :label="$say`Shift ${shifted.name} by`" :unit="settings.unit" :model-value="shiftMm" :least="0" :most="3" :step="0.1" @change="shiftMm = $event" @done="shiftMm = $event" />
    <p v-if="advice !== undefined">{{ advice }}</p>
  </TrayCard>
</template>

<style scoped src="./cards.css" />
