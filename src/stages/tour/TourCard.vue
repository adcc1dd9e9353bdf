<script setup lang="ts">
import { onBeforeUnmount } from 'vue';
import { TOUR_STEPS } from './tourSteps.ts';
import { useTour, useTourStep } from './useTour.ts';

/** What the newcomer does next; goes on by itself once it is done. */
const { step, at, isOver, skip, finish } = useTourStep();
const { leave } = useTour();
onBeforeUnmount(() => document.querySelector('.tour-here')?.classList.remove('tour-here'));
</script>

<template>
  <section v-if="step !== undefined" class="tour" aria-label="First shirt" aria-live="polite">
    <p class="count">Step {{ at + 1 }} of {{ TOUR_STEPS.length }}</p>
    <h2>{{ step.title }}</h2>
    <p>{{ step.words }}</p>
    <footer><button type="button" class="plain-button" @click="skip">Skip this</button><button type="button" class="plain-button" @click="leave">Leave the tour</button></footer>
  </section>
  <section v-else-if="isOver" class="tour" aria-label="First shirt" aria-live="polite">
    <h2>That is a shirt</h2>
    <p>Cut each sheet, weed it, and press the films in the order of the rack. The ticket has all of it on a page. Now drop a picture of your own.</p>
    <footer><button type="button" class="plain-button main" @click="finish">Done</button></footer>
  </section>
</template>

<style scoped>
.tour {
  position: fixed;
  bottom: 52px;
  left: 192px;
  z-index: 2000;
  width: 330px;
  padding: 12px 16px;
  border: 1px solid var(--madder);
  border-radius: 8px;
  background: var(--paper);
  box-shadow: var(--el-box-shadow-light);
}
.count {
  margin: 0;
  color: var(--ink-soft);
  font-size: 12.5px;
}
h2 {
  margin: 2px 0 4px;
  font-family: var(--serif);
  font-size: 17px;
}
p {
  margin: 0 0 8px;
}
footer {
  display: flex;
  gap: 8px;
}
</style>
