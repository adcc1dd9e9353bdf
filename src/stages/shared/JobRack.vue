<script setup lang="ts">
import { computed } from 'vue';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';
import FilmRack from '../../ui/FilmRack.vue';
import { say } from '../../core/words/say.ts';

/** The films of the job on the bench. */
const bench = useBench();
const settings = useSettings();
const rack = useRack();
const rolls = computed(() => {
  const cut = bench.result?.cut;
  if (cut === undefined) return [];
  return rack.rolls.map(({ film, pieces, areaMm2 }, k) => ({ ...film, pieces, areaMm2, places: cut.findings.filter(({ filmId }) => filmId === film.id || (filmId === undefined && k === 0)).length }));
});
defineProps<{ movable?: boolean }>();
/** Without a cut there is no film; it is not told how many pieces of which. */
const emptyWords = computed(() => (bench.picture === undefined && !bench.pictureFailed ? say('The films come with the picture.') : bench.result?.problem !== undefined ? say('No film yet: there is nothing to cut as it stands.') : say('Making films…')));
const emit = defineEmits<{ move: [id: string, to: number] }>();
</script>

<template>
  <FilmRack
    :rolls="rolls" :chosen="rack.isAlone || rolls.length === 1 ? rack.roll?.film.id : undefined" :unit="settings.unit" :fixed="!movable"
    @choose="rack.choose" @move="(id: string, to: number) => emit('move', id, to)"
  >
    <p v-if="rolls.length === 0" class="empty" role="status">{{ emptyWords }}</p>
  </FilmRack>
</template>

<style scoped>
.empty {
  margin: 0;
  color: var(--ink-soft);
}
</style>
