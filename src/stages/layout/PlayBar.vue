<script setup lang="ts">
import { Pause, Play as PlayIcon } from '@lucide/vue';
import type { Play } from './usePlay.ts';
import { inSentence } from '../../core/words/say.ts';

/** Plays how a sheet is cut or weeded, and says what that takes. */
defineProps<{ play: Play; words: string; label: string; step: number }>();
</script>

<template>
  <div class="bar" role="group" :aria-label="label">
    <button type="button" class="plain-button" :aria-label="play.isPlaying.value ? $say('Pause') : $say`Play ${inSentence(label)}`" @click="play.toggle"><component :is="play.isPlaying.value ? Pause : PlayIcon" :size="16" /></button>
    <input type="range" :value="play.at.value" min="0" :max="Math.max(step, play.end.value)" :step="step" :aria-label="$say`Place in ${inSentence(label)}`" @input="play.show(Number(($event.target as HTMLInputElement).value))" />
    <span>{{ words }}{{ play.times.value >= 2 ? $say`, shown ${Math.round(play.times.value)} × as fast` : '' }}</span>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 10px;
}
.bar button {
  padding: 3px 8px;
}
input {
  width: 110px;
  accent-color: var(--madder);
}
span {
  color: var(--ink-soft);
}
</style>
