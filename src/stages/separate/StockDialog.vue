<script setup lang="ts">
import { ElDialog } from 'element-plus';
import { ref } from 'vue';
import { explain } from '../../core/errors/explain.ts';
import { useStock } from '../../stores/stock.ts';

/** The workshop's own list of films. */
const isOpen = defineModel<boolean>({ required: true });
const stock = useStock();
const name = ref('');
const colour = ref('#9e2f4b');

const valueOf = (event: Event): string => (event.target as HTMLInputElement).value.trim();
function add(): void {
  if (name.value.trim() === '') return;
  void stock.add(name.value.trim(), colour.value);
  name.value = '';
}
</script>

<template>
  <ElDialog v-model="isOpen" title="Films on the shelf" width="440" append-to-body>
    <p class="about">The films that you have, for all jobs. Kept in this browser.</p>
    <p v-if="stock.error !== undefined" role="alert">{{ explain(stock.error).what }} {{ explain(stock.error).todo }}</p>
    <ul aria-label="Films on the shelf">
      <li v-for="film in stock.films" :key="film.id">
        <input type="color" :value="film.colour" :aria-label="$say`Colour of ${film.name}`" @change="stock.change(film.id, { colour: valueOf($event) })" />
        <input class="name" :value="film.name" maxlength="120" :aria-label="$say`Name of ${film.name}`" @change="valueOf($event) !== '' && stock.change(film.id, { name: valueOf($event) })" />
        <button type="button" class="plain-button" :aria-label="$say`Remove ${film.name}`" @click="stock.remove(film.id)">Remove</button>
      </li>
    </ul>
    <form @submit.prevent="add">
      <input v-model="colour" type="color" aria-label="Colour of the new film" />
      <input v-model="name" class="name" maxlength="120" placeholder="Another film" aria-label="Name of the new film" />
      <button type="submit" class="plain-button" :disabled="name.trim() === ''">Add</button>
    </form>
  </ElDialog>
</template>

<style scoped src="./cards.css" />

<style scoped>
ul {
  max-height: 46vh;
  margin: 10px 0;
  padding: 0;
  overflow-y: auto;
  list-style: none;
}
li,
form {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 36px;
}
.about {
  margin: 0;
  color: var(--ink-soft);
}
.name {
  flex: 1;
  min-width: 0;
  border: 1px solid var(--rule);
  border-radius: 4px;
  padding: 4px 8px;
  background: none;
  color: var(--ink);
  font: inherit;
}
</style>
