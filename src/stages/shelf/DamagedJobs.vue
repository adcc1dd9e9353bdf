<script setup lang="ts">
import { ElMessage, ElMessageBox } from 'element-plus';
import { explain } from '../../core/errors/explain.ts';
import type { DamagedEntry } from '../../storage/ports.ts';
import { useShelf } from '../../stores/shelf.ts';
import { download } from '../shared/download.ts';
import { safely } from '../shared/safely.ts';
import { say } from '../../core/words/say.ts';

/** Stored jobs that cannot be read: repaired, saved as they are, or deleted. */
const shelf = useShelf();

const repair = (row: DamagedEntry): Promise<void> =>
  safely(async () => {
    const lost = await shelf.repair(row);
    ElMessage.success({ message: lost.length === 0 ? say`“${row.name}” is on the shelf again, whole.` : say`“${row.name}” is on the shelf again. As in a new job: ${lost.join(', ')}.`, duration: 10_000, showClose: true });
  });
const saveDamaged = (row: DamagedEntry): Promise<void> =>
  safely(async () => {
    const { fileName, bytes } = await shelf.damagedFile(row);
    download(fileName, bytes, 'application/zip');
  });
const discard = (row: DamagedEntry): Promise<void> =>
  safely(async () => {
    const answer = await ElMessageBox.confirm(say`“${row.name}” cannot be brought back afterwards.`, say('Delete for good'), { confirmButtonText: say('Delete'), cancelButtonText: say('Cancel'), type: 'warning' }).catch(() => 'cancel');
    if (answer === 'confirm') await shelf.discard(row.id);
  });
</script>

<template>
  <section v-if="shelf.damaged.length > 0" class="damaged" aria-label="Jobs that cannot be read">
    <h2>{{ shelf.damaged.length === 1 ? $say('One job cannot be read') : $say`${shelf.damaged.length} jobs cannot be read` }}</h2>
    <p>They are stored as they are. Repair makes a new job of everything in it that can be read, with its picture.</p>
    <ul>
      <li v-for="row in shelf.damaged" :key="row.id">
        <span><b>{{ row.name }}</b> {{ explain(row.reason).what }}</span>
        <button v-if="row.reason.code !== 'newerVersion'" type="button" class="plain-button" @click="repair(row)">Repair</button>
        <button type="button" class="plain-button" @click="saveDamaged(row)">Save as a file</button>
        <button type="button" class="plain-button" @click="discard(row)">Delete for good</button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.damaged {
  margin: 16px 0;
  padding: 12px 16px;
  border: 1px solid var(--ochre);
  border-radius: 8px;
}
.damaged h2 {
  margin: 0 0 4px;
  font-size: 15px;
}
.damaged p {
  margin: 0 0 8px;
  color: var(--ink-soft);
}
.damaged ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.damaged li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 0;
}
.damaged li span {
  flex: 1;
}
</style>
