<script setup lang="ts">
import { Lock } from '@lucide/vue';
import { ElDropdown, ElDropdownItem, ElDropdownMenu, ElSwitch } from 'element-plus';
import { computed, ref } from 'vue';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { FlatSeparation } from '../../core/separate/separation.ts';
import { changeFilm, clearTone, countOfTones, dropTone, findTonesAnew, isKept, keepTone, mergeTone, partTone, smallTones, type FoundFilms } from '../../core/edit/paletteEdits.ts';
import { differenceOf } from '../../core/film/stock.ts';
import { useBench } from '../../stores/bench.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import CountChoices from './CountChoices.vue';
import { useParting } from './useParting.ts';
import { mayLetGo } from './ways.ts';
import { decimals, say } from '../../core/words/say.ts';

/** The tones of the art, which film each becomes, and how films meet. */
const props = defineProps<{ separation: FlatSeparation; found: FoundFilms; picking: boolean }>();
const emit = defineEmits<{ pick: []; pickFor: [tone: number]; frame: [on: boolean] }>();
const bench = useBench();

const part = computed(() => bench.part as TracedPart);
const commit = (label: string, next: TracedPart): void => void (next !== part.value && bench.commitPart(label, next));
const withTones = (count: number | 'auto'): TracedPart => findTonesAnew(part.value, props.found, count);
/** Another number of tones is found anew. */
async function setCount(count: number | 'auto'): Promise<void> {
  if (!(await mayLetGo(part.value))) return bench.revert();
  bench.previewPart(withTones(count));
  bench.commitPreview(say('Number of tones'));
}
async function findAnew(): Promise<void> {
  if (await mayLetGo(part.value)) commit(say('Tones found anew'), findTonesAnew(part.value, props.found));
}

const hasGround = computed(() => props.found.tones.some(({ film }) => film === null));
const count = computed(() => countOfTones(props.found.tones));

const filmOf = (id: string | null) => props.found.films.find((film) => film.id === id);
/** A film of which nothing is in the art now is still the film that it was called. */
const nameOnRack = (id: string): string => part.value.films.find((film) => film.id === id)?.name ?? say('not in the art');
const rows = computed(() =>
  props.found.tones.map((tone, at) => {
    const film = filmOf(tone.film);
    const first = props.found.tones.findIndex((other) => other.film === tone.film);
    return { ...tone, at, filmName: tone.film === null ? say('Background') : (film?.name ?? nameOnRack(tone.film)), kept: isKept(part.value, props.found, at), filmColour: film?.colour, isFirst: first === at, percent: tone.share * 100, off: film === undefined || film.colour === tone.colour ? undefined : differenceOf(tone.colour, film.colour) };
  }),
);
const shareWords = (percent: number): string => (percent >= 10 ? `${Math.round(percent)} %` : percent >= 0.1 ? `${decimals(percent, 1)} %` : '< 0.1 %');

const keptWords = computed(() => {
  const kept = rows.value.filter((row) => row.kept).length;
  return kept === 0 ? '' : say`; ${kept} ${kept === 1 ? say('stays') : say('stay')} when found anew`;
});
const small = computed(() => smallTones(props.found).slice(0, 3));
const { note, framing, byColour, byPlace } = useParting(() => props.found, (on) => emit('frame', on));
defineExpose({ byPlace });

type Action = 'ground' | 'own' | 'keep' | 'pick' | 'drop' | 'colour' | 'place' | `with:${number}`;
function act(at: number, action: Action): void {
  const name = rows.value[at].filmName;
  if (action === 'ground') commit(say`${name} is background`, clearTone(part.value, props.found, at));
  else if (action === 'keep') commit(rows.value[at].kept ? say`${name} let go` : say`${name} held`, keepTone(part.value, props.found, at, !rows.value[at].kept));
  else if (action === 'pick') emit('pickFor', at);
  else if (action === 'colour') void byColour(at);
  else if (action === 'place') framing.value = at;
  else if (action === 'own') commit(say('Give it its own film'), partTone(part.value, props.found, at));
  else if (action === 'drop') commit(say`${name} taken out`, dropTone(part.value, props.found, at));
  else {
    const into = Number(action.slice(5));
    commit(say`${name} with ${rows.value[into].filmName}`, mergeTone(part.value, props.found, at, into));
  }
}

const dragged = ref<number>();
const over = ref<number>();
function dropOn(at: number): void {
  if (dragged.value !== undefined && dragged.value !== at) act(dragged.value, `with:${at}`);
  dragged.value = over.value = undefined;
}
function rename(id: string | null, event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim();
  const film = filmOf(id);
  if (film !== undefined && name !== '' && name !== film.name) commit(say('Film name'), changeFilm(part.value, props.found, film.id, { name }));
}
const recolour = (id: string | null, event: Event): void => {
  if (id !== null) commit(say('Film colour'), changeFilm(part.value, props.found, id, { colour: (event.target as HTMLInputElement).value }));
};
</script>

<template>
  <TrayCard title="Tones" :about="separation.palette === undefined ? $say`${count} found, the ${hasGround ? '' : $say('clear ')}background counted${keptWords}` : $say`held as they are${keptWords}`">
    <QuantityInput label="Tones with background" :model-value="count" :least="1" :most="32" :digits="0" @change="bench.previewPart(withTones(Math.round($event)))" @done="setCount(Math.round($event))" @cancel="bench.revert" />
    <CountChoices :separation="separation" :found="found" :count="count" @take="setCount" />
    <label class="row"><span>Find colours automatically</span><ElSwitch size="small" :model-value="separation.count === 'auto' && separation.palette === undefined" @change="setCount($event === true ? 'auto' : count)" /></label>
    <ul aria-label="Tones and their films">
      <li
        v-for="row in rows" :key="row.at" draggable="true" :class="{ over: over === row.at && dragged !== row.at, ground: row.film === null }"
        @dragstart="dragged = row.at" @dragend="dragged = over = undefined" @dragover.prevent="over = row.at" @dragleave="over = undefined" @drop.prevent="dropOn(row.at)"
      >
        <i class="tone" :style="{ background: row.colour }" :title="$say`in the picture ${row.colour}`" />
        <template v-if="row.film !== null && row.isFirst">
          <input class="name" size="1" :value="row.filmName" maxlength="120" :aria-label="$say`Name of film ${row.filmName}`" @change="rename(row.film, $event)" />
          <input type="color" :value="row.filmColour" :aria-label="$say`Colour of film ${row.filmName}`" @change="recolour(row.film, $event)" />
        </template>
        <span v-else class="name">{{ row.film === null ? $say('Background, not cut') : $say`with ${row.filmName}` }}</span>
        <span v-if="row.kept" class="kept" role="img" aria-label="Locked" title="Locked: stays when the others are found again"><Lock /></span>
        <span v-if="row.off !== undefined" class="off" :class="{ far: row.off >= 10 }" :title="$say`Colour difference of the film from the tone: ${decimals(row.off, 1)} (CIEDE2000; 1 is just seen)`">Δ {{ decimals(row.off, row.off < 10 ? 1 : 0) }}</span>
        <span class="share">{{ shareWords(row.percent) }}</span>
        <ElDropdown trigger="click" placement="bottom-end" @command="act(row.at, $event as Action)">
          <button type="button" class="more" :aria-label="$say`What to do with tone ${row.at + 1}, ${row.filmName}`">⋯</button>
          <template #dropdown>
            <ElDropdownMenu>
              <ElDropdownItem v-if="row.film !== null" command="ground">Make it background</ElDropdownItem>
              <ElDropdownItem v-if="row.film === null || !row.isFirst" command="own">Give it its own film</ElDropdownItem>
              <ElDropdownItem v-for="other in rows.filter((each) => each.film !== null && each.isFirst && each.film !== row.film)" :key="other.at" :command="`with:${other.at}`">Cut with {{ other.filmName }}</ElDropdownItem>
              <ElDropdownItem command="keep" divided>{{ row.kept ? $say('Unlock this colour') : $say('Lock this colour') }}</ElDropdownItem>
              <ElDropdownItem command="pick">Pick its colour from the art</ElDropdownItem>
              <ElDropdownItem command="colour">Split by its two colours</ElDropdownItem>
              <ElDropdownItem v-if="row.film !== null" command="place">Split by place: frame its areas</ElDropdownItem>
              <ElDropdownItem v-if="rows.length > 2" command="drop" divided>Remove, fill from neighbours</ElDropdownItem>
            </ElDropdownMenu>
          </template>
        </ElDropdown>
      </li>
    </ul>
    <p>Drop a tone on another to cut both from one film.</p>
    <p v-if="note !== undefined" role="status" class="note">{{ note }}</p>
    <p v-if="framing !== undefined" role="status" class="note">Drag a frame around the areas of {{ rows[framing]?.filmName }} that become a film of their own. Esc leaves.</p>
    <div v-for="each in small" :key="each.tone" class="row">
      <span>{{ rows[each.tone].filmName }} is only {{ shareWords(each.share * 100) }}; {{ rows[each.into].filmName }} is {{ each.difference < 8 ? 'near' : 'nearest' }}</span>
      <button type="button" class="plain-button" :title="$say`One film less; the colour there changes by ${decimals(each.difference, 1)}`" @click="act(each.tone, `with:${each.into}`)">Merge</button>
    </div>
    <div class="row">
      <button type="button" class="plain-button" :aria-pressed="picking" @click="emit('pick')">{{ picking ? $say('Click the art…') : $say('Add a tone from the art') }}</button>
      <button v-if="separation.palette !== undefined" type="button" class="plain-button" @click="findAnew">Find again</button>
    </div>
  </TrayCard>
</template>

<style scoped src="./cards.css" />

<style scoped>
ul {
  margin: 6px 0 2px;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 32px;
  border-bottom: 1px solid var(--rule);
  cursor: grab;
}
li.over {
  background: var(--madder-wash);
}
.tone {
  flex: none;
  width: 18px;
  height: 22px;
  border: 1px solid var(--rule-strong);
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.ground .name {
  color: var(--ink-soft);
}
input.name {
  border: 1px solid transparent;
  border-radius: 4px;
  padding: 2px 4px;
  background: none;
  color: var(--ink);
  font: inherit;
}
input.name:hover,
input.name:focus {
  border-color: var(--rule-strong);
}
.kept {
  flex: none;
  width: 13px;
  height: 13px;
  color: var(--woad);
}
.off {
  color: var(--ink-soft);
  font-size: 11.5px;
  font-variant-numeric: tabular-nums;
}
.off.far {
  color: var(--ochre-text, var(--ink));
  font-weight: 600;
}
.note {
  border-left: 4px solid var(--woad);
  padding-left: 8px;
  color: var(--ink);
}
.share {
  color: var(--ink-soft);
  font-size: 12px;
  font-variant-numeric: tabular-nums;
}
.more {
  border: 0;
  padding: 2px 6px;
  background: none;
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}
</style>
