<script setup lang="ts">
import { computed } from 'vue';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { holdOutlines, knowing, letGo } from '../../core/edit/paletteEdits.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { say } from '../../core/words/say.ts';

/** Asks what becomes of outlines that are held by hand when what they were made from has changed. Until it is answered they stay. */
const bench = useBench();
const rack = useRack();
const changed = computed(() => rack.films.filter(({ held }) => held === 'changed'));
const names = computed(() => changed.value.map(({ film }) => film.name).join(', '));

function keep(): void {
  const part = bench.part as TracedPart;
  const outlines = (part.outline.held ?? []).flatMap((each) => {
    const film = changed.value.find(({ film: { id } }) => id === each.film);
    return film === undefined ? [] : [{ ...each, from: film.mark }];
  });
  bench.commitPart(say('Outlines kept as they are'), holdOutlines(knowing(part, { tones: bench.result?.cut?.tones ?? [] }), outlines));
}
const anew = (): void => bench.commitPart(say('Outlines traced anew'), changed.value.reduce((part, { film }) => letGo(part, film.id), bench.part as TracedPart));
</script>

<template>
  <div v-if="changed.length > 0" class="table-note held" role="alert" @pointerdown.stop>
    <p><b>{{ names }}</b> {{ changed.length === 1 ? $say('is held by hand, and what it was made from has changed. It is cut as you left it.') : $say('are held by hand, and what they were made from has changed. They are cut as you left them.') }}</p>
    <button type="button" class="plain-button" @click="keep">Keep mine</button>
    <button type="button" class="plain-button" @click="anew">Trace again</button>
  </div>
</template>

<style scoped src="../shared/tableNote.css" />

<style scoped>
.held {
  top: 44px;
  display: flex;
  align-items: center;
  gap: 10px;
  width: max-content;
  max-width: min(620px, 90%);
}
p {
  margin: 0;
}
button {
  flex: none;
}
</style>
