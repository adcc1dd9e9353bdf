<script setup lang="ts">
import { Rows3 } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { USUAL_WEED_LINES, type Layout } from '../../core/layout/layout.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import type { WeedLinesInHand } from './useWeedLines.ts';
import { say } from '../../core/words/say.ts';

/** Cuts through large waste. */
defineProps<{ lines: WeedLinesInHand }>();
const { layout, drag, set, cancel, unit } = useLayoutEdits();
const weed = computed(() => layout.value.weedLines ?? { ...USUAL_WEED_LINES, on: false });
const setWeed = (change: Partial<NonNullable<Layout['weedLines']>>): void => set(say('Weed lines'), { weedLines: { ...weed.value, ...change } });
</script>

<template>
  <TrayCard title="Weed lines" about="cuts that part large waste into strips">
    <template #icon><Rows3 /></template>
    <template #switch><ElSwitch size="small" :model-value="weed.on" aria-label="Weed lines" @change="setWeed({ on: $event === true })" /></template>
    <template v-if="weed.on">
      <QuantityInput kind="length" label="Strips about" :unit="unit" :model-value="weed.everyMm" :least="10" :most="1000" :step="5" @change="drag({ weedLines: { ...weed, everyMm: $event } })" @done="setWeed({ everyMm: $event })" @cancel="cancel" />
      <QuantityInput kind="length" label="Away from pieces" :unit="unit" :model-value="weed.awayMm" :least="0.2" :most="20" :step="0.1" @change="drag({ weedLines: { ...weed, awayMm: $event } })" @done="setWeed({ awayMm: $event })" @cancel="cancel" />
      <p v-if="lines.places.value.length === 0" class="note">No box is longer than a strip: nothing to part.</p>
      <p v-else-if="lines.chosen.value === undefined" class="note">{{ lines.places.value.length === 1 ? $say('1 line') : $say`${lines.places.value.length} lines` }} on this sheet. Drag one by its wedge, or <button type="button" class="plain-button" @click="lines.chooseNext">choose one</button></p>
      <div v-else class="chosen" role="group" aria-label="Chosen weed line">
        <span>Line {{ (lines.chosenAt.value ?? 0) + 1 }} of {{ lines.places.value.length }}{{ lines.chosen.value.isLeftOut ? $say(', left out') : lines.chosen.value.isOwn ? $say(', moved') : '' }}</span>
        <button type="button" class="plain-button" @click="lines.chooseNext">Next</button>
        <button v-if="!lines.chosen.value.isLeftOut" type="button" class="plain-button" @click="lines.leaveOut">Leave out</button>
        <button v-if="lines.chosen.value.isOwn" type="button" class="plain-button" @click="lines.putBack">As found</button>
      </div>
      <button v-if="lines.ownCount.value > 1" type="button" class="plain-button" @click="lines.allAsFound">All weed lines as found</button>
    </template>
  </TrayCard>
</template>

<style scoped>
.note {
  margin: 4px 0 0;
  color: var(--ink-soft);
}
.chosen {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 4px;
}
.chosen span {
  flex: 1;
}
</style>
