<script setup lang="ts">
import { computed, ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import { explain } from '../../core/errors/explain.ts';
import { useSettings } from '../../stores/settings.ts';
import { useStock } from '../../stores/stock.ts';
import { useWorkshop } from '../../stores/workshop.ts';
import type { StockFilm } from '../../core/film/stock.ts';
import { workshopSchema } from '../../core/workshop/workshop.ts';
import { download } from '../shared/download.ts';
import { chooseFiles } from '../shared/pickFiles.ts';
import { tellError } from '../shared/tellError.ts';
import { undoNotice } from '../shared/undoNotice.ts';
import ShelfForm from './ShelfForm.vue';
import { completedRow, fieldsOf, freshRow, newId, rowWords, SHELF_ABOUT, SHELF_NAMES, type ShelfName, type ShelfRow } from './shelves.ts';
import { say } from '../../core/words/say.ts';

/** What the workshop has: its films, what they are made of, its machines and blanks. */
const workshop = useWorkshop();
const stock = useStock();
const settings = useSettings();
void workshop.load();

const shelf = ref<ShelfName>('films');
const chosen = ref(0);
const rows = computed<readonly ShelfRow[]>(() => (shelf.value === 'films' ? stock.films : workshop.shelves[shelf.value]));
const row = computed(() => rows.value[Math.min(chosen.value, rows.value.length - 1)]);
const counts = computed(() => ({ films: stock.films.length, materials: workshop.shelves.materials.length, machines: workshop.shelves.machines.length, blanks: workshop.shelves.blanks.length }));
const words = computed(() => rows.value.map((each) => rowWords(each, settings.unit, workshop.shelves.materials)));
const groups = computed(() => fieldsOf(shelf.value, workshop.shelves.materials));

/** The shelf that is looked at with other rows; what does not pass is told and not kept. */
async function keep(next: readonly ShelfRow[]): Promise<void> {
  if (shelf.value === 'films') return stock.save(next as readonly StockFilm[]);
  const parsed = workshopSchema.safeParse({ ...workshop.shelves, [shelf.value]: next });
  if (parsed.success) await workshop.save(parsed.data);
  else tellError(asAppError(parsed.error, 'unexpected'));
}
const change = (entry: object): Promise<void> => keep(rows.value.map((each) => (each === row.value ? completedRow(entry as ShelfRow) : each)));
async function add(): Promise<void> {
  await keep([...rows.value, freshRow(shelf.value, newId(shelf.value, rows.value.length), row.value)]);
  chosen.value = rows.value.length - 1;
}
async function remove(): Promise<void> {
  const [before, of, name] = [rows.value, shelf.value, words.value[Math.min(chosen.value, words.value.length - 1)]?.name ?? ''];
  await keep(before.filter((each) => each !== row.value));
  undoNotice(say`“${name}” is off the shelf.`, () => {
    shelf.value = of;
    void keep(before);
  });
}
function look(name: ShelfName): void {
  shelf.value = name;
  chosen.value = 0;
}

const saveFile = (): void => download('workshop.limner-workshop.json', new TextEncoder().encode(workshop.asFile()), 'application/json');
async function takeFile(): Promise<void> {
  const [file] = await chooseFiles('.json', false);
  if (file === undefined) return;
  const [before, name] = [workshop.asFile(), file.name];
  try {
    await workshop.take(await file.text(), name);
    undoNotice(say`The shelves are those of “${name}”.`, () => void workshop.take(before, say('the shelves before')));
  } catch (error) {
    tellError(asAppError(error, 'unexpected'));
  }
}
</script>

<template>
  <main class="workshop">
    <header>
      <RouterLink class="plain-button" :to="{ name: 'shelf' }">All jobs</RouterLink>
      <div class="title">
        <h1>Workshop</h1>
        <p>the same for all jobs; a job keeps what it was made with</p>
      </div>
      <button type="button" class="plain-button" @click="takeFile">Take from a file…</button>
      <button type="button" class="plain-button" @click="saveFile">Save as a file</button>
    </header>
    <p v-if="workshop.error !== undefined" role="alert" class="alert">{{ explain(workshop.error).what }} {{ explain(workshop.error).todo }}</p>
    <div class="boards">
      <nav aria-label="Shelves">
        <button v-for="(label, name) in SHELF_NAMES" :key="name" type="button" :aria-current="shelf === name" @click="look(name)"><b>{{ label }}</b><span>{{ counts[name] }}</span></button>
      </nav>
      <section class="rows" :aria-label="SHELF_NAMES[shelf]">
        <div class="head"><p>{{ SHELF_ABOUT[shelf] }}</p><button type="button" class="plain-button" @click="add">Add</button></div>
        <ul v-if="rows.length > 0">
          <li v-for="(line, k) in words" :key="k">
            <button type="button" :aria-current="rows[k] === row" @click="chosen = k"><i v-if="line.colour !== undefined" :style="{ background: line.colour }" /><b>{{ line.name }}</b><span>{{ line.about }}</span></button>
          </li>
        </ul>
        <p v-else class="empty">Nothing on this shelf. Add what you have.</p>
      </section>
      <aside v-if="row !== undefined" :aria-label="$say`Settings of ${words[rows.indexOf(row)]?.name ?? ''}`">
        <ShelfForm :entry="row" :groups="groups" @change="change" />
        <footer><button type="button" class="plain-button" @click="remove">Take off the shelf</button></footer>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.workshop {
  display: flex;
  flex-direction: column;
  height: 100%;
}
header {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 14px 24px;
  border-bottom: 1px solid var(--rule);
}
.title {
  flex: 1;
}
h1 {
  margin: 0;
  font-family: var(--serif);
  font-size: 24px;
  line-height: 1.1;
}
.title p,
.head p,
.empty {
  margin: 0;
  color: var(--ink-soft);
}
.alert {
  margin: 8px 24px;
  color: var(--ochre-text);
}
.boards {
  flex: 1;
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) 320px;
  min-height: 0;
}
nav {
  display: flex;
  flex-direction: column;
  padding: 16px 0;
  border-right: 1px solid var(--rule);
  background: var(--felt);
}
nav button,
li button {
  display: flex;
  align-items: baseline;
  gap: 10px;
  width: 100%;
  border: 0;
  padding: 9px 16px;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
nav button span {
  margin-left: auto;
  color: var(--ink-soft);
}
nav button[aria-current='true'],
li button[aria-current='true'] {
  background: var(--paper);
  box-shadow: inset 3px 0 0 var(--madder);
}
li button[aria-current='true'] {
  background: var(--felt);
}
.rows {
  overflow-y: auto;
  padding: 12px 24px;
}
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  padding-bottom: 8px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li + li {
  border-top: 1px solid var(--rule);
}
li b {
  font-weight: 600;
}
li span {
  margin-left: auto;
  color: var(--ink-soft);
  text-align: right;
}
li i {
  align-self: center;
  flex: none;
  width: 18px;
  height: 18px;
  border: 1px solid var(--rule-strong);
}
aside {
  overflow-y: auto;
  border-left: 1px solid var(--rule);
}
footer {
  padding: 12px 16px 24px;
}
</style>
