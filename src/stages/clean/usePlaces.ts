import { computed, ref, watch, type Ref } from 'vue';
import type { Finding } from '../../core/check/cutCheck.ts';
import type { Find } from '../../core/clean/finds.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { mendOf, withMend } from '../../core/edit/mendFinding.ts';
import { STEP_NAMES, type Step } from '../../core/clean/recipe.ts';
import { sparesFinds, withSpared } from '../../core/edit/spareFinds.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { pinAt, type Pin } from '../../ui/draw/pins.ts';
import { isInSight, type Size, type Viewport } from '../../ui/viewport.ts';
import { findingWords } from '../layout/findingWords.ts';
import { findWords } from './findWords.ts';
import { inSentence, say } from '../../core/words/say.ts';

/** A place to look at: what the open step found, or else what the cut check found. */
export interface Place extends Pin {
  readonly words: string;
  /** Present when the step can leave it alone. */
  readonly find?: Find;
  /** What the cut check found, and by what step it can be mended. */
  readonly finding?: Finding;
  readonly mend?: ReturnType<typeof mendOf>;
}

/** The places to look at on the table of Clean, one of which is chosen; next and previous go around. */
export function usePlaces(step: Ref<Step | undefined>) {
  const bench = useBench();
  const settings = useSettings();
  const chosen = ref<number>();

  const finds = computed(() => (step.value === undefined || !sparesFinds(step.value) ? undefined : bench.result?.clean.steps.find(({ id }) => id === step.value?.id)?.finds));
  const perMm = computed(() => bench.resolutionPxPerMm ?? 1);
  const places = computed<readonly Place[]>(() => {
    if (step.value !== undefined && !sparesFinds(step.value)) return [];
    if (step.value !== undefined) return (finds.value ?? []).map((find) => ({ x: find.xPx, y: find.yPx, hollow: find.spared, words: findWords(find, perMm.value, settings.unit), find }));
    const cut = bench.result?.cut;
    if (cut === undefined) return [];
    return cut.findings.flatMap((finding, k) => (finding.kind === 'coarsePicture' ? [] : [{ x: cut.findingsAt[k].xPx, y: cut.findingsAt[k].yPx, words: findingWords(finding, settings.unit), finding, mend: mendOf(finding.kind) }]));
  });
  watch([() => step.value?.id, () => places.value.length], () => {
    if (chosen.value !== undefined && chosen.value >= places.value.length) chosen.value = undefined;
  });
  watch(() => step.value?.id, () => (chosen.value = undefined));

  /** Chooses the place before or after the chosen one. */
  function go(by: 1 | -1): void {
    const count = places.value.length;
    if (count > 0) chosen.value = chosen.value === undefined ? (by === 1 ? 0 : count - 1) : (chosen.value + by + count) % count;
  }
  /** Leaves a find alone, or no more. */
  function toggleSpared(index: number): void {
    const find = places.value[index]?.find;
    const part = bench.part as TracedPart;
    if (find === undefined || step.value === undefined) return;
    const words = `${STEP_NAMES[step.value.kind]}: ${find.spared ? say('take one again') : say('leave one')}`;
    bench.commitPart(words, { ...part, recipe: withSpared(part.recipe, step.value.id, [find], !find.spared) });
  }
  /** Mends what the cut check found by a step of the recipe. */
  function mend(index: number): void {
    const finding = places.value[index]?.finding;
    const part = bench.part as TracedPart;
    if (finding !== undefined) bench.commitPart(say`Mend: ${inSentence(findingWords(finding).split(':')[0])}`, { ...part, recipe: withMend(part.recipe, finding, perMm.value, crypto.randomUUID()) });
  }
  /** Leaves all finds alone, or none. */
  function spareAll(spared: boolean): void {
    const part = bench.part as TracedPart;
    if (step.value === undefined) return;
    bench.commitPart(`${STEP_NAMES[step.value.kind]}: ${spared ? say('leave all') : say('take all')}`, { ...part, recipe: withSpared(part.recipe, step.value.id, finds.value ?? [], spared) });
  }
  /** Chooses the pin under a screen point. True when there is one. */
  function press(view: Viewport, screenX: number, screenY: number): boolean {
    const at = pinAt(view, places.value, screenX, screenY);
    if (at === undefined) return false;
    chosen.value = at === chosen.value ? undefined : at;
    return true;
  }
  /** Where the table should move so that the chosen place is seen; undefined when it is. */
  function unseen(view: Viewport, size: Size): Place | undefined {
    const place = chosen.value === undefined ? undefined : places.value[chosen.value];
    return place === undefined || isInSight(view, size, place.x, place.y) ? undefined : place;
  }
  return { places, chosen, finds, go, toggleSpared, mend, spareAll, press, unseen };
}
