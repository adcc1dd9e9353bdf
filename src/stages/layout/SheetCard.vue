<script setup lang="ts">
import { RectangleHorizontal } from '@lucide/vue';
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { withMachine } from '../../core/edit/withMaterial.ts';
import { cutAreaOf } from '../../core/layout/laySheet.ts';
import { USUAL_TILES } from '../../core/layout/layout.ts';
import { isNested } from '../../core/layout/nestSheets.ts';
import { SHEETS, type SheetStock } from '../../core/layout/sheetStock.ts';
import { useWorkshop } from '../../stores/workshop.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** The machine, and the stock as it lies in it, or the page of the printer. */
const props = defineProps<{ isPage: boolean }>();
const { job, layout, drag, set, cancel, commit, unit, length } = useLayoutEdits();
const workshop = useWorkshop();
void workshop.load();
const ORIGINS = { topLeft: say('upper left'), topRight: say('upper right'), bottomLeft: say('lower left'), bottomRight: say('lower right') } as const;
const sheet = computed(() => layout.value.sheet);
/** Known from the stock, also before anything is cut. */
const area = computed(() => cutAreaOf(sheet.value));
const names = computed<Readonly<Record<string, string>>>(() => Object.fromEntries(SHEETS.map(({ name, widthMm, heightMm }) => [name, unit.value === 'mm' ? name : `${name.replace(/[ ,]+\d.*$/, '')}, ${length(widthMm)} × ${length(heightMm)}`])));
const NO_MACHINE = 'none';
const machines = computed(() => workshop.shelves.machines.filter(({ kind }) => (kind === 'printer') === props.isPage));
const machineNames = computed<Readonly<Record<string, string>>>(() => Object.fromEntries([[NO_MACHINE, say('no machine chosen')], ...[...machines.value, ...(layout.value.machine === undefined ? [] : [layout.value.machine])].map(({ id, name }) => [id, name])]));
const change = (to: Partial<SheetStock>): void => set(say('Sheet'), { sheet: { ...sheet.value, ...to } });
function choose(name: string): void {
  const stock = SHEETS.find((each) => each.name === name);
  if (stock !== undefined) set(say`Sheet: ${name}`, { sheet: stock });
}
function load(id: string): void {
  const machine = machines.value.find((each) => each.id === id);
  if (machine !== undefined) commit(say`Machine: ${machine.name}`, withMachine(job.value, machine));
  else set(say('No machine'), { machine: undefined });
}
const MANNERS = { overlap: say('each over the next'), butt: say('edge to edge') } as const;
const tiles = computed(() => layout.value.tiles);
</script>

<template>
  <TrayCard :title="isPage ? $say('Page') : $say('Sheet')" :about="`${isPage ? $say('printed area') : $say('cut area')} ${length(area.widthMm)} × ${length(area.heightMm)}`">
    <template #icon><RectangleHorizontal /></template>
    <ChoiceInput :model-value="layout.machine?.id ?? NO_MACHINE" :choices="machineNames" :label="isPage ? $say('Printer') : $say('Cutter')" @choose="load" />
    <ChoiceInput :model-value="sheet.name" :choices="names" label="Sheet" @choose="choose" />
    <QuantityInput kind="length" label="Width" :unit="unit" :model-value="sheet.widthMm" :least="20" :most="10000" @change="drag({ sheet: { ...sheet, widthMm: $event } })" @done="change({ widthMm: $event, name: $say('Own size') })" @cancel="cancel" />
    <QuantityInput kind="length" label="Height" :unit="unit" :model-value="sheet.heightMm" :least="20" :most="10000" @change="drag({ sheet: { ...sheet, heightMm: $event } })" @done="change({ heightMm: $event, name: $say('Own size') })" @cancel="cancel" />
    <template v-if="!isPage">
      <label class="row"><span>Origin</span><ChoiceInput class="narrow" small :model-value="sheet.origin" :choices="ORIGINS" label="Origin corner" @choose="change({ origin: $event })" /></label>
      <label v-if="!isNested(layout)" class="row"><span>Tiles where it is too large</span><ElSwitch size="small" :model-value="tiles !== undefined" aria-label="Tiles where it is too large" @change="set($say('Tiles'), { tiles: $event === true ? USUAL_TILES : undefined })" /></label>
      <template v-if="tiles !== undefined && !isNested(layout)">
        <label class="row"><span>They lie</span><ChoiceInput class="narrow" small :model-value="tiles.manner" :choices="MANNERS" label="How tiles meet" @choose="set($say('How tiles meet'), { tiles: { ...tiles, manner: $event } })" /></label>
        <QuantityInput v-if="tiles.manner === 'overlap'" kind="length" label="Overlap" :unit="unit" :model-value="tiles.overlapMm" :least="0" :most="100" @change="drag({ tiles: { ...tiles, overlapMm: $event } })" @done="set($say('Overlap of tiles'), { tiles: { ...tiles, overlapMm: $event } })" @cancel="cancel" />
      </template>
    </template>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.narrow {
  width: 130px;
}
</style>
