<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus';
import { STEP_KINDS, STEP_NAMES, type StepKindName } from '../../core/clean/recipe.ts';
import { STEP_GROUPS } from './stepGroups.ts';
import { STEP_ICONS } from './stepIcons.ts';

const emit = defineEmits<{ choose: [kind: StepKindName] }>();
</script>

<template>
  <ElDropdown trigger="click" placement="top-end" popper-class="step-chooser" @command="emit('choose', $event as StepKindName)">
    <button type="button" class="plain-button main">Add a step</button>
    <template #dropdown>
      <ElDropdownMenu>
        <div v-for="group in STEP_GROUPS" :key="group.name" class="group">
          <h3>{{ group.name }}</h3>
          <ElDropdownItem v-for="kind in group.kinds" :key="kind" :command="kind">
            <component :is="STEP_ICONS[kind]" class="icon" />
            <span><b>{{ STEP_NAMES[kind] }}</b><br /><small>{{ STEP_KINDS[kind].about }}</small></span>
          </ElDropdownItem>
        </div>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style>
/* The chooser floats outside this component. */
.step-chooser .el-dropdown-menu {
  columns: 3;
  column-gap: 0;
  width: 860px;
  max-width: calc(100vw - 24px);
  max-height: calc(100vh - 90px);
  overflow-y: auto;
  padding: 10px 6px;
}
.step-chooser .el-dropdown-menu__item {
  align-items: flex-start;
  padding: 5px 12px;
  white-space: normal;
  line-height: 1.3;
}
</style>

<style scoped>
.group:nth-child(odd):not(:first-child) {
  break-before: column;
}
.group {
  break-inside: avoid;
  padding-bottom: 8px;
}
h3 {
  margin: 2px 12px 4px;
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-soft);
}
.icon {
  flex: none;
  width: 17px;
  margin: 2px 12px 0 0;
}
small {
  color: var(--ink-soft);
}
</style>
