<script setup lang="ts">
import { ElDrawer } from 'element-plus';
import { computed, ref } from 'vue';
import { findHelp, findKeys, type HelpPlace } from './helpTexts.ts';
import { say } from '../../core/words/say.ts';

/** Help on where one is, searched while typing, and all keys. */
const props = defineProps<{ modelValue: boolean; place: HelpPlace }>();
const emit = defineEmits<{ 'update:modelValue': [open: boolean]; tour: [] }>();
const typed = ref('');
const texts = computed(() => findHelp(typed.value, props.place));
const keys = computed(() => findKeys(typed.value));
const PLACES: Readonly<Record<HelpPlace, string>> = { shelf: say('Shelf'), picture: say('Picture'), clean: say('Clean'), separate: say('Separate'), assemble: say('Assemble'), layout: say('Lay out'), handoff: say('Hand off'), machine: say('Machine'), ticket: say('Ticket'), versions: say('Versions'), workshop: say('Workshop'), keeping: say('Safe keeping'), everywhere: say('Everywhere') };
</script>

<template>
  <ElDrawer :model-value="modelValue" title="Help" size="420" @update:model-value="emit('update:modelValue', $event)">
    <div class="help">
      <input v-model="typed" type="search" placeholder="What do you want to do?" aria-label="Search the help" />
      <p class="tour"><button type="button" class="plain-button" @click="emit('tour')">Make a first shirt, step by step</button></p>
      <p v-if="texts.length === 0 && keys.length === 0" class="none">Nothing says that. Try another word, such as “background”, “mirror” or “size”.</p>
      <details v-for="(text, k) in texts" :key="text.title" :open="k === 0 || typed !== ''">
        <summary><b>{{ text.title }}</b> <span>{{ PLACES[text.place] }}</span></summary>
        <p>{{ text.words }}</p>
      </details>
      <section v-if="keys.length > 0" aria-label="Keys">
        <h3>Keys</h3>
        <template v-for="{ title, keys: own } in keys" :key="title">
          <h4>{{ title }}</h4>
          <dl>
            <template v-for="{ keys: pressed, does } in own" :key="pressed"><dt><kbd>{{ pressed }}</kbd></dt><dd>{{ does }}</dd></template>
          </dl>
        </template>
      </section>
    </div>
  </ElDrawer>
</template>

<style scoped>
.help {
  display: grid;
  gap: 4px;
}
input {
  height: 34px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 0 10px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
.tour {
  margin: 6px 0 8px;
}
.none {
  color: var(--ink-soft);
}
details {
  border-bottom: 1px solid var(--rule);
  padding: 6px 0;
}
summary {
  cursor: pointer;
}
summary span {
  float: right;
  color: var(--ink-soft);
  font-size: 12px;
}
details p {
  margin: 4px 0 2px;
}
h3 {
  margin: 16px 0 0;
  font-family: var(--serif);
  font-size: 17px;
}
h4 {
  margin: 8px 0 2px;
}
dl {
  display: grid;
  grid-template-columns: 170px 1fr;
  gap: 3px 10px;
  margin: 0;
}
dd {
  margin: 0;
}
kbd {
  font: inherit;
  font-weight: 600;
}
</style>
