<script setup lang="ts">
import { ref } from 'vue';
import TrayCard from '../../ui/TrayCard.vue';
import ChoiceInput from '../../ui/ChoiceInput.vue';

/** What the stand-in can be told to do wrong, to see what happens then; and what its tools left on the sheet. */
const MISHAPS = { none: 'nothing', noMat: 'no mat lies in it', portBusy: 'it is busy', connectionLost: 'the line is lost in mid-cut', pieceLifted: 'a piece lifts', bladeBlunt: 'the blade goes blunt' } as const;
const chosen = ref<keyof typeof MISHAPS>('none');
const HASTE = { '1': 'as fast as a real one', '5': 'five times as fast', '25': 'twenty-five times as fast' } as const;
const haste = ref<keyof typeof HASTE>('5');
const failed = ref(false);
async function order(what: string, body: unknown): Promise<void> {
  const answer = await fetch(`/devices/cutter/${what}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }).catch(() => undefined);
  failed.value = answer?.ok !== true;
}
function tell(kind: keyof typeof MISHAPS): void {
  chosen.value = kind;
  if (kind !== 'none') void order('fail', { kind, atShare: 0.4 });
}
function hurry(times: keyof typeof HASTE): void {
  haste.value = times;
  void order('haste', { times: Number(times) });
}
</script>

<template>
  <TrayCard title="Stand-in" about="a cutter that is not there, to try everything with" fold="stand-in" folded-as="try what goes wrong">
    <ChoiceInput :model-value="chosen" :choices="MISHAPS" label="What goes wrong next" @choose="tell" />
    <ChoiceInput :model-value="haste" :choices="HASTE" label="How fast it goes" @choose="hurry" />
    <p v-if="failed" role="alert">It could not be told: it does not answer.</p>
    <a class="plain-button" href="/devices/cutter/picture" target="_blank" rel="noopener">What its tools left on the sheet</a>
  </TrayCard>
</template>

<style scoped>
p {
  margin: 4px 0;
  color: var(--ochre-text);
}
a {
  margin-top: 8px;
}
</style>
