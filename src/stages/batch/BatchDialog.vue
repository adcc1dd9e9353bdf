<script setup lang="ts">
import { ElCheckbox, ElDialog, ElProgress } from 'element-plus';
import { computed, ref, watch } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { Job } from '../../core/job/job.ts';
import { tracedPart } from '../../core/job/tracedPart.ts';
import { STEP_NAMES, type Recipe } from '../../core/clean/recipe.ts';
import { useBatch, type BatchInput } from '../../stores/batch.ts';
import { useRecipes } from '../../stores/recipes.ts';
import { useShelf } from '../../stores/shelf.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import { chooseFiles } from '../shared/pickFiles.ts';
import { download } from '../shared/download.ts';
import { tellError } from '../shared/tellError.ts';
import { outcomeWords } from './outcomeWords.ts';
import { inSentence, say } from '../../core/words/say.ts';

/** One recipe on many pictures: jobs on the shelf and files. `job` is the one on the bench, whose recipe is offered first. */
const props = defineProps<{ job?: Job | undefined; entryId?: string | undefined }>();
const open = defineModel<boolean>({ required: true });
const shelf = useShelf();
const recipes = useRecipes();
const batch = useBatch();

const OWN = 'own';
const chosen = ref<string>(OWN);
const choices = computed<Record<string, string>>(() => ({
  ...(props.job === undefined || recipeOf(props.job).length === 0 ? {} : { [OWN]: say`the recipe of “${props.job.name}”` }),
  ...Object.fromEntries(recipes.all.map(({ id, name }) => [id, name])),
}));
const recipe = computed<Recipe | undefined>(() => (chosen.value === OWN && props.job !== undefined ? recipeOf(props.job) : recipes.all.find(({ id }) => id === chosen.value)?.recipe));
const recipeOf = (job: Job): Recipe => tracedPart(job).recipe;
const stepNames = computed(() => recipe.value?.map(({ kind }) => inSentence(STEP_NAMES[kind])).join(', ') ?? '');

const jobs = computed(() => shelf.entries.filter(({ id, job }) => job.pictures.length > 0 && id !== props.entryId));
const picked = ref<ReadonlySet<string>>(new Set());
const files = ref<readonly File[]>([]);
function pick(id: string, on: boolean): void {
  const next = new Set(picked.value);
  if (on) next.add(id);
  else next.delete(id);
  picked.value = next;
}
const allPicked = computed(() => jobs.value.length > 0 && jobs.value.every(({ id }) => picked.value.has(id)));
const pickAll = (on: boolean): void => void (picked.value = new Set(on ? jobs.value.map(({ id }) => id) : []));
const inputs = computed<BatchInput[]>(() => [...jobs.value.filter(({ id }) => picked.value.has(id)).map(({ id }) => ({ entryId: id })), ...files.value.map((file) => ({ file }))]);
async function addFiles(): Promise<void> {
  files.value = [...files.value, ...(await chooseFiles())];
}

watch(open, (now) => {
  if (!now) return;
  picked.value = new Set();
  files.value = [];
  if (!recipes.loaded) void recipes.load();
  if (!batch.running) batch.outcomes = [];
  if (!Object.hasOwn(choices.value, chosen.value)) chosen.value = Object.keys(choices.value)[0] ?? OWN;
}, { immediate: true });
watch(choices, (known) => {
  if (!Object.hasOwn(known, chosen.value)) chosen.value = Object.keys(known)[0] ?? OWN;
});

const zipping = ref<number>();
async function safely(work: () => Promise<unknown>): Promise<void> {
  try {
    await work();
  } catch (error) {
    tellError(asAppError(error, 'unexpected'));
  }
}
const start = (): Promise<void> => safely(() => batch.run(recipe.value ?? [], inputs.value, props.job));
const saveAll = (): Promise<void> =>
  safely(async () => {
    zipping.value = 0;
    try {
      download(say('cut files.zip'), await batch.files((share) => (zipping.value = share)), 'application/zip');
    } finally {
      zipping.value = undefined;
    }
  });
const done = computed(() => !batch.running && batch.outcomes.length > 0);
const good = computed(() => batch.outcomes.filter(({ error, noCut }) => error === undefined && noCut === undefined).length);
</script>

<template>
  <ElDialog v-model="open" title="Apply a recipe to many pictures" width="640px" align-center :close-on-click-modal="false">
    <template v-if="!batch.running && !done">
      <template v-if="Object.keys(choices).length > 0">
        <ChoiceInput :model-value="chosen" :choices="choices" label="Recipe" @choose="chosen = $event" />
        <p class="soft">{{ stepNames }}</p>
        <div class="row">
          <ElCheckbox :model-value="allPicked" :disabled="jobs.length === 0" @change="pickAll($event === true)">All {{ jobs.length }} jobs on the shelf</ElCheckbox>
          <button type="button" class="plain-button" @click="addFiles">Add picture files</button>
        </div>
        <ul class="pictures" aria-label="Pictures">
          <li v-for="file in files" :key="file.name"><span>{{ file.name }}</span><small>becomes a new job{{ job === undefined ? '' : $say` like “${job.name}”` }}</small></li>
          <li v-for="entry in jobs" :key="entry.id">
            <ElCheckbox :model-value="picked.has(entry.id)" @change="pick(entry.id, $event === true)">{{ entry.job.name }}</ElCheckbox>
            <small>{{ recipeOf(entry.job).length === 0 ? $say('no recipe yet') : $say('its recipe is replaced') }}</small>
          </li>
        </ul>
        <p class="soft">Steps that point at a place, such as an area lift or a brush stroke, point at the same place in every picture.</p>
      </template>
      <p v-else>There is no recipe yet. Clean one picture, then keep its recipe under a name or come back here from it.</p>
    </template>
    <template v-else>
      <ElProgress :percentage="Math.round(batch.share * 100)" color="var(--madder)" />
      <ul class="pictures" aria-label="Outcomes" aria-live="polite">
        <li v-for="(outcome, k) in batch.outcomes" :key="k" :class="{ bad: outcome.error !== undefined || outcome.noCut !== undefined }">
          <span>{{ outcome.name }}</span><small>{{ outcomeWords(outcome, recipe ?? []) }}</small>
        </li>
      </ul>
      <p v-if="done" class="soft">{{ good }} of {{ batch.outcomes.length }} ready to cut. Every job is on the shelf{{ batch.outcomes.some(({ error }) => error !== undefined) ? $say(', but for those that could not be read') : '' }}.</p>
    </template>
    <template #footer>
      <template v-if="batch.running"><button type="button" class="plain-button" @click="batch.stop">Stop after this one</button></template>
      <template v-else-if="done">
        <button type="button" class="plain-button" @click="safely(batch.putBack)">Undo the whole batch</button>
        <button type="button" class="plain-button" :disabled="good === 0 || zipping !== undefined" @click="saveAll">{{ zipping === undefined ? $say('Save all cut files') : `${Math.round(zipping * 100)} %` }}</button>
        <button type="button" class="plain-button main" @click="open = false">Done</button>
      </template>
      <template v-else>
        <button type="button" class="plain-button" @click="open = false">{{ recipe === undefined ? $say('Close') : $say('Not now') }}</button>
        <button v-if="recipe !== undefined" type="button" class="plain-button main" :disabled="inputs.length === 0" @click="start">{{ inputs.length === 0 ? $say('Choose pictures') : inputs.length === 1 ? $say('Apply to 1 picture') : $say`Apply to ${inputs.length} pictures` }}</button>
      </template>
    </template>
  </ElDialog>
</template>

<style scoped>
.soft,
small {
  color: var(--ink-soft);
  font-size: 12.5px;
}
.row,
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
}
.pictures {
  max-height: 300px;
  margin: 8px 0;
  padding: 0;
  overflow-y: auto;
  border-top: 1px solid var(--rule);
  list-style: none;
}
li {
  min-height: 30px;
  border-bottom: 1px solid var(--rule);
}
.bad small {
  color: var(--ochre-text);
}
.plain-button + .plain-button {
  margin-left: 8px;
}
</style>
