<script setup lang="ts">
import { ref } from 'vue';

/**
 * The upright line between two views; `modelValue` is its place as a share of the table's width. It is held by its grip at the foot alone, so that a
 * brush or a crop can start anywhere on the table.
 */
const props = defineProps<{ modelValue: number; left: string; right: string }>();
const emit = defineEmits<{ 'update:modelValue': [share: number] }>();

const line = ref<HTMLElement>();
const held = ref(false);
const clamp = (share: number): number => Math.max(0.02, Math.min(0.98, share));
function move(event: PointerEvent): void {
  const table = line.value?.parentElement?.getBoundingClientRect();
  if (!held.value || table === undefined) return;
  emit('update:modelValue', clamp((event.clientX - table.left) / table.width));
}
function down(event: PointerEvent): void {
  event.stopPropagation();
  held.value = true;
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
}
function key(event: KeyboardEvent): void {
  const by = { ArrowLeft: -0.02, ArrowRight: 0.02 }[event.key];
  if (by === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  emit('update:modelValue', clamp(props.modelValue + by * (event.shiftKey ? 5 : 1)));
}
</script>

<template>
  <div
    ref="line" class="divider" :style="{ left: `${modelValue * 100}%` }" role="slider" tabindex="0" :aria-label="$say`Divider between ${left} and ${right}`" :aria-valuenow="Math.round(modelValue * 100)"
    @pointerdown="down" @pointermove.stop="move" @pointerup.stop="held = false" @pointercancel="held = false" @keydown="key"
  >
    <span class="name left"><slot name="left">{{ left }}</slot></span><span class="grip" /><span class="name right"><slot name="right">{{ right }}</slot></span>
  </div>
</template>

<style scoped>
.divider {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 13px;
  margin-left: -6.5px;
  pointer-events: none;
}
.divider::before {
  content: '';
  position: absolute;
  inset: 0 5.5px;
  background: var(--ink);
  box-shadow: 0 0 0 1px color-mix(in srgb, var(--paper) 70%, transparent);
}
.grip {
  position: absolute;
  bottom: 4px;
  left: -4.5px;
  width: 22px;
  height: 32px;
  border-radius: 8px;
  pointer-events: auto;
  cursor: ew-resize;
  touch-action: none;
  background: var(--ink);
  background-image: linear-gradient(90deg, transparent 7px, var(--paper) 7px 9px, transparent 9px 13px, var(--paper) 13px 15px, transparent 15px);
  background-size: 100% 14px;
  background-position: center;
  background-repeat: no-repeat;
}
.divider:focus-visible {
  outline: 2px solid var(--madder);
}
.name {
  position: absolute;
  bottom: 10px;
  padding: 1px 7px;
  border-radius: 8px;
  background: var(--ink);
  color: var(--paper);
  font-size: 11.5px;
  pointer-events: none;
  white-space: nowrap;
}
.left {
  right: 22px;
}
.right {
  left: 22px;
}
</style>
