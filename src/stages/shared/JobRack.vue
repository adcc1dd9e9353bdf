<script setup lang="ts">
import { computed } from 'vue';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';
import FilmRack from '../../ui/FilmRack.vue';

/** The films of the job on the bench. */
const bench = useBench();
const settings = useSettings();
const rack = useRack();
const rolls = computed(() => {
  const cut = bench.result?.cut;
  if (cut === undefined) return (bench.job as Job).assembly.films.slice(0, 1).map((film) => ({ ...film, pieces: 0, areaMm2: 0, places: 0 }));
  return cut.films.map(({ film, pieces, areaMm2 }, k) => ({ ...film, pieces, areaMm2, places: cut.findings.filter(({ filmId }) => filmId === film.id || (filmId === undefined && k === 0)).length }));
});
defineProps<{ movable?: boolean }>();
const emit = defineEmits<{ move: [id: string, to: number] }>();
</script>

<template>
  <FilmRack
    :rolls="rolls" :chosen="rack.isAlone || rolls.length === 1 ? rack.chosen?.film.id : undefined" :unit="settings.unit" :fixed="!movable"
    @choose="rack.choose" @move="(id: string, to: number) => emit('move', id, to)"
  />
</template>
