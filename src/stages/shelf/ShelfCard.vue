<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus';
import { computed, nextTick, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue';
import { stateWord } from '../../core/job/order.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import type { ShelfEntry } from '../../storage/ports.ts';
import { useShelf } from '../../stores/shelf.ts';
import { SHELF_ACTIONS, type ShelfAction } from './shelfActions.ts';
import { say } from '../../core/words/say.ts';

const props = defineProps<{ entry: ShelfEntry }>();
const emit = defineEmits<{ open: []; act: [action: ShelfAction] }>();

const image = ref<string>();
const release = (): void => {
  if (image.value !== undefined) URL.revokeObjectURL(image.value);
};
const shelf = useShelf();
watch(() => props.entry, async (entry) => {
  const bytes = await shelf.thumbnailOf(entry).catch(() => undefined);
  if (props.entry !== entry) return;
  release();
  image.value = bytes === undefined ? undefined : URL.createObjectURL(new Blob([bytes], { type: 'image/png' }));
}, { immediate: true });
onBeforeUnmount(release);

const hasMenu = ref(false);
const menu = useTemplateRef<InstanceType<typeof ElDropdown>>('menu');
async function openMenu(): Promise<void> {
  hasMenu.value = true;
  await nextTick();
  menu.value?.handleOpen();
}
const process = computed(() => PROCESSES[props.entry.job.process].name);
/** Whose order it is and how far it has come, where that was said. */
const order = computed(() => {
  const { order: own, process: by } = props.entry.job;
  if (own?.state === undefined && own?.customer === undefined && own?.due === undefined) return '';
  return [stateWord(own.state ?? 'asked', by), own.customer, own.due === undefined ? undefined : say`by ${own.due}`].filter((word) => word !== undefined).join(' · ');
});
</script>

<template>
  <article class="card">
    <button type="button" class="open" :aria-label="$say`Open ${entry.job.name}`" @click="emit('open')">
      <span class="window"><img v-if="image !== undefined" :src="image" alt="" /><span v-else>no picture yet</span></span>
    </button>
    <div class="label">
      <!-- The name opens the job as its picture does; by keyboard the picture's button is the one. -->
      <div class="names" @click="emit('open')">
        <h2>{{ entry.job.name }}</h2>
        <p>{{ entry.job.blank.name }} · {{ process }}</p>
        <p v-if="order !== ''" class="order">{{ order }}</p>
      </div>
      <!-- A menu costs more than the rest of a card: it is made when it is first asked for. -->
      <button v-if="!hasMenu" type="button" class="more" aria-haspopup="menu" :aria-label="$say`More for ${entry.job.name}`" @click="openMenu">···</button>
      <ElDropdown v-else ref="menu" trigger="click" @command="emit('act', $event as ShelfAction)">
        <button type="button" class="more" :aria-label="$say`More for ${entry.job.name}`">···</button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem v-for="(name, action) in SHELF_ACTIONS" :key="action" :command="action" :divided="action === 'remove'">{{ name }}</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
    </div>
    <p v-if="entry.job.keywords.length + (entry.job.collections?.length ?? 0) > 0" class="keywords"><span v-for="name in entry.job.collections" :key="`in ${name}`" class="collection" :title="$say`in the collection ${name}`">{{ name }}</span><span v-for="word in entry.job.keywords" :key="word">{{ word }}</span></p>
  </article>
</template>

<style scoped>
.open {
  display: block;
  width: 100%;
  border: 1px solid var(--rule);
  border-radius: 6px;
  padding: 0;
  background: none;
  cursor: pointer;
}
.open:focus-visible {
  outline: 2px solid var(--madder);
  outline-offset: 2px;
}
.open:hover {
  border-color: var(--madder);
}
.window {
  display: grid;
  place-items: center;
  height: 168px;
  border-radius: 5px;
  background: repeating-linear-gradient(135deg, #fbf8f3 0 8px, #e9dfcd 8px 9px);
  color: #5d5364;
}
img {
  max-width: calc(100% - 20px);
  max-height: 152px;
}
.label {
  display: flex;
  gap: 6px;
  margin-top: 8px;
}
.names {
  cursor: pointer;
  flex: 1;
  min-width: 0;
}
h2 {
  margin: 0;
  font-family: var(--serif);
  font-size: 16px;
}
p {
  margin: 1px 0 0;
  color: var(--ink-soft);
  font-size: 12.5px;
}
.more {
  width: 30px;
  height: 24px;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--ink);
  font-weight: 700;
  cursor: pointer;
}
.more:hover,
.more:focus-visible {
  background: var(--felt);
  outline: none;
}
.keywords span {
  display: inline-block;
  margin: 4px 4px 0 0;
  padding: 0 7px;
  border: 1px solid var(--rule);
  border-radius: 9px;
  font-size: 11.5px;
}
.keywords .collection {
  border-color: var(--woad);
  border-radius: 3px;
}
</style>
