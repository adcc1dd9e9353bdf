<script setup lang="ts">
import { computed, ref } from 'vue';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import ReadoutStrip from '../../ui/ReadoutStrip.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { useHandOff } from '../handoff/useHandOff.ts';
import { download } from '../shared/download.ts';
import NeedsPicture from '../shared/NeedsPicture.vue';
import StageLayout from '../shared/StageLayout.vue';
import StepTimers from '../shared/StepTimers.vue';
import { today } from '../shared/today.ts';
import { useReadout } from '../shared/useReadout.ts';
import OrderCard from './OrderCard.vue';
import TicketPaper from './TicketPaper.vue';
import { useTicket } from './useTicket.ts';
import { stateWord } from '../../core/job/order.ts';
import { say } from '../../core/words/say.ts';

const bench = useBench();
const settings = useSettings();
const { job, view, sections, order, change, proof } = useTicket();
const { hand, handing, name } = useHandOff();
const { items, progress, status } = useReadout();
const page = ref<'a4' | 'letter'>('a4');
const PAGES = { a4: 'A4', letter: say('Letter') } as const;
const steps = computed(() => view.value?.ticket.steps ?? []);
const save = (): void =>
  void hand(async () => {
    const of = bench.ofJob();
    const fileName = say`${name.value}, ticket.pdf`;
    if (of !== undefined) download(fileName, await bench.ticketPdf({ ...of, unit: settings.unit, page: page.value, date: today() }), 'application/pdf');
    return fileName;
  });
</script>

<template>
  <StageLayout title="Ticket" :aside="stateWord(order.state ?? 'asked', job?.process ?? 'htv')">
    <template #table>
      <div v-if="bench.pictureInfo !== undefined" class="desk" tabindex="0" role="region" aria-label="The ticket as it is printed">
        <TicketPaper v-if="view !== undefined" :view="view" :sections="sections" :proof="proof" :date="today()" />
        <p v-else class="waiting" role="status">The ticket is being written…</p>
      </div>
      <NeedsPicture v-else />
    </template>
    <template #readout><ReadoutStrip :items="items" :status="status" :progress="progress" @cancel="bench.cancel" /></template>
    <template #tray>
      <TrayCard title="Save or print" about="the page as a PDF at its true size">
        <ChoiceInput :model-value="page" :choices="PAGES" label="Page" @choose="page = $event" />
        <div class="buttons">
          <button type="button" class="plain-button main" :disabled="view === undefined || handing" @click="save">Save ticket</button>
          <RouterLink class="plain-button" :to="{ name: 'handoff', params: { id: String($route.params['id']) } }">Back to the files</RouterLink>
        </div>
      </TrayCard>
      <OrderCard :order="order" :process="job.process" @change="change" />
      <TrayCard v-if="steps.length > 0 && bench.entry !== undefined" title="Then, in this order" about="each wait with a timer, which runs on while the page is closed"><StepTimers :key="bench.entry.id" :job-id="bench.entry.id" :steps="steps" /></TrayCard>
    </template>
  </StageLayout>
</template>

<style scoped>
.desk {
  height: 100%;
  overflow-y: auto;
  padding: 0 20px;
  background: var(--felt);
}
.waiting {
  padding-top: 30vh;
  color: var(--ink-soft);
  text-align: center;
}
.buttons {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
</style>
