<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { withSettings } from '../../core/edit/objectEdits.ts';
import type { PlotterChoices } from '../../core/job/handOff.ts';
import TrayCard from '../../ui/TrayCard.vue';
import type { useHandOff } from './useHandOff.ts';
import { inSentence, say } from '../../core/words/say.ts';

const props = defineProps<{ hand: ReturnType<typeof useHandOff> }>();
const choices = computed(() => props.hand.job.value.handOff.plotter ?? {});
const ROWS: readonly { readonly key: keyof PlotterChoices; readonly name: string; readonly about: string }[] = [
  { key: 'tells', name: say('Tell tool, speed and force'), about: say('as the film’s material has them; else they are set at the machine') },
  { key: 'compensated', name: say('Passes, overcut and blade offset in the path'), about: say('for machines that do not see to them') },
  { key: 'fine', name: say('Steps of 0.001 mm'), about: say('for machines that know scaling; else 0.025 mm') },
  { key: 'relative', name: say('From place to place'), about: say('relative instead of from the corner') },
];
const change = (key: keyof PlotterChoices, on: boolean): void => {
  const plotter = withSettings(choices.value, { [key]: on ? true : undefined });
  props.hand.change(say('Plotter language'), { plotter: Object.keys(plotter).length === 0 ? undefined : plotter });
};
const chosen = computed(() => ROWS.filter(({ key }) => choices.value[key] === true).map(({ name }) => inSentence(name)));
</script>

<template>
  <TrayCard title="Plotter language" fold="plotter" about="how HP-GL is written" :folded-as="chosen.length === 0 ? $say('plain: every machine reads it') : chosen.join('; ')">
    <div v-for="{ key, name, about } in ROWS" :key="key" class="row choice">
      <span>{{ name }}<small>{{ about }}</small></span>
      <ElSwitch :model-value="choices[key] === true" :aria-label="name" size="small" @change="change(key, $event === true)" />
    </div>
  </TrayCard>
</template>

<style scoped>
.choice span {
  display: grid;
}
small {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>

<style scoped src="../shared/rows.css" />
