<script setup lang="ts">
/** A stage's place on the bench: light table, rack and readout in the middle, tray on the right. */
defineProps<{ title: string; aside?: string | undefined }>();
</script>

<template>
  <div class="stage">
    <div class="middle">
      <div v-if="$slots['views']" class="views"><slot name="views" /></div>
      <div class="table"><slot name="table" /></div>
      <slot name="rack" />
      <slot name="readout" />
    </div>
    <aside class="tray" :aria-label="title">
      <header>
        <h2 class="stage-title">{{ title }}</h2>
        <span v-if="aside !== undefined" class="aside">{{ aside }}</span>
      </header>
      <div class="cards"><slot name="tray" /></div>
      <footer v-if="$slots['foot']"><slot name="foot" /></footer>
    </aside>
  </div>
</template>

<style scoped>
.stage {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 304px;
  min-height: 0;
}
.middle {
  container-type: inline-size;
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.table {
  position: relative;
  flex: 1;
  display: grid;
  min-height: 0;
}
.views {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 4px 10px;
  padding: 4px 8px;
  border-bottom: 1px solid var(--rule);
  background: var(--felt);
}
.tray {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-left: 1px solid var(--rule);
  background: var(--paper);
}
.tray > header {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  padding: 12px 16px 10px;
  border-bottom: 1px solid var(--rule);
}
.aside {
  color: var(--ink-soft);
  font-size: 12.5px;
}
.cards {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
}
.tray > footer {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding: 10px 16px;
  border-top: 1px solid var(--rule);
}
</style>
