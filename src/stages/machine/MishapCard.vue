<script setup lang="ts">
import { ref } from 'vue';
import TrayCard from '../../ui/TrayCard.vue';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import { say } from '../../core/words/say.ts';

defineProps<{ prints: boolean }>();
/** What the stand-in can be told to do wrong, to see what happens then; and what its tools left on the sheet. */
const MISHAPS = { none: say('nothing'), noMat: say('no mat lies in it'), portBusy: say('it is busy'), connectionLost: say('the line is lost in mid-cut'), pieceLifted: say('a piece lifts'), bladeBlunt: say('the blade goes blunt'), markHidden: say('a mark is covered') } as const;
const chosen = ref<keyof typeof MISHAPS>('none');
const PRINTER = { none: say('nothing'), inkEnds: say('the ink ends on the page'), wrongSide: say('the paper lies the wrong side up'), refusesSize: say('it refuses the size') } as const;
const atPrinter = ref<keyof typeof PRINTER>('none');
const HASTE = { '1': say('as fast as a real one'), '5': say('five times as fast'), '25': say('twenty-five times as fast') } as const;
const haste = ref<keyof typeof HASTE>('5');
const failed = ref(false);
async function order(what: string, body: unknown, device = 'cutter'): Promise<void> {
  const answer = await fetch(`/devices/${device}/${what}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }).catch(() => undefined);
  failed.value = answer?.ok !== true;
}
function tell(kind: keyof typeof MISHAPS): void {
  chosen.value = kind;
  if (kind !== 'none') void order('fail', { kind, atShare: 0.4 });
}
function tellPrinter(kind: keyof typeof PRINTER): void {
  atPrinter.value = kind;
  if (kind !== 'none') void order('fail', { kind, atShare: 0.5 }, 'printer');
}
function hurry(times: keyof typeof HASTE): void {
  haste.value = times;
  void order('haste', { times: Number(times) });
}
</script>

<template>
  <TrayCard title="Stand-in" about="a cutter that is not there, to try everything with" fold="stand-in" folded-as="try what goes wrong">
    <ChoiceInput :model-value="chosen" :choices="MISHAPS" label="What goes wrong next" @choose="tell" />
    <ChoiceInput v-if="prints" :model-value="atPrinter" :choices="PRINTER" label="What goes wrong at the printer" @choose="tellPrinter" />
    <ChoiceInput :model-value="haste" :choices="HASTE" label="How fast it goes" @choose="hurry" />
    <p v-if="failed" role="alert">It could not be told: it does not answer.</p>
    <a class="plain-button" href="/devices/cutter/picture" target="_blank" rel="noopener">What its tools left on the sheet</a>
    <a v-if="prints" class="plain-button" href="/devices/camera/photo?of=page&tiltDeg=12&turnDeg=7&blurPx=0.6" target="_blank" rel="noopener">A photo of the page, taken askew</a>
    <a v-else class="plain-button" href="/devices/camera/photo?tiltDeg=12&turnDeg=7&blurPx=0.6" target="_blank" rel="noopener">A photo of the mark sheet with work on it</a>
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
