<script setup lang="ts">
import { RectangleHorizontal } from '@lucide/vue';
import { computed } from 'vue';
import { cutAreaOf } from '../../core/layout/laySheet.ts';
import { SHEETS, type Layout, type SheetStock } from '../../core/layout/layout.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';

/** The stock as it lies in the machine, or the page of the printer. */
const props = defineProps<{ sheet: SheetStock; isPage: boolean }>();
const emit = defineEmits<{ drag: [change: Partial<Layout>]; set: [label: string, change: Partial<Layout>]; cancel: [] }>();
const settings = useSettings();
const ORIGINS = { topLeft: 'upper left', topRight: 'upper right', bottomLeft: 'lower left', bottomRight: 'lower right' } as const;
const length = (value: number): string => formatLength(mm(value), settings.unit);
/** Known from the stock, also before anything is cut. */
const area = computed(() => cutAreaOf(props.sheet));
const names = computed<Readonly<Record<string, string>>>(() => Object.fromEntries(SHEETS.map(({ name, widthMm, heightMm }) => [name, settings.unit === 'mm' ? name : `${name.replace(/[ ,]+\d.*$/, '')}, ${length(widthMm)} × ${length(heightMm)}`])));
const set = (change: Partial<SheetStock>): void => emit('set', 'Sheet', { sheet: { ...props.sheet, ...change } });
function choose(name: string): void {
  const stock = SHEETS.find((each) => each.name === name);
  if (stock !== undefined) emit('set', `Sheet: ${name}`, { sheet: stock });
}
</script>

<template>
  <TrayCard :title="isPage ? 'Page' : 'Sheet'" :about="`${isPage ? 'printed area' : 'cut area'} ${length(area.widthMm)} × ${length(area.heightMm)}`">
    <template #icon><RectangleHorizontal /></template>
    <ChoiceInput :model-value="sheet.name" :choices="names" label="Sheet" @choose="choose" />
    <QuantityInput kind="length" label="Width" :unit="settings.unit" :model-value="sheet.widthMm" :least="20" :most="10000" @change="emit('drag', { sheet: { ...sheet, widthMm: $event } })" @done="set({ widthMm: $event, name: 'Own size' })" @cancel="emit('cancel')" />
    <QuantityInput kind="length" label="Height" :unit="settings.unit" :model-value="sheet.heightMm" :least="20" :most="10000" @change="emit('drag', { sheet: { ...sheet, heightMm: $event } })" @done="set({ heightMm: $event, name: 'Own size' })" @cancel="emit('cancel')" />
    <label v-if="!isPage" class="row"><span>Origin</span><ChoiceInput class="narrow" small :model-value="sheet.origin" :choices="ORIGINS" label="Origin corner" @choose="set({ origin: $event })" /></label>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped>
.narrow {
  width: 130px;
}
</style>
