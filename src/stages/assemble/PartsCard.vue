<script setup lang="ts">
import { ArrowDown, ArrowUp, Blend, Boxes, Copy, FileInput, Group, ImageIcon, Layers2, Plus, Shapes, SquaresSubtract, SquaresUnite, Trash2, Type, Ungroup, Waypoints } from '@lucide/vue';
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus';
import { computed, ref, watch } from 'vue';
import { FIGURE_FORMS, type FigureForm } from '../../core/figure/figure.ts';
import TrayCard from '../../ui/TrayCard.vue';
import type { PartKind } from './newPart.ts';
import type { Parts, PartRow } from './useParts.ts';
import { counted, say } from '../../core/words/say.ts';

/** What the design is made of, as it is seen: the highest first. */
const props = defineProps<{ parts: Parts }>();
const emit = defineEmits<{ bring: [what: 'drawing' | 'picture']; draw: [] }>();

type Choice = PartKind | 'drawing' | 'picture' | 'pen';
const GROUPS: readonly { readonly name: string; readonly choices: readonly { readonly choice: Choice; readonly name: string; readonly about: string }[] }[] = [
  {
    name: say('Set and bring in'),
    choices: [
      { choice: 'lettering', name: say('Lettering'), about: say('a name, a number, a line on a circle') },
      { choice: 'picture', name: say('Another picture'), about: say('traced beside this one, with a recipe of its own') },
      { choice: 'drawing', name: say('Drawing'), about: say('outlines of an SVG, DXF or plotter file at their true size') },
      { choice: 'pen', name: say('Drawn shape'), about: say('with the pen: a click for a corner, a drag for a curve') },
    ],
  },
  {
    name: say('Of everything'),
    choices: [
      { choice: 'base', name: say('Base under all'), about: say('a border or a board that is pressed first') },
      { choice: 'holes', name: say('Holes through all'), about: say('in every film, to hang it by') },
    ],
  },
  { name: say('Figures'), choices: (Object.keys(FIGURE_FORMS) as FigureForm[]).map((form) => ({ choice: form, name: FIGURE_FORMS[form].name, about: FIGURE_FORMS[form].about })) },
];
const ICONS = { traced: ImageIcon, lettering: Type, figure: Shapes, imported: FileInput, base: Layers2, holes: Waypoints, group: Boxes } as const;
const rows = computed(() => props.parts.rows.value.map((row) => ({ ...row, icon: ICONS[row.kind], isSelected: props.parts.chosen.value.includes(row.id) })));
/** Of a long list only the lines in sight are on the page: a line is so high, and so many are in sight at most. */
const LINE_PX = 31;
const IN_SIGHT = 40;
const list = ref<HTMLElement>();
const scrolled = ref(0);
const windowed = computed(() => {
  const count = rows.value.length;
  if (count <= IN_SIGHT) return { rows: rows.value, before: 0, after: 0 };
  const from = Math.max(0, Math.min(count - IN_SIGHT, Math.floor(scrolled.value / LINE_PX) - 12));
  return { rows: rows.value.slice(from, from + IN_SIGHT), before: from * LINE_PX, after: (count - from - IN_SIGHT) * LINE_PX };
});
const outer = computed(() => rows.value.filter(({ depth }) => depth === 0));
const place = computed(() => outer.value.findIndex(({ isSelected }) => isSelected));
const canGroup = computed(() => props.parts.groupable.value.length > 1);

/** What is selected on the table is brought into sight in the list. */
watch(() => props.parts.object.value?.id, (id) => {
  const at = rows.value.findIndex((row) => row.id === id);
  const element = list.value;
  if (at < 0 || element === undefined || rows.value.length <= IN_SIGHT) return;
  if (at * LINE_PX < element.scrollTop || (at + 1) * LINE_PX > element.scrollTop + element.clientHeight) element.scrollTop = at * LINE_PX;
});
function choose(choice: Choice): void {
  if (choice === 'drawing' || choice === 'picture') emit('bring', choice);
  else if (choice === 'pen') emit('draw');
  else if (choice === 'base') props.parts.addBase();
  else props.parts.add(choice);
}
function press(row: PartRow, event: MouseEvent): void {
  if (event.shiftKey || event.ctrlKey || event.metaKey) props.parts.toggle(row.id);
  else if (props.parts.chosen.value.length === 1 && props.parts.chosen.value[0] === row.id) props.parts.select();
  else props.parts.select(row.id);
}
const said = ({ operations, isLost, cutsOut }: PartRow): string => [cutsOut ? say('cut out') : '', operations === 0 ? '' : counted(operations, say('operation'), say('operations')), isLost ? say('look') : ''].filter((each) => each !== '').join(', ');
</script>

<template>
  <TrayCard title="Parts" about="what the design is made of, the highest first">
    <ul ref="list" class="parts" aria-label="Parts of the design" @scroll.passive="scrolled = list?.scrollTop ?? 0">
      <li v-if="windowed.before > 0" :style="{ height: `${windowed.before}px` }" aria-hidden="true" />
      <li v-for="row in windowed.rows" :key="row.id">
        <button type="button" class="part" :class="{ on: row.isSelected, lost: row.isLost }" :style="{ paddingLeft: `${8 + 14 * row.depth}px` }" :aria-pressed="row.isSelected" @click="press(row, $event)">
          <component :is="row.icon" :size="15" aria-hidden="true" />
          <span class="name">{{ row.name }}</span>
          <span v-if="said(row) !== ''" class="what">{{ said(row) }}</span>
          <i v-for="colour in row.colours" :key="colour" class="swatch" :style="{ background: colour }" />
        </button>
      </li>
      <li v-if="windowed.after > 0" :style="{ height: `${windowed.after}px` }" aria-hidden="true" />
    </ul>
    <div class="row">
      <ElDropdown trigger="click" placement="bottom-end" popper-class="part-chooser" @command="choose($event as Choice)">
        <button type="button" class="plain-button"><Plus :size="14" aria-hidden="true" /> Add a part</button>
        <template #dropdown>
          <ElDropdownMenu>
            <div v-for="group in GROUPS" :key="group.name" class="group">
              <h3>{{ group.name }}</h3>
              <ElDropdownItem v-for="{ choice, name, about } in group.choices" :key="choice" :command="choice"><span><b>{{ name }}</b><br /><small>{{ about }}</small></span></ElDropdownItem>
            </div>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <span class="space" />
      <button type="button" class="icon" title="Lay higher" aria-label="Lay higher" :disabled="parts.object.value === undefined || place <= 0" @click="parts.reorder(1)"><ArrowUp :size="15" /></button>
      <button type="button" class="icon" title="Lay lower" aria-label="Lay lower" :disabled="parts.object.value === undefined || place < 0 || place === outer.length - 1" @click="parts.reorder(-1)"><ArrowDown :size="15" /></button>
      <button type="button" class="icon" title="Double it" aria-label="Double it" :disabled="!parts.canDouble.value" @click="parts.duplicate"><Copy :size="15" /></button>
      <button type="button" class="icon" title="Take it off" aria-label="Take it off" :disabled="!parts.removable.value" @click="parts.remove"><Trash2 :size="15" /></button>
    </div>
    <div v-if="canGroup || parts.object.value?.kind === 'group'" class="row together" role="group" aria-label="Put together">
      <button v-if="canGroup" type="button" class="plain-button" @click="parts.group()"><Group :size="14" aria-hidden="true" /> Group</button>
      <button v-if="canGroup" type="button" class="icon" title="Join into one outline" aria-label="Join into one outline" @click="parts.group('join')"><SquaresUnite :size="15" /></button>
      <button v-if="canGroup" type="button" class="icon" title="Cut the upper out of the lowest" aria-label="Cut the upper out of the lowest" @click="parts.group('cutOut')"><SquaresSubtract :size="15" /></button>
      <button v-if="canGroup" type="button" class="icon" title="Keep what they have in common" aria-label="Keep what they have in common" @click="parts.group('common')"><Blend :size="15" /></button>
      <button v-if="parts.object.value?.kind === 'group'" type="button" class="plain-button" @click="parts.ungroup"><Ungroup :size="14" aria-hidden="true" /> Take apart</button>
    </div>
  </TrayCard>
</template>

<style>
/* The chooser floats outside this component. */
.part-chooser .el-dropdown-menu {
  columns: 3;
  column-gap: 0;
  width: 760px;
  max-width: calc(100vw - 24px);
  max-height: calc(100vh - 90px);
  overflow-y: auto;
  padding: 10px 6px;
}
.part-chooser .el-dropdown-menu__item {
  padding: 4px 12px;
  white-space: normal;
  line-height: 1.3;
}
</style>

<style scoped>
.parts {
  max-height: 220px;
  margin: 0 0 6px;
  padding: 0;
  overflow-y: auto;
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
.part:focus-visible,
.icon:focus-visible {
  outline: 2px solid var(--madder);
  outline-offset: -2px;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.what,
small {
  color: var(--ink-soft);
}
.what {
  font-size: 12.5px;
}
.lost .what {
  color: var(--ochre-text);
}
.group {
  break-inside: avoid-column;
}
.group:last-child {
  break-inside: auto;
}
h3 {
  margin: 2px 12px 4px;
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-soft);
}
.swatch + .swatch {
  margin-left: -11px;
}
.swatch {
  flex: none;
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
