<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { ORDER_STATES, stateWord, type Order, type OrderState } from '../../core/job/order.ts';
import type { Process } from '../../core/process/processes.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import TrayCard from '../../ui/TrayCard.vue';
import { say } from '../../core/words/say.ts';

/** Whose order it is, when it is wanted and how far it has come. */
const props = defineProps<{ order: Order; process: Process }>();
const emit = defineEmits<{ change: [label: string, changes: Partial<Order>] }>();

const states = computed(() => Object.fromEntries(ORDER_STATES.map((state) => [state, stateWord(state, props.process)])) as Readonly<Record<OrderState, string>>);
const customer = ref('');
const notes = ref('');
watch(() => props.order, (order) => ([customer.value, notes.value] = [order.customer ?? '', order.notes ?? '']), { immediate: true });
const said = (text: string): string | undefined => (text.trim() === '' ? undefined : text);
const takeCustomer = (): void => {
  if (said(customer.value) !== props.order.customer) emit('change', say('Customer'), { customer: said(customer.value.slice(0, 200)) });
};
const takeNotes = (): void => {
  if (said(notes.value) !== props.order.notes) emit('change', say('Notes'), { notes: said(notes.value.slice(0, 4000)) });
};
const takeDue = (event: Event): void => emit('change', say('Wanted by'), { due: said((event.target as HTMLInputElement).value) });
</script>

<template>
  <TrayCard title="Order" :about="order.code === undefined ? undefined : $say`found on the shelf by its code ${order.code}`">
    <ChoiceInput :model-value="order.state ?? 'asked'" :choices="states" label="How far it has come" @choose="emit('change', 'How far it has come', { state: $event })" />
    <label class="field"><span>Customer</span><input v-model="customer" type="text" maxlength="200" @change="takeCustomer" /></label>
    <label class="field"><span>Wanted by</span><input type="date" :value="order.due ?? ''" @change="takeDue" /></label>
    <label class="field"><span>Notes</span><textarea v-model="notes" rows="4" maxlength="4000" @change="takeNotes" /></label>
  </TrayCard>
</template>

<style scoped>
.field {
  margin-top: 6px;
}
textarea {
  resize: vertical;
}
</style>

<style scoped src="../shared/textField.css" />
