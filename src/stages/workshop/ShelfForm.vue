<script setup lang="ts">
import { ElSwitch } from 'element-plus';
import { computed } from 'vue';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { valueAt, withValue, type FieldGroup, type ShelfField } from './shelfFields.ts';

/** The values of one entry of a shelf. */
const props = defineProps<{ entry: object; groups: readonly FieldGroup[] }>();
const emit = defineEmits<{ change: [entry: object] }>();
const settings = useSettings();
const shown = computed(() => props.groups.map(({ title, fields }) => ({ title, fields: fields.filter(({ isOf }) => isOf?.(props.entry) !== false) })).filter(({ fields }) => fields.length > 0));
const textOf = ({ path }: ShelfField): string => String(valueAt(props.entry, path) ?? '');
const numberOf = ({ path }: ShelfField): number => Number(valueAt(props.entry, path) ?? 0);
/** Nothing, where there may be nothing, takes the value away. */
function set({ path, none }: ShelfField, value: string | number | boolean): void {
  emit('change', withValue(props.entry, path, none !== undefined && (value === '' || value === 0) ? undefined : value));
}
function rename(field: ShelfField, event: Event): void {
  const input = event.target as HTMLInputElement;
  const name = input.value.trim().slice(0, 120);
  if (name === '') input.value = textOf(field);
  else set(field, name);
}
</script>

<template>
  <TrayCard v-for="group in shown" :key="group.title" :title="group.title">
    <template v-for="field in group.fields" :key="field.path.join('.')">
      <QuantityInput
        v-if="field.kind === 'length' || field.kind === 'number'" :kind="field.kind === 'length' ? 'length' : 'plain'" :label="field.label" :unit="settings.unit" :suffix="field.suffix ?? ''"
        :model-value="numberOf(field)" :least="field.none === undefined ? (field.least ?? 0) : 0" :most="field.most ?? 10000" :step="field.step ?? 1" :digits="field.digits ?? 2" @done="set(field, $event)"
      />
      <label v-else-if="field.kind === 'choice'" class="row"><span>{{ field.label }}</span><ChoiceInput class="choice" small :model-value="textOf(field)" :choices="field.choices ?? {}" :label="field.label" @choose="set(field, $event)" /></label>
      <label v-else-if="field.kind === 'switch'" class="row"><span>{{ field.label }}</span><ElSwitch size="small" :model-value="valueAt(entry, field.path) === true" :aria-label="field.label" @change="set(field, $event === true)" /></label>
      <label v-else-if="field.kind === 'colour'" class="row"><span>{{ field.label }}</span><input type="color" :value="textOf(field)" @change="set(field, ($event.target as HTMLInputElement).value)" /></label>
      <label v-else class="field"><span>{{ field.label }}</span><input :value="textOf(field)" maxlength="120" @change="rename(field, $event)" /></label>
      <p v-if="field.none !== undefined && field.kind !== 'choice' && numberOf(field) === 0" class="none">{{ field.none }}</p>
    </template>
  </TrayCard>
</template>

<style scoped src="../shared/rows.css" />

<style scoped src="../shared/textField.css" />

<style scoped>
.choice {
  width: 160px;
}
.none {
  margin: -2px 0 4px;
  color: var(--ink-soft);
  font-size: 12px;
  text-align: right;
}
</style>
