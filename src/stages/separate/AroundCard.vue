<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { AROUND_FILM } from '../../core/film/filmRoles.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { Around } from '../../core/outline/outlineSettings.ts';
import type { FoundFilms } from '../../core/edit/paletteEdits.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import FilmLook from './FilmLook.vue';
import { say } from '../../core/words/say.ts';

/** A film around and below all others, and the outermost edge alone. */
defineProps<{ found: FoundFilms }>();
const bench = useBench();
const settings = useSettings();

const outline = computed(() => (bench.part as TracedPart).outline);
const around = computed(() => outline.value.around);
const film = computed(() => (bench.part as TracedPart).films.find(({ id }) => id === AROUND_FILM.id) ?? AROUND_FILM);
const changed = (next: Around | undefined): TracedPart => {
  const { around: _old, ...rest } = outline.value;
  return { ...(bench.part as TracedPart), outline: next === undefined ? rest : { ...rest, around: next } };
};
const USUAL: Around = { widthMm: 2, openings: 'filled' };
const set = (label: string, change: Partial<Around>): void => bench.commitPart(label, changed({ ...(around.value ?? USUAL), ...change }));
function setOutermost(on: boolean): void {
  const { outermost: _old, ...rest } = outline.value;
  bench.commitPart(on ? say('Outer edge only') : say('All edges'), { ...(bench.part as TracedPart), outline: on ? { ...rest, outermost: true } : rest });
}
const OPENINGS = { kept: say('kept open'), filled: say('filled') } as const;
const state = computed(() => {
  if (outline.value.outermost === true) return say('only the outer edge is cut');
  return around.value === undefined ? say('none') : say`${film.value.name}, ${formatLength(mm(around.value.widthMm), settings.unit)} wide, openings ${OPENINGS[around.value.openings]}`;
});
</script>

<template>
  <TrayCard title="Border and back" :about="outline.outermost ? $say('only the outer edge is cut') : around === undefined ? $say('none') : $say('one film around and below all others')" fold="Border" :folded-as="state">
    <label class="row"><span>Border around everything</span><ElSwitch size="small" :model-value="around !== undefined" @change="bench.commitPart($event === true ? $say('Border') : $say('No border'), changed($event === true ? USUAL : undefined))" /></label>
    <template v-if="around !== undefined">
      <QuantityInput kind="length" label="Border width" :unit="settings.unit" :model-value="around.widthMm" :least="0" :most="100" :step="0.5" @change="bench.previewPart(changed({ ...around, widthMm: $event }))" @done="set($say('Border width'), { widthMm: $event })" @cancel="bench.revert" />
      <template v-if="!outline.outermost">
        <label class="row"><span>Openings are</span><ChoiceInput class="narrow" small :model-value="around.openings" :choices="OPENINGS" label="Openings of the border" @choose="set($say('Openings of the border'), { openings: $event })" /></label>
        <div class="row">
          <span>Its film</span>
          <FilmLook class="narrow" :film="film" :found="found" of="the border’s film" />
        </div>
      </template>
    </template>
    <label class="row"><span>Outer edge only</span><ElSwitch size="small" :model-value="outline.outermost === true" @change="setOutermost($event === true)" /></label>
  </TrayCard>
</template>

<style scoped src="./cards.css" />
