<script setup lang="ts">
import { ref } from 'vue';
import { formatLength, type LengthUnit } from '../core/units/parseLength.ts';
import { mm } from '../core/units/length.ts';
import { decimals, grouped } from '../core/words/say.ts';

/** A roll of film as the rack shows it. */
export interface Roll {
  readonly id: string;
  readonly name: string;
  readonly colour: string;
  readonly pieces: number;
  readonly areaMm2: number;
  /** Findings of the cut check on it. */
  readonly places: number;
}

const props = defineProps<{ rolls: readonly Roll[]; chosen?: string | undefined; unit: LengthUnit; fixed?: boolean }>();
const emit = defineEmits<{ choose: [id: string]; move: [id: string, to: number] }>();

/** More rolls than this stand closer together, smaller. */
const MANY = 5;

const held = ref<string>();
function drop(to: number): void {
  if (held.value !== undefined && props.rolls[to].id !== held.value) emit('move', held.value, to);
  held.value = undefined;
}
/** With Alt the arrow keys move a roll along the rack. */
function key(event: KeyboardEvent, at: number): void {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (by === undefined || !event.altKey || props.fixed === true || props.rolls[at + by] === undefined) return;
  event.preventDefault();
  emit('move', props.rolls[at].id, at + by);
}

const areaText = (areaMm2: number, unit: LengthUnit): string => (unit === 'mm' ? `${decimals(areaMm2 / 100, areaMm2 < 1000 ? 1 : 0)} cm²` : `${formatLength(mm(areaMm2 / 25.4), 'in')}²`);
</script>

<template>
  <div class="rack" :class="{ many: rolls.length > MANY }" role="list" aria-label="Rack: films in the order in which they go on">
    <button
      v-for="(roll, at) in rolls" :key="roll.id" type="button" role="listitem" class="roll" :title="roll.name" :class="{ chosen: roll.id === chosen }" :draggable="fixed !== true && rolls.length > 1"
      @click="emit('choose', roll.id)" @keydown="key($event, at)" @dragstart="held = roll.id" @dragend="held = undefined" @dragover.prevent @drop.prevent="drop(at)"
    >
      <svg width="116" height="28" viewBox="0 0 116 28" aria-hidden="true">
        <rect x="0.5" y="1.5" width="104" height="25" rx="4" :fill="roll.colour" stroke="var(--rule-strong)" />
        <rect x="1" y="4" width="100" height="5" fill="#fff" opacity="0.16" />
        <ellipse cx="104" cy="14" rx="10.5" ry="12.8" :fill="roll.colour" stroke="var(--rule-strong)" />
        <circle cx="104" cy="14" r="6.4" fill="#e9d9b8" /><circle cx="104" cy="14" r="3.4" fill="#fff" />
      </svg>
      <span class="name">{{ roll.name }}<i v-if="roll.places > 0" class="pin" :title="roll.places === 1 ? $say('1 place to look at') : $say`${roll.places} places to look at`">{{ roll.places > 999 ? '999+' : roll.places }}</i></span>
      <span class="facts">{{ roll.pieces === 1 ? $say('1 piece') : $say`${grouped(roll.pieces)} pieces` }} · {{ areaText(roll.areaMm2, unit) }}</span>
    </button>
    <p v-if="rolls.length > 1" class="note" :title="$say`Goes on left to right, bottom first${fixed === true ? '' : $say('; drag to change')}`">goes on left to right, bottom first{{ fixed === true ? '' : $say('; drag to change') }}</p>
    <slot />
  </div>
</template>

<style scoped>
.rack {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 84px;
  padding: 8px 14px;
  border-top: 1px solid var(--rule);
  background: var(--felt);
  overflow-x: auto;
}
.roll {
  display: grid;
  justify-items: start;
  gap: 2px;
  border: 0;
  border-radius: 6px;
  padding: 4px;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.roll:focus-visible {
  outline: 2px solid var(--madder);
}
.name {
  font-size: 12.5px;
  font-weight: 600;
}
.chosen .name {
  color: var(--madder-text);
}
.note {
  flex: 0 1 auto;
  min-width: 0;
  margin: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.roll {
  flex: none;
}
.facts,
.name {
  white-space: nowrap;
}
@container (max-width: 680px) {
  .note {
    display: none;
  }
}
.many {
  gap: 2px;
}
.many .roll {
  flex: 1 1 84px;
  min-width: 62px;
  max-width: 124px;
  overflow: hidden;
}
.many svg {
  width: 100%;
  height: 22px;
}
.many .name,
.many .facts {
  max-width: 100%;
  overflow: hidden;
  font-size: 11.5px;
  text-overflow: ellipsis;
}
.many .note {
  display: none;
}
.facts,
.note {
  color: var(--ink-soft);
  font-size: 12px;
}
.pin {
  display: inline-block;
  min-width: 16px;
  margin-left: 6px;
  padding: 0 4px;
  border-radius: 8px;
  background: var(--ochre);
  color: #fff;
  font-size: 11px;
  font-style: normal;
  text-align: center;
}
</style>
