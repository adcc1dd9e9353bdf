<script setup lang="ts">
import { ElCheckbox, ElOption, ElSelect } from 'element-plus';
import { computed, onMounted, ref, shallowRef, type Component } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { Job } from '../../core/job/job.ts';
import { cutsWell, fontNamed, MANNER_WORDS, SHIPPED_FONTS, type Manner } from '../../core/lettering/fonts.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { dropOwnFont, keepOwnFont, ownFont, ownFontNames } from '../../formats/fonts/ownFonts.ts';
import { FONT_ADDRESSES } from '../../engine/fontAddresses.ts';
import { useBench } from '../../stores/bench.ts';
import { useServices } from '../../stores/services.ts';
import { useSettings } from '../../stores/settings.ts';
import ChoiceInput from '../../ui/ChoiceInput.vue';
import { chooseFiles } from '../shared/pickFiles.ts';
import { tellError } from '../shared/tellError.ts';
import { say } from '../../core/words/say.ts';

/** The fonts, each in the words that are typed: by manner, by whether they cut well at this height, and those that were brought in. */
const props = defineProps<{ font: string; text: string; capitalMm: number }>();
const emit = defineEmits<{ choose: [font: string] }>();
/** As any component: its declared types take its value and label for prop definitions. */
const FontOption = ElOption as Component;
const bench = useBench();
const settings = useSettings();
const { engine } = useServices();

type Group = Manner | 'all' | 'own';
const manner = ref<Group>('all');
const MANNER_NAMES = { all: say('every manner'), ...MANNER_WORDS, own: say('brought in') };
const onlyGood = ref(false);
const own = shallowRef<readonly string[]>([]);
onMounted(async () => (own.value = await ownFontNames().catch(() => [])));

const limitMm = computed(() => PROCESSES[(bench.job as Job).process].leastStripMm);
interface Row {
  readonly name: string;
  readonly label: string;
  /** Why it will not cut at this height. */
  readonly tooThin: string | undefined;
}
const rows = computed((): Row[] => {
  const shipped = SHIPPED_FONTS.filter((each) => manner.value === 'all' || each.manner === manner.value).map((each): Row => ({
    name: each.name,
    label: `${each.name}, ${MANNER_WORDS[each.manner]}`,
    tooThin: cutsWell(each, props.capitalMm, limitMm.value) ? undefined : say`thinnest ${formatLength(mm(each.thinnest * props.capitalMm), settings.unit)}`,
  }));
  const mine = manner.value === 'all' || manner.value === 'own' ? own.value.map((name): Row => ({ name, label: say`${name}, brought in`, tooThin: undefined })) : [];
  const all = [...mine, ...shipped].filter(({ tooThin, name }) => !onlyGood.value || tooThin === undefined || name === props.font);
  // The font in use is always one of them, also when its file is on another computer.
  return all.some(({ name }) => name === props.font) ? all : [{ name: props.font, label: props.font, tooThin: undefined }, ...all];
});
/** What stands in each line: the first words, or the name where nothing is written yet. */
const sample = computed(() => props.text.trim().split('\n')[0].slice(0, 14) || say('Regatta'));

/** Fonts that the page has loaded to show them, by what it calls them. */
const loaded = ref(new Set<string>());
const cssName = (name: string): string => `limner ${name}`;
let isLoading = false;
async function showFonts(isOpen: boolean): Promise<void> {
  if (!isOpen || isLoading) return;
  isLoading = true;
  for (const { name } of rows.value) {
    if (loaded.value.has(name)) continue;
    const source = await sourceOf(name).catch(() => undefined);
    if (source === undefined) continue;
    const face = await new FontFace(cssName(name), source).load().catch(() => undefined);
    if (face === undefined) continue;
    document.fonts.add(face);
    loaded.value = new Set([...loaded.value, name]);
  }
  isLoading = false;
}
async function sourceOf(name: string): Promise<string | ArrayBuffer | undefined> {
  const shipped = fontNamed(name);
  if (shipped !== undefined) return `url(${JSON.stringify((await FONT_ADDRESSES[shipped.name]()).default)})`;
  return (await ownFont(name))?.buffer;
}

async function bringIn(): Promise<void> {
  const [file] = await chooseFiles('.ttf,.otf,.woff,.woff2,font/ttf,font/otf,font/woff,font/woff2', false);
  if (file === undefined) return;
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const plain = await engine.fontName(bytes.slice(), file.name);
    const name = fontNamed(plain) === undefined ? plain.slice(0, 80) : say`${plain} (own)`.slice(0, 80);
    await keepOwnFont(name, bytes);
    own.value = await ownFontNames();
    emit('choose', name);
  } catch (error) {
    tellError(asAppError(error, 'badFont'));
  }
}
async function drop(): Promise<void> {
  await dropOwnFont(props.font);
  own.value = await ownFontNames();
}
</script>

<template>
  <label class="row">
    <span>Font</span>
    <ElSelect class="fonts" filterable :model-value="font" aria-label="Font" popper-class="font-chooser" @visible-change="showFonts" @change="emit('choose', $event as string)">
      <component :is="FontOption" v-for="{ name, label, tooThin } in rows" :key="name" :value="name" :label="label">
        <span class="line" :class="{ thin: tooThin !== undefined }">
          <span class="sample" aria-hidden="true" :style="{ fontFamily: loaded.has(name) ? `'${cssName(name)}'` : 'inherit' }">{{ sample }}</span>
          <small>{{ label }}{{ tooThin === undefined ? '' : `: ${tooThin}` }}</small>
        </span>
      </component>
    </ElSelect>
  </label>
  <label class="row"><span>Manner</span><ChoiceInput label="Manner" small :choices="MANNER_NAMES" :model-value="manner" @choose="manner = $event" /></label>
  <div class="row">
    <ElCheckbox v-model="onlyGood">Only those that cut well</ElCheckbox>
    <button v-if="own.includes(font)" type="button" class="plain-button" @click="drop">Forget it</button>
    <button v-else type="button" class="plain-button" @click="bringIn">Own font</button>
  </div>
</template>

<style>
/* The list floats outside this component. */
.font-chooser {
  min-width: 380px;
}
.font-chooser .el-select-dropdown__item {
  height: 38px;
  line-height: 38px;
}
</style>

<style scoped src="../shared/rows.css" />

<style scoped>
/* Its words may take two lines. */
.row :deep(.el-checkbox) {
  height: auto;
  margin-right: 0;
  white-space: normal;
}
.fonts {
  width: 168px;
}
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
}
.sample {
  max-width: 190px;
  overflow: hidden;
  font-size: 20px;
  white-space: nowrap;
}
.thin {
  opacity: 0.55;
}
small {
  color: var(--ink-soft);
}
</style>
