<script setup lang="ts">
import { ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import { tellError } from '../shared/tellError.ts';
import { useTour } from './useTour.ts';

/** For whoever is here for the first time. */
const { isNew, begin, leave } = useTour();
const beginning = ref(false);
async function start(): Promise<void> {
  beginning.value = true;
  await begin().catch((error: unknown) => tellError(asAppError(error, 'unexpected')));
  beginning.value = false;
}
</script>

<template>
  <section v-if="isNew" class="first" aria-label="First visit">
    <p><b>New here?</b> Make a first shirt from a customer’s picture: seven things to do, a few minutes.</p>
    <button type="button" class="plain-button main" :disabled="beginning" @click="start">{{ beginning ? $say('The picture is coming…') : $say('Make a first shirt') }}</button>
    <button type="button" class="plain-button" @click="leave">Not now</button>
  </section>
</template>

<style scoped>
.first {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 12px 0 0;
  padding: 8px 12px;
  border-left: 3px solid var(--madder);
  background: var(--madder-wash);
}
p {
  flex: 1;
  margin: 0;
}
</style>
