<script setup lang="ts">
import { computed } from 'vue';
import { withLettering, type FilmedObject } from '../../core/edit/objectEdits.ts';
import type { Lettering } from '../../core/lettering/lettering.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import type { Parts } from './useParts.ts';
import { say } from '../../core/words/say.ts';

/** What the letters stand on: a straight line, a circle, or another part. */
const props = defineProps<{ parts: Parts; lettering: Lettering }>();
const bench = useBench();
const settings = useSettings();

const STANDS = { line: say('straight'), circle: say('on a circle'), along: say('on a part’s edge'), into: say('filling a part') } as const;
type Stand = keyof typeof STANDS;
const SIDES = { top: say('over the top'), bottom: say('along the bottom') } as const;
const HEADS = { out: say('outwards'), in: say('inwards') } as const;

const stand = computed((): Stand => (props.lettering.along !== undefined ? 'along' : props.lettering.into !== undefined ? 'into' : props.lettering.around === undefined ? 'line' : 'circle'));
/** Parts that a text can follow; two that would follow each other are told as astray. */
const others = computed((): Readonly<Record<string, string>> =>
  Object.fromEntries(props.parts.rows.value.filter(({ id, kind }) => id !== props.parts.object.value?.id && kind !== 'base' && kind !== 'holes').map(({ id, name }) => [id, name])),
);
const choices = computed(() => (Object.keys(others.value).length > 0 ? STANDS : { line: STANDS.line, circle: STANDS.circle }) as Record<Stand, string>);
const followed = computed(() => props.lettering.along?.part ?? props.lettering.into?.part ?? '');
const isAstray = computed(() => props.parts.inDesign.value.find(({ id }) => id === props.parts.object.value?.id)?.isAstray === true);

const drag = (change: Partial<Lettering>): void => props.parts.preview((object) => withLettering(object, change));
function set(change: Partial<Lettering>): void {
  props.parts.commit(say('Where it stands'), (object) => withLettering(object, change));
}

/** A text takes its place from a part, and keeps it when it is let go of. */
function standOn(next: Stand): void {
  const { text, heightMm } = props.lettering;
  const part = Object.keys(others.value)[0];
  const place: Partial<Lettering> = {
    // A circle on which the text takes about a third.
    around: next === 'circle' ? { diameterMm: Math.max(10, Math.round(text.length * heightMm * 0.6)), side: 'top' } : undefined,
    along: next === 'along' ? { part, heads: 'out', at: 0, awayMm: Math.round(2 * heightMm) / 10 } : undefined,
    into: next === 'into' ? { part, paddingMm: 2 } : undefined,
  };
  const box = props.parts.box.value;
  const { x, y } = bench.result?.cut?.originMm ?? { x: 0, y: 0 };
  const follows = next === 'along' || next === 'into';
  const didFollow = stand.value === 'along' || stand.value === 'into';
  props.parts.commit(say('Where it stands'), (object) => {
    const { placement, ...rest } = withLettering(object, place);
    if (follows) return rest as FilmedObject;
    return { ...rest, placement: didFollow && box !== undefined ? { a: 1, b: 0, c: 0, d: 1, e: (box.left + box.right) / 2 - x, f: (box.top + box.bottom) / 2 - y } : placement } as FilmedObject;
  });
}
const follow = (part: string): void => set(props.lettering.along !== undefined ? { along: { ...props.lettering.along, part } } : props.lettering.into !== undefined ? { into: { ...props.lettering.into, part } } : {});
</script>

<template>
  <label class="row"><span>Stands</span><ChoiceInput label="Stands" class="wide" :choices="choices" :model-value="stand" @choose="standOn" /></label>
  <template v-if="lettering.around !== undefined && stand === 'circle'">
    <QuantityInput kind="length" label="Circle diameter" :unit="settings.unit" :model-value="lettering.around.diameterMm" :least="1" :most="5000" @change="drag({ around: { ...lettering.around, diameterMm: $event } })" @done="set({ around: { ...lettering.around, diameterMm: $event } })" @cancel="bench.revert" />
    <label class="row"><span>Reads</span><ChoiceInput label="Reads" small :choices="SIDES" :model-value="lettering.around.side" @choose="set({ around: { diameterMm: lettering.around.diameterMm, side: $event } })" /></label>
  </template>
  <label v-if="followed !== ''" class="row"><span>Part</span><ChoiceInput label="Part that it follows" class="wide" :choices="others" :model-value="followed" @choose="follow" /></label>
  <template v-if="lettering.along !== undefined">
    <label class="row"><span>Heads point</span><ChoiceInput label="Heads point" class="narrow" small :choices="HEADS" :model-value="lettering.along.heads" @choose="set({ along: { ...lettering.along, heads: $event, at: $event === 'in' ? 0.5 : 0, awayMm: -lettering.along.awayMm } })" /></label>
    <QuantityInput label="Around it from the top" suffix="%" :model-value="100 * lettering.along.at" :least="0" :most="100" @change="drag({ along: { ...lettering.along, at: $event / 100 } })" @done="set({ along: { ...lettering.along, at: $event / 100 } })" @cancel="bench.revert" />
    <QuantityInput kind="length" label="Away from its edge" :unit="settings.unit" :model-value="lettering.along.awayMm" :least="-500" :most="500" @change="drag({ along: { ...lettering.along, awayMm: $event } })" @done="set({ along: { ...lettering.along, awayMm: $event } })" @cancel="bench.revert" />
  </template>
  <QuantityInput v-if="lettering.into !== undefined" kind="length" label="Free at its edge" :unit="settings.unit" :model-value="lettering.into.paddingMm" :least="0" :most="500" @change="drag({ into: { ...lettering.into, paddingMm: $event } })" @done="set({ into: { ...lettering.into, paddingMm: $event } })" @cancel="bench.revert" />
  <p v-if="isAstray" class="astray">{{ followed in others ? $say('There is no room for it in that part: choose another one, or less that stays free.') : $say('The part that it follows is gone: choose another one.') }}</p>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.wide {
  width: 168px;
}
.narrow {
  width: 120px;
}
.astray {
  margin: 2px 0;
  color: var(--ochre-text);
}
</style>
