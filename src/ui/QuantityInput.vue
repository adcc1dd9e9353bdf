<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { mm, mmFromInch } from '../core/units/length.ts';
import { formatArea, formatLength, MM2_PER_INCH2, parseLength, numberWords, type LengthUnit } from '../core/units/parseLength.ts';
import { say } from '../core/words/say.ts';

/**
 * A number with its unit: typed (lengths with fractions, in either unit), dragged sideways on its unit, or stepped with the arrow keys, with Shift by
 * ten. `change` comes while it is dragged, `done` once at the end; Escape while dragging goes back.
 */
const props = withDefaults(
  defineProps<{
    modelValue: number;
    label: string;
    /** `length` is stored in mm, `area` in mm², and shown in the unit of the bench; anything else is shown as it is. */
    kind?: 'length' | 'area' | 'plain';
    suffix?: string;
    unit?: LengthUnit;
    least?: number;
    most?: number;
    step?: number;
    digits?: number;
    disabled?: boolean;
  }>(),
  { kind: 'plain', suffix: '', unit: 'mm', least: 0, most: 10_000, step: 1, digits: 1, disabled: false },
);
const emit = defineEmits<{ change: [value: number]; done: [value: number]; cancel: [] }>();

const isLength = computed(() => props.kind === 'length');
const shown = computed(() => (props.kind === 'area' ? formatArea(props.modelValue, props.unit, props.digits) : isLength.value ? formatLength(mm(props.modelValue), props.unit) : `${numberWords(props.modelValue, props.digits)}${props.suffix === '' || props.suffix === '°' ? props.suffix : ` ${props.suffix}`}`));
const text = ref(shown.value);
const wrong = ref(false);
const editing = ref(false);
watch(shown, (value) => {
  if (!editing.value) text.value = value;
});

const clamp = (value: number): number => Math.max(props.least, Math.min(props.most, value));
const stepSize = computed(() => (isLength.value && props.unit === 'in' ? mmFromInch(1 / 16) : props.step));

function read(): number | undefined {
  if (isLength.value) return parseLength(text.value, props.unit);
  const [, written] = /(mm²|in²|mm2|in2)\s*$/i.exec(text.value) ?? [];
  const typed = text.value.replace(props.kind === 'area' ? (written ?? '') : props.suffix, '').replace(',', '.').trim();
  const perUnit = props.kind === 'area' && (written === undefined ? props.unit === 'in' : /^in/i.test(written)) ? MM2_PER_INCH2 : 1;
  const value = typed === '' ? NaN : Number(typed) * perUnit;
  return Number.isFinite(value) ? value : undefined;
}

/** Takes what was typed. A field that was only visited takes nothing: what it shows is rounded. */
function take(): void {
  if (!editing.value) return;
  editing.value = false;
  const value = read();
  wrong.value = value === undefined || value < props.least - 1e-9 || value > props.most + 1e-9;
  if (value === undefined || wrong.value) return;
  if (Math.abs(value - props.modelValue) > 1e-9) emit('done', value);
  else text.value = shown.value;
}

function stepBy(direction: 1 | -1, event: KeyboardEvent): void {
  event.preventDefault();
  const next = clamp(props.modelValue + direction * stepSize.value * (event.shiftKey ? 10 : 1));
  editing.value = false;
  wrong.value = false;
  emit('done', Math.round(next * 1e6) / 1e6);
}

function leave(): void {
  editing.value = false;
  wrong.value = false;
  text.value = shown.value;
}

let dragFrom: { x: number; value: number } | undefined;
function dragStart(event: PointerEvent): void {
  if (props.disabled || event.button !== 0) return;
  dragFrom = { x: event.clientX, value: props.modelValue };
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
}
const dragged = (event: PointerEvent): number => {
  const steps = Math.round((event.clientX - (dragFrom?.x ?? 0)) / (event.shiftKey ? 16 : 4));
  return Math.round(clamp((dragFrom?.value ?? 0) + steps * stepSize.value) * 1e6) / 1e6;
};
function dragMove(event: PointerEvent): void {
  if (dragFrom !== undefined && dragged(event) !== props.modelValue) emit('change', dragged(event));
}
function dragEnd(event: PointerEvent): void {
  if (dragFrom === undefined) return;
  const value = dragged(event);
  const moved = value !== dragFrom.value;
  dragFrom = undefined;
  if (moved) emit('done', value);
}
function dragCancel(): void {
  if (dragFrom === undefined) return;
  dragFrom = undefined;
  emit('cancel');
}
useEventListener('keydown', (event: KeyboardEvent) => {
  if (event.key !== 'Escape' || dragFrom === undefined) return;
  event.stopPropagation();
  dragCancel();
}, { capture: true });
const range = computed(() => (props.kind === 'area' ? say`${formatArea(props.least, props.unit)} to ${formatArea(props.most, props.unit)}` : isLength.value ? say`${formatLength(mm(props.least), props.unit)} to ${formatLength(mm(props.most), props.unit)}` : say`${props.least} to ${props.most}`));
</script>

<template>
  <label class="quantity" :class="{ wrong, disabled }">
    <span class="name" title="Drag sideways to change" @pointerdown="dragStart" @pointermove="dragMove" @pointerup="dragEnd" @pointercancel="dragCancel">{{ label }}</span>
    <input
      v-model="text" :disabled="disabled" inputmode="text" autocomplete="off" spellcheck="false" :aria-invalid="wrong" :title="wrong ? $say`Takes ${range}` : undefined"
      :data-settled="editing ? undefined : ''"
      @input="editing = true" @focus="($event.target as HTMLInputElement).select()" @blur="take" @keydown.enter="take" @keydown.escape.stop="leave" @keydown.up="stepBy(1, $event)" @keydown.down="stepBy(-1, $event)"
    />
    <span v-if="wrong" class="note" role="alert">takes {{ range }}</span>
  </label>
</template>

<style scoped>
.quantity {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: baseline;
  gap: 2px 12px;
  min-height: 28px;
}
.name {
  cursor: ew-resize;
  user-select: none;
  touch-action: none;
}
input {
  width: 88px;
  padding: 2px 2px 1px;
  border: 0;
  border-bottom: 1px solid var(--ink);
  background: none;
  color: var(--ink);
  font: inherit;
  font-weight: 600;
  text-align: right;
  font-variant-numeric: tabular-nums;
}
input:focus {
  outline: none;
  border-bottom: 2px solid var(--madder);
  padding-bottom: 0;
}
.wrong input {
  border-color: var(--ochre);
}
.note {
  grid-column: 1 / -1;
  color: var(--ochre-text);
  font-size: 12px;
  text-align: right;
}
.disabled {
  opacity: 0.5;
}
</style>
