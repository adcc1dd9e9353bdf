<script setup lang="ts">
import { Split } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import type { Film } from '../../core/film/film.ts';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** Whether the film on the table is laid out as all are, or by itself: on other stock, without a box, another number of times. */
defineProps<{ film: Film }>();
const { byItself, setByItself } = useLayoutEdits();
const choose = (on: boolean): void => setByItself(on ? say('Laid out by itself') : say('Laid out as all films are'), on);
</script>

<template>
  <TrayCard title="This film by itself" :about="byItself ? $say`${film.name}: its sheet, box, weed lines and copies are its own` : $say('laid out as all films are')">
    <template #icon><Split /></template>
    <template #switch><ElSwitch size="small" :model-value="byItself" aria-label="This film by itself" @change="choose($event === true)" /></template>
  </TrayCard>
</template>
