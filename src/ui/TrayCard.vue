<script setup lang="ts">
defineProps<{
  title: string;
  about?: string | undefined;
  /** Marks the card's edge: something to look at. */
  mark?: 'warning' | undefined;
}>();
</script>

<template>
  <section class="tray-card" :class="mark" :aria-label="title">
    <header>
      <span class="icon"><slot name="icon" /></span>
      <div class="names">
        <h3>{{ title }}</h3>
        <p v-if="about !== undefined">{{ about }}</p>
      </div>
      <slot name="switch" />
    </header>
    <div v-if="$slots['default']" class="body"><slot /></div>
  </section>
</template>

<style scoped>
.tray-card {
  padding: 12px 16px;
  border-bottom: 1px solid var(--rule);
}
.warning {
  border-left: 5px solid var(--ochre);
  padding-left: 11px;
}
header {
  display: flex;
  align-items: flex-start;
  gap: 12px;
}
.icon:empty {
  display: none;
}
.icon {
  width: 18px;
  padding-top: 2px;
}
.names {
  flex: 1;
  min-width: 0;
}
h3 {
  margin: 0;
  font-size: 13.5px;
  font-weight: 600;
}
p {
  margin: 1px 0 0;
  color: var(--ink-soft);
  font-size: 12.5px;
}
.body {
  margin-top: 8px;
  display: grid;
  gap: 4px;
}
</style>
