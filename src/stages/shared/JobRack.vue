<script setup lang="ts">
import { computed } from 'vue';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import FilmRack from '../../ui/FilmRack.vue';

/** The films of the job on the bench. */
const bench = useBench();
const settings = useSettings();
const rolls = computed(() => {
  const cut = bench.result?.cut;
  return (bench.job as Job).assembly.films.map(({ id, name, colour }) => ({ id, name, colour, pieces: cut?.pieces ?? 0, areaMm2: cut?.filmAreaMm2 ?? 0, places: cut?.findings.length ?? 0 }));
});
</script>

<template><FilmRack :rolls="rolls" :chosen="rolls[0]?.id" :unit="settings.unit" /></template>
