<script setup lang="ts">
import { ArrowDown, ArrowUp, Plus, Trash2 } from '@lucide/vue';
import { ElDropdown, ElDropdownItem, ElDropdownMenu, ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { inverseOf, placed } from '../../core/geometry/affine.ts';
import type { OperationKind } from '../../core/operate/operation.ts';
import type { OperationNote } from '../../core/operate/operate.ts';
import { useSettings } from '../../stores/settings.ts';
import TrayCard from '../../ui/TrayCard.vue';
import OperationSettings from './OperationSettings.vue';
import { OPERATION_GROUPS, OPERATIONS, operationWords } from './operationWords.ts';
import type { Operations } from './useOperations.ts';
import type { Parts } from './useParts.ts';
import type { Pieces } from './usePieces.ts';
import { counted } from '../../core/words/say.ts';

/** What is done to the selected part, in its order; each entry stays changeable. */
const props = defineProps<{ parts: Parts; pieces: Pieces; operations: Operations }>();
const emit = defineEmits<{ show: [places: readonly { readonly x: number; readonly y: number }[]] }>();
const settings = useSettings();
const rows = computed(() =>
  props.operations.list.value.map((operation) => {
    const note = props.operations.notes.value.find((each) => each.operation === operation.id);
    return { operation, ...OPERATIONS[operation.kind], words: operationWords(operation, settings.unit, props.parts.films.value), isOpen: operation.id === props.operations.open.value, lost: note === undefined || note.lost === 0 ? undefined : note };
  }),
);
const hasNearest = ({ marks }: OperationNote): boolean => marks.length > 0;
const own = computed(() => props.parts.inDesign.value.find(({ id }) => id === props.parts.object.value?.id));
/** Where the pieces lie that would be taken instead, mm of the design. */
function nearestPlaces({ marks }: OperationNote): { x: number; y: number }[] {
  const part = own.value;
  return part === undefined ? [] : marks.flatMap(({ nearest }) => (nearest === undefined ? [] : [placed(inverseOf(part.toMarks), nearest.x, nearest.y)]));
}
const strays = computed(() => (own.value === undefined ? 0 : props.pieces.straysIn(own.value.id).length));
function takeNearest(note: OperationNote): void {
  const id = props.parts.object.value?.id;
  if (id !== undefined) props.pieces.takeNearest(id, note);
}
</script>

<template>
  <TrayCard title="What is done to it" :about="rows.length === 0 ? $say('nothing yet: it lies as it is') : $say('in this order, again after every change below')">
    <ol v-if="rows.length > 0" class="list" aria-label="Operations">
      <li v-for="({ operation, name, icon, words, isOpen, lost }, index) in rows" :key="operation.id" class="operation" :class="{ open: isOpen, off: operation.enabled === false }">
        <div class="head">
          <component :is="icon" class="icon" :size="16" aria-hidden="true" />
          <button type="button" class="names" :aria-expanded="isOpen" @click="operations.unfold(isOpen ? undefined : operation.id)"><span class="name">{{ name }}</span><span class="words">{{ words }}</span></button>
          <ElSwitch size="small" :model-value="operation.enabled !== false" :aria-label="$say`${name} on`" @change="operations.set(operation, { enabled: $event === true })" />
        </div>
        <p v-if="lost !== undefined" class="lost" role="status">
          {{ operation.kind === 'fill' ? $say`${counted(lost.lost, $say('place'), $say('places'))} that nothing encloses by now.` : $say`${counted(lost.lost, $say('piece'), $say('pieces'))} not found by now: a change before it took ${lost.lost === 1 ? $say('it') : $say('them')} away.` }}
          <template v-if="hasNearest(lost)">
            <button type="button" class="plain-button" @click="emit('show', nearestPlaces(lost))">Show the nearest</button>
            <button type="button" class="plain-button" @click="takeNearest(lost)">Take {{ lost.lost === 1 ? $say('it') : $say('them') }}</button>
          </template>
        </p>
        <template v-if="isOpen">
          <OperationSettings :parts="parts" :operations="operations" :operation="operation" />
          <div class="tools">
            <button type="button" :disabled="index === 0" @click="operations.move(operation.id, -1)"><ArrowUp :size="14" /> earlier</button>
            <button type="button" :disabled="index === rows.length - 1" @click="operations.move(operation.id, 1)"><ArrowDown :size="14" /> later</button>
            <button type="button" @click="operations.remove(operation)"><Trash2 :size="14" /> remove</button>
          </div>
        </template>
      </li>
    </ol>
    <p v-if="own !== undefined && strays > 0" class="lost" role="status">{{ counted(strays, $say('stray'), $say('strays')) }}: small, and away from everything. <button type="button" class="plain-button" @click="pieces.pickStrays(own.id)">Select {{ strays === 1 ? $say('it') : $say('them') }}</button></p>
    <p v-if="operations.splitting.value" class="lost" role="status">Draw a line across the part on the table. Esc leaves.</p>
    <div>
      <ElDropdown trigger="click" placement="top-end" popper-class="operation-chooser" @command="operations.add($event as OperationKind)">
        <button type="button" class="plain-button"><Plus :size="14" aria-hidden="true" /> Do something to it</button>
        <template #dropdown>
          <ElDropdownMenu>
            <div v-for="group in OPERATION_GROUPS" :key="group.name" class="group">
              <h3>{{ group.name }}</h3>
              <ElDropdownItem v-for="kind in group.kinds" :key="kind" :command="kind">
                <component :is="OPERATIONS[kind].icon" class="choice" :size="16" aria-hidden="true" /><span><b>{{ OPERATIONS[kind].name }}</b><br /><small>{{ OPERATIONS[kind].about }}</small></span>
              </ElDropdownItem>
            </div>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
    </div>
  </TrayCard>
</template>

<style>
/* The chooser floats outside this component. */
.operation-chooser .el-dropdown-menu {
  columns: 3;
  column-gap: 0;
  width: 800px;
  max-width: calc(100vw - 24px);
  padding: 10px 6px;
}
.operation-chooser .el-dropdown-menu__item {
  align-items: flex-start;
  padding: 5px 12px;
  white-space: normal;
  line-height: 1.3;
}
</style>

<style scoped src="../shared/stepList.css" />

<style scoped>
.list {
  margin: 0 -16px 6px;
  padding: 0;
  list-style: none;
}
.operation {
  padding: 7px 16px;
  border-top: 1px solid var(--rule);
}
.operation.open {
  background: var(--felt-soft);
}
.head {
  display: flex;
  align-items: flex-start;
  gap: 10px;
}
.icon {
  margin-top: 3px;
}
small {
  color: var(--ink-soft);
}
.lost {
  margin: 4px 0;
  color: var(--ochre-text);
  font-size: 12.5px;
}
.group {
  break-inside: avoid;
}
.group + .group {
  break-before: column;
}
.group h3 {
  margin: 2px 12px 4px;
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-soft);
}
.choice {
  flex: none;
  margin: 2px 10px 0 0;
}
</style>
