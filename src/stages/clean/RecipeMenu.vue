<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu, ElMessage, ElMessageBox } from 'element-plus';
import { computed, onMounted, ref } from 'vue';
import { AppError, asAppError } from '../../core/errors/appError.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { basesFirst } from '../../core/edit/carryTurn.ts';
import { readRecipe } from '../../core/job/readJob.ts';
import type { Recipe } from '../../core/clean/recipe.ts';
import { useBench } from '../../stores/bench.ts';
import { asNewSteps, useRecipes } from '../../stores/recipes.ts';
import BatchDialog from '../batch/BatchDialog.vue';
import { download } from '../shared/download.ts';
import { chooseFiles } from '../shared/pickFiles.ts';
import { tellError } from '../shared/tellError.ts';
import { undoNotice } from '../shared/undoNotice.ts';
import { say } from '../../core/words/say.ts';

/** Keeping, reusing and applying recipes, and the way back to the picture as it came. */
const bench = useBench();
const recipes = useRecipes();
const part = computed(() => bench.part as TracedPart);
const hasSteps = computed(() => part.value.recipe.length > 0);
const batchOpen = ref(false);
onMounted(() => safely(recipes.load));

async function safely(work: () => Promise<unknown>): Promise<void> {
  try {
    await work();
  } catch (error) {
    tellError(asAppError(error, 'unexpected'));
  }
}
const use = (label: string, recipe: Recipe): void => bench.commitPart(label, { ...part.value, recipe: basesFirst(recipe) });

const keep = (): Promise<void> =>
  safely(async () => {
    const answer = await ElMessageBox.prompt(say('Name of the recipe; one of the same name is replaced'), say('Save this recipe'), { inputValue: bench.job?.name ?? '', inputPattern: /\S/, inputErrorMessage: say('It needs a name'), confirmButtonText: say('Keep') }).then(({ value }) => value as unknown, () => undefined);
    if (typeof answer !== 'string') return;
    await recipes.keep(answer.trim().slice(0, 120), part.value.recipe);
    ElMessage.success(say`“${answer.trim()}” is kept.`);
  });
const remove = (id: string): Promise<void> =>
  safely(async () => {
    const gone = await recipes.remove(id);
    if (gone !== undefined) undoNotice(say`The recipe “${gone.name}” is gone.`, () => void safely(() => recipes.keep(gone.name, gone.recipe)));
  });
const saveFile = (): void => download(say`${bench.job?.name ?? ''}, recipe.json`, new TextEncoder().encode(`${JSON.stringify(part.value.recipe, null, 2)}\n`), 'application/json');
const openFile = (): Promise<void> =>
  safely(async () => {
    const [file] = await chooseFiles('.json,.limner', false);
    if (file === undefined) return;
    let value: unknown;
    try {
      value = JSON.parse(await file.text());
    } catch (error) {
      throw new AppError('badRecipe', { file: file.name, reason: say('it is not JSON') }, error);
    }
    use(say`Recipe from ${file.name}`, asNewSteps(readRecipe(value, file.name)));
  });

type Command = 'keep' | 'many' | 'save' | 'open' | 'came' | `use:${string}` | `remove:${string}`;
function act(command: Command): void {
  if (command === 'keep') void keep();
  else if (command === 'many') batchOpen.value = true;
  else if (command === 'save') saveFile();
  else if (command === 'open') void openFile();
  else if (command === 'came') use(say('Start over from the original picture'), []);
  else if (command.startsWith('remove:')) void remove(command.slice(7));
  else {
    const kept = recipes.all.find(({ id }) => id === command.slice(4));
    if (kept !== undefined) use(say`Recipe: ${kept.name}`, asNewSteps(kept.recipe));
  }
}
</script>

<template>
  <ElDropdown trigger="click" placement="top-end" :max-height="420" @command="act">
    <button type="button" class="plain-button">Recipes</button>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem command="keep" :disabled="!hasSteps">Save this recipe as…</ElDropdownItem>
        <ElDropdownItem command="many">Apply to many pictures…</ElDropdownItem>
        <ElDropdownItem command="save" :disabled="!hasSteps">Save as a file</ElDropdownItem>
        <ElDropdownItem command="open">Load from a file…</ElDropdownItem>
        <ElDropdownItem command="came" :disabled="!hasSteps">Start over from the original picture</ElDropdownItem>
        <ElDropdownItem v-for="({ id, name, recipe }, k) in recipes.all" :key="id" :command="`use:${id}`" :divided="k === 0">
          <span class="kept"><span>{{ name }}</span><small>{{ recipe.length === 1 ? $say('1 step') : $say`${recipe.length} steps` }}</small></span>
          <button type="button" class="remove" :aria-label="$say`Remove the recipe ${name}`" @click.stop="act(`remove:${id}`)">remove</button>
        </ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
  <BatchDialog v-model="batchOpen" :job="bench.job" :entry-id="bench.entry?.id" />
</template>

<style scoped>
.kept {
  display: flex;
  flex: 1;
  gap: 8px;
  align-items: baseline;
}
small {
  color: var(--ink-soft);
}
.remove {
  margin-left: 16px;
  border: 0;
  background: none;
  color: var(--ink-soft);
  font: inherit;
  font-size: 12px;
  cursor: pointer;
}
.remove:hover,
.remove:focus-visible {
  color: var(--madder-text);
}
</style>
