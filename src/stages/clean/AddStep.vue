<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus';
import { STEP_KINDS, STEP_NAMES, type StepKindName } from '../../core/job/recipe.ts';
import { STEP_ICONS } from './stepIcons.ts';

const emit = defineEmits<{ choose: [kind: StepKindName] }>();
const kinds = Object.keys(STEP_NAMES) as StepKindName[];
</script>

<template>
  <ElDropdown trigger="click" placement="top-start" @command="emit('choose', $event as StepKindName)">
    <button type="button" class="plain-button main">Add a step</button>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem v-for="kind in kinds" :key="kind" :command="kind">
          <component :is="STEP_ICONS[kind]" class="icon" />
          <span><b>{{ STEP_NAMES[kind] }}</b><br /><small>{{ STEP_KINDS[kind].about }}</small></span>
        </ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style scoped>
.icon {
  width: 17px;
  margin-right: 12px;
}
small {
  color: var(--ink-soft);
}
span {
  line-height: 1.35;
  padding: 3px 0;
}
</style>
