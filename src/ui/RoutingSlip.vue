<script setup lang="ts">
/** A tab of the routing slip: a stage with its one live fact. */
export interface SlipTab {
  readonly stage: string;
  readonly name: string;
  readonly fact: string;
  readonly places?: number;
}

defineProps<{
  name: string;
  lines: readonly string[];
  tabs: readonly SlipTab[];
  current: string;
  undoLabel?: string | undefined;
  redoLabel?: string | undefined;
  saved: string;
}>();
const emit = defineEmits<{ go: [stage: string]; undo: []; redo: []; shelf: []; versions: []; help: [] }>();
</script>

<template>
  <nav class="slip" aria-label="Routing slip">
    <header>
      <button type="button" class="shelf" @click="emit('shelf')">‹ Shelf</button>
      <h1 :title="name">{{ name }}</h1>
      <p v-for="line in lines" :key="line">{{ line }}</p>
      <button type="button" class="shelf" :aria-current="current === 'versions' ? 'page' : undefined" @click="emit('versions')">Versions</button>
    </header>
    <button v-for="tab in tabs" :key="tab.stage" type="button" class="tab" :aria-current="tab.stage === current ? 'page' : undefined" @click="emit('go', tab.stage)">
      <span class="stage">{{ tab.name }}</span>
      <span class="fact">{{ tab.fact }}</span>
      <span v-if="tab.places !== undefined && tab.places > 0" class="places" :title="tab.places === 1 ? $say('1 place to look at') : $say`${tab.places} places to look at`">{{ tab.places > 999 ? '999+' : tab.places }}</span>
    </button>
    <div class="space" />
    <footer>
      <button type="button" class="turn" :disabled="undoLabel === undefined" :title="undoLabel === undefined ? $say('Nothing to undo') : $say`Undo: ${undoLabel}`" aria-label="Undo" @click="emit('undo')">
        <svg viewBox="0 0 20 20" width="18" height="18" aria-hidden="true"><path d="M7 4 3 8l4 4M3 8h9a4.5 4.5 0 0 1 0 9h-3" fill="none" stroke="currentColor" stroke-width="1.5" /></svg>
      </button>
      <button type="button" class="turn" :disabled="redoLabel === undefined" :title="redoLabel === undefined ? $say('Nothing to redo') : $say`Redo: ${redoLabel}`" aria-label="Redo" @click="emit('redo')">
        <svg viewBox="0 0 20 20" width="18" height="18" aria-hidden="true"><path d="m13 4 4 4-4 4M17 8H8a4.5 4.5 0 0 0 0 9h3" fill="none" stroke="currentColor" stroke-width="1.5" /></svg>
      </button>
      <button type="button" class="turn help" title="Help (F1)" @click="emit('help')">Help</button>
      <span class="saved" role="status">{{ saved }}</span>
    </footer>
  </nav>
</template>

<style scoped>
.slip {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--felt);
  border-right: 1px solid var(--rule);
  overflow-y: auto;
}
header {
  padding: 10px 14px 14px;
}
h1 {
  margin: 8px 0 4px;
  font-family: var(--serif);
  font-size: 21px;
  font-weight: 600;
  line-height: 1.15;
  overflow-wrap: anywhere;
}
p {
  margin: 0;
  color: var(--ink-soft);
  font-size: 12.5px;
}
.shelf {
  border: 0;
  padding: 0;
  background: none;
  color: var(--ink-soft);
  font: inherit;
  font-size: 12.5px;
  cursor: pointer;
}
p + .shelf {
  margin-top: 6px;
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
  text-underline-offset: 3px;
}
.tab {
  position: relative;
  display: grid;
  gap: 2px;
  padding: 9px 14px 10px;
  border: 0;
  border-top: 2px dotted var(--rule-strong);
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.tab[aria-current='page'] {
  background: var(--paper);
  box-shadow: inset 4px 0 0 var(--madder);
}
.tab:focus-visible,
.shelf:focus-visible,
.turn:focus-visible {
  outline: 2px solid var(--madder);
  outline-offset: -2px;
}
.stage {
  font-weight: 600;
}
.fact {
  color: var(--ink-soft);
  font-size: 12.5px;
}
.places {
  position: absolute;
  top: 10px;
  right: 12px;
  min-width: 18px;
  padding: 0 5px;
  border-radius: 9px;
  background: var(--ochre);
  color: #fff;
  font-size: 11px;
  text-align: center;
}
.space {
  flex: 1;
  border-top: 2px dotted var(--rule-strong);
}
footer {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 6px 10px;
  border-top: 1px solid var(--rule);
}
.turn {
  display: grid;
  place-items: center;
  width: 30px;
  height: 28px;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--ink);
  cursor: pointer;
}
.help {
  width: auto;
  padding: 0 6px;
  font: inherit;
  font-size: 12.5px;
}
.turn:disabled {
  opacity: 0.35;
  cursor: default;
}
.saved {
  margin-left: auto;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
