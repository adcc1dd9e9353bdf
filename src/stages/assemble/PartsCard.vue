<script setup lang="ts">
import { ArrowDown, ArrowUp, Circle, Copy, ImageIcon, Plus, RectangleHorizontal, Trash2, Type } from '@lucide/vue';
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus';
import { computed } from 'vue';
import TrayCard from '../../ui/TrayCard.vue';
import type { PartKind, Parts } from './useParts.ts';

/** What the design is made of, as it is seen: the highest first. */
const props = defineProps<{ parts: Parts }>();

const KINDS: readonly { readonly kind: PartKind; readonly name: string; readonly about: string; readonly icon: typeof Type }[] = [
  { kind: 'lettering', name: 'Lettering', about: 'a name, a number, a line on a circle', icon: Type },
  { kind: 'rectangle', name: 'Rectangle', about: 'a bar or a board, its corners round or sharp', icon: RectangleHorizontal },
  { kind: 'round', name: 'Round', about: 'a disc or an oval', icon: Circle },
];
const ICONS = { traced: ImageIcon, lettering: Type, figure: RectangleHorizontal, imported: ImageIcon, group: ImageIcon } as const;
const rows = computed(() => props.parts.parts.value.map((row) => ({ ...row, icon: ICONS[row.kind], isSelected: row.id === props.parts.selected.value })));
const canLeave = computed(() => props.parts.part.value !== undefined && props.parts.part.value.kind !== 'traced');
const place = computed(() => rows.value.findIndex(({ isSelected }) => isSelected));
</script>

<template>
  <TrayCard title="Parts" about="what the design is made of, the highest first">
    <ul class="parts" aria-label="Parts of the design">
      <li v-for="row in rows" :key="row.id">
        <button type="button" class="part" :class="{ on: row.isSelected }" :aria-pressed="row.isSelected" @click="parts.select(row.isSelected ? undefined : row.id)">
          <component :is="row.icon" :size="15" aria-hidden="true" />
          <span class="name">{{ row.name }}</span>
          <span v-if="row.cutsOut" class="what">cut out</span>
          <i v-for="colour in row.cutsOut ? [] : row.colours" :key="colour" class="swatch" :style="{ background: colour }" />
        </button>
      </li>
    </ul>
    <div class="row">
      <ElDropdown trigger="click" @command="parts.add">
        <button type="button" class="plain-button"><Plus :size="14" aria-hidden="true" /> Add a part</button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem v-for="{ kind, name, about, icon } in KINDS" :key="kind" :command="kind">
              <component :is="icon" :size="15" aria-hidden="true" /><span class="kind">{{ name }}</span><small>{{ about }}</small>
            </ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <span class="space" />
      <button type="button" class="icon" title="Lay higher" aria-label="Lay higher" :disabled="place <= 0" @click="parts.reorder(1)"><ArrowUp :size="15" /></button>
      <button type="button" class="icon" title="Lay lower" aria-label="Lay lower" :disabled="place < 0 || place === rows.length - 1" @click="parts.reorder(-1)"><ArrowDown :size="15" /></button>
      <button type="button" class="icon" title="Double it" aria-label="Double it" :disabled="!canLeave" @click="parts.duplicate"><Copy :size="15" /></button>
      <button type="button" class="icon" title="Take it off" aria-label="Take it off" :disabled="!canLeave" @click="parts.remove"><Trash2 :size="15" /></button>
    </div>
  </TrayCard>
</template>

<style scoped>
.parts {
  margin: 0 0 6px;
  padding: 0;
  list-style: none;
}
.part {
  display: flex;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 30px;
  padding: 3px 8px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.part.on {
  background: var(--felt);
  box-shadow: inset 3px 0 0 var(--madder);
}
.name {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.what,
small {
  color: var(--ink-soft);
}
.kind {
  margin: 0 8px;
}
.swatch {
  width: 12px;
  height: 12px;
  border: 1px solid var(--ink-soft);
}
.row {
  display: flex;
  align-items: center;
  gap: 4px;
}
.space {
  flex: 1;
}
.icon {
  display: inline-grid;
  place-items: center;
  width: 28px;
  height: 28px;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--ink);
  cursor: pointer;
}
.icon:disabled {
  color: var(--rule-strong);
  cursor: default;
}
.icon:hover:not(:disabled) {
  background: var(--felt);
}
</style>
