<script setup lang="ts">
import { asAppError } from '../../core/errors/appError.ts';
import { useKeeping } from '../../stores/keeping.ts';
import { tellError } from '../shared/tellError.ts';

/** A word when there has been work for a week or more that no copy holds. */
const keeping = useKeeping();
const later = (): void => void keeping.later().catch((error: unknown) => tellError(asAppError(error, 'storageFailed')));
</script>

<template>
  <p v-if="keeping.overdueDays !== undefined" class="reminder" role="note">
    <span>There is work of {{ keeping.overdueDays }} days that no copy holds: it is in this browser alone.</span>
    <RouterLink class="plain-button" :to="{ name: 'keeping' }">Make copies…</RouterLink>
    <button type="button" class="plain-button" @click="later">In a week</button>
  </p>
</template>

<style scoped>
.reminder {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 12px 0 0;
  padding: 6px 12px;
  border-left: 3px solid var(--ochre);
  background: var(--ochre-wash);
}
span {
  flex: 1;
}
</style>
