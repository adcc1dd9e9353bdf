<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { COMBINED, nameOfObject, withFilm, withObjectChanged, withSettings, type FilmedObject } from '../../core/edit/objectEdits.ts';
import type { Film } from '../../core/film/film.ts';
import { withOneFilm } from '../../core/edit/bringEdits.ts';
import { oneFilmOf } from '../../core/film/filmRoles.ts';
import type { Job } from '../../core/job/job.ts';
import type { BaseObject, DesignObject, GroupCombine, GroupObject } from '../../core/job/objects.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import FigureSettings from './FigureSettings.vue';
import FilmChoice from './FilmChoice.vue';
import HolesSettings from './HolesSettings.vue';
import LetteringSettings from './LetteringSettings.vue';
import type { Parts } from './useParts.ts';
import { say } from '../../core/words/say.ts';

/** What the selected part is, and on which film. */
const props = defineProps<{ parts: Parts; part: DesignObject }>();
const bench = useBench();
const settings = useSettings();
const job = computed(() => bench.job as Job);

const filmed = computed(() => (props.part.kind === 'lettering' || props.part.kind === 'figure' ? props.part : undefined));
const setCut = (on: boolean): void => props.parts.commit(on ? say('Cut out of what lies below') : say('A film of its own'), ({ cutsOut: _before, ...object }) => (on ? { ...object, cutsOut: true } : object) as FilmedObject);

const base = computed(() => (props.part.kind === 'base' ? props.part.base : undefined));
const withBase = (change: Partial<BaseObject['base']>): Job => withObjectChanged<BaseObject>(job.value, props.part.id, (object) => ({ ...object, base: withSettings(object.base, change) }));
const withBand = (bandMm: number | undefined): Job => withBase({ bandMm });
const FORMS = { edge: say('border along the edge'), rectangle: say('rectangle'), bar: say('bar'), round: say('round') } as const;
const CORNERS = { round: say('round'), sharp: say('sharp'), flat: say('flat') } as const;

const combine = computed(() => (props.part.kind === 'group' ? props.part.combine : undefined));
function setCombine(change: Partial<GroupCombine>, film?: Film): void {
  const racked = film === undefined ? job.value : withFilm(job.value, film);
  bench.commit(say('Put together'), withObjectChanged<GroupObject>(racked, props.part.id, (object) => (object.combine === undefined ? object : { ...object, combine: { ...object.combine, ...change } })));
}
/** The one film of traced art of one colour. */
const setOneFilm = (film: Film): void => bench.commit(say('Film'), withOneFilm(job.value, props.part.id, film));
const HOW = { join: say('joined into one outline'), cutOut: say('the upper cut out of the lowest'), common: say('what they have in common') } as const;
const title = computed(() => (props.part.kind === 'group' && props.part.combine !== undefined ? COMBINED[props.part.combine.how] : props.part.kind === 'lettering' ? say('Lettering') : nameOfObject(props.part)));
</script>

<template>
  <TrayCard :title="title">
    <template v-if="filmed !== undefined">
      <LetteringSettings v-if="filmed.kind === 'lettering'" :parts="parts" :lettering="filmed.lettering" />
      <FigureSettings v-else :parts="parts" :shape="filmed.shape" />
      <label class="row"><span>Cut out of what lies below</span><ElSwitch size="small" :model-value="filmed.cutsOut === true" @change="setCut($event === true)" /></label>
      <FilmChoice v-if="filmed.cutsOut !== true" :films="parts.films.value" :model-value="filmed.film" aria-label="Film of the part" @choose="parts.setFilm" />
    </template>
    <template v-else-if="base !== undefined && part.kind === 'base'">
      <label class="row"><span>Form</span><ChoiceInput label="Form of the base" :choices="FORMS" :model-value="base.form" @choose="bench.commit($say('Base'), withBase({ form: $event }))" /></label>
      <QuantityInput kind="length" label="Reaches over by" :unit="settings.unit" :model-value="base.marginMm" :least="0" :most="500" @change="bench.preview(withBase({ marginMm: $event }))" @done="bench.commit($say('Base'), withBase({ marginMm: $event }))" @cancel="bench.revert" />
      <QuantityInput v-if="base.form === 'rectangle'" kind="length" label="Corner radius" :unit="settings.unit" :model-value="base.cornerMm" :least="0" :most="500" @change="bench.preview(withBase({ cornerMm: $event }))" @done="bench.commit($say('Base'), withBase({ cornerMm: $event }))" @cancel="bench.revert" />
      <label v-if="base.form === 'edge'" class="row"><span>Corners</span><ChoiceInput label="Corners" small :choices="CORNERS" :model-value="base.corners" @choose="bench.commit($say('Base'), withBase({ corners: $event }))" /></label>
      <label class="row"><span>Band on every film</span><ElSwitch size="small" aria-label="Band on every film" :model-value="base.bandMm !== undefined" @change="bench.commit($say('Band on every film'), withBand($event === true ? Math.max(6, base.marginMm) : undefined))" /></label>
      <QuantityInput v-if="base.bandMm !== undefined" kind="length" label="Band width" :unit="settings.unit" :model-value="base.bandMm" :least="0.1" :most="500" @change="bench.preview(withBand($event))" @done="bench.commit($say('Band on every film'), withBand($event))" @cancel="bench.revert" />
      <FilmChoice :films="parts.films.value" :model-value="part.film" aria-label="Film of the base" @choose="bench.commit($say('Film'), withObjectChanged<BaseObject>(withFilm(job, $event, 0), part.id, (object) => ({ ...object, film: $event.id })))" />
    </template>
    <HolesSettings v-else-if="part.kind === 'holes'" :part="part" />
    <template v-else-if="combine !== undefined">
      <label class="row"><span>Its parts are</span><ChoiceInput label="Its parts are" :choices="HOW" :model-value="combine.how" @choose="setCombine({ how: $event })" /></label>
      <FilmChoice :films="parts.films.value" :model-value="combine.film" aria-label="Film of the part" @choose="setCombine({ film: $event.id }, $event)" />
    </template>
    <template v-else-if="part.kind === 'traced'">
      <p class="about">Drawn from its picture: Clean and Separate change what it is, here it is placed and worked on. Point at it again for its pieces.</p>
      <FilmChoice v-if="part.separation.way === 'oneTone'" class="film" :films="parts.films.value" :model-value="oneFilmOf(job.films, part.separation.film).id" aria-label="Film of the part" @choose="setOneFilm" />
    </template>
    <p v-else-if="part.kind === 'group'" class="about">{{ part.objects.length }} parts that keep their places to each other.</p>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.film {
  margin-top: 8px;
}
.about {
  margin: 0;
  color: var(--ink-soft);
}
</style>
