<script setup lang="ts">
import { Waypoints } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { Bridges } from './useBridges.ts';
import { say } from '../../core/words/say.ts';

/** How the islands of a stencil are held. */
const props = defineProps<{ bridges: Bridges }>();
const bench = useBench();
const settings = useSettings();
const own = computed(() => props.bridges.settings.value);
const held = computed(() => props.bridges.held.value);
const chosen = computed(() => props.bridges.chosen.value?.bridge);
const COUNTS = { auto: say('by its size'), 1: '1', 2: '2', 3: '3', 4: '4' } as const;
const about = computed(() => {
  if (!own.value.on) return say('off: islands fall out');
  const { islands = 0, bridges = [] } = held.value ?? {};
  return islands === 0 ? say('no islands to hold') : say`${islands === 1 ? say('1 island') : say`${islands} islands`} held by ${bridges.length === 1 ? say('1 bridge') : say`${bridges.length} bridges`}`;
});
</script>

<template>
  <TrayCard title="Bridges" :about="about" :mark="own.on && (held?.astray ?? 0) === 0 ? undefined : 'warning'">
    <template #icon><Waypoints /></template>
    <template #switch><ElSwitch size="small" :model-value="own.on" aria-label="Bridges" @change="bridges.change($say('Bridges'), { on: $event === true })" /></template>
    <QuantityInput kind="length" label="Width" :unit="settings.unit" :model-value="own.widthMm ?? held?.widthMm ?? 1" :least="0.1" :most="50" :step="0.1" :disabled="!own.on" @change="bridges.drag({ widthMm: $event })" @done="bridges.change($say('Width of bridges'), { widthMm: $event })" @cancel="bench.revert" />
    <label class="row"><span>For each island</span><ChoiceInput class="narrow" small :model-value="own.count === undefined ? 'auto' : String(own.count)" :choices="COUNTS" label="Bridges for each island" @choose="bridges.change($say('Bridges for each island'), { count: $event === 'auto' ? undefined : Number($event) })" /></label>
    <div v-if="(held?.bridges.length ?? 0) > 0" class="row"><span class="note">{{ chosen === undefined ? $say('Drag a grip along the edge.') : $say('Arrow keys move it, Delete takes it out.') }}</span><button type="button" class="plain-button" @click="bridges.chooseNext()">{{ chosen === undefined ? $say('Choose one') : $say('The next') }}</button></div>
    <template v-if="chosen !== undefined">
      <QuantityInput kind="length" label="Width of this one" :unit="settings.unit" :model-value="chosen.widthMm" :least="0.1" :most="50" :step="0.1" @done="bridges.widen($event)" />
      <QuantityInput label="Slant" suffix="°" :model-value="chosen.slantDeg ?? 0" :least="-60" :most="60" :step="5" :digits="0" @done="bridges.slant($event)" />
      <div class="row"><button type="button" class="plain-button" @click="bridges.addAcross()">One more across</button><button type="button" class="plain-button" @click="bridges.takeOut()">Take it out</button></div>
    </template>
    <p v-if="(held?.astray ?? 0) > 0" class="warn">{{ held?.astray === 1 ? $say('1 bridge that was moved has') : $say`${held?.astray} bridges that were moved have` }} no place any more.</p>
    <p v-if="(held?.fellOut ?? 0) > 0" class="note">{{ held?.fellOut === 1 ? $say('1 island is') : $say`${held?.fellOut} islands are` }} too small to hold and falls out.</p>
    <button v-if="(own.islands?.length ?? 0) > 0" type="button" class="plain-button" @click="bridges.putBack()">All where they were found</button>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.narrow {
  width: 120px;
}
.note {
  margin: 0;
  color: var(--ink-soft);
}
.warn {
  margin: 2px 0;
  color: var(--ochre-text);
}
</style>
